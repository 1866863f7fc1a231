// Register maps: read and written equal, what is wrong said by line, values there and back.
#include "core/job/field_path.h"
#include "files/job_file.h"
#include "link/as_found.h"
#include "link/map_file.h"

#include <gtest/gtest.h>
#include <rapidcheck.h>

#include <cmath>

namespace vernal {
namespace {

std::string with(std::string text, const std::string& what, const std::string& by)
{
    const std::size_t at = text.find(what);
    EXPECT_NE(at, std::string::npos) << what;
    return at == std::string::npos ? text : text.replace(at, what.size(), by);
}

std::string small_map()
{
    return R"({
  "format": "vrelay-map",
  "version": 1,
  "name": "A unit",
  "registers": [
    {"is": "reading", "of": "S1", "table": "input", "address": 0, "type": "int16", "scale": 0.1, "unit": "°C"},
    {"is": "mode", "of": "P1", "table": "holding", "address": 7, "type": "uint16", "off": 0, "automatic": 1, "on": 2},
    {"is": "setting", "rule": "differential", "field": "on_k", "table": "holding", "address": 20, "type": "int32", "scale": 0.5, "unit": "K", "low": 2, "high": 20},
    {"is": "in_use", "rule": "differential", "table": "coil", "address": 20, "type": "bit"}
  ],
  "log": {"table": "input", "address": 100, "rows": 10, "row_words": 2, "count_address": 98, "sequence_address": 99, "every_s": 60, "columns": [
    {"is": "reading", "of": "S1", "table": "input", "address": 0, "type": "int16", "scale": 0.1, "unit": "°C"}]}
})";
}

// What the words of a raw number say, in an image.
WireImage holding(const RegisterMap& map, const MapRegister& r, double raw)
{
    WireImage image;
    const auto words = words_for(r.type, raw, map.low_word_first);
    EXPECT_TRUE(words);
    for (std::size_t i = 0; words && i < words->size(); ++i)
        image.put(r.table, r.address + static_cast<int>(i), (*words)[i]);
    return image;
}

} // namespace

TEST(RegisterMap, is_read_and_written_equal)
{
    const auto map = read_register_map(small_map(), "a.map.json");
    ASSERT_TRUE(map) << map.error().text();
    const auto again = read_register_map(write_register_map(*map), "again");
    ASSERT_TRUE(again) << again.error().text();
    EXPECT_EQ(*again, *map);
    EXPECT_EQ(map_file_name(*map), "a-unit.map.json");
}

// What the program lays out itself passes its own check and reads back equal, on every loop.
TEST(RegisterMap, fresh_ones_pass_on_every_loop)
{
    for (const Arrangement& a : presets()) {
        const Job job = new_job(a.key);
        const RegisterMap map = fresh_map(job.variants.front());
        const auto problem = map_problem(map);
        EXPECT_FALSE(problem) << a.key << ": " << problem->at << " " << problem->what;
        const auto again = read_register_map(write_register_map(map), a.key);
        ASSERT_TRUE(again) << again.error().text();
        EXPECT_EQ(*again, map) << a.key;
        EXPECT_FALSE(map.registers.empty());
    }
}

TEST(RegisterMap, says_what_is_wrong_and_on_which_line)
{
    struct Slip {
        const char *what, *by, *line, *said;
    };
    const std::array slips{
        Slip{"\"of\": \"S1\", \"table\": \"input\", \"address\": 0", "\"table\": \"input\", \"address\": 0", "line 6", "which probe"},
        Slip{"\"type\": \"int16\", \"scale\": 0.1, \"unit\": \"°C\"},\n", "\"type\": \"bit\", \"scale\": 0.1, \"unit\": \"°C\"},\n", "line 6", "is no bit"},
        Slip{"\"unit\": \"K\"", "\"unit\": \"°X\"", "line 8", "no unit"},
        Slip{"\"on\": 2", "\"on\": 1", "line 7", "same number"},
        Slip{"\"field\": \"on_k\"", "\"field\": \"start\"", "line 8", "no number of this rule"},
        Slip{"\"rule\": \"differential\", \"field\"", "\"rule\": \"difference\", \"field\"", "line 8", "no kind of rule"},
        Slip{"\"high\": 20", "\"high\": 1", "line 8", "empty"},
        Slip{"\"scale\": 0.5", "\"scale\": 0", "line 8", "scale is 0"},
        Slip{"\"address\": 20, \"type\": \"int32\"", "\"address\": 6, \"type\": \"int32\"", "line 8", "another register stands there"},
        Slip{"\"address\": 7", "\"address\": 65536", "line 7", "whole number"},
        Slip{"\"address\": 20, \"type\": \"int32\"", "\"address\": 65535, \"type\": \"int32\"", "line 8", "beyond"},
        Slip{"\"table\": \"coil\", \"address\": 20, \"type\": \"bit\"", "\"table\": \"coil\", \"address\": 20, \"type\": \"bit\", \"scal\": 2", "line 9", "not known"},
        Slip{"\"rows\": 10", "\"rows\": 65000", "line 11", "beyond"},
        Slip{"\"count_address\": 98", "\"count_address\": 101", "line 11", "within the rows"},
        Slip{"\"name\": \"A unit\",", "", "line 1", "no name"},
        Slip{"\"version\": 1", "\"version\": 2", "line 3", "newer"}};
    for (const Slip& s : slips) {
        const auto map = read_register_map(with(small_map(), s.what, s.by), "a.map.json");
        ASSERT_FALSE(map) << s.by;
        const std::string text = map.error().text();
        EXPECT_NE(text.find("a.map.json"), std::string::npos) << text;
        EXPECT_NE(text.find(s.line), std::string::npos) << s.by << ": " << text;
        EXPECT_NE(text.find(s.said), std::string::npos) << s.by << ": " << text;
    }
}

TEST(RegisterMap, words_hold_every_number_of_their_type)
{
    EXPECT_TRUE(rc::check([] {
        const auto type = static_cast<WordType>(*rc::gen::inRange(1, 5));
        const bool low_first = *rc::gen::arbitrary<bool>();
        const auto any = *rc::gen::arbitrary<std::uint32_t>();
        const double raw = type == WordType::int16 ? static_cast<double>(static_cast<std::int16_t>(any)) : type == WordType::uint16 ? static_cast<double>(static_cast<std::uint16_t>(any))
                                                                                                       : type == WordType::int32    ? static_cast<double>(static_cast<std::int32_t>(any))
                                                                                                                                    : static_cast<double>(any);
        const auto words = words_for(type, raw, low_first);
        RC_ASSERT(static_cast<bool>(words));
        RC_ASSERT(raw_of(type, *words, low_first) == raw);
    }));
    EXPECT_EQ(*words_for(WordType::float32, 1.0, false), (std::vector<std::uint16_t>{0x3F80, 0x0000})) << "IEEE 754-2008, binary32 of 1";
    EXPECT_EQ(*words_for(WordType::int32, -2, true), (std::vector<std::uint16_t>{0xFFFE, 0xFFFF}));
    EXPECT_FALSE(words_for(WordType::int16, 32768, false));
    EXPECT_FALSE(words_for(WordType::uint16, -1, false));
    EXPECT_FALSE(words_for(WordType::uint16, 1.5, false));
    EXPECT_FALSE(words_for(WordType::float32, NAN, false));
}

// By hand: 6.5 K in steps of half a kelvin is 13; 45 °F in tenths above a zero of −40.
TEST(RegisterMap, values_go_there_and_back)
{
    const auto map = read_register_map(small_map(), "a.map.json");
    ASSERT_TRUE(map);
    const MapRegister& start = map->registers[2];
    EXPECT_EQ(*raw_for(start, 6.5, Quantity::difference), 13);
    EXPECT_EQ(*raw_for(start, 6.6, Quantity::difference), 13);
    EXPECT_FALSE(raw_for(start, 20.5, Quantity::difference)) << "beyond what the map allows";
    EXPECT_FALSE(raw_for(start, NAN, Quantity::difference));
    EXPECT_DOUBLE_EQ(value_of(*map, start, holding(*map, start, 13), Quantity::difference), 6.5);
    MapRegister f = map->registers[0];
    f.unit = "°F";
    f.offset = -40;
    EXPECT_EQ(*raw_for(f, (45 - 32) / 1.8, Quantity::temperature), 850);
    EXPECT_NEAR(value_of(*map, f, holding(*map, f, 850), Quantity::temperature), (45 - 32) / 1.8, 1e-9);
    f.has_none = true;
    f.none = -32768;
    EXPECT_TRUE(std::isnan(value_of(*map, f, holding(*map, f, -32768), Quantity::temperature))) << "no reading";
    EXPECT_TRUE(std::isnan(value_of(*map, f, {}, Quantity::temperature))) << "not read";
}

TEST(RegisterMap, blocks_read_what_stands_side_by_side_and_nothing_else)
{
    const auto map = read_register_map(small_map(), "a.map.json");
    ASSERT_TRUE(map);
    EXPECT_EQ(setting_blocks(*map), (std::vector<WireBlock>{{Table::coil, 20, 1}, {Table::holding, 20, 2}}));
    EXPECT_EQ(live_blocks(*map), (std::vector<WireBlock>{{Table::input, 0, 1}, {Table::holding, 7, 1}}));
    std::vector<MapRegister> many(300);
    for (std::size_t i = 0; i < many.size(); ++i)
        many[i].address = static_cast<int>(i);
    const auto blocks = blocks_of(many);
    ASSERT_EQ(blocks.size(), 3U);
    EXPECT_EQ(blocks[0].count + blocks[1].count + blocks[2].count, 300);
    EXPECT_EQ(blocks[0].count, 125);
}

class AsFoundOf : public ::testing::Test {
protected:
    Job job = new_job("glycol-coil");
    RegisterMap map = fresh_map(job.variants.front());
    // As a unit set like this variant would answer.
    WireImage image_of(const Job& j) const
    {
        WireImage image;
        for (const MapRegister& r : map.registers)
            if (const std::string path = setting_path(r, j.variants.front()); !path.empty()) {
                const auto s = setting_at(j, 0, path);
                EXPECT_TRUE(s) << path;
                const double raw = r.is == RegisterIs::mode     ? (s->value == "OFF" ? 0 : s->value == "ON" ? 2
                                                                                                            : 1)
                                   : r.is == RegisterIs::in_use ? s->value == "true"
                                                                : *raw_for(r, std::stod(s->value), s->quantity);
                const WireImage one = holding(map, r, raw);
                for (int a = r.address; a < end_of(r); ++a)
                    image.put(r.table, a, *one.at(r.table, a));
            }
        return image;
    }
    std::string path_of(const std::string& rule, const std::string& field) const
    {
        for (const Rule& r : job.variants.front().unit.rules)
            if (rule == kind_of(r).key)
                return "rule/" + r.id + "/" + field;
        return "";
    }
};

TEST_F(AsFoundOf, a_unit_set_alike_is_the_variant_and_differs_in_nothing)
{
    const auto found = as_found(map, image_of(job), job, 0);
    EXPECT_EQ(found.variant, job.variants.front());
    EXPECT_TRUE(found.left.empty());
    EXPECT_TRUE(wire_differences(map, image_of(job), job, 0, {}).empty());
}

TEST_F(AsFoundOf, what_is_set_otherwise_is_found_and_told)
{
    Job unit = job;
    ASSERT_TRUE(set_setting(unit, 0, path_of("differential", "on_k"), "11.5"));
    ASSERT_TRUE(set_setting(unit, 0, path_of("store_limit", "enabled"), "false"));
    ASSERT_TRUE(set_setting(unit, 0, "output/P1/mode", "ON"));
    const WireImage image = image_of(unit);
    const auto found = as_found(map, image, job, 0);
    EXPECT_EQ(found.variant, unit.variants.front());
    const auto differences = wire_differences(map, image, job, 0, {});
    ASSERT_EQ(differences.size(), 3U);
    std::string all;
    for (const WireDifference& d : differences) {
        all += d.sentence + "\n";
        ASSERT_TRUE(d.write) << d.sentence;
        EXPECT_NE(d.write->from, d.write->to);
    }
    EXPECT_NE(all.find("the unit has 11.5"), std::string::npos) << all;
    EXPECT_NE(all.find("the unit has not in use, the job in use"), std::string::npos) << all;
    EXPECT_NE(all.find("Switch of P1: the unit has ON, the job AUTO"), std::string::npos) << all;
}

// A step too coarse for the job's value is no difference where the unit holds the nearest.
TEST_F(AsFoundOf, the_nearest_step_counts_as_set)
{
    for (MapRegister& r : map.registers)
        if (r.field == "on_k") {
            r.scale = 1;
            r.low = r.high = 0;
        }
    ASSERT_TRUE(set_setting(job, 0, path_of("differential", "on_k"), "6.3"));
    EXPECT_TRUE(wire_differences(map, image_of(job), job, 0, {}).empty());
    EXPECT_EQ(as_found(map, image_of(job), job, 0).variant, job.variants.front());
}

TEST_F(AsFoundOf, what_cannot_be_taken_over_is_said)
{
    WireImage image = image_of(job);
    for (const MapRegister& r : map.registers)
        if (r.is == RegisterIs::mode)
            image.put(r.table, r.address, 9);
    const auto found = as_found(map, image, job, 0);
    ASSERT_FALSE(found.left.empty());
    EXPECT_NE(found.left.front().find("none of its positions"), std::string::npos) << found.left.front();
    EXPECT_EQ(found.variant, job.variants.front());
    for (const std::string& s : as_found(map, {}, job, 0).left)
        EXPECT_NE(s.find("was not read"), std::string::npos) << s;
}

TEST_F(AsFoundOf, outputs_off_are_the_switches_alone)
{
    const auto off = all_to(map, image_of(job), Mode::off);
    ASSERT_EQ(off.size(), job.variants.front().unit.outputs.size());
    for (const WireWrite& w : off)
        EXPECT_EQ(map.registers[w.at].is, RegisterIs::mode);
    EXPECT_NE(off.front().text.find("AUTO → OFF"), std::string::npos) << off.front().text;
    EXPECT_TRUE(all_to(map, image_of(job), Mode::automatic).empty()) << "they stand so";
    EXPECT_FALSE(mode_write(map, {}, "P9", Mode::off));
}

} // namespace vernal
