// What a meter's reading says about a probe.
#include "core/setup/job_setup.h"
#include "core/sums/meter.h"

#include <gtest/gtest.h>

using namespace vernal;

namespace {

Variant pt1000()
{
    Variant v = new_job("glycol-coil").variants[0];
    v.probes[0].curve = *parse_curve("pt1000");
    v.probes[0].sensor.tolerance.kind = ToleranceKind::class_b;
    return v;
}

MeterAnswer answer(const Variant& v, const MeterReading& r, const CurveBook& book = {}) { return meter_answer(v, 0, r, book, {}); }

// IEC 60751:2008, table 1: 109.73 Ω of a Pt100 at 25 °C, 119.40 Ω at 50 °C.
TEST(Meter, says_degrees_by_the_probes_curve)
{
    EXPECT_NEAR(answer(pt1000(), {1097.3, false, NAN}).read_c, 25, 0.02);
    EXPECT_NEAR(answer(pt1000(), {1194.0, false, NAN}).read_c, 50, 0.02);
    EXPECT_TRUE(answer(pt1000(), {1194.0, false, NAN}).likely.empty());
}

TEST(Meter, beside_a_thermometer_it_says_how_far_off_and_whether_that_is_sound)
{
    const MeterAnswer good = answer(pt1000(), {1097.3, false, 24.5});
    EXPECT_NEAR(good.off_k, 0.5, 0.03);
    EXPECT_TRUE(good.sound());
    // Class B is ±(0.3 + 0.005 t): IEC 60751:2008, table 2.
    EXPECT_GT(good.allowed_k, 0.3 + 0.005 * 24.5);
    const MeterAnswer bad = answer(pt1000(), {1194.0, false, 25});
    EXPECT_NEAR(bad.off_k, 25, 0.03);
    ASSERT_FALSE(bad.likely.empty());
    EXPECT_EQ(bad.likely.front(), ConditionKind::drifted);
    EXPECT_EQ(bad.likely.back(), ConditionKind::in_sun) << "it sits on the collector";
    EXPECT_NE(bad.says.find("8.8 % high"), std::string::npos) << bad.says; // 1194.0 over 1097.3
}

TEST(Meter, ends_of_the_range_are_open_and_shorted)
{
    EXPECT_EQ(answer(pt1000(), {INFINITY, false, NAN}).likely.front(), ConditionKind::open);
    EXPECT_EQ(answer(pt1000(), {1.2, false, NAN}).likely.front(), ConditionKind::shorted);
    EXPECT_EQ(answer(pt1000(), {4000, false, NAN}).likely.front(), ConditionKind::open) << "far above what a collector stands at";
    EXPECT_EQ(answer(pt1000(), {300, false, NAN}).likely.front(), ConditionKind::shorted);
    Variant ntc = pt1000();
    ntc.probes[0].curve = *parse_curve("ntc:r25=10000,beta=3950");
    EXPECT_EQ(answer(ntc, {900000, false, NAN}).likely.front(), ConditionKind::open) << "many ohms are open for a thermistor too";
    EXPECT_EQ(answer(ntc, {60, false, NAN}).likely.front(), ConditionKind::shorted);
}

// Two resistances side by side: 1/R = 1/R1 + 1/R2.
TEST(Meter, a_connected_probe_is_freed_of_the_pull_up)
{
    Variant v = pt1000();
    EXPECT_TRUE(std::isnan(answer(v, {1000, true, NAN}).alone)) << "nothing says what lies beside it";
    v.input.kind = StageKind::pull_up;
    v.input.pull_up_ohm = 4700;
    const double beside = 1 / (1 / 1097.3 + 1 / 4700.0);
    EXPECT_NEAR(answer(v, {beside, true, NAN}).alone, 1097.3, 0.01);
    EXPECT_NEAR(answer(v, {beside, true, NAN}).read_c, 25, 0.02);
    EXPECT_LT(answer(v, {beside, false, NAN}).read_c, -20) << "as it stands it would be far colder";
    EXPECT_TRUE(std::isnan(answer(v, {4800, true, NAN}).alone));
}

TEST(Meter, another_curve_that_fits_is_named)
{
    const CurveBook book{{"a", "Other platinum", "", *parse_curve("pt1000"), {}, 0}, {"b", "Thermistor", "", *parse_curve("ntc:r25=10000,beta=3950"), {}, 0}};
    Variant v = pt1000();
    v.probes[1].curve = *parse_curve("ntc:r25=10000,beta=3950");
    const MeterAnswer a = meter_answer(v, 1, {1097.3, false, 25}, book, {});
    EXPECT_NE(a.says.find("Other platinum"), std::string::npos) << a.says;
}

TEST(Meter, reads_what_is_on_the_display)
{
    const ProbeCurve pt = *parse_curve("pt1000");
    EXPECT_EQ(*meter_signal("1097", pt), 1097);
    EXPECT_EQ(*meter_signal("10.2 k", pt), 10200);
    EXPECT_EQ(*meter_signal("10,2 kΩ", pt), 10200);
    EXPECT_EQ(*meter_signal("1097 Ω", pt), 1097);
    EXPECT_TRUE(std::isinf(*meter_signal("OL", pt)));
    EXPECT_TRUE(std::isinf(*meter_signal("0l", pt)));
    for (const char* none : {"", "k", "warm", "-3", "nan", "1e99"})
        EXPECT_FALSE(meter_signal(none, pt)) << none;
}

} // namespace
