#include "files/curve_file.h"
#include "files/disk.h"
#include "files/points_csv.h"

#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <cmath>
#include <filesystem>
#include <unistd.h>

using namespace vernal;

namespace {

namespace fs = std::filesystem;

struct Folder {
    fs::path path = fs::temp_directory_path() / ("vernal-curves-" + std::to_string(::getpid()));
    Folder() { fs::create_directories(path); }
    ~Folder() { fs::remove_all(path); }
};

TEST(ShippedCurves, all_can_be_read_both_ways_and_state_their_origin)
{
    ASSERT_GE(shipped_curves().size(), 20u);
    for (const NamedCurve& c : shipped_curves()) {
        EXPECT_FALSE(c.origin.empty()) << c.key;
        EXPECT_EQ(*parse_curve(curve_text(c.curve)), c.curve) << c.key;
        for (int i = 0; i <= 20; ++i) {
            const double t = c.curve.min_c + (c.curve.max_c - c.curve.min_c) * i / 20;
            const auto back = temperature_at(c.curve, *signal_at(c.curve, Temperature::celsius(t)));
            ASSERT_TRUE(back) << c.key << " at " << t;
            EXPECT_NEAR(back->in_celsius(), t, 1e-6) << c.key;
        }
    }
    for (const char* key : {"ntc-1k-3500", "ntc-2k-3500", "ntc-3k-3900", "ntc-5k-3500", "ntc-10k-3950", "ntc-20k-4100", "ntc-100k-3950"})
        EXPECT_TRUE(find_curve(shipped_curves(), key)) << key;
}

// A common 10 kΩ curve, from memory: table and three terms say the same.
TEST(ShippedCurves, the_two_common_10k_curves_agree)
{
    const ProbeCurve table = find_curve(shipped_curves(), "ntc-10k-table")->curve, terms = find_curve(shipped_curves(), "ntc-10k-abc")->curve;
    for (double t : {0.0, 25.0, 50.0, 100.0})
        EXPECT_NEAR(*signal_at(terms, Temperature::celsius(t)) / *signal_at(table, Temperature::celsius(t)), 1, 0.002) << t;
}

TEST(CurveFile, own_curves_are_added_and_take_the_place_of_shipped_ones)
{
    const Folder f;
    const fs::path own = f.path / "sub" / "curves.json";
    EXPECT_EQ(all_curves(own)->size(), shipped_curves().size()) << "no file: only the shipped ones";
    NamedCurve mine{"barn", "Barn probe", "measured", *parse_curve("ntc:r25=4300,beta=3440"), {}, 0};
    ASSERT_TRUE(add_own_curve(mine, own));
    mine.key = "pt1000";
    ASSERT_TRUE(add_own_curve(mine, own));
    const auto all = all_curves(own);
    ASSERT_TRUE(all);
    EXPECT_EQ(all->size(), shipped_curves().size() + 1);
    EXPECT_EQ(find_curve(*all, "pt1000")->name, "Barn probe");
    EXPECT_EQ(read_curves(write_curves(*all), "again")->size(), all->size());
    EXPECT_EQ(*curve_by_name(*all, "barn"), mine.curve);
    EXPECT_TRUE(curve_by_name(*all, "pt100"));
    EXPECT_NE(curve_by_name(*all, "nobody").error().remedy.find("probe curves"), std::string::npos);
}

TEST(CurveFile, says_where_it_is_wrong)
{
    const auto error = [](const std::string& text) {
        const auto r = read_curves(text, "my.json");
        return r ? std::string("read") : r.error().text();
    };
    const std::string head = R"({"format":"vrelay-curves","version":1,"curves":[)";
    EXPECT_NE(error("{\n  \"format\": ").find("my.json, line 2"), std::string::npos);
    EXPECT_NE(error("{}").find("not a file of probe curves"), std::string::npos);
    EXPECT_NE(error(R"({"format":"vrelay-curves","version":9,"curves":[]})").find("version"), std::string::npos);
    EXPECT_NE(error(head + R"({"key":"a","curve":"ntc:r25=x"}]})").find("curves[0].curve"), std::string::npos);
    EXPECT_NE(error(head + R"({"key":"","curve":"pt100"}]})").find("needs a key"), std::string::npos);
    EXPECT_NE(error(head + R"({"key":"a"},{"key":"a"}]})").find("twice"), std::string::npos);
    EXPECT_NE(error(head + R"({"key":"a","colour":"red"}]})").find("not known"), std::string::npos);
}

TEST(CurveFile, a_broken_own_file_is_told_and_not_overwritten)
{
    const Folder f;
    const fs::path own = f.path / "curves.json";
    ASSERT_TRUE(write_file_atomically(own, "{ broken"));
    EXPECT_FALSE(all_curves(own));
    EXPECT_FALSE(add_own_curve({"a", "a", "", *parse_curve("pt100"), {}, 0}, own));
    EXPECT_EQ(*read_file(own), "{ broken");
}

std::vector<CurvePoint> read(const std::string& text, bool fahrenheit = false)
{
    const auto r = read_points(text, "typed", fahrenheit);
    EXPECT_TRUE(r) << (r ? "" : r.error().text());
    return r ? *r : std::vector<CurvePoint>{};
}

TEST(Points, are_read_as_people_write_them)
{
    const std::vector<CurvePoint> two{{25, 10000}, {50, 3602}};
    for (const char* text : {"25, 10000\n50, 3602", "25 10000\n\n50 3602\n", "25;10000\r\n50;3602", "25\t10 k\n50\t3.602 k", "# mine\ntemp_c,ohm\n25,10000\n50,3602", "R (kΩ); temp (°C)\n10;25\n3,602;50", "25 °C 10 kΩ\n50 °C 3.602 kΩ", "10 kΩ 25 °C\n3.602 kΩ 50 °C", "25.0,1e4\n50,3602"}) {
        const auto p = read(text);
        ASSERT_EQ(p.size(), 2u) << text;
        for (std::size_t i = 0; i < 2; ++i) {
            EXPECT_NEAR(p[i].temp_c, two[i].temp_c, 1e-9) << text;
            EXPECT_NEAR(p[i].ohm, two[i].ohm, 1e-9) << text;
        }
    }
    for (const auto& [text, f] : {std::pair{"70, 5000", true}, {"70 °F, 5000", false}, {"temp_f,ohm\n70,5000", false}, {"°F;Ω\n70;5000", false}})
        EXPECT_NEAR(read(text, f)[0].temp_c, 21.111, 1e-3) << text;
}

TEST(Points, bad_input_is_told_with_its_line)
{
    const auto error = [](const std::string& text) {
        const auto r = read_points(text, "typed");
        return r ? std::string("read") : r.error().text();
    };
    EXPECT_NE(error("").find("no points"), std::string::npos);
    EXPECT_NE(error("25, 10000\n50").find("typed, line 2"), std::string::npos);
    EXPECT_NE(error("25, 10000\n50, -3602").find("above zero"), std::string::npos);
    EXPECT_NE(error("25, 10000\n50, lots").find("“lots” is not a number"), std::string::npos);
    EXPECT_NE(error("25 °C, 10000\n122 °F, 3602").find("line 2: the units of the temperature are mixed"), std::string::npos);
    EXPECT_NE(error("25 °C, 10000\n50, 3602").find("mixed"), std::string::npos);
    EXPECT_NE(error("temp_c,ohm\n70 °F,5000").find("heading names another"), std::string::npos);
    EXPECT_NE(error("25, 10 bananas").find("known here"), std::string::npos);
    EXPECT_NE(error("5 kΩ, 3 kΩ").find("same kind"), std::string::npos);
}

TEST(Points, a_million_rows_are_refused_at_once)
{
    std::string text;
    for (int i = 0; i < 1000000; ++i)
        text += "25, 10000\n";
    const auto r = read_points(text, "typed");
    ASSERT_FALSE(r);
    EXPECT_NE(r.error().text().find("line 10001: there are more than 10000 points"), std::string::npos) << r.error().text();
}

// Any bytes at all: points that can be fitted, or an error with its line.
RC_GTEST_PROP(Points, anything_pasted_is_read_or_refused, ())
{
    const std::vector<std::string> pieces{"25", "10000", ",", ";", "\t", " ", "\n", "\r\n", "°C", "°F", "k", "kΩ", "ohm", "-", "temp_c", "#", "1e999", "nan", "inf", "\xff", "\"", "."};
    std::string text;
    for (int i = *rc::gen::inRange(0, 40); i > 0; --i)
        text += *rc::gen::elementOf(pieces);
    const auto r = read_points(text, "pasted");
    if (!r) {
        RC_ASSERT(r.error().where.rfind("pasted", 0) == 0);
        return;
    }
    for (const CurvePoint& p : *r)
        RC_ASSERT(std::isfinite(p.temp_c) && std::isfinite(p.ohm) && p.ohm > 0);
}

} // namespace
