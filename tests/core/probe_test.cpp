#include "core/probe/tolerance.h"

#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <cmath>

using namespace vernal;

namespace {

ProbeCurve curve(const std::string& s) { return *parse_curve(s); }
double ohm(const ProbeCurve& c, double t) { return *signal_at(c, Temperature::celsius(t)); }

struct Row {
    double t, ohm;
};

// IEC 60751:2008, table 1, times ten for R0 = 1000 Ω.
constexpr Row iec_60751[] = {{-200, 185.20}, {-100, 602.56}, {-40, 842.71}, {0, 1000.00}, {25, 1097.35}, {50, 1193.97}, {100, 1385.06}, {150, 1573.25}, {200, 1758.56}, {850, 3904.81}};

TEST(Platinum, matches_the_table_both_ways)
{
    const ProbeCurve pt = curve("pt1000");
    for (const Row& r : iec_60751) {
        EXPECT_NEAR(ohm(pt, r.t), r.ohm, 0.0051) << r.t; // the table's last digit, ±half
        EXPECT_NEAR(temperature_at(pt, ohm(pt, r.t))->in_celsius(), r.t, 1e-9) << r.t;
    }
    EXPECT_NEAR(ohm(curve("pt100"), 100), 138.506, 0.00051);
}

TEST(Platinum, both_branches_meet_at_zero)
{
    const ProbeCurve pt = curve("pt1000");
    EXPECT_NEAR(*slope_at(pt, Temperature::celsius(-1e-3)), *slope_at(pt, Temperature::celsius(1e-3)), 1e-4);
}

TEST(Curve, out_of_range_is_an_error_and_never_a_clamp)
{
    const ProbeCurve pt = curve("pt1000");
    EXPECT_FALSE(signal_at(pt, Temperature::celsius(-201)));
    EXPECT_FALSE(signal_at(pt, Temperature::celsius(851)));
    EXPECT_FALSE(temperature_at(pt, 5000));
    for (double r : {0.0, -5.0, double(NAN), double(INFINITY)})
        EXPECT_FALSE(temperature_at(pt, r));
    EXPECT_FALSE(temperature_at(curve("ntc:r25=10000,beta=3950"), 1e9));
}

TEST(Ntc, beta_form)
{
    // R = R25 exp(B (1/T − 1/298.15)), by hand: B 3977, 10 kΩ, 50 °C → 3 565 Ω.
    const ProbeCurve c = curve("ntc:r25=10000,beta=3977");
    EXPECT_DOUBLE_EQ(ohm(c, 25), 10000);
    EXPECT_NEAR(ohm(c, 50), 10000 * std::exp(3977 * (1 / 323.15 - 1 / 298.15)), 1e-9);
}

// A common 10 kΩ curve, from memory.
constexpr Row common_10k[] = {{0, 32650}, {25, 10000}, {50, 3602}, {100, 678.3}};

TEST(Ntc, three_term_through_three_points_hits_them_and_lands_near_the_fourth)
{
    const auto c = three_term_through({0, 32650}, {25, 10000}, {100, 678.3});
    ASSERT_TRUE(c);
    const ProbeCurve p{*c, -50, 150};
    EXPECT_NEAR(ohm(p, 0), 32650, 1e-4);
    EXPECT_NEAR(ohm(p, 100), 678.3, 1e-6);
    EXPECT_NEAR(temperature_at(p, 3602)->in_celsius(), 50, 0.05); // Steinhart & Hart: hundredths of a kelvin
}

TEST(Ntc, three_term_refuses_equal_points)
{
    EXPECT_FALSE(three_term_through({0, 32650}, {0, 32650}, {100, 678.3}));
    EXPECT_FALSE(three_term_through({0, -1}, {25, 10000}, {100, 678.3}));
}

TEST(Ntc, table_goes_through_its_points_and_keeps_falling)
{
    const ProbeCurve c = curve("table:0=32650,25=10000,50=3602,100=678.3");
    for (const Row& r : common_10k)
        EXPECT_NEAR(ohm(c, r.t), r.ohm, 1e-8 * r.ohm);
    for (double t = 0; t < 99.5; t += 0.5)
        EXPECT_GT(ohm(c, t), ohm(c, t + 0.5)) << t;
}

class BothWays : public testing::TestWithParam<const char*> {};
TEST_P(BothWays, temperature_of_the_resistance_is_the_temperature)
{
    const ProbeCurve c = curve(GetParam());
    for (double t = c.min_c; t <= c.max_c; t += (c.max_c - c.min_c) / 97)
        EXPECT_NEAR(temperature_at(c, ohm(c, t))->in_celsius(), t, 1e-7) << GetParam() << " at " << t;
    EXPECT_EQ(curve(curve_text(c)), c);
}
INSTANTIATE_TEST_SUITE_P(All, BothWays, testing::Values("pt100", "pt1000", "pt:500", "ntc:r25=100000,beta=3950;range=-20..125", "poly:at=25,r=2000,c=0.00788/1.937e-05", "line:mA=4..20,c=-50..200", "line:V=0.5..3.5,c=0..100", "poly:at=0,r=1000,c=0.005485/6.65e-06/0/2.805e-11/0/-2e-17;range=-60..180", "table:-20=815,0=1000,100=1618", "ntc:r25=5000,beta=3500", "abc:0.001129148,0.000234125,8.76741e-08", "table:0=32650,25=10000,50=3602,100=678.3"));

struct Limit {
    double t, aa, a, b, c;
};
// IEC 60751:2008, table 2, at its corners.
TEST(Platinum, class_limits)
{
    for (const Limit& l : {Limit{0, 0.1, 0.15, 0.3, 0.6}, {100, 0.27, 0.35, 0.8, 1.6}, {-50, 0.185, 0.25, 0.55, 1.1}}) {
        const auto limit = [&](ToleranceKind kind) { return tolerance_k(curve("pt1000"), {kind, 0, 0, 0}, l.t); };
        EXPECT_NEAR(limit(ToleranceKind::class_aa), l.aa, 1e-12);
        EXPECT_NEAR(limit(ToleranceKind::class_a), l.a, 1e-12);
        EXPECT_NEAR(limit(ToleranceKind::class_b), l.b, 1e-12);
        EXPECT_NEAR(limit(ToleranceKind::class_c), l.c, 1e-12);
    }
}

// One percent of R is 0.01 T²/B kelvin at 25 °C, where B does not yet count.
TEST(Ntc, tolerance_by_hand)
{
    const ProbeCurve c = curve("ntc:r25=10000,beta=3950");
    const Tolerance t{ToleranceKind::percent, 0.01, 0.01, 0};
    EXPECT_NEAR(tolerance_k(c, t, 25), 0.01 * 298.15 * 298.15 / 3950, 1e-6);
    // At 75 °C both: (0.01 + 0.01 · 3950 · (1/298.15 − 1/348.15)) T²/B.
    EXPECT_NEAR(tolerance_k(c, t, 75), (0.01 + 0.01 * 3950 * (1 / 298.15 - 1 / 348.15)) * 348.15 * 348.15 / 3950, 1e-5);
}

// DIN 43760:1987, 100 Ω nickel times ten, from memory.
TEST(Nickel, of_6180_ppm_hits_the_withdrawn_standard)
{
    const ProbeCurve ni = curve("poly:at=0,r=1000,c=0.005485/6.65e-06/0/2.805e-11/0/-2e-17;range=-60..180");
    for (const Row& r : {Row{-60, 695}, {0, 1000}, {50, 1291}, {100, 1618}, {150, 1986}, {180, 2232}})
        EXPECT_NEAR(ohm(ni, r.t), r.ohm, 1.0) << r.t;
}

TEST(Silicon, alpha_and_beta_by_hand)
{
    const ProbeCurve si = curve("poly:at=25,r=2000,c=0.00788/1.937e-05");
    EXPECT_DOUBLE_EQ(ohm(si, 25), 2000);
    EXPECT_NEAR(ohm(si, 100), 2000 * (1 + 0.00788 * 75 + 1.937e-5 * 75 * 75), 1e-9);
}

TEST(Signals, both_ends_and_the_middle)
{
    const ProbeCurve ma = curve("line:mA=4..20,c=0..100"), v = curve("line:V=0..10,c=-50..150"), ratio = curve("line:V=0.5..3.5,c=0..100");
    EXPECT_DOUBLE_EQ(ohm(ma, 50), 12);
    EXPECT_DOUBLE_EQ(ohm(v, 50), 5);
    EXPECT_DOUBLE_EQ(ohm(ratio, 100), 3.5);
    EXPECT_STREQ(signal_unit(ma), "mA");
    EXPECT_STREQ(signal_unit(v), "V");
    EXPECT_FALSE(temperature_at(ma, 3.2)) << "a broken loop";
    EXPECT_DOUBLE_EQ(temperature_at(v, 0)->in_celsius(), -50);
}

TEST(CurveText, keeps_a_range_of_its_own_and_refuses_a_curve_that_turns_back)
{
    const ProbeCurve c = curve("ntc:r25=10000,beta=3950;range=-20..125");
    EXPECT_EQ(c.min_c, -20);
    EXPECT_EQ(curve_text(c), "ntc:r25=10000,beta=3950;range=-20..125");
    EXPECT_EQ(curve_text(curve("pt1000;range=-200..850")), "pt1000") << "the usual range goes without saying";
    for (const char* bad : {"ntc:r25=1,beta=2;range=5..5", "ntc:r25=1,beta=2;range=x..5", "table:0=1,10=2;range=-5..10", "poly:at=0,r=1000,c=0.005/-0.0001;range=-50..150", "poly:at=0,r=1000", "line:mA=4..20", "line:mA=4..4,c=0..1", "line:A=4..20,c=0..1", "pt:-3",
             "poly:at=0,r=1,c=1/2/3/4/5/6/7", "line:mA=4..20,c=9..1"})
        EXPECT_FALSE(parse_curve(bad)) << bad;
}

TEST(CurveBeyond, goes_on_where_the_range_ends)
{
    const ProbeCurve table = curve("table:0=32650,25=10000,50=3602,100=678.3");
    EXPECT_NEAR(temperature_beyond(table, signal_beyond(table, 140)), 140, 1e-9);
    EXPECT_NEAR(temperature_beyond(table, signal_beyond(table, -30)), -30, 1e-9);
    EXPECT_GT(temperature_beyond(curve("ntc:r25=10000,beta=3950"), 1e-9), 1000) << "hardly any ohms are hot, never below absolute zero";
}

TEST(CurveText, says_what_is_wrong)
{
    for (const char* bad : {"pt", "ntc:r25=-1", "ntc:beta", "abc:1,2", "abc:1,x,3", "table:25=100", "table:0=1,25=2,50=1", "table:0=1,0=2", "", "table:0=0,1=1"})
        EXPECT_FALSE(parse_curve(bad)) << bad;
    EXPECT_NE(parse_curve("abc:1,x,3").error().text().find("“x” is not a number"), std::string::npos);
}

// Text that people get wrong in any way: an error, or a curve that can be written back.
RC_GTEST_PROP(CurveText, anything_typed_is_refused_or_understood, ())
{
    const std::string pieces[] = {"pt", "pt1000", "ntc:", "r25=", "beta=", "abc:", "table:", "poly:", "at=", "r=", "c=", "line:", "mA=", "V=", "..", ",", "=", "/", ";range=", "0", "25", "100", "1000", "-3", "1e-3", "3950", "x", " ", "°"};
    std::string text;
    for (int i = *rc::gen::inRange(0, 14); i > 0; --i)
        text += *rc::gen::elementOf(std::vector<std::string>(std::begin(pieces), std::end(pieces)));
    const auto c = parse_curve(text);
    if (c)
        RC_ASSERT(*parse_curve(curve_text(*c)) == *c);
    else
        RC_ASSERT(!c.error().what.empty());
}

} // namespace
