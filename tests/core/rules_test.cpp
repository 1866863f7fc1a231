// Rules at work in a loop: replay of a unit with many kinds, what speed, element,
// valve and guard do to the plant.
#include "busy_unit.h"

#include "rule_of.h"

#include <gtest/gtest.h>

#include <algorithm>

using namespace vernal;

namespace {

class Busy : public testing::TestWithParam<std::tuple<bool, std::size_t>> {};
TEST_P(Busy, replay_of_the_runs_own_samples_decides_the_same)
{
    const auto [walks, day] = GetParam();
    const Job job = new_job("drainback");
    const Variant v = busy(job, walks);
    ASSERT_TRUE(compile(v).out_of_action.empty());
    Trace trace;
    for (const Probe& p : v.probes)
        trace.columns.push_back({place_key(p.place), Quantity::temperature, {}});
    trace.columns.push_back({"supply", Quantity::voltage, {}});
    std::vector<Decisions> coupled;
    bool pressed = false;
    std::size_t until = 86400;
    CoupledOptions o;
    o.each_sample = [&](const SampleRow& row) {
        trace.time_s.push_back(row.time_s);
        for (std::size_t p = 0; p < v.probes.size(); ++p)
            trace.columns[p].values.push_back(row.inputs.readings[p].mk / 1000.0);
        trace.columns.back().values.push_back(row.inputs.readings[supply_channel].mk / 1000.0);
        if (row.inputs.pressed != 0 && !pressed) {
            pressed = true;
            until = coupled.size(); // a log knows of no button
        }
        coupled.push_back(row.decisions);
    };
    const CoupledResult r = run_coupled(*coupled_setup(job, v, job.days[day]), o);
    EXPECT_TRUE(pressed);
    const auto replay = run_replay(*replay_setup(v), trace, &r.first_state);
    ASSERT_TRUE(replay) << replay.error().text();
    ASSERT_EQ(replay->size(), coupled.size());
    for (std::size_t i = 0; i < until; ++i)
        ASSERT_EQ(replay->decisions(i), coupled[i]) << i;
    // What the strip keeps is what the rows say.
    for (const Record& record : r.records)
        if (record.time_s >= 1) {
            ASSERT_EQ(record.decisions, coupled[static_cast<std::size_t>(record.time_s + 0.5) - 1]) << record.time_s;
        }
    EXPECT_LT(std::fabs(r.figures.residual_j()), 1e-6 * r.figures.heat.absorbed + 10);
}
INSTANTIATE_TEST_SUITE_P(Days, Busy, testing::Combine(testing::Bool(), testing::Values(0U, 1U, 2U)));

// Affinity laws: flow goes with the speed, power with its third power.
TEST(SpeedRule, slows_the_flow_and_spares_the_pump)
{
    const Job job = new_job("glycol-coil");
    const CoupledResult full = run(job, job.variants[0], 0);
    Variant slow = job.variants[0];
    auto& s = add<SpeedByDifference>(slow);
    s.range = {0.5, 0.5, 0.1, 0.01, DriveKind::pwm};
    const CoupledResult half = run(job, slow, 0);
    EXPECT_NEAR(half.figures.pump_energy_j / half.figures.pumps[0].run_time_s, slow.loop.pump.power_w / 8, 0.01);
    const auto flow = [](const CoupledResult& r) {
        double most = 0;
        for (const Record& x : r.records)
            most = std::max(most, x.flows.route_w_k[0]);
        return most;
    };
    EXPECT_NEAR(flow(half), flow(full) / 2, 1e-9);
    EXPECT_LT(half.figures.pump_energy_j, 0.3 * full.figures.pump_energy_j);
    s.range.drive = DriveKind::bursts; // full power for half the time
    rule_of<SpeedByDifference>(slow) = s;
    const CoupledResult bursts = run(job, slow, 0);
    EXPECT_NEAR(bursts.figures.pump_energy_j / bursts.figures.pumps[0].run_time_s, slow.loop.pump.power_w / 2, 0.01);
}

TEST(SpeedRule, seeks_its_rise)
{
    const Job job = new_job("glycol-coil");
    Variant v = job.variants[0];
    auto& s = add<SpeedToRise>(v);
    s.rise = TempDiff::kelvin(15);
    s.within = TempDiff::kelvin(1.5);
    const CoupledResult r = run(job, v, 0);
    double near = 0, all = 0;
    for (const Record& x : r.records)
        if (x.time_s > 10.5 * 3600 && x.time_s < 13 * 3600 && x.decisions[0].on) {
            const double rise = (x.inputs.readings[0].mk - x.inputs.readings[1].mk) / 1000.0;
            near += std::fabs(rise - 15) < 3 || x.decisions[0].speed_pm == 300 ? 1 : 0;
            ++all;
        }
    ASSERT_GT(all, 50);
    EXPECT_GT(near / all, 0.9);
}

// Without its boost a slow pump never lifts the water; the guard finds that out and gives up.
TEST(DryRunGuard, stops_a_pump_that_does_not_fill)
{
    Job job = new_job("drainback");
    Variant v = job.variants[0];
    v.loop.pump.head_m = 6;
    v.loop.pump.free_flow_m3_s = 4e-4;
    v.loop.drain_back.lift_m = 5;
    add<SpeedByDifference>(v).range = {0.4, 0.4, 0.1, 0.01, DriveKind::pwm};
    const CoupledResult dry = run(job, v, 0);
    EXPECT_GT(dry.figures.hydraulics.dry_run_s, 3600);
    Probe back = v.probes[1];
    back.key = "S4";
    back.name = "Return";
    back.place = ProbePlace::return_pipe;
    v.probes.push_back(back);
    auto& g = add<DryRun>(v);
    ASSERT_EQ(g.probe, "S4");
    g = {g.probe, TempDiff::kelvin(2), 600, 900, 2};
    const CoupledResult guarded = run(job, v, 0);
    EXPECT_LE(guarded.figures.hydraulics.dry_run_s, 3 * 601 + 1);
    std::erase_if(v.unit.rules, [](const Rule& r) { return std::holds_alternative<SpeedByDifference>(r.body); });
    const CoupledResult good = run(job, v, 0);
    EXPECT_EQ(good.figures.hydraulics.dry_run_s, 0);
    EXPECT_GT(good.figures.heat.to_store, 3.6e6) << "at full speed it fills and the guard is content";
    for (const Record& x : good.records)
        EXPECT_NE(x.decisions[0].priority, Priority::hold);
}

TEST(FreezeRule, keeps_the_pipe_warm_and_fails_with_the_power)
{
    Job job = new_job("direct");
    Variant v = undrained(job.variants[0]);
    const CoupledResult bare = run(job, v, 2);
    ASSERT_GT(bare.figures.freezing_s, 3600);
    auto& f = add<Freeze>(v);
    f.second.clear();
    f.store.clear(); // a clear night takes more than a tank at its floor would give
    const CoupledResult kept = run(job, v, 2);
    EXPECT_LT(kept.figures.freezing_s, 0.05 * bare.figures.freezing_s);
    EXPECT_GT(kept.figures.pumps[0].run_time_s, bare.figures.pumps[0].run_time_s);
    job.days[2].outage_start_h = 1;
    job.days[2].outage_h = 5;
    EXPECT_GT(run(job, v, 2).figures.freezing_s, 3600);
}

TEST(HeatingRule, drives_the_element_within_its_window_and_yields_to_the_sun)
{
    const Job job = new_job("glycol-coil");
    Variant v = job.variants[0];
    add_output(v, "H1", Drives::element);
    auto& h = add<Heating>(v);
    h.windows[0] = {23, 6, Temperature::celsius(50), Temperature::celsius(55)}; // past midnight
    ASSERT_EQ(h.unless, "P1");
    const CoupledResult r = run(job, v, 2);
    EXPECT_GT(r.figures.heat.backup(), 0.2 * 3.6e6);
    for (const Record& x : r.records)
        if ((x.state.running & 2U) != 0) {
            const double hour = std::fmod(x.time_s, 86400) / 3600;
            EXPECT_TRUE(hour >= 23 || hour < 6 + 1e-3) << hour;
            EXPECT_EQ(x.state.running & 1U, 0U);
        }
}

TEST(DisinfectionRule, heats_once_it_is_due_and_rests_when_done)
{
    const Job job = new_job("glycol-coil");
    Variant v = job.variants[0];
    v.loop.element.height = 0.05;
    v.loop.element.set_c = 75;
    add_output(v, "H1", Drives::element);
    auto& d = add<Disinfection>(v);
    d.hold_s = 1200;
    d.last_days = 7; // due now; the spin-up day does it
    d.every_days = 1.2;
    CoupledSetup s = *coupled_setup(job, v, job.days[2]);
    s.days = {s.days[0], s.days[0], s.days[0]};
    const CoupledResult r = run_coupled(s);
    double hot_s = 0, last = 0;
    for (const Record& x : r.records) {
        hot_s += x.inputs.readings[1].mk >= 60000 ? x.time_s - last : 0;
        last = x.time_s;
    }
    EXPECT_GT(hot_s, 1200 - 60);
    EXPECT_GE(r.figures.pumps[1].starts, 1);
    EXPECT_LT(r.figures.pumps[1].run_time_s, 0.3 * 3 * 86400);
}

TEST(Followers, a_motorised_check_valve_opens_before_its_pump)
{
    const Job job = new_job("glycol-coil");
    Variant v = job.variants[0];
    add_output(v, "V1", Drives::check_valve);
    // The valve is asked for by the difference, the pump follows it once it has opened.
    for (Rule& r : v.unit.rules)
        if (std::holds_alternative<Differential>(r.body))
            r.output = "V1";
    v.unit.rules.push_back({"P1", true, Follow{"V1", 30, 0}});
    const CoupledResult r = run(job, v, 0);
    EXPECT_GT(r.figures.heat.to_store, 3.6e6);
    // It stops a sample after its valve.
    EXPECT_LE(r.figures.hydraulics.dead_head_s, r.figures.pumps[0].starts + 1);
    Variant shut = v;
    std::get<Follow>(shut.unit.rules.back().body).delay_s = 0;
    shut.unit.rules.back().body = Timer{{ClockWindow{6, 7}, {}, {}}}; // a pump that asks nobody, before a cut-out stops it
    for (Rule& x : shut.unit.rules)
        if (x.output == "V1")
            x.enabled = false;
    EXPECT_GT(run(job, shut, 0).figures.hydraulics.dead_head_s, 1800);
}

TEST(SecondStoreRule, loads_the_second_and_swaps_back)
{
    const Job job = new_job("two-stores");
    Variant v = job.variants[0];
    rule_of<StoreLimit>(v) = {"S3", Temperature::celsius(55), TempDiff::kelvin(3), {}, "S2"};
    const Rule fresh = fresh_rule(v, 7);
    ASSERT_EQ(std::get<SecondStore>(fresh.body).store, "S4");
    ASSERT_EQ(std::get<SecondStore>(fresh.body).valve, "V1");
    const CoupledResult r = run(job, v, 0);
    bool second = false, both = false;
    for (const Record& x : r.records) {
        const bool pump = (x.state.running & 1U) != 0, valve = (x.state.running & 2U) != 0;
        EXPECT_FALSE(valve && !pump && x.decisions[0].priority != Priority::min_off) << x.time_s << ": it waits for nothing but the pump's rest";
        second = second || (pump && valve);
        both = both || (pump && !valve);
    }
    EXPECT_TRUE(second && both);
    EXPECT_GT(r.figures.pumps[1].starts, 2) << "it looks in every half hour";
}

TEST(NightCoolingRule, cools_only_while_away)
{
    Job job = new_job("glycol-coil");
    job.days[0].draws.clear();
    Variant v = without<RunTimes>(job.variants[0]);
    rule_of<Differential>(v).off = TempDiff::kelvin(4);
    add<NightCooling>(v).from = Temperature::celsius(55);
    CoupledSetup s = *coupled_setup(job, v, job.days[0]);
    s.spin_up_days = 3;
    // Only what the coil reaches is cooled: the bottom, before dawn.
    const auto bottom_c = [](const CoupledResult& r) {
        const auto at = std::find_if(r.records.begin(), r.records.end(), [](const Record& x) { return x.time_s >= 4 * 3600; });
        return at->inputs.readings[1].mk / 1000.0;
    };
    const CoupledResult home = run_coupled(s);
    s.away = true;
    const CoupledResult away = run_coupled(s);
    EXPECT_LT(bottom_c(away), bottom_c(home) - 8);
    EXPECT_GE(bottom_c(away), 45);
    EXPECT_GT(away.figures.pumps[0].run_time_s, home.figures.pumps[0].run_time_s) << "at night, and longer by day: it has room for the sun";
}

} // namespace
