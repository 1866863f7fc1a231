// Drain-back: where the water stands, what the pump lifts, when a siphon holds.
#include "core/findings/findings.h"
#include "core/job/job.h"
#include "core/setup/job_setup.h"

#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <cmath>
#include <memory>

using namespace vernal;

namespace {

Loop drain_back_loop()
{
    Loop l = new_job("drainback").variants.front().loop;
    l.pump.head_m = 9;
    l.pump.free_flow_m3_s = 4e-4;
    l.supply.bore_m = l.back.bore_m = 0.013; // fast enough to sweep the air out
    return l;
}

TEST(Siphon, hangs_together_as_high_as_the_air_and_the_steam_table_say)
{
    // p_atm − p_sat over ρ g, saturation pressures and densities of IAPWS-IF97
    // (steam tables): 20 °C 2.339 kPa, 998.2 kg/m³; 77 °C 41.9, 973.7; 90 °C 70.18, 965.3.
    const auto by_table = [](double kpa, double density) { return (101.325 - kpa) * 1000 / (density * 9.80665); };
    EXPECT_NEAR(siphon_height_m(20, 0), by_table(2.339, 998.2), 0.02);
    EXPECT_NEAR(siphon_height_m(77, 0), by_table(41.9, 973.7), 0.03);
    EXPECT_NEAR(siphon_height_m(90, 0), by_table(70.18, 965.3), 0.03);
    EXPECT_NEAR(siphon_height_m(100, 0), 0, 0.02);
    // With 6 m, water above about 77 °C flashes (the trade's figure; 78.2 °C by the table at sea level).
    EXPECT_GT(siphon_height_m(77, 0), 6);
    EXPECT_LT(siphon_height_m(79, 0), 6);
    // Standard atmosphere at 2000 m: 79.5 kPa (ISO 2533).
    EXPECT_NEAR(siphon_height_m(20, 2000), (79.5 - 2.339) * 1000 / (998.2 * 9.80665), 0.05);
}

TEST(Lift, flow_falls_with_the_lift_and_ends_at_the_head)
{
    const Pump p{1e-4, 60, 9, 4e-4};
    EXPECT_DOUBLE_EQ(flow_against(p, 0), 1e-4);
    EXPECT_EQ(flow_against(p, 9), 0);
    EXPECT_EQ(flow_against(p, 30), 0);
    EXPECT_NEAR(flow_against(p, 9 * 0.75), 0.5e-4, 1e-12); // a quarter of the head is left, half the flow
    EXPECT_EQ(flow_against(Pump{1e-4, 60, 0, 0}, 20), 1e-4) << "an unknown curve says nothing";
}

RC_GTEST_PROP(Lift, flow_never_rises_with_the_lift, ())
{
    const auto any = [](double lo, double hi) { return lo + (hi - lo) * *rc::gen::inRange(0, 1001) / 1000.0; };
    const double flow = any(1e-6, 0.02);
    const Pump p{flow, 60, any(0.1, 200), flow * any(1.01, 20)};
    const double low = any(0, 60), high = low + any(0, 60);
    RC_ASSERT(flow_against(p, high) <= flow_against(p, low));
    RC_ASSERT(flow_against(p, low) <= flow * (1 + 1e-12));
}

struct Filled {
    explicit Filled(double lift_m = 5) { loop.drain_back.lift_m = lift_m; }
    Loop loop = drain_back_loop();
    Network net{loop, {}};
    std::unique_ptr<HydraulicState> made;
    HydraulicState& water() { return made ? *made : *(made = std::make_unique<HydraulicState>(net, loop, 0)); }
    std::vector<double> t = net.start(40, 20);
    void pass(double seconds)
    {
        for (double s = 0; s < seconds; ++s)
            water().pass(1, t);
    }
};

TEST(DrainBack, fills_at_the_lifted_flow_then_runs_then_forms_a_siphon)
{
    Filled f;
    EXPECT_TRUE(f.water().drained());
    f.water().outputs(Acting{1}, f.t, 10);
    EXPECT_EQ(f.water().filling(), Filling::filling);
    EXPECT_EQ(f.water().flows(0, 10).route_w_k[0], 0) << "nothing comes round while it fills";
    const double lifted = flow_against(f.loop.pump, f.loop.drain_back.lift_m);
    const double section = M_PI / 4 * f.loop.back.bore_m * f.loop.back.bore_m;
    // Outdoors, and indoors what climbs above the water; sum and plant have one number.
    const auto empties_m3 = [&](const Pipe& p) { return std::min(p.length_m, p.outdoor_m + f.loop.drain_back.lift_m) * M_PI / 4 * p.bore_m * p.bore_m; };
    const double volume = f.loop.collector.content_m3 + empties_m3(f.loop.supply) + empties_m3(f.loop.back);
    EXPECT_NEAR(f.net.draining_m3(), volume, 1e-9 * volume);
    EXPECT_NEAR(f.net.draining_m3(), draining(f.loop, 0).array_m3 + draining(f.loop, 0).pipe_m3, 1e-9 * volume);
    EXPECT_NEAR(f.water().until_change_s(), f.net.draining_m3() / lifted, 1e-9);
    f.pass(std::ceil(f.water().until_change_s()));
    EXPECT_EQ(f.water().filling(), Filling::running);
    EXPECT_FALSE(f.water().siphon());
    EXPECT_NEAR(f.water().flows(0, 10).route_w_k[0], f.net.rate_w_k(0, lifted), 1e-9);
    f.pass(std::ceil(f.loop.back.length_m * section / lifted) + 1);
    EXPECT_TRUE(f.water().siphon());
    EXPECT_NEAR(f.water().flows(0, 10).route_w_k[0], f.net.rate_w_k(0, f.loop.pump.flow_m3_s), 1e-9);
    EXPECT_EQ(f.water().figures().fills, 1);
}

// 30 % of the speed has 9 % of the head: without full speed at the start the
// array never fills; with it a siphon takes over, if the set speed can hold one.
TEST(DrainBack, a_slow_pump_needs_full_speed_to_fill)
{
    Filled slow;
    slow.loop.pump.speed = 0.5;
    slow.loop.drain_back.fill_boost = false;
    slow.water().outputs(Acting{1}, slow.t, 10);
    slow.pass(900);
    EXPECT_EQ(slow.water().filling(), Filling::filling);
    EXPECT_EQ(slow.water().trouble(), Trouble::dry);
    EXPECT_NEAR(slow.water().figures().dry_run_s, 900, 1);
    Filled boosted;
    boosted.loop.pump.speed = 0.5;
    boosted.loop.supply.bore_m = boosted.loop.back.bore_m = 0.009; // narrow: fast enough at half the flow
    boosted.water().outputs(Acting{1}, boosted.t, 10);
    boosted.pass(900);
    EXPECT_TRUE(boosted.water().siphon());
    EXPECT_NEAR(boosted.water().flows(0, 10).route_w_k[0], boosted.net.rate_w_k(0, 0.5 * boosted.loop.pump.flow_m3_s), 1e-9);
    Filled lost;
    lost.loop.pump.speed = 0.3;
    lost.loop.supply.bore_m = lost.loop.back.bore_m = 0.013; // too wide for that flow: the lift returns
    lost.water().outputs(Acting{1}, lost.t, 10);
    lost.pass(900);
    EXPECT_FALSE(lost.water().siphon());
    EXPECT_EQ(lost.water().flows(0, 10).route_w_k[0], 0);
    EXPECT_EQ(lost.water().trouble(), Trouble::dry);
}

TEST(DrainBack, a_hot_top_breaks_the_siphon)
{
    Filled f(6);
    f.water().outputs(Acting{1}, f.t, 10);
    f.pass(600);
    ASSERT_TRUE(f.water().siphon());
    f.t[f.net.node_of(ProbePlace::collector)] = 80;
    f.pass(1);
    EXPECT_FALSE(f.water().siphon());
    EXPECT_LT(f.water().flows(0, 10).route_w_k[0], f.net.rate_w_k(0, f.loop.pump.flow_m3_s));
}

TEST(DrainBack, no_siphon_in_wide_slow_pipe_or_where_none_is_wanted)
{
    for (const auto& change : {+[](Loop& l) { l.back.bore_m = 0.05; }, +[](Loop& l) { l.drain_back.siphon = false; }}) {
        Loop l = drain_back_loop();
        change(l);
        const Network net(l, {});
        HydraulicState water(net, l, 0);
        auto t = net.start(40, 20);
        water.outputs(Acting{1}, t, 10);
        for (int s = 0; s < 3600; ++s)
            water.pass(1, t);
        EXPECT_EQ(water.filling(), Filling::running);
        EXPECT_FALSE(water.siphon());
        EXPECT_GT(water.figures().lifting_s, 2000);
    }
}

TEST(DrainBack, drains_after_its_time_and_not_before)
{
    Filled f;
    f.water().outputs(Acting{1}, f.t, 10);
    f.pass(400);
    f.water().outputs(Acting{0}, f.t, 10);
    EXPECT_EQ(f.water().filling(), Filling::draining);
    EXPECT_FALSE(f.water().drained());
    f.pass(f.loop.drain_back.drain_s - 1);
    EXPECT_FALSE(f.water().drained());
    f.pass(1);
    EXPECT_TRUE(f.water().drained());
}

TEST(DrainBack, water_takes_its_heat_along)
{
    Filled f;
    for (std::size_t i = 0; i < f.t.size(); ++i)
        f.t[i] = 20 + static_cast<double>(i);
    const double empty = f.net.stored_j(f.t.data(), true);
    f.net.fill(f.t);
    EXPECT_NEAR(f.net.stored_j(f.t.data(), false), empty, 1e-9 * empty);
    f.net.drain(f.t);
    EXPECT_NEAR(f.net.stored_j(f.t.data(), true), empty, 1e-9 * empty);
}

TEST(DrainBack, a_pump_below_the_lift_runs_dry_and_brings_no_heat)
{
    Job job = new_job("drainback");
    job.variants[0].loop.pump.head_m = 4;
    job.variants[0].loop.pump.free_flow_m3_s = 4e-4;
    const Figures f = run_coupled(*coupled_setup(job, job.variants[0], job.days[0])).figures;
    EXPECT_GT(f.hydraulics.dry_run_s, 3600);
    EXPECT_EQ(f.heat.to_store > 3.6e6, false);
    EXPECT_LT(std::fabs(f.residual_j()), 1e-9 * f.heat.absorbed);
}

TEST(DrainBack, an_empty_array_cannot_freeze_but_one_without_pitch_can)
{
    Job job = new_job("drainback");
    const auto frost = [&] { return run_coupled(*coupled_setup(job, job.variants[0], job.days[2])).figures.freezing_s; };
    const double pitched = frost();
    job.variants[0].loop.drain_back.pitch = 0.005;
    const double flat = frost();
    EXPECT_LT(pitched, 1800); // the minutes in which it drains on a frosty morning
    EXPECT_GT(flat, 6 * 3600);
}

TEST(DrainBack, a_hot_array_is_filled_with_steam_where_no_cut_out_forbids_it)
{
    Job job = new_job("drainback");
    Variant& v = job.variants[0];
    for (Rule& r : v.unit.rules)
        if (auto* cut = std::get_if<CutOut>(&r.body))
            cut->limit = Temperature::celsius(300);
    v.unit.outputs[0].mode = Mode::off;
    // Switched on at noon on a stagnating array: the same water, the same sun, by hand.
    const Network net(v.loop, {});
    HydraulicState water(net, v.loop, 0);
    auto t = net.start(40, 20);
    t[net.node_of(ProbePlace::collector)] = 140;
    water.outputs(Acting{1}, t, 10);
    EXPECT_EQ(water.figures().steam_fills, 1);
}

} // namespace
