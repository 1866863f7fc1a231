#include "core/probe/input_stage.h"
#include "core/rules/knob.h"

#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <cmath>

using namespace vernal;

namespace {

ProbeCurve curve(const std::string& s) { return *parse_curve(s); }
double f_to_c(double f) { return Temperature::fahrenheit(f).in_celsius(); }

InputStage bridge()
{
    InputStage s;
    s.kind = StageKind::bridge;
    return s;
}

// Worked numbers of the trade: B 3660 K, 5 V, 12 °F of difference.
TEST(Bridge, the_voltage_of_one_difference_falls_as_the_tank_warms)
{
    const ProbeCurve c = curve("ntc:r25=10000,beta=3660");
    const auto volt = [&](double tank_f) { return bridge_volt(bridge(), signal_beyond(c, f_to_c(tank_f + 12)), signal_beyond(c, f_to_c(tank_f))); };
    EXPECT_NEAR(volt(70), 2.842, 0.0005);
    EXPECT_NEAR(volt(150), 2.760, 0.0005);
}

TEST(Bridge, stands_at_half_the_supply_when_both_are_equal_and_rises_with_the_collector)
{
    const ProbeCurve c = curve("ntc:r25=5000,beta=3500");
    for (double t : {0.0, 30.0, 90.0}) {
        EXPECT_DOUBLE_EQ(bridge_volt(bridge(), signal_beyond(c, t), signal_beyond(c, t)), 2.5);
        EXPECT_GT(bridge_volt(bridge(), signal_beyond(c, t + 5), signal_beyond(c, t)), 2.5);
    }
    InputStage gained = bridge();
    gained.gain = 4;
    EXPECT_DOUBLE_EQ(bridge_volt(gained, 4000, 4400), 2.5 + 4 * (5 * 4400 / 8400.0 - 2.5));
    EXPECT_DOUBLE_EQ(bridge_volt(gained, 100, 44000), 5) << "never beyond the supply";
}

RC_GTEST_PROP(Bridge, what_a_voltage_means_gives_that_voltage, ())
{
    const ProbeCurve c = curve("ntc:r25=10000,beta=3660");
    const double store = *rc::gen::inRange(0, 90), d = *rc::gen::inRange(-150, 400) / 10.0;
    const double volt = bridge_volt(bridge(), signal_beyond(c, store + d), signal_beyond(c, store));
    RC_ASSERT(std::fabs(bridge_difference_k(bridge(), c, volt, store) - d) < 1e-9);
}

TEST(PullUp, volts_and_ohms_are_each_others_inverse)
{
    InputStage s;
    s.kind = StageKind::pull_up;
    s.pull_up_ohm = 4700;
    EXPECT_DOUBLE_EQ(divider_volt(s, 4700), 2.5);
    EXPECT_DOUBLE_EQ(divider_volt(s, INFINITY), 5);
    for (double r : {200.0, 4700.0, 90000.0})
        EXPECT_NEAR(ohm_of_divider(s, divider_volt(s, r)), r, 1e-6);
    s.gain = 1.5;
    EXPECT_NEAR(ohm_of_divider(s, divider_volt(s, 4000)), 4000, 1e-6);
}

// At mid-range of a divider V' = Vs/4 · B/T²: by hand for B 3950 K, 25 °C, ten bits.
TEST(PullUp, kelvin_per_count_by_hand)
{
    InputStage s;
    s.kind = StageKind::pull_up;
    const double per_k = 5.0 / 4 * 3950 / (298.15 * 298.15);
    EXPECT_NEAR(kelvin_per_count(s, curve("ntc:r25=10000,beta=3950"), 25), 5.0 / 1024 / per_k, 1e-5);
    s.bits = 12;
    EXPECT_NEAR(kelvin_per_count(s, curve("ntc:r25=10000,beta=3950"), 25), 5.0 / 4096 / per_k, 1e-5);
    EXPECT_NEAR(kelvin_per_count(s, curve("line:mA=4..20,c=0..100"), 25), 20.0 / 4096 / 0.16, 1e-9) << "counts reach over 0 to 20 mA";
    s.kind = StageKind::exact;
    EXPECT_EQ(kelvin_per_count(s, curve("pt1000"), 25), 0);
}

// Swing is greatest with the geometric mean of both ends' ohms; a thermistor's
// hot end has the coarser counts, so the best pull-up lies below that mean.
TEST(PullUp, no_other_value_has_a_finer_coarsest_count)
{
    InputStage s;
    s.kind = StageKind::pull_up;
    const ProbeCurve c = curve("ntc:r25=10000,beta=3950");
    const PullUpChoice best = best_pull_up(s, c, 0, 100);
    const auto coarsest = [&](double ohm) {
        InputStage t = s;
        t.pull_up_ohm = ohm;
        return std::max(kelvin_per_count(t, c, 0), kelvin_per_count(t, c, 100));
    };
    EXPECT_LT(best.best_ohm, std::sqrt(signal_beyond(c, 0) * signal_beyond(c, 100)) * 1.01);
    for (double factor : {0.25, 0.5, 0.8, 1.25, 2.0, 4.0})
        EXPECT_GE(coarsest(best.best_ohm * factor), coarsest(best.best_ohm) * 0.999) << factor;
    EXPECT_LT(std::fabs(std::log10(best.e24_ohm / best.best_ohm)), 0.025) << "E24 steps are a tenth apart";
    EXPECT_NEAR(best.coarsest_k, coarsest(best.e24_ohm), 1e-9);
}

TEST(SelfHeating, power_in_the_probe_by_hand)
{
    InputStage s;
    s.kind = StageKind::pull_up;
    EXPECT_NEAR(probe_power_w(s, 10000, 0), 5.0 * 5 / 4 / 10000, 1e-12); // 2.5 V over 10 kΩ
    EXPECT_NEAR(probe_power_w(bridge(), 5000, 3000), std::pow(5.0 / 8000, 2) * 5000, 1e-12);
    s.kind = StageKind::exact;
    EXPECT_EQ(probe_power_w(s, 10000, 0), 0);
}

TEST(Knob, pair_at_the_ends_and_between)
{
    Knob k;
    EXPECT_DOUBLE_EQ(knob_pair(k, 0).on_k, 3);
    EXPECT_DOUBLE_EQ(knob_pair(k, 10).off_k, 8);
    EXPECT_DOUBLE_EQ(knob_pair(k, 5).on_k, 8.5);
    EXPECT_DOUBLE_EQ(knob_pair(k, 99).on_k, 14) << "held at the end of the scale";
    k.last = k.first;
    EXPECT_DOUBLE_EQ(knob_pair(k, 5).on_k, 3) << "a scale without length";
    k.last = 10;
    k.law = KnobLaw::growing;
    EXPECT_NEAR(knob_pair(k, 5).on_k, std::sqrt(3.0 * 14.0), 1e-12);
}

RC_GTEST_PROP(Knob, no_mark_comes_closer_than_the_one_found, ())
{
    Knob k;
    k.law = *rc::gen::element(KnobLaw::even, KnobLaw::growing);
    k.first = *rc::gen::element(0.0, 10.0);
    k.last = k.first == 0 ? 10 : 1;
    const KnobPair wanted{*rc::gen::inRange(0, 200) / 10.0, *rc::gen::inRange(0, 120) / 10.0};
    const auto far = [&](const KnobPair& p) { return std::pow(p.on_k - wanted.on_k, 2) + std::pow(p.off_k - wanted.off_k, 2); };
    const KnobSetting s = knob_setting(k, wanted);
    RC_ASSERT(std::fabs(s.got.on_k - wanted.on_k - s.miss.on_k) < 1e-12);
    for (int i = 0; i <= 40; ++i)
        RC_ASSERT(far(s.got) <= far(knob_pair(k, std::lerp(k.first, k.last, i / 40.0))) + 1e-9);
}

} // namespace
