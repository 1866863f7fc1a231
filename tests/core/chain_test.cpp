// From the tip of a probe to the figure the rules see, and the error budget of it.
#include "core/job/trace.h"
#include "core/probe/chain.h"
#include "core/setup/job_setup.h"
#include "core/sums/probe_health.h"
#include "core/sums/switching.h"
#include "core/wording/placing.h"
#include "core/wording/pocket_chart.h"

#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <cmath>

using namespace vernal;

namespace {

ProbeCurve curve(const std::string& s) { return *parse_curve(s); }

ChainSpec spec(const std::string& text)
{
    ChainSpec s;
    s.curve = s.unit_curve = curve(text);
    return s;
}

ChainSpec counted(const std::string& text, double pull_up_ohm, int bits)
{
    ChainSpec s = spec(text);
    s.stage.kind = StageKind::pull_up;
    s.stage.pull_up_ohm = pull_up_ohm;
    s.stage.bits = bits;
    return s;
}

TEST(Chain, without_anything_in_between_it_reads_the_tip)
{
    const ReadingChain c(spec("pt1000"));
    EXPECT_TRUE(c.plain());
    EXPECT_EQ(c.at(48.123, 900).temp_c, 48.123);
    EXPECT_FALSE(c.at(400, 0).valid) << "beyond what the unit takes for sound";
}

// The chain, prepared on a grid, against each step done one after the other.
RC_GTEST_PROP(Chain, agrees_with_the_steps_done_one_by_one, ())
{
    ChainSpec s = spec(*rc::gen::element<std::string>("pt1000", "ntc:r25=10000,beta=3950", "ntc:r25=5000,beta=3500", "poly:at=25,r=2000,c=0.00788/1.937e-05", "abc:0.001129148,0.000234125,8.76741e-08"));
    s.lead.length_m = *rc::gen::inRange(0, 60);
    s.lead.leak_ohm = *rc::gen::element(0.0, 3e5);
    s.sensor.tolerance = {ToleranceKind::percent, 0.02, 0.01, 0};
    s.sensor.share = *rc::gen::inRange(-10, 11) / 10.0;
    s.sensor.dissipation_w_k = *rc::gen::element(0.0, 0.002);
    s.correction_k = *rc::gen::inRange(-30, 31) / 10.0;
    s.stage.kind = *rc::gen::element(StageKind::exact, StageKind::pull_up);
    s.stage.pull_up_ohm = 4700;
    s.stage.bits = *rc::gen::inRange(8, 17);
    const ReadingChain chain(s);
    const double tip = *rc::gen::inRange(-200, 1300) / 10.0;
    const double ohm_cold = signal_beyond(s.curve, tip);
    double t = tip + (s.sensor.dissipation_w_k > 0 ? probe_power_w(s.stage, ohm_cold, ohm_cold) / s.sensor.dissipation_w_k : 0.0);
    t += s.sensor.share * tolerance_k(s.curve, s.sensor.tolerance, t);
    const double ohm = seen_ohm(s.lead, signal_beyond(s.curve, t));
    double read = temperature_beyond(s.unit_curve, ohm), count_k = 0;
    if (s.stage.kind == StageKind::pull_up) {
        const double counts = std::ldexp(1.0, s.stage.bits), volt = std::round(divider_volt(s.stage, ohm) / s.stage.supply_v * counts) / counts * s.stage.supply_v;
        read = temperature_beyond(s.unit_curve, ohm_of_divider(s.stage, volt));
        count_k = kelvin_per_count(s.stage, s.unit_curve, read); // the grid may land on the neighbour at the very edge
    }
    RC_ASSERT(std::fabs(chain.at(tip, 0).temp_c - read - s.correction_k) < 0.002 + 1.05 * count_k);
    if (!chain.plain()) // one look, without the grid: the very same steps
        RC_ASSERT(std::fabs(ReadingChain(s, ReadingChain::For::look).at(tip, 0).temp_c - read - s.correction_k) < 2e-5 * (1 + std::fabs(read)));
}

RC_GTEST_PROP(Chain, a_warmer_tip_never_reads_colder, ())
{
    ChainSpec s = counted(*rc::gen::element<std::string>("pt1000", "ntc:r25=10000,beta=3950", "line:mA=4..20,c=-50..200"), 3300, *rc::gen::inRange(8, 15));
    s.lead.length_m = 40;
    s.sensor.dissipation_w_k = 0.003;
    const ReadingChain c(s);
    double before = -INFINITY;
    for (double t = -40; t < 200; t += 0.37) {
        const Seen now = c.at(t, 0);
        RC_ASSERT(!now.valid || now.temp_c >= before);
        before = now.valid ? now.temp_c : before;
    }
}

TEST(Chain, open_and_short_are_invalid_in_every_stage_and_curve)
{
    for (const char* text : {"pt1000", "pt100", "ntc:r25=10000,beta=3950", "ntc:r25=100000,beta=3950", "abc:0.001129148,0.000234125,8.76741e-08", "table:0=32650,25=10000,50=3602,100=678.3", "poly:at=25,r=2000,c=0.00788/1.937e-05", "line:mA=4..20,c=0..100", "line:V=0.5..3.5,c=0..100"})
        for (StageKind stage : {StageKind::exact, StageKind::pull_up})
            for (ConditionKind kind : {ConditionKind::open, ConditionKind::shorted}) {
                ChainSpec s = counted(text, 10000, 12);
                s.stage.kind = stage;
                s.condition.kind = kind;
                if (!is_resistance(s.curve)) // nothing flows: read below the span
                    s.stage.low_c = -5;
                EXPECT_FALSE(ReadingChain(s).at(60, 0).valid) << text << ", stage " << static_cast<int>(stage) << ", condition " << static_cast<int>(kind);
            }
}

TEST(Chain, conditions_read_as_they_say)
{
    ChainSpec s = spec("pt1000");
    s.condition = {ConditionKind::stuck, 41, 0, 0};
    EXPECT_EQ(ReadingChain(s).at(80, 0).temp_c, 41);
    s.condition = {ConditionKind::drifted, 0, 0.1, 0};
    EXPECT_NEAR(ReadingChain(s).at(20, 0).temp_c, temperature_beyond(s.curve, 1.1 * signal_beyond(s.curve, 20)), 1e-4);
    s.condition = {ConditionKind::in_sun, 0, 0, 15};
    EXPECT_NEAR(ReadingChain(s).at(20, 600).temp_c, 29, 1e-4);
    s = spec("ntc:r25=10000,beta=3950");
    s.unit_curve = curve("ntc:r25=10000,beta=3435");
    EXPECT_NEAR(ReadingChain(s).at(60, 0).temp_c, temperature_beyond(s.unit_curve, signal_beyond(s.curve, 60)), 1e-4);
}

// The bridge's numbers of the trade again: 12 °F at 70 °F set on the scale is a
// smaller difference over a hot tank.
TEST(Chain, a_bridge_drifts_with_its_tank)
{
    ChainSpec s = spec("ntc:r25=10000,beta=3660");
    s.stage.kind = StageKind::bridge;
    s.stage.bits = 16;
    s.stage.scale_at_c = Temperature::fahrenheit(70).in_celsius();
    const BridgeChain b(s, s);
    const double d = 12 / 1.8, cold = s.stage.scale_at_c, hot = Temperature::fahrenheit(150).in_celsius();
    EXPECT_NEAR(b.collector(b.difference_k(cold + d, cold, 0), {cold, true}).temp_c - cold, d, 0.01);
    const double volt_hot = bridge_volt(s.stage, signal_beyond(s.curve, hot + d), signal_beyond(s.curve, hot));
    EXPECT_NEAR(b.collector(b.difference_k(hot + d, hot, 0), {hot, true}).temp_c - hot, bridge_difference_k(s.stage, s.curve, volt_hot, cold), 0.01);
    EXPECT_LT(b.collector(b.difference_k(hot + d, hot, 0), {hot, true}).temp_c - hot, d - 1);
}

BudgetAsk ask_of(const std::string& text)
{
    BudgetAsk a;
    a.source.curve = a.store.curve = curve(text);
    return a;
}

TEST(Budget, adds_up_by_hand)
{
    BudgetAsk a = ask_of("pt1000");
    a.source.sensor.tolerance.kind = a.store.sensor.tolerance.kind = ToleranceKind::class_b;
    a.source.lead.length_m = 30;
    a.source.lead.section_m2 = awg_section_m2(22);
    a.resolution_k = 0.1;
    a.stage.mismatch_k = 0.2;
    a.source.placement = 0.1;
    a.source.surroundings_c = 18;
    a.store_c = 40;
    a.set_k = 8;
    const Budget b = error_budget(a);
    const double tip = 48 + 0.1 * (18 - 48), s = 0.3 + 0.005 * tip, t = 0.3 + 0.005 * 40;
    EXPECT_NEAR(b.worst_k, s + t + 0.05 + 0.05 + 0.2, 1e-9);
    EXPECT_NEAR(b.rss_k, std::sqrt(s * s + t * t + 0.05 * 0.05 * 2 + 0.2 * 0.2), 1e-9);
    EXPECT_NEAR(b.known_k, lead_error_k(a.source.curve, a.source.lead, tip) - 3, 1e-9);
    EXPECT_NEAR(b.real_k(), 8 - b.known_k, 1e-12);
}

TEST(Budget, equal_leads_and_self_heating_of_two_equal_probes_nearly_cancel)
{
    BudgetAsk a = ask_of("ntc:r25=10000,beta=3950");
    for (BudgetProbe* p : {&a.source, &a.store}) {
        p->lead.length_m = 20;
        p->sensor.dissipation_w_k = 0.002;
    }
    a.stage.kind = StageKind::pull_up;
    const Budget b = error_budget(a);
    EXPECT_GT(b.lines[static_cast<std::size_t>(ErrorCause::self_heating)].source_known_k, 0.2);
    EXPECT_LT(std::fabs(b.known_k), 0.1);
}

// The fluids put where the budget says the unit sees the set difference: the
// chains read just that difference.
RC_GTEST_PROP(Budget, the_real_point_reads_as_the_set_one, ())
{
    BudgetAsk a = ask_of(*rc::gen::element<std::string>("pt1000", "ntc:r25=10000,beta=3950"));
    a.source.lead.length_m = *rc::gen::inRange(0, 50);
    a.store.lead.length_m = *rc::gen::inRange(0, 20);
    a.source.placement = *rc::gen::inRange(0, 20) / 100.0;
    a.store_c = *rc::gen::inRange(15, 70);
    const Budget b = error_budget(a);
    const auto reads = [&](const BudgetProbe& p, double fluid_c) {
        ChainSpec s;
        s.curve = s.unit_curve = p.curve;
        s.lead = p.lead;
        return ReadingChain(s).at(fluid_c + p.placement * (p.surroundings_c - fluid_c), 0).temp_c;
    };
    const double source_c = a.store_c + b.real_k();
    // Placement and lead are taken at the set point, the fluid stands a little off it.
    RC_ASSERT(std::fabs(reads(a.source, source_c) - reads(a.store, a.store_c) - a.set_k) < 0.01 + 0.22 * std::fabs(b.known_k));
}

} // namespace
