// From the tip of a probe to the figure the rules see, inside a day.
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

Variant variant_with(const std::function<void(Variant&)>& change)
{
    Variant v = new_job("glycol-coil").variants.front();
    change(v);
    return v;
}

CoupledResult day(const std::function<void(Variant&)>& change, std::size_t which = 0, CoupledOptions options = {})
{
    Job job = new_job("glycol-coil");
    change(job.variants.front());
    return run_coupled(*coupled_setup(job, job.variants.front(), job.days[which]), options);
}

TEST(InTheDay, a_chain_that_changes_nothing_changes_nothing)
{
    const auto plain = day([](Variant&) {});
    // The sensors are built, since the limits are narrower, and must read the same.
    const auto built = day([](Variant& v) { v.input.high_c = 340; });
    ASSERT_EQ(plain.records.size(), built.records.size());
    EXPECT_TRUE(std::equal(plain.nodes.begin(), plain.nodes.end(), built.nodes.begin()));
}

TEST(InTheDay, an_open_collector_probe_stops_the_pump_and_a_limit_probe_too)
{
    for (std::size_t probe : {0u, 1u, 2u}) {
        const auto r = day([&](Variant& v) { v.probes[probe].condition.kind = ConditionKind::open; });
        EXPECT_EQ(r.figures.starts(), 0) << probe;
        EXPECT_FALSE(r.records[100].inputs.readings[probe].valid);
        EXPECT_EQ(r.records[100].decisions[0].priority, Priority::fault);
    }
}

TEST(InTheDay, a_probe_in_the_sun_starts_earlier_and_a_swapped_pair_harvests_nothing)
{
    const auto sound = day([](Variant&) {}), sun = day([](Variant&v) { v.probes[0].condition = {ConditionKind::in_sun, 0, 0, 20}; });
    EXPECT_LT(sun.figures.pumps[0].first_start_s, sound.figures.pumps[0].first_start_s - 300);
    const auto swapped = day([](Variant& v) { v.probes[0].condition.kind = v.probes[1].condition.kind = ConditionKind::swapped; });
    EXPECT_LT(swapped.figures.heat.to_store, 0.02 * sound.figures.heat.to_store);
}

TEST(InTheDay, a_long_lead_on_the_collector_only_starts_that_much_earlier)
{
    const auto r = day([](Variant& v) { v.probes[0].lead.length_m = 60; });
    const Variant v = variant_with([](Variant& x) { x.probes[0].lead.length_m = 60; });
    for (const Record& rec : r.records)
        if (rec.decisions[0].on) { // first start
            const double tip = r.nodes[static_cast<std::size_t>(&rec - r.records.data()) * r.node_count + Network(v.loop, coupled_setup(new_job("glycol-coil"), v, new_job("glycol-coil").days[0])->probes).probe_node(0)];
            EXPECT_NEAR(rec.inputs.readings[0].mk / 1000.0 - tip, lead_error_k(v.probes[0].curve, v.probes[0].lead, tip), 0.01);
            return;
        }
    FAIL() << "it never started";
}

// Counts, a bridge, sun on a probe, an open one: skipping from threshold to
// threshold decides as looking at every second does.
class Steps : public testing::TestWithParam<int> {};
TEST_P(Steps, long_steps_decide_as_single_seconds_do)
{
    const auto change = [](Variant& v) {
        for (Probe& p : v.probes) {
            p.curve = curve("ntc:r25=10000,beta=3950");
            p.lead.length_m = 25;
            p.sensor.dissipation_w_k = 0.004;
        }
        v.input.high_c = 250;
        v.input.bits = 12;
        v.input.kind = GetParam() == 1 ? StageKind::bridge : StageKind::pull_up;
        v.input.pull_up_ohm = 4700;
        if (GetParam() == 2)
            v.probes[0].condition = {ConditionKind::in_sun, 0, 0, 10};
        if (GetParam() == 3)
            v.probes[2].condition.kind = ConditionKind::drifted;
    };
    Job job = new_job("glycol-coil");
    change(job.variants.front());
    CoupledSetup s = *coupled_setup(job, job.variants.front(), job.days[0]);
    s.spin_up_days = 1; // however often: both begin alike
    const auto stretched = run_coupled(s);
    s.step_s = 1;
    const auto seconds = run_coupled(s);
    EXPECT_GT(seconds.figures.starts(), 0);
    EXPECT_LE(std::abs(stretched.figures.starts() - seconds.figures.starts()), std::max(1.0, 0.02 * seconds.figures.starts()));
    // A single run of a single day, whose end hangs on a flat crossing: 71 s earlier are 0.5 %.
    EXPECT_NEAR(stretched.figures.heat.to_store, seconds.figures.heat.to_store, 0.006 * seconds.figures.heat.to_store);
    EXPECT_NEAR(stretched.figures.pumps[0].first_start_s, seconds.figures.pumps[0].first_start_s, 8);
}
INSTANTIATE_TEST_SUITE_P(Stages, Steps, testing::Range(0, 4));

TEST(InTheDay, its_own_samples_replay_to_the_same_decisions)
{
    Job job = new_job("glycol-coil");
    Variant& v = job.variants.front();
    for (Probe& p : v.probes)
        p.curve = curve("ntc:r25=10000,beta=3950");
    v.input.kind = StageKind::pull_up;
    v.input.high_c = 85; // the collector leaves it at noon and comes back
    v.input.bits = 10;
    const CoupledSetup s = *coupled_setup(job, v, job.days[0]);
    struct Sample {
        Inputs in;
        Decisions out;
    };
    std::vector<Sample> rows;
    CoupledOptions o;
    o.each_sample = [&](const SampleRow& r) { rows.push_back({r.inputs, r.decisions}); };
    const auto run = run_coupled(s, o);
    ASSERT_EQ(rows.size(), 86400u);
    EngineState state = run.first_state;
    std::size_t invalid = 0;
    for (const Sample& r : rows) {
        ASSERT_EQ(step(s.program, r.in, state), r.out);
        invalid += r.in.readings[0].valid ? 0 : 1;
    }
    EXPECT_GT(invalid, 1000u);
    EXPECT_LT(invalid, 40000u);
}

TEST(Replay, a_logged_reading_beyond_the_units_range_is_a_fault)
{
    Variant v = new_job("glycol-coil").variants.front();
    Trace t;
    t.time_s = {0, 1, 2, 3};
    using Q = Quantity;
    t.columns = {{"collector", Q::temperature, {50, 50, 400, 50}}, {"tank_bottom", Q::temperature, {30, 30, 30, 30}}, {"tank_top", Q::temperature, {40, 40, 40, 40}}};
    const auto r = run_replay(*replay_setup(v), t);
    ASSERT_TRUE(r);
    EXPECT_TRUE(r->decision(1, 0).on);
    EXPECT_FALSE(r->inputs(2).readings[0].valid);
    EXPECT_EQ(r->decision(2, 0).priority, Priority::fault);
}

TEST(RealPoints, move_with_lead_and_tolerance)
{
    const Variant v = variant_with([](Variant& x) { x.probes[0].lead.length_m = 30; });
    std::size_t rule = 0;
    while (!std::holds_alternative<Differential>(v.unit.rules[rule].body))
        ++rule;
    const auto p = real_points(v, rule, {40, 15});
    ASSERT_TRUE(p);
    EXPECT_LT(p->on.real_k(), 8 - 0.5) << "the collector reads high: it starts early";
    EXPECT_GT(p->on.worst_k, 1.0);
    EXPECT_FALSE(real_points(v, 0, {40, 15})) << "a limit has no difference";
}

// ISO 9806 form at zero output, solved by hand: the three of the handbook's table.
TEST(Stagnation, of_three_collectors)
{
    Collector c;
    c.eta0 = 0.78, c.a1_w_m2k = 3.5, c.a2_w_m2k2 = 0.015;
    EXPECT_NEAR(stagnation_c(c), 169.5, 0.05);
    c.eta0 = 0.70, c.a1_w_m2k = 1.5, c.a2_w_m2k2 = 0.006;
    EXPECT_NEAR(stagnation_c(c), 268.7, 0.05);
    c.eta0 = 0.90, c.a1_w_m2k = 15, c.a2_w_m2k2 = 0;
    EXPECT_NEAR(stagnation_c(c), 90, 1e-9);
}

TEST(Health, side_by_side_judges_by_both_tolerances_and_the_meter)
{
    const Variant v = new_job("glycol-coil").variants.front(); // class B
    const double at_20 = signal_beyond(v.probes[0].curve, 20), at_21 = signal_beyond(v.probes[0].curve, 20.7);
    const auto near = side_by_side(v, 0, at_20, 1, at_21, 0);
    ASSERT_TRUE(near);
    EXPECT_NEAR(near->apart_k, -0.7, 1e-9);
    EXPECT_NEAR(near->allowed_k, 0.3 + 0.1 + 0.3 + 0.1035, 1e-3);
    EXPECT_TRUE(near->sound());
    EXPECT_FALSE(side_by_side(v, 0, at_20, 1, signal_beyond(v.probes[0].curve, 22), 0)->sound());
    EXPECT_FALSE(side_by_side(v, 0, at_20, 0, at_20, 0)) << "with itself";
    EXPECT_FALSE(side_by_side(v, 0, -1, 1, at_20, 0));
}

TEST(Health, warming_follows_the_lag)
{
    EXPECT_NEAR(warming_c(20, 20, 33, 20), 33 - 13 / std::exp(1.0), 1e-12);
    EXPECT_NEAR(warming_c(20, 20, 33, reaches_after_s(20, 20, 33, 30)), 30, 1e-9);
    EXPECT_TRUE(std::isinf(reaches_after_s(20, 20, 33, 33)));
    EXPECT_TRUE(std::isinf(reaches_after_s(20, 20, 33, 10)));
}

TEST(Health, signs_and_limits_speak_of_this_probe)
{
    Variant v = new_job("glycol-coil").variants.front();
    const auto signs = fault_signs(v, 0, {});
    ASSERT_EQ(signs.size(), 7u);
    EXPECT_NE(signs[0].at_meter.find("1077.9"), std::string::npos) << signs[0].at_meter;
    v.input.low_c = -40;
    EXPECT_NEAR(detection_limits(v, 0).at_low, 842.71, 0.01); // IEC 60751
}

TEST(PocketChart, has_both_scales_and_the_tables_ohms)
{
    const PocketChart c = pocket_chart(new_job("glycol-coil").variants.front());
    ASSERT_EQ(c.columns.size(), 1u) << "three equal curves share a column";
    bool hundred = false, f_70 = false;
    for (const PocketRow& r : c.rows) {
        hundred = hundred || (r.temp_c == 100 && std::fabs(r.signal[0] - 1385.06) < 0.01);
        f_70 = f_70 || std::fabs(r.temp_c * 1.8 + 32 - 70) < 1e-9;
    }
    EXPECT_TRUE(hundred);
    EXPECT_TRUE(f_70);
    const std::string csv = pocket_csv(c);
    EXPECT_NE(csv.find("\n100.00,212.00,1385.0"), std::string::npos);
    EXPECT_EQ(signal_text(32650), "32650");
    EXPECT_EQ(signal_text(1385.055), "1385");
    EXPECT_EQ(signal_text(678.31), "678.3");
}

TEST(Placing, every_place_of_every_arrangement_has_its_guidance)
{
    for (const Arrangement& a : presets())
        for (ProbePlace place : a.places) {
            const PlacingGuide g = placing_guide(a, place);
            EXPECT_GT(g.where.size(), 20u) << a.key;
            EXPECT_GT(g.mistake.size(), 10u) << a.key;
            EXPECT_GT(g.caution.size(), 10u) << a.key;
        }
    EXPECT_NE(placing_guide(*find_preset("tube-manifold"), ProbePlace::collector).where, placing_guide(*find_preset("direct"), ProbePlace::collector).where);
}

// Whatever the tips and the sun do within their bounds, what the unit reads stays
// within the bounds of its readings, and stays valid or invalid as they say.
RC_GTEST_PROP(Readings, stay_within_their_bounds, ())
{
    Variant v = new_job("glycol-coil").variants.front();
    for (Probe& p : v.probes) {
        p.curve = curve(*rc::gen::element<std::string>("pt1000", "ntc:r25=10000,beta=3950", "table:0=32650,25=10000,50=3602,100=678.3"));
        p.lead.length_m = *rc::gen::inRange(0, 80);
        p.sensor.dissipation_w_k = *rc::gen::element(0.0, 0.002);
        p.condition.kind = *rc::gen::element(ConditionKind::sound, ConditionKind::sound, ConditionKind::open, ConditionKind::stuck, ConditionKind::drifted, ConditionKind::in_sun);
    }
    if (*rc::gen::inRange(0, 3) == 0)
        v.probes[0].condition.kind = v.probes[1].condition.kind = ConditionKind::swapped;
    v.input.kind = *rc::gen::element(StageKind::exact, StageKind::pull_up, StageKind::bridge);
    v.input.bits = *rc::gen::inRange(8, 15);
    v.input.low_c = *rc::gen::element(-60.0, 10.0);
    v.input.high_c = *rc::gen::element(60.0, 350.0);
    const Readings readings(sensors(v), v.probes.size(), *rc::gen::element(0.0, 0.1));
    for (int k = 0; k < 20; ++k) {
        std::array<double, max_probes> low{}, high{}, tips{};
        for (std::size_t i = 0; i < v.probes.size(); ++i) {
            low[i] = *rc::gen::inRange(-200, 1400) / 10.0;
            high[i] = low[i] + *rc::gen::inRange(0, 60) / 10.0;
        }
        const double dark = *rc::gen::inRange(0, 900), bright = dark + *rc::gen::inRange(0, 200);
        ReadingBounds bounds;
        if (!readings.bound(low, high, dark, bright, bounds))
            continue;
        for (int n = 0; n < 10; ++n) {
            for (std::size_t i = 0; i < v.probes.size(); ++i)
                tips[i] = std::lerp(low[i], high[i], *rc::gen::inRange(0, 101) / 100.0);
            Inputs in;
            readings.read(tips, std::lerp(dark, bright, *rc::gen::inRange(0, 101) / 100.0), in);
            for (std::size_t i = 0; i < v.probes.size(); ++i) {
                RC_ASSERT(in.readings[i].valid == ((bounds.invalid >> i & 1U) == 0));
                RC_ASSERT(!in.readings[i].valid || (in.readings[i].mk >= bounds.low[i] && in.readings[i].mk <= bounds.high[i]));
            }
        }
    }
}

} // namespace
