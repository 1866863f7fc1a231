#include "core/probe/curve.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace vernal;

namespace {

ProbeCurve curve(const std::string& s) { return *parse_curve(s); }
double ohm(const ProbeCurve& c, double t) { return *ohm_at(c, Temperature::celsius(t)); }

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
    EXPECT_FALSE(ohm_at(pt, Temperature::celsius(-201)));
    EXPECT_FALSE(ohm_at(pt, Temperature::celsius(851)));
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
INSTANTIATE_TEST_SUITE_P(All, BothWays, testing::Values("pt100", "pt1000", "ntc:r25=5000,beta=3500", "abc:0.001129148,0.000234125,8.76741e-08", "table:0=32650,25=10000,50=3602,100=678.3"));

TEST(CurveText, says_what_is_wrong)
{
    for (const char* bad : {"pt", "ntc:r25=-1", "ntc:beta", "abc:1,2", "abc:1,x,3", "table:25=100", "table:0=1,25=2,50=1", "table:0=1,0=2", "", "table:0=0,1=1"})
        EXPECT_FALSE(parse_curve(bad)) << bad;
    EXPECT_NE(parse_curve("abc:1,x,3").error().text().find("“x” is not a number"), std::string::npos);
}

} // namespace
