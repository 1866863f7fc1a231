// Units by their sheets: read and written, wiring, keys, presets, lamps, one in another's place.
#include "cli/program.h"
#include "core/unit/unit_lists.h"
#include "files/job_file.h"
#include "files/json_lines.h"
#include "files/unit_file.h"

#include <gtest/gtest.h>
#include <rapidcheck.h>

#include <cmath>
#include <filesystem>
#include <fstream>
#include <map>
#include <sstream>

namespace vernal {
namespace {

const UnitSheet& north() { return example_sheets()[0]; }
const UnitSheet& south() { return example_sheets()[1]; }

const KeyLine* line_of(const std::vector<KeyLine>& all, const std::string& name)
{
    for (const KeyLine& l : all)
        if (l.name == name)
            return &l;
    return nullptr;
}

std::string goes_to(const std::vector<WiringLine>& all, const std::string& terminal)
{
    for (const WiringLine& l : all)
        if (l.terminal == terminal)
            return l.goes;
    return "no such terminal";
}

template <class R>
R& rule(Variant& v)
{
    for (Rule& r : v.unit.rules)
        if (auto* body = std::get_if<R>(&r.body))
            return *body;
    throw std::runtime_error("no such rule");
}

} // namespace

TEST(UnitSheet, examples_are_read_and_written_equal)
{
    ASSERT_EQ(example_sheets().size(), 2U);
    for (const UnitSheet& s : example_sheets()) {
        const auto again = read_unit_sheet(write_unit_sheet(s), "again");
        ASSERT_TRUE(again) << again.error().text();
        EXPECT_EQ(*again, s);
        EXPECT_FALSE(sheet_problem(s));
    }
    EXPECT_EQ(sheet_file_name(north()), "example-unit-north.unit.json");
}

TEST(UnitSheet, what_is_wrong_says_its_line_and_what_is_expected)
{
    const std::string whole = write_unit_sheet(north());
    const auto with = [&](const std::string& from, const std::string& to) {
        std::string out = whole;
        const auto at = out.find(from);
        EXPECT_NE(at, std::string::npos) << from;
        return at == std::string::npos ? out : out.replace(at, from.size(), to);
    };
    for (const auto& [text, what] : std::map<std::string, std::string>{
             {with("\"rule\": \"differential\"", "\"rule\": \"differentail\""), "is no kind of rule"},
             {with("\"field\": \"on_k\"", "\"field\": \"on\""), "One of on_k, off_k"},
             {with("\"unit\": \"K\"", "\"unit\": \"bar\""), "is no unit of"},
             {with("\"low\": 2.0", "\"low\": 200.0"), "range is empty"},
             {with("\"role\": \"pump\"", "\"role\": \"pmup\""), "is no role"},
             {with("\"label\": \"3 4\"", "\"label\": \"1 2\""), "there twice"},
             {with("\"terminal\": \"5 6\"", "\"terminal\": \"55\""), "no terminal “55”"},
             {with("\"preset\": 9.0", "\"preset\": 900.0"), "outside of its range"},
             {with("\"is\": \"shield\"", "\"is\": \"shiled\""), "Use probe"},
             {with("\"name\"", "\"nane\""), "not known"},
             {whole.substr(0, 300), "line"},
             {"{}", "format"}}) {
        const auto s = read_unit_sheet(text, "own.unit.json");
        ASSERT_FALSE(s) << what;
        EXPECT_NE(s.error().text().find(what), std::string::npos) << s.error().text();
        EXPECT_NE(s.error().text().find("own.unit.json"), std::string::npos);
    }
    const auto s = read_unit_sheet(with("\"unit\": \"K\"", "\"unit\": \"bar\""), "own.unit.json");
    const std::size_t line = static_cast<std::size_t>(std::count(whole.begin(), whole.begin() + static_cast<std::ptrdiff_t>(whole.find("\"unit\": \"K\"")), '\n')) + 1;
    EXPECT_NE(s.error().text().find("line " + std::to_string(line) + ","), std::string::npos) << s.error().text();
}

TEST(UnitSheet, a_path_is_found_on_its_line)
{
    const std::string text = "{\n \"a\": 1,\n \"list\": [\n  {\"x\": 1},\n  {\"x\": 2,\n   \"y\": [3,\n 4]}\n ]\n}\n";
    EXPECT_EQ(json_line(text, "a"), 2U);
    EXPECT_EQ(json_line(text, "list"), 3U);
    EXPECT_EQ(json_line(text, "list[1].x"), 5U);
    EXPECT_EQ(json_line(text, "list[1].y[1]"), 7U);
    EXPECT_EQ(json_line(text, "list[1].z"), 5U) << "what should hold it";
    EXPECT_EQ(json_line("{", "a"), 1U);
}

TEST(UnitSheet, the_arrangement_that_fits_is_found_and_what_it_lacks_is_said)
{
    const auto number = [](const Job& j) {
        const SheetFit f = fit_of(north(), j.variants.front());
        return f.fits() ? north().arrangements[static_cast<std::size_t>(f.arrangement)].number : std::string("none");
    };
    EXPECT_EQ(number(new_job("glycol-coil")), "1");
    EXPECT_EQ(number(new_job("two-stores")), "3");
    EXPECT_EQ(number(new_job("dump")), "4");
    EXPECT_EQ(number(new_job("two-arrays")), "none");
    const SheetFit two = fit_of(north(), new_job("two-arrays").variants.front());
    ASSERT_FALSE(two.missing.empty());
    const auto keys = key_list(north(), new_job("two-arrays"), 0);
    EXPECT_EQ(keys[1].is, KeyIs::lacking);
    EXPECT_NE(keys[1].note.find(two.missing.front()), std::string::npos);
}

TEST(UnitSheet, wires_go_where_the_arrangement_has_them)
{
    const Job job = new_job("glycol-coil");
    const auto lines = wiring_list(north(), job.variants.front());
    EXPECT_EQ(goes_to(lines, "1 2"), "S1 Collector");
    EXPECT_EQ(goes_to(lines, "3 4"), "S2 Tank bottom");
    EXPECT_EQ(goes_to(lines, "13 14"), "P1 Loop pump");
    EXPECT_EQ(goes_to(lines, "15 16"), "");
    const Job two = new_job(preset_answers("glycol-coil"), 2);
    EXPECT_EQ(goes_to(wiring_list(south(), two.variants.front()), "P+ P−"), "P1 Loop pump");
    for (const WiringLine& l : wiring_list(south(), two.variants.front()))
        if (l.goes == "P1 Loop pump") {
            EXPECT_NE(l.note.find("the plus stays on the load"), std::string::npos);
        }
}

TEST(UnitSheet, keys_begin_with_the_units_of_measure_and_step_as_the_unit_does)
{
    Job job = new_job("glycol-coil");
    Variant& v = job.variants.front();
    rule<Differential>(v).on = TempDiff::kelvin(7.3);
    rule<Differential>(v).off = TempDiff::kelvin(3);
    rule<StoreLimit>(v).limit = Temperature::celsius(95);
    const auto keys = key_list(north(), job, 0);
    EXPECT_EQ(keys[0].is, KeyIs::scale);
    EXPECT_EQ(keys[1].is, KeyIs::arrangement);
    const KeyLine* start = line_of(keys, "Start");
    ASSERT_TRUE(start);
    EXPECT_EQ(start->is, KeyIs::nearest);
    EXPECT_EQ(start->set, "7.5 K");
    EXPECT_EQ(start->wanted, "7.3 K");
    EXPECT_EQ(line_of(keys, "Stop")->is, KeyIs::exact);
    const KeyLine* limit = line_of(keys, "Store at most");
    ASSERT_TRUE(limit);
    EXPECT_EQ(limit->set, "90 °C");
    EXPECT_NE(limit->note.find("from 20 °C to 90 °C"), std::string::npos) << limit->note;
    const Variant on = as_set(north(), job, 0);
    EXPECT_NEAR(rule<Differential>(const_cast<Variant&>(on)).on.in_kelvin(), 7.5, 1e-9);
    EXPECT_NEAR(rule<StoreLimit>(const_cast<Variant&>(on)).limit.in_celsius(), 90, 1e-9);
    Job settled = job;
    settled.variants.front() = on;
    for (const KeyLine& l : key_list(north(), settled, 0))
        EXPECT_NE(l.is, KeyIs::nearest) << l.name << ": what the unit was set to is set exactly";
}

TEST(UnitSheet, a_limit_that_cannot_be_set_goes_to_the_safe_side)
{
    Job job = new_job("direct");
    Variant& v = job.variants.front();
    rule<StoreLimit>(v).limit = Temperature::celsius(73); // 163.4 °F of 140, 165, 190
    EXPECT_EQ(line_of(key_list(south(), job, 0), "Limit")->set, "140 °F") << "the store gets no hotter than asked";
    UnitSheet frost = north();
    for (SheetSetting& s : frost.settings)
        if (s.rule == "freeze")
            s.step = 3; // 1, 4, 7, 10
    LoopAnswers full = preset_answers("direct");
    full.empties = Empties::full;
    Job wet = new_job(full);
    rule<Freeze>(wet.variants.front()).limit = Temperature::celsius(5);
    EXPECT_EQ(line_of(key_list(frost, wet, 0), "Frost from")->set, "7 °C") << "it begins no later than asked";
}

TEST(UnitSheet, a_difference_is_never_converted_as_a_temperature)
{
    Job job = new_job("pv-battery");
    rule<Differential>(job.variants.front()).on = TempDiff::kelvin(10);
    rule<StoreLimit>(job.variants.front()).limit = Temperature::celsius(60);
    const auto keys = key_list(south(), job, 0);
    EXPECT_EQ(line_of(keys, "Dial")->set, "18 °F") << "10 K are 18 °F of difference";
    EXPECT_EQ(line_of(keys, "Limit")->set, "140 °F") << "60 °C are 140 °F";
    EXPECT_EQ(keys[0].set, "°F");
    const auto either = key_list(north(), job, 0, true);
    EXPECT_EQ(line_of(either, "Start")->set, "18 °F");
    EXPECT_EQ(line_of(either, "Store at most")->set, "140 °F");
}

TEST(UnitSheet, what_the_unit_lacks_is_out_of_use_on_it)
{
    Job job = new_job("glycol-coil");
    Variant& v = job.variants.front();
    const auto keys = key_list(south(), job, 0);
    int lacking = 0, fixed = 0;
    for (const KeyLine& l : keys) {
        lacking += l.is == KeyIs::lacking && !l.at.empty();
        fixed += l.is == KeyIs::no_such_setting;
    }
    EXPECT_GT(lacking, 0) << "a cut-out of the collector";
    EXPECT_GT(fixed, 0) << "a stop that goes with the dial";
    const Variant on = as_set(south(), job, 0);
    for (std::size_t r = 0; r < v.unit.rules.size(); ++r)
        if (std::holds_alternative<CutOut>(v.unit.rules[r].body)) {
            EXPECT_FALSE(on.unit.rules[r].enabled);
        }
}

TEST(UnitSheet, presets_that_do_harm_here_are_found)
{
    Job job = new_job("glycol-coil");
    job.variants.front().loop.vessel.relief_pa = 3e5;
    UnitSheet sheet = north();
    for (SheetSetting& s : sheet.settings)
        if (s.rule == "differential" && s.field == "off_k")
            s.preset = 14; // above the start
    const auto wrong = wrong_presets(sheet, job, 0);
    const auto it = std::find_if(wrong.begin(), wrong.end(), [](const WrongPreset& w) { return w.name == "Stop"; });
    ASSERT_NE(it, wrong.end());
    EXPECT_EQ(it->value, "14.0 K");
    EXPECT_FALSE(it->found.empty());
    for (const WrongPreset& w : wrong_presets(north(), job, 0))
        EXPECT_NE(w.name, "Stop") << "3 K is no mistake";
}

TEST(UnitSheet, lamps_are_read)
{
    const auto read = read_lamps(north(), {{"red", LampPattern::slow}, {"green", LampPattern::fast}});
    ASSERT_EQ(read.size(), 2U);
    EXPECT_NE(read[0].says.find("open"), std::string::npos);
    EXPECT_NE(read[0].next.find("Probe broken"), std::string::npos);
    EXPECT_NE(read[1].says.find("does not know"), std::string::npos);
}

TEST(UnitSheet, what_another_unit_would_lose_is_listed)
{
    const Job job = new_job(preset_answers("glycol-coil"), 2);
    const auto lost = replaced(north(), south(), job, 0);
    const auto find = [&](const std::string& what) { return std::find_if(lost.begin(), lost.end(), [&](const ReplacedLine& l) { return l.what == what; }); };
    ASSERT_NE(find("Array at most"), lost.end());
    EXPECT_TRUE(find("Array at most")->is.empty());
    ASSERT_NE(find("P1 Loop pump"), lost.end());
    EXPECT_NE(find("P1 Loop pump")->is.find("minus"), std::string::npos);
    EXPECT_TRUE(replaced(north(), north(), job, 0).empty()) << "the same unit loses nothing";
}

// Whatever the job asks for: what the unit is set to lies in its range and on its steps, a limit
// never on the unsafe side, and asked for again it is set exactly.
TEST(UnitSheet, whatever_is_asked_for_is_set_to_what_the_unit_has)
{
    EXPECT_TRUE(rc::check([] {
        Job job = new_job("glycol-coil");
        Variant& v = job.variants.front();
        const auto within = [](double low, double high) { return low + (high - low) * *rc::gen::inRange(0, 10001) / 10000.0; };
        const double on = within(3, 30), limit = within(30, 110), cut = within(70, 200);
        rule<Differential>(v).on = TempDiff::kelvin(on);
        rule<Differential>(v).off = TempDiff::kelvin(within(0.5, on - 0.5));
        rule<StoreLimit>(v).limit = Temperature::celsius(limit);
        rule<CutOut>(v).limit = Temperature::celsius(cut);
        const bool fahrenheit = *rc::gen::arbitrary<bool>();
        for (const UnitSheet& sheet : example_sheets()) {
            Job on_it = job;
            on_it.variants.front() = as_set(sheet, job, 0, fahrenheit);
            for (const KeyLine& l : key_list(sheet, on_it, 0, fahrenheit))
                RC_ASSERT(l.is != KeyIs::nearest);
            Variant& w = on_it.variants.front();
            constexpr double hair = 1e-6;
            const double lowest = sheet.name == south().name ? 115 : 20; // of its range, °F and °C
            const double lowest_c = sheet.name == south().name ? (lowest - 32) / 1.8 : lowest;
            RC_ASSERT(rule<StoreLimit>(w).limit.in_celsius() <= std::max(limit, lowest_c) + hair);
            if (sheet.name == north().name)
                RC_ASSERT(rule<CutOut>(w).limit.in_celsius() <= std::max(cut, 80.0) + hair);
            RC_ASSERT(std::fabs(rule<Differential>(w).on.in_kelvin() - std::clamp(on, sheet.name == south().name ? 6 / 1.8 : 2.0, sheet.name == south().name ? 30 / 1.8 : 22.0)) <= 0.6);
        }
    }));
}

TEST(UnitSheet, any_sheet_that_is_accepted_reads_back_equal)
{
    EXPECT_TRUE(rc::check([] {
        UnitSheet sheet = north();
        const auto word = [] { return *rc::gen::container<std::string>(rc::gen::inRange<char>(32, 127)); };
        sheet.about = word();
        sheet.scale_keys = word();
        for (SheetTerminal& t : sheet.terminals)
            t.note = word();
        for (SheetSetting& s : sheet.settings) {
            s.keys = word();
            if (!s.field.empty())
                s.step = *rc::gen::inRange(0, 100) / 10.0;
        }
        if (*rc::gen::arbitrary<bool>())
            sheet.lamps.clear();
        const auto again = read_unit_sheet(write_unit_sheet(sheet), "again");
        RC_ASSERT(static_cast<bool>(again));
        RC_ASSERT(*again == sheet);
    }));
}

TEST(UnitSheet, an_output_that_does_one_thing_cannot_do_another)
{
    Job job = new_job("dump");
    Variant& v = job.variants.front();
    std::string cooler;
    for (const Rule& r : v.unit.rules)
        if (std::holds_alternative<Divert>(r.body))
            cooler = r.output;
    ASSERT_FALSE(cooler.empty());
    Rule timer;
    timer.output = cooler;
    timer.body = Timer{};
    timer.id = "aaaa";
    v.unit.rules.push_back(timer);
    const auto keys = key_list(north(), job, 0);
    const auto it = std::find_if(keys.begin(), keys.end(), [](const KeyLine& l) { return l.at == "rule/aaaa"; });
    ASSERT_NE(it, keys.end());
    EXPECT_EQ(it->is, KeyIs::lacking);
    EXPECT_NE(it->note.find("one of the two"), std::string::npos) << it->note;
    EXPECT_FALSE(as_set(north(), job, 0).unit.rules.back().enabled);
}

TEST(UnitSheet, what_feeds_it_goes_to_its_terminals)
{
    const Job battery = new_job(preset_answers("pv-battery"), 2);
    EXPECT_EQ(goes_to(wiring_list(south(), battery.variants.front()), "+ −"), "battery");
    const Job mains = new_job(preset_answers("glycol-coil"), 2);
    EXPECT_EQ(goes_to(wiring_list(south(), mains.variants.front()), "+ −"), "") << "this loop has none";
    EXPECT_EQ(goes_to(wiring_list(north(), mains.variants.front()), "10 11"), "mains");
    EXPECT_EQ(goes_to(wiring_list(north(), mains.variants.front()), "12"), "earth");
}

TEST(UnitVerb, lists_keys_and_writes_the_variant_as_it_stands)
{
    const auto folder = std::filesystem::temp_directory_path() / "vernal_unit_verb";
    std::filesystem::remove_all(folder);
    std::filesystem::create_directories(folder);
    const std::string file = (folder / "job.json").string(), out_file = (folder / "out.json").string();
    ASSERT_TRUE(save_job(new_job("glycol-coil"), file));
    const auto run = [&](std::vector<std::string> args) {
        std::ostringstream out, err;
        const int code = run_cli(args, {out, err});
        return std::pair(code, out.str() + err.str());
    };
    const auto [code, text] = run({"unit", file, "--sheet", "north"});
    EXPECT_EQ(code, 0) << text;
    EXPECT_TRUE(text.starts_with("Units of measure")) << text;
    const auto [lacking, lacks] = run({"unit", file, "--sheet", "south", "--out", out_file});
    EXPECT_EQ(lacking, 1) << lacks;
    const auto job = open_job(out_file);
    ASSERT_TRUE(job) << job.error().text();
    EXPECT_EQ(job->variants.back().name, "on Example unit south");
    ASSERT_EQ(sheets_of(*job).size(), 1U);
    EXPECT_EQ(sheets_of(*job).front(), south());
    EXPECT_EQ(run({"unit", file, "--sheet", "north", "--lamp", "red=often"}).first, 2);
    EXPECT_NE(run({"unit", file, "--sheet", "north", "--list", "wiring"}).second.find("13 14: P1 Loop pump"), std::string::npos);
    EXPECT_NE(run({"unit", file, "--sheet", "south", "--instead-of", "north"}).second.find("lost"), std::string::npos);
    std::filesystem::remove_all(folder);
}

} // namespace vernal
