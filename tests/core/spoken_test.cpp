// Dictated lines as people say and write them: tests/data/dictated_lines.tsv has a line each with
// what is to be understood. The values there were worked out apart from the program, with the
// factors of NIST SP 811.
#include "core/visit/dictation.h"

#include <gtest/gtest.h>

#include <cmath>
#include <fstream>
#include <sstream>

namespace vernal {
namespace {

struct SpokenLine {
    std::string preset, units, line, expected;
};

std::vector<SpokenLine> spoken_lines()
{
    std::ifstream in(VERNAL_TEST_DATA "/dictated_lines.tsv");
    std::vector<SpokenLine> out;
    for (std::string row; std::getline(in, row);) {
        std::istringstream cells(row);
        SpokenLine s;
        std::getline(cells, s.preset, '\t');
        std::getline(cells, s.units, '\t');
        std::getline(cells, s.line, '\t');
        std::getline(cells, s.expected);
        out.push_back(std::move(s));
    }
    return out;
}

std::string number(double v)
{
    std::ostringstream out;
    out << v;
    return out.str();
}

// What was understood, in the words of the file; "kind of value" of a reading apart.
std::string understood(const Visit& v)
{
    if (v.readings.size() + v.work.size() + v.next.size() + v.faults.size() > 1)
        return "several " + std::to_string(v.readings.size());
    if (!v.work.empty())
        return "work " + v.work[0].text + "|" + number(v.work[0].minutes_s / 60) + "|" + number(v.work[0].cost) + "|" + v.work[0].of;
    if (!v.next.empty())
        return "next " + v.next[0].text + "|" + v.next[0].by;
    if (!v.faults.empty())
        return "fault " + v.faults[0].text + "|" + v.faults[0].of;
    if (!v.sky.empty())
        return "sky " + v.sky;
    if (!v.notes.empty())
        return "note " + v.notes;
    return "when " + v.when;
}

void expect_reading(const SpokenLine& s, const Visit& v)
{
    ASSERT_EQ(v.readings.size(), 1U) << s.line;
    const VisitReading& r = v.readings[0];
    std::istringstream in(s.expected);
    std::string word, kind, of;
    double value = NAN;
    in >> word >> kind >> of;
    std::string second;
    if (kind == "apart") {
        in >> second;
        of += " " + second;
    }
    in >> value;
    EXPECT_EQ(r.kind, kind) << s.line;
    EXPECT_EQ(r.of, of == "-" ? "" : of) << s.line;
    EXPECT_NEAR(r.value, value, 1e-9 * std::fabs(value)) << s.line;
    EXPECT_EQ(r.with_temperature, s.expected.find(" at ") != std::string::npos && s.expected.find(" how ") == std::string::npos) << s.line;
    if (in >> word && word == "at") {
        in >> value;
        EXPECT_NEAR(r.at_c, value, 1e-9 * std::fabs(value)) << s.line;
    } else if (word == "how") {
        std::string how;
        std::getline(in >> std::ws, how);
        EXPECT_EQ(r.how, how) << s.line;
    }
}

TEST(Spoken, lines_are_read_or_refused_with_the_hint_that_helps)
{
    const auto lines = spoken_lines();
    ASSERT_GE(lines.size(), 300U);
    std::map<std::string, Job> jobs;
    for (const SpokenLine& s : lines) {
        const Job& job = jobs.try_emplace(s.preset, new_job(s.preset.c_str())).first->second;
        const Variant& variant = job.variants.front();
        Visit v;
        const Visit before = v;
        const auto r = dictate(v, s.line, variant, s.units == "us" ? Units::us() : Units::metric());
        if (s.expected.starts_with("refused ")) {
            EXPECT_FALSE(r) << s.line << " was taken as " << (r ? *r : "");
            EXPECT_EQ(v, before) << s.line;
            if (!r) {
                EXPECT_NE((r.error().what + " " + r.error().remedy).find(s.expected.substr(8)), std::string::npos) << s.line << ": " << r.error().what << " / " << r.error().remedy;
            }
            continue;
        }
        EXPECT_TRUE(r) << s.line << ": " << (r ? "" : r.error().what + " / " + r.error().remedy);
        if (!r)
            continue;
        if (s.expected.starts_with("reading "))
            expect_reading(s, v);
        else
            EXPECT_EQ(understood(v), s.expected) << s.line;
        // What was understood is said again and reads back equal, whatever the reader's units are.
        for (const Units& units : {Units::metric(), Units::us()}) {
            Visit back;
            for (const std::string& again : dictated(v)) {
                const auto said = dictate(back, again, variant, units);
                ASSERT_TRUE(said) << again << ": " << said.error().what;
            }
            EXPECT_EQ(back, v) << s.line;
        }
    }
}

// The same words in any field: parse() is what every field and `set` read by.
TEST(Typed, units_are_read_as_people_write_them)
{
    const struct {
        const char* text;
        Quantity q;
        double inside;
    } all[]{{"4 min", Quantity::duration, 240}, {"80 gallons", Quantity::volume, 80 * 3.785411784e-3}, {"64 sq ft", Quantity::area, 64 * 0.09290304}, {"36 in", Quantity::length, 0.9144}, {"3/4 in", Quantity::bore, 0.01905}, {"1 1/2 inches", Quantity::bore, 0.0381},
        {"5 ft 6 in", Quantity::length, 1.6764}, {"1:30", Quantity::duration, 90}, {"1:02:03", Quantity::duration, 3723}, {"1:30", Quantity::hours, 1.5}, {"2 hours", Quantity::duration, 7200}, {"90 s", Quantity::minutes, 90}, {"2 days", Quantity::hours, 48},
        {"118 deg F", Quantity::temperature, (118 - 32) / 1.8}, {"12 psi", Quantity::pressure_drop, 12 * 6894.757}, {"30 feet of head", Quantity::pressure_drop, 30 * 0.3048 * 9806.65}, {"2 kW", Quantity::power, 2000}, {"3.5 gpm", Quantity::flow, 3.5 * 3.785411784e-3 / 60},
        {"4:30 pm", Quantity::time_of_day, 16.5}, {"12 am", Quantity::time_of_day, 0}, {"40 percent", Quantity::ratio, 0.4}, {"14 gauge", Quantity::wire, from_display(14, Quantity::wire, Units::us())}, {"1.5 sq mm", Quantity::wire, 1.5e-6}, {"10 mph", Quantity::speed, 4.4704}, {"2 lb", Quantity::grams, 0.90718474}};
    for (const auto& one : all) {
        const auto v = parse(one.text, one.q, Units::metric());
        ASSERT_TRUE(v) << one.text << ": " << v.error().what;
        EXPECT_NEAR(*v, one.inside, 1e-9 * std::fabs(one.inside)) << one.text;
    }
    for (const auto& [text, q] : {std::pair{"13 pm", Quantity::time_of_day}, {"1:75", Quantity::duration}, {"3/0 in", Quantity::bore}, {"5 ft 6", Quantity::length}, {"80 gallons", Quantity::area}, {"1/2", Quantity::count}, {"1/5", Quantity::date}, {"4 min", Quantity::temperature}, {"- -3", Quantity::number}, {"/4 in", Quantity::bore}})
        EXPECT_FALSE(parse(text, q, Units::metric())) << text;
}

} // namespace
} // namespace vernal
