// Probes that read a flow, a pressure or the sun, and the rules that look at them. Statements
// of docs/engine-semantics.md, 49 to 52, by example; the numbers are its own.
#include "core/plant/valve_board.h"
#include "core/rules/outlook.h"
#include "core/run/coupled.h"
#include "core/setup/job_setup.h"
#include "core/wording/why.h"
#include "instruments.h"

#include <gtest/gtest.h>

#include <cmath>

namespace vernal {
namespace {

using namespace testing_instruments;

// Outputs P1 and P2; T1 a temperature, F1 a flow, G1 a pressure, E1 the sun; a sample a second.
struct Unit {
    explicit Unit(std::vector<Rule> rules)
    {
        set.outputs = {Output{"P1"}, Output{"P2"}};
        set.fault_return_s = 0;
        set.rules = std::move(rules);
        compiled = compile(set, {"T1", "F1", "G1", "E1"}, {Reads::temperature, Reads::flow, Reads::pressure, Reads::irradiance});
        state = power_up(compiled.program);
    }
    void read(std::size_t probe, double value) { in.readings[probe] = {in_milli(value), true}; }
    bool runs(int n = 1, std::size_t output = 0)
    {
        Decisions d;
        for (int i = 0; i < n; ++i)
            d = step(compiled.program, in, state);
        return d[output].on;
    }
    RuleSet set;
    Compiled compiled;
    EngineState state;
    Inputs in;
};

Rule all_day(const char* output) { return {output, true, Timer{{ClockWindow{0, 24}, {}, {}}}}; }
Rule guard(double retries = 2) { return {"P1", true, FlowGuard{"F1", 2 * litre_a_minute, 10, 100, retries}}; }

// 50
TEST(FlowGuard, counts_from_the_first_sample_that_runs_without_flow)
{
    Unit u({guard(), all_day("P1")});
    EXPECT_TRUE(u.runs()) << "the start";
    EXPECT_TRUE(u.runs(10)) << "seen running at the first of them: 0 to 9 s";
    EXPECT_FALSE(u.runs()) << "10 s";
    EXPECT_FALSE(u.runs(99));
    EXPECT_TRUE(u.runs()) << "100 s later it may try again";
}

TEST(FlowGuard, begins_to_count_anew_whenever_something_flows)
{
    Unit u({guard(0), all_day("P1")});
    u.runs(8);
    u.read(1, 2);
    EXPECT_TRUE(u.runs()) << "just enough";
    u.read(1, 1.999);
    EXPECT_TRUE(u.runs(10)) << "the first of them counts 0";
    EXPECT_FALSE(u.runs());
    EXPECT_FALSE(u.runs(1000)) << "without retries it is held at once";
}

TEST(FlowGuard, forgives_failures_once_it_flows_and_locks_after_its_retries)
{
    Unit u({guard(1), all_day("P1")});
    u.runs(12);
    EXPECT_FALSE(u.runs());
    u.runs(100); // tries again
    u.read(1, 5);
    EXPECT_TRUE(u.runs(500)) << "flow: the failure before is forgiven";
    u.read(1, 0);
    u.runs(12);
    EXPECT_FALSE(u.runs());
    u.runs(100);
    EXPECT_FALSE(u.runs(12)) << "the second failure in a row";
    EXPECT_FALSE(u.runs(100000)) << "locked";
    u.in.modes[0] = Mode::off;
    u.runs();
    u.in.modes[0] = Mode::automatic;
    EXPECT_TRUE(u.runs());
}

TEST(FlowGuard, defeats_on_and_takes_a_lost_meter_for_no_flow)
{
    Unit u({guard()});
    u.set.outputs[0].faults = {{"F1", OnFault::carry_on}};
    u.compiled = compile(u.set, {"T1", "F1", "G1", "E1"}, {Reads::temperature, Reads::flow});
    u.in.modes[0] = Mode::on;
    u.in.readings[1] = {in_milli(9), false};
    EXPECT_TRUE(u.runs(11));
    EXPECT_FALSE(u.runs());
    EXPECT_EQ(step(u.compiled.program, u.in, u.state)[0].priority, Priority::hold);
}

TEST(FlowGuard, shares_the_units_two_guards)
{
    Unit u({guard(), {"P2", true, DryRun{"T1"}}, {"P2", true, FlowGuard{"F1"}}});
    ASSERT_EQ(u.compiled.out_of_action.size(), 1U);
    EXPECT_EQ(u.compiled.out_of_action[0].rule, 2U);
    EXPECT_EQ(Unit({{"P1", true, FlowGuard{"F1", 0}}}).compiled.out_of_action.size(), 1U) << "nothing is no flow";
}

// 51
TEST(PressureAlarm, calls_below_and_above_with_a_band_each)
{
    Unit u({{"P2", true, PressureAlarm{"G1", 0.6e5, 2.5e5, 0.2e5, 5}}});
    const auto calls = [&](double bar, int samples = 1) {
        u.read(2, bar);
        return u.runs(samples, 1);
    };
    EXPECT_FALSE(calls(0.6, 5)) << "0 to 4 s";
    EXPECT_TRUE(calls(0.6));
    EXPECT_TRUE(calls(0.799));
    EXPECT_FALSE(calls(0.8)) << "without delay";
    EXPECT_FALSE(calls(2.499, 20));
    EXPECT_TRUE(calls(2.5, 6));
    EXPECT_TRUE(calls(2.301));
    EXPECT_FALSE(calls(2.3));
}

TEST(PressureAlarm, out_of_action_where_it_says_nothing)
{
    for (const PressureAlarm& a : {PressureAlarm{"G1", 0, 0}, PressureAlarm{"G1", 2e5, 2e5}, PressureAlarm{"G1", 1e5, 2e5, 0}})
        EXPECT_EQ(Unit({{"P1", true, a}}).compiled.out_of_action.size(), 1U);
    Unit only_high({{"P1", true, PressureAlarm{"G1", 0, 2e5, 0.2e5, 0}}});
    EXPECT_FALSE(only_high.runs()) << "0 bar is low, and not looked at";
}

// 52
TEST(SunStart, by_the_sun_alone)
{
    Unit u({{"P1", true, SunStart{"E1", 300, 200, {3, 0}}}});
    u.read(3, 300);
    EXPECT_FALSE(u.runs(3));
    EXPECT_TRUE(u.runs());
    u.read(3, 200.001);
    EXPECT_TRUE(u.runs(50));
    u.read(3, 200);
    EXPECT_FALSE(u.runs());
}

// 49
TEST(Instruments, a_rule_that_asks_for_something_else_is_out_of_action)
{
    Unit u({{"P1", true, Differential{"T1", "F1"}}, {"P1", true, SunStart{"G1", 250, 150, {}}}, {"P1", true, DryRun{"E1"}}, {"P1", true, FlowGuard{"T1"}}, {"P1", true, Differential{"T1", "T1", TempDiff::kelvin(5), TempDiff::kelvin(2)}}});
    std::vector<std::string> why;
    for (const OutOfAction& o : u.compiled.out_of_action)
        why.push_back(o.reason);
    EXPECT_EQ(why, (std::vector<std::string>{"F1 reads a flow, not a temperature", "G1 reads a pressure, not the sun", "E1 reads the sun, not a temperature", "T1 reads a temperature, not a flow"}));
}

TEST(Instruments, read_within_their_scale)
{
    const auto shows = [](ProbePlace place, const Instrument& i, const Condition& c, double there) { return InstrumentChain(reads_at(place), i, c).at(there); };
    const Instrument flow{20 * litre_a_minute, 0, 0, 1.5 * litre_a_minute, 0.1, 0.25};
    EXPECT_DOUBLE_EQ(shows(ProbePlace::flow_meter, flow, {}, 10).temp_c, 11);
    EXPECT_DOUBLE_EQ(shows(ProbePlace::flow_meter, flow, {}, 1.49).temp_c, 0) << "does not turn it";
    EXPECT_DOUBLE_EQ(shows(ProbePlace::flow_meter, flow, {}, -5).temp_c, 0);
    EXPECT_DOUBLE_EQ(shows(ProbePlace::flow_meter, flow, {}, 19).temp_c, 20) << "the end of its scale";
    EXPECT_DOUBLE_EQ(shows(ProbePlace::flow_meter, flow, {ConditionKind::stuck}, 19).temp_c, 5);
    EXPECT_FALSE(shows(ProbePlace::flow_meter, flow, {ConditionKind::open}, 19).valid);
    EXPECT_DOUBLE_EQ(shows(ProbePlace::pressure_sensor, {}, {}, -0.3).temp_c, -0.3) << "below the air's";
    EXPECT_DOUBLE_EQ(shows(ProbePlace::sun_sensor, {0, 0, 1000}, {}, 1120).temp_c, 1000);
}

TEST(Instruments, read_what_the_plant_does)
{
    const Job job = with_instruments();
    const std::vector<Row> rows = rows_of(job);
    const std::size_t f = 3, g = 4, e = 5;
    double most_l_min = 0, most_sun = 0;
    std::size_t ran = 0;
    for (std::size_t i = 2; i < rows.size(); ++i) {
        const Row& now = rows[i];
        const auto reads = [&](std::size_t p) { return now.inputs.readings[p].mk / 1000.0; };
        ASSERT_NEAR(reads(e), now.plane_w_m2, 0.51) << now.time_s;
        ASSERT_NEAR(reads(g), now.pressure_pa * 1e-5, 0.08) << now.time_s << ", as it was when the step began";
        const bool running = rows[i - 1].decisions[0].on && now.decisions[0].on, resting = !rows[i - 1].decisions[0].on && !now.decisions[0].on;
        if (running) {
            ASSERT_GT(reads(f), 1) << now.time_s;
            ++ran;
        } else if (resting) {
            ASSERT_LT(reads(f), 0.5) << now.time_s; // by itself at night, if at all
        }
        most_l_min = std::max(most_l_min, reads(f));
        most_sun = std::max(most_sun, reads(e));
    }
    EXPECT_GT(ran, 3600U);
    EXPECT_NEAR(most_l_min * litre_a_minute, job.variants[0].loop.pump.flow_m3_s, 0.35 * job.variants[0].loop.pump.flow_m3_s);
    EXPECT_GT(most_sun, 700);
}

// Samples skipped in long steps decide as samples walked one by one.
TEST(Instruments, long_steps_decide_as_short_ones)
{
    Job job = with_instruments();
    job.days[0].sky.clouds = Clouds::racing;
    job.variants[0].unit.rules.push_back({"P1", true, SunStart{"E1", 600, 400, {10, 30}}});
    sort_by_priority(job.variants[0].unit.rules);
    CoupledSetup setup = *coupled_setup(job, job.variants[0], job.days[0]);
    setup.spin_up_days = 0;
    const Figures by_steps = run_coupled(setup).figures;
    setup.step_s = 1;
    const Figures by_seconds = run_coupled(setup).figures;
    EXPECT_GT(by_seconds.starts(), 5);
    EXPECT_NEAR(by_steps.starts(), by_seconds.starts(), 1);
    EXPECT_NEAR(by_steps.pumps[0].run_time_s, by_seconds.pumps[0].run_time_s, 0.01 * by_seconds.pumps[0].run_time_s);
}

// An isolating valve shut: the pump stands against a shut line and nothing comes round.
TEST(Instruments, a_flow_guard_stops_a_pump_against_a_shut_line)
{
    Job job = with_instruments();
    const auto dead = [&] { return run_coupled(*coupled_setup(job, job.variants[0], job.days[0])).figures.hydraulics.dead_head_s; };
    job.days[0].begins = Begins::cold; // on days before, the guard would have locked
    set_stands(job.variants[0].loop, HandValve::supply_isolating, ServiceState::run, ValveStands::shut);
    const double guarded = dead();
    job.variants[0].unit.rules.erase(std::find_if(job.variants[0].unit.rules.begin(), job.variants[0].unit.rules.end(), [](const Rule& r) { return std::holds_alternative<FlowGuard>(r.body); }));
    const double unguarded = dead();
    EXPECT_GT(unguarded, 3600);
    EXPECT_LT(guarded, 3 * 40) << "three tries of half a minute";
    EXPECT_GT(guarded, 30);
}

TEST(Instruments, the_alarm_calls_for_a_loop_that_lost_its_pressure)
{
    Job job = with_instruments();
    const auto alarm_s = [&] {
        const std::vector<Row> rows = rows_of(job);
        return std::count_if(rows.begin(), rows.end(), [](const Row& r) { return r.time_s < 6 * 3600 && r.decisions[1].on; });
    };
    job.days[0].begins = Begins::cold;
    EXPECT_EQ(alarm_s(), 0);
    job.variants[0].loop.vessel.fill_pa = 0.3e5;
    EXPECT_GT(alarm_s(), 5 * 3600);
}

TEST(Instruments, margins_are_told_in_the_instruments_unit)
{
    Job job = with_instruments();
    Variant& v = job.variants[0];
    v.unit.rules = {{"P1", true, SunStart{"E1", 300, 200, {}}}, {"A1", true, PressureAlarm{"G1", 0.5e5, 0, 0.2e5, 0}}};
    const Program p = compile(v).program;
    EngineState s = power_up(p);
    Inputs in;
    in.readings[4].mk = 1200;
    in.readings[5].mk = 180000;
    const Decisions d = step(p, in, s);
    EXPECT_EQ(why(v, p, in, s, d[0], 0, {}).margin, "Starts when the sun sensor rises by " + to_text(120, Quantity::irradiance, {}) + ".");
    EXPECT_EQ(why(v, p, in, s, d[1], 1, {}).margin, "Starts when the pressure sensor falls by " + to_text(0.7e5, Quantity::pressure, {}) + ".");
}

} // namespace
} // namespace vernal
