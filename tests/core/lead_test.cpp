#include "core/probe/lead.h"
#include "core/units/quantity.h"

#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <cmath>

using namespace vernal;

namespace {

ProbeCurve curve(const std::string& s) { return *parse_curve(s); }

struct Gauge {
    double awg, ohm_km;
};
// Solid annealed copper at 20 °C: ASTM B258 diameters with IACS copper, as in the
// table of NBS Handbook 100, 1966.
class Awg : public testing::TestWithParam<Gauge> {};
TEST_P(Awg, resistance_is_the_tables)
{
    EXPECT_NEAR(copper_ohm_m(awg_section_m2(GetParam().awg), Strands::drawn) * 1000, GetParam().ohm_km, GetParam().ohm_km * 6e-4);
    EXPECT_NEAR(awg_of(awg_section_m2(GetParam().awg)), GetParam().awg, 1e-9);
}
INSTANTIATE_TEST_SUITE_P(B258, Awg, testing::Values(Gauge{14, 8.286}, Gauge{16, 13.17}, Gauge{18, 20.95}, Gauge{20, 33.31}, Gauge{22, 52.96}, Gauge{24, 84.22}, Gauge{26, 133.9}));

struct Metric {
    double mm2, class_2, class_5;
};
// IEC 60228:2004, tables 2 and 3, plain copper, Ω/km at 20 °C.
class Iec60228 : public testing::TestWithParam<Metric> {};
TEST_P(Iec60228, resistance_is_the_tables)
{
    EXPECT_NEAR(copper_ohm_m(GetParam().mm2 * 1e-6, Strands::solid) * 1000, GetParam().class_2, 1e-9);
    EXPECT_NEAR(copper_ohm_m(GetParam().mm2 * 1e-6, Strands::fine) * 1000, GetParam().class_5, 1e-9);
}
INSTANTIATE_TEST_SUITE_P(Tables, Iec60228, testing::Values(Metric{0.5, 36.0, 39.0}, Metric{0.75, 24.5, 26.0}, Metric{1, 18.1, 19.5}, Metric{1.5, 12.1, 13.3}, Metric{2.5, 7.41, 7.98}, Metric{6, 3.08, 3.30}));

TEST(Copper, fine_strands_lie_13_to_16_percent_above_the_formula) // field figure, from memory
{
    for (double mm2 : {0.5, 0.75, 1.0, 1.5, 2.5}) {
        const double share = copper_ohm_m(mm2 * 1e-6, Strands::fine) / copper_ohm_m(mm2 * 1e-6, Strands::drawn);
        EXPECT_GT(share, 1.125) << mm2;
        EXPECT_LT(share, 1.165) << mm2;
    }
}

TEST(Copper, warms_by_0_393_percent_a_kelvin) // IEC 60028
{
    EXPECT_NEAR(copper_ohm_m(1e-6, Strands::drawn, 70) / copper_ohm_m(1e-6, Strands::drawn, 20), 1 + 50 * 0.00393, 1e-12);
}

Lead thirty_metres()
{
    Lead l;
    l.length_m = 30;
    l.section_m2 = awg_section_m2(22);
    return l;
}

// Worked by hand in the trade: 30 m of AWG 22, 60 m of conductor.
TEST(Lead, platinum_reads_high_by_under_a_kelvin)
{
    EXPECT_NEAR(lead_ohm(thirty_metres()), 60 * 0.05296, 0.002);
    for (double t : {0.0, 50.0, 100.0, 150.0}) {
        EXPECT_GT(lead_error_k(curve("pt1000"), thirty_metres(), t), 0.81) << t;
        EXPECT_LT(lead_error_k(curve("pt1000"), thirty_metres(), t), 0.855) << t;
    }
    EXPECT_NEAR(lead_error_k(curve("pt100"), thirty_metres(), 0), 8.2, 0.2) << "ten times that of a Pt1000";
}

TEST(Lead, a_thermistor_reads_low_and_more_so_hot)
{
    const ProbeCurve ntc = curve("ntc:r25=10000,beta=3950;range=-50..200");
    EXPECT_NEAR(lead_error_k(ntc, thirty_metres(), 25), -0.007, 0.0008);
    EXPECT_NEAR(lead_error_k(ntc, thirty_metres(), 100), -0.16, 0.01);
    EXPECT_NEAR(lead_error_k(ntc, thirty_metres(), 150), -0.7, 0.04);
}

TEST(Lead, three_wires_leave_nothing_and_a_transmitter_knows_no_lead)
{
    Lead l = thirty_metres();
    EXPECT_EQ(lead_error_k(curve("line:mA=4..20,c=0..100"), l, 50), 0);
    l.three_wire = true;
    EXPECT_EQ(lead_error_k(curve("pt1000"), l, 50), 0);
    EXPECT_TRUE(std::isinf(longest_lead_m(curve("pt1000"), l, 50, 0.5)));
}

RC_GTEST_PROP(Lead, the_longest_lead_has_just_the_error_wanted, ())
{
    const ProbeCurve c = curve(*rc::gen::element<std::string>("pt1000", "ntc:r25=10000,beta=3950", "poly:at=25,r=2000,c=0.00788/1.937e-05", "abc:0.001129148,0.000234125,8.76741e-08"));
    const double t = *rc::gen::inRange(0, 120), wanted = *rc::gen::inRange(1, 300) / 100.0;
    Lead l = thirty_metres();
    l.temp_c = *rc::gen::inRange(-20, 80);
    l.length_m = longest_lead_m(c, l, t, wanted);
    RC_ASSERT(std::fabs(std::fabs(lead_error_k(c, l, t)) - wanted) < 1e-6 * (1 + wanted));
}

TEST(Lead, moisture_makes_a_thermistor_read_hot_most_where_it_is_cold)
{
    Lead wet;
    wet.leak_ohm = 100000;
    const ProbeCurve ntc = curve("ntc:r25=10000,beta=3950");
    EXPECT_NEAR(seen_ohm(wet, 10000), 1 / (1 / 10000.0 + 1 / 100000.0), 1e-9);
    EXPECT_GT(lead_error_k(ntc, wet, 0), lead_error_k(ntc, wet, 25));
    EXPECT_GT(lead_error_k(ntc, wet, 25), 1.5);
    EXPECT_LT(lead_error_k(curve("pt1000"), wet, 25), -2) << "platinum reads cold";
    EXPECT_DOUBLE_EQ(seen_ohm(wet, INFINITY), 100000) << "an open probe in a wet joint does not read open";
}

TEST(Ohms, are_shown_and_read_as_a_meter_has_them)
{
    EXPECT_EQ(to_text(32650, Quantity::resistance, {}), "32650 Ω");
    EXPECT_EQ(to_text(109.737, Quantity::resistance, {}), "109.74 Ω");
    for (const char* typed : {"5.0k", "5 kΩ", "5,0 kohm", "5000", "5000 Ω", "0.005 MΩ"})
        EXPECT_NEAR(*parse(typed, Quantity::resistance, {}), 5000, 1e-9) << typed;
}

} // namespace
