// Single sentences of docs/engine-semantics.md by example; the numbers are its own.
#include "core/rules/outlook.h"
#include "core/rules/rule_set.h"

#include <gtest/gtest.h>

using namespace vernal;

namespace {

constexpr auto kelvin = TempDiff::kelvin;
constexpr auto celsius = Temperature::celsius;

// Outputs P1 and P2, probes S1 to S3, a sample a second.
struct Unit {
    explicit Unit(std::vector<Rule> rules, std::vector<FaultChoice> faults = {})
    {
        set.outputs = {Output{"P1"}, Output{"P2"}};
        set.outputs[0].faults = std::move(faults);
        set.fault_return_s = 3;
        set.rules = std::move(rules);
        compiled = compile(set, {"S1", "S2", "S3"});
        state = power_up(compiled.program);
        read(0, 20);
        read(1, 20);
        read(2, 20);
    }
    void read(std::size_t probe, double c) { in.readings[probe] = {quantised(c, 0), true}; }
    void lose(std::size_t probe) { in.readings[probe] = {0, false}; }
    // `n` samples one by one; the decisions of the last.
    Decisions samples(int n = 1)
    {
        Decisions d;
        for (int i = 0; i < n; ++i) {
            in.move_clock(1000);
            d = step(compiled.program, in, state);
        }
        return d;
    }
    Decision p1(int n = 1) { return samples(n)[0]; }
    Decision p2(int n = 1) { return samples(n)[1]; }
    RuleSet set;
    Compiled compiled;
    EngineState state;
    Inputs in;
};

Rule on(const char* output, decltype(Rule::body) body) { return {output, true, std::move(body)}; }
Differential difference() { return {"S1", "S2", kelvin(8), kelvin(4)}; }

// 39
TEST(Letter, a_leader_shorter_than_the_delay_is_not_followed)
{
    Unit u({on("P1", difference()), on("P2", Follow{"P1", 5, 10})});
    u.read(0, 40);
    u.samples(4);
    u.read(0, 20);
    for (int i = 0; i < 12; ++i)
        EXPECT_FALSE(u.p2().on) << i;
    u.read(0, 40);
    EXPECT_FALSE(u.p2(5).on);
    EXPECT_TRUE(u.p2().on);
    u.read(0, 20);
    EXPECT_TRUE(u.p2(10).on); // the leader stops at the first of them
    EXPECT_FALSE(u.p2().on);
}

// 16
TEST(Letter, of_run_times_the_last_holds_with_its_run_on)
{
    Unit u({on("P1", RunTimes{0, 0, 30}), on("P1", RunTimes{0, 0, 0}), on("P1", difference())});
    u.read(0, 40);
    EXPECT_TRUE(u.p1().on);
    u.read(0, 20);
    EXPECT_FALSE(u.p1().on);
}

// 40
TEST(Letter, run_on_counts_from_the_first_sample_without_demand)
{
    Unit u({on("P1", RunTimes{0, 0, 3}), on("P1", difference())});
    u.read(0, 40);
    u.samples();
    u.read(0, 20);
    EXPECT_EQ(u.p1().priority, Priority::min_run);
    EXPECT_TRUE(u.p1(2).on);
    EXPECT_FALSE(u.p1().on);
}

// 16 and 31
TEST(Letter, of_holds_the_first_in_the_list_is_named)
{
    Unit u({on("P1", DryRun{"S3", kelvin(1), 3, 100, 2}), on("P1", DrainTime{50}), on("P1", difference())});
    EXPECT_EQ(u.p1().rule, 1);
    u.samples(50);
    u.read(0, 40);
    EXPECT_TRUE(u.p1().on);
    const Decision stopped = u.p1(4);
    EXPECT_FALSE(stopped.on);
    EXPECT_EQ(stopped.rule, 0);
    EXPECT_EQ(u.p1().rule, 0) << "the drain time holds as well";
}

TEST(Letter, of_two_drain_times_the_longer_holds_and_the_first_is_named)
{
    Unit u({on("P1", DrainTime{5}), on("P1", DrainTime{12}), on("P1", difference())});
    u.read(0, 40);
    EXPECT_EQ(u.p1().rule, 0);
    EXPECT_EQ(until_change(u.compiled.program, u.in, u.state, 0), 12000) << "with the longer's time";
    EXPECT_EQ(u.p1(4).rule, 0);
    EXPECT_EQ(u.p1().rule, 1);
    EXPECT_FALSE(u.p1(6).on);
    EXPECT_TRUE(u.p1().on);
}

// 29
TEST(Letter, speed_steps_below_the_resolution_add_up)
{
    SpeedRange range{0.3, 1.0, 0.02, 0.1};
    Unit u({on("P1", difference()), on("P1", SpeedToRise{"S1", "S2", kelvin(10), kelvin(1), 2, range})});
    u.read(0, 40);
    EXPECT_EQ(u.p1().speed_pm, 300);
    EXPECT_EQ(u.p1(8).speed_pm, 300); // four steps: 0.38
    EXPECT_EQ(u.p1(2).speed_pm, 400);
}

TEST(Letter, a_speed_rule_without_its_reading_says_nothing_and_begins_anew)
{
    Unit u({on("P1", Differential{"S1", "S2", kelvin(8), kelvin(4)}), on("P1", SpeedToTemperature{"S3", celsius(15), kelvin(1), 2, {0.3, 1.0, 0.1, 0.01}})}, {{"S3", OnFault::carry_on}});
    u.read(0, 40);
    u.samples(5);
    EXPECT_EQ(u.p1().speed_pm, 500);
    u.lose(2);
    EXPECT_EQ(u.p1(4).speed_pm, full_speed);
    u.read(2, 20);
    EXPECT_EQ(u.p1(3).speed_pm, full_speed) << "distrusted";
    EXPECT_EQ(u.p1().speed_pm, 300);
    EXPECT_EQ(u.p1(2).speed_pm, 400);
}

TEST(Letter, the_clock_of_a_speed_stands_during_a_protection)
{
    Unit u({on("P1", Divert{"S3", celsius(60), kelvin(5)}), on("P1", difference()), on("P1", SpeedToRise{"S1", "S2", kelvin(10), kelvin(1), 4, {0.3, 1.0, 0.1, 0.01}})});
    u.read(0, 40);
    u.samples(8);
    EXPECT_EQ(u.p1().speed_pm, 500); // steps at the fifth and the ninth
    u.read(2, 70);
    EXPECT_EQ(u.p1(20).speed_pm, full_speed);
    u.read(2, 20);
    EXPECT_EQ(u.p1().speed_pm, 500);
    EXPECT_EQ(u.p1(3).speed_pm, 500);
    EXPECT_EQ(u.p1().speed_pm, 600);
}

// 32
struct Guarded : testing::Test {
    Unit u{{on("P1", DryRun{"S3", kelvin(2), 10, 100, 2}), on("P1", difference())}, {{"S3", OnFault::carry_on}}};
    void SetUp() override { u.read(0, 40); }
};

TEST_F(Guarded, a_lost_probe_proves_nothing_and_stops_no_clock)
{
    u.samples(3);
    u.lose(2);
    EXPECT_TRUE(u.p1(8).on);
    const Decision d = u.p1(); // watched since the sample after the start, ten seconds ago
    EXPECT_FALSE(d.on);
    EXPECT_EQ(d.rule, 0);
}

TEST_F(Guarded, compares_with_the_first_valid_reading)
{
    u.lose(2);
    u.samples(4);
    u.read(2, 35);
    EXPECT_TRUE(u.p1().on); // the first: neither proof nor failure
    u.read(2, 36.9);
    EXPECT_TRUE(u.p1(6).on);
    EXPECT_FALSE(u.p1().on);
}

TEST_F(Guarded, a_change_from_it_is_proof)
{
    u.lose(2);
    u.samples(4);
    u.read(2, 35);
    u.samples();
    u.read(2, 37);
    EXPECT_TRUE(u.p1(60).on);
}

// 34
TEST(Letter, holding_a_drain_down_valve_is_no_demand)
{
    Unit u({on("P1", DrainDown{"S1", celsius(5), kelvin(2), ""}), on("P1", RunTimes{0, 100, 50}), on("P2", difference())});
    const Decision d = u.p1();
    EXPECT_TRUE(d.on);
    EXPECT_EQ(d.priority, Priority::freeze);
    EXPECT_EQ(d.rule, 0);
    u.read(0, 4);
    EXPECT_FALSE(u.p1().on) << "no run-on";
    u.read(0, 10);
    EXPECT_TRUE(u.p1().on) << "no minimum off time";
}

TEST(Letter, any_of_several_may_drain_the_valve)
{
    Unit u({on("P1", DrainDown{"S1", celsius(5), kelvin(2), ""}), on("P1", DrainDown{"S2", celsius(5), kelvin(2), ""})});
    EXPECT_EQ(u.p1().rule, 0);
    u.read(1, 4);
    EXPECT_FALSE(u.p1().on);
    EXPECT_EQ(u.p1().rule, 1);
}

// 26: a silenced difference does not ask, so the second store does, in the same sample.
TEST(Letter, a_limit_of_one_store_lets_the_second_store_begin_at_once)
{
    StoreLimit limit{"S3", celsius(60), kelvin(4), {}, "S2"};
    Unit u({on("P1", limit), on("P1", difference()), on("P1", SecondStore{"P2", "S1", "S2", kelvin(8), kelvin(4), 0, 0})});
    u.read(0, 50);
    EXPECT_TRUE(u.p1().on);
    u.read(2, 60); // both load the store that is full
    EXPECT_FALSE(u.p1().on);
    EXPECT_FALSE(u.p2(0).on);
    Unit other({on("P1", limit), on("P1", difference()), on("P1", SecondStore{"P2", "S1", "S3", kelvin(-20), kelvin(-30), 0, 0})});
    other.read(0, 50);
    other.read(2, 59);
    EXPECT_FALSE(other.p2().on);
    other.read(2, 60);
    EXPECT_TRUE(other.p2().on);
}

// 32
TEST(Letter, a_change_exactly_at_the_end_of_the_check_proves_the_water)
{
    for (const int late : {0, 1}) {
        Unit u({on("P1", DryRun{"S3", kelvin(2), 10, 60, 3}), on("P1", difference())});
        u.read(0, 40);
        u.samples();          // starts
        u.samples(10 + late); // watches from the next sample, its count is 9 or 10
        if (late == 0)
            u.read(2, 22);
        EXPECT_EQ(u.p1().on, late == 0);
    }
}

// 32, 50
TEST(Letter, off_ends_the_pause_of_a_guard)
{
    Unit u({on("P1", DryRun{"S3", kelvin(2), 10, 600, 3}), on("P1", difference())});
    u.read(0, 40);
    u.samples(20);
    EXPECT_FALSE(u.p1().on);
    u.in.modes[0] = Mode::off;
    u.samples();
    u.in.modes[0] = Mode::automatic;
    EXPECT_TRUE(u.p1().on);
}

// 37: what else asks while an exercise runs is not noticed until it ends.
TEST(Letter, an_exercise_counts_its_own_run)
{
    Unit u({on("P1", Exercise{100.0 / 86400, 20})});
    u.samples(100);
    EXPECT_TRUE(u.p1().on);
    u.samples(19);
    EXPECT_FALSE(u.p1().on);   // 120 s since it began to count
    EXPECT_FALSE(u.p1(99).on); // the next rest begins there
    EXPECT_TRUE(u.p1().on);
}

// 38, 46, 53
TEST(Letter, what_puts_a_rule_out_of_action)
{
    Heating one{"S2", {HeatWindow{5, 7, celsius(45), celsius(50)}, HeatWindow{8, 9, celsius(50), celsius(50)}, {}}, ""};
    EXPECT_EQ(Unit({on("P1", one)}).compiled.out_of_action.size(), 1U);
    one.windows[1].to_h = 8; // equal ends: not looked at
    EXPECT_TRUE(Unit({on("P1", one)}).compiled.out_of_action.empty());
    TapCirculation round;
    round.on = round.off = celsius(45);
    EXPECT_EQ(Unit({on("P1", round)}).compiled.out_of_action.size(), 1U);
    round.off = celsius(48);
    EXPECT_TRUE(Unit({on("P1", round)}).compiled.out_of_action.empty());
    Freeze frost;
    frost.second = "S2";
    EXPECT_EQ(Unit({on("P1", frost)}).compiled.out_of_action.size(), 1U);
    frost = {};
    frost.probe = "S1";
    EXPECT_TRUE(Unit({on("P1", frost)}).compiled.out_of_action.empty());
}

// 38: the record outlives the power, the time without it counted.
TEST(Letter, a_disinfection_goes_on_counting_after_a_power_cut)
{
    Disinfection weekly{"S2", celsius(60), 60, 0.5, 0};
    Unit u({on("P1", weekly)});
    u.samples(30000);
    EXPECT_FALSE(u.p1().on);
    const Millis lost_ms = 10000 * 1000;
    u.state = power_up(u.compiled.program, u.state, lost_ms);
    EXPECT_FALSE(u.p1(43200 - 30000 - 10000).on);
    EXPECT_TRUE(u.p1().on);
    u.state = power_up(u.compiled.program);
    EXPECT_FALSE(u.p1().on);
}

// 40
TEST(Letter, a_limit_ends_a_run_on_for_good)
{
    Unit u({on("P1", RunTimes{0, 0, 60}), on("P1", StoreLimit{"S3", celsius(60), kelvin(4)}), on("P1", difference())});
    u.read(0, 40);
    u.samples();
    u.read(0, 20);
    EXPECT_TRUE(u.p1().on);
    u.read(2, 60);
    EXPECT_FALSE(u.p1().on);
    u.read(2, 50);
    EXPECT_FALSE(u.p1(2).on);
}

// 44
TEST(Letter, a_season_of_the_leap_day_alone_is_no_day_in_other_years)
{
    Timer t;
    t.windows[0] = {0, 23 + 59.0 / 60};
    t.first_day = t.last_day = 60;
    for (const auto& [date, holds] : {std::pair{19782, true}, {19781, false}, {19783, false}, {20147, false}, {20148, false}}) { // 29, 28 Feb and 1 Mar 2024; 28 Feb and 1 Mar 2025
        Unit u({on("P1", t)});
        u.in.clock_ms = 3600000;
        u.in.date = date;
        EXPECT_EQ(u.p1().on, holds) << date;
    }
}

// 5: from one stop both count; ON defeats the one and not the other.
TEST(Letter, drain_time_and_minimum_off_time_count_from_the_same_stop)
{
    Unit u({on("P1", DrainTime{20}), on("P1", RunTimes{0, 30, 0}), on("P1", difference())});
    u.read(0, 40);
    EXPECT_EQ(u.p1(20).priority, Priority::hold); // in full after power-up
    EXPECT_TRUE(u.p1().on);                       // the minimum off time has expired
    u.read(0, 20);
    u.samples();
    u.read(0, 40);
    EXPECT_EQ(u.p1(19).priority, Priority::hold);
    EXPECT_EQ(u.p1().priority, Priority::min_off);
    u.in.modes[0] = Mode::on;
    EXPECT_TRUE(u.p1().on);
}

// 48
TEST(Room, for_sixty_four_rules_and_as_many_latches)
{
    RuleSet s;
    for (int o = 1; o <= 8; ++o)
        s.outputs.push_back({"P" + std::to_string(o)});
    std::vector<std::string> probes;
    for (int p = 1; p <= 16; ++p)
        probes.push_back("S" + std::to_string(p));
    for (int i = 0; i < 64; ++i)
        s.rules.push_back({s.outputs[static_cast<std::size_t>(i % 8)].key, true, Differential{probes[static_cast<std::size_t>(i % 15)], "S16", kelvin(8), kelvin(4), {5, 30}}});
    EXPECT_EQ(capacity_problem(s, probes), std::nullopt);
    EXPECT_EQ(compile(s, probes).program.latches.size(), 64U);
    EXPECT_TRUE(compile(s, probes).out_of_action.empty());
    s.rules.push_back(s.rules[0]);
    EXPECT_EQ(capacity_problem(s, probes), "a unit has room for 64 rules; these are 65");
    s.rules.pop_back();
    s.rules[3].body = Heating{"S1", {HeatWindow{1, 2}, HeatWindow{3, 4}, HeatWindow{5, 6}}, ""};
    EXPECT_EQ(capacity_problem(s, probes), "a unit has room for 64 conditions on readings; Difference would need more");
    EXPECT_EQ(compile(s, probes).out_of_action.front().rule, 62U) << "those before keep theirs";
    s.outputs.push_back({"P9"});
    EXPECT_EQ(capacity_problem(s, probes), "a unit has room for 8 outputs; these are 9");
}

// Whatever a rule without many latches can want, sixty-four of it fit.
TEST(Room, for_sixty_four_of_a_kind)
{
    const RuleBody bodies[] = {Timer{{ClockWindow{1, 2}, ClockWindow{3, 4}, ClockWindow{5, 6}}, 60, 600, 20, 200}, SecondStore{"P2", "S1", "S2"}, Follow{"P2", 3, 3}, Exercise{}, HeatOnce{"S1"}, FixedDifference{"S1"}, DrainTime{}, DrainDown{"S1", celsius(5), kelvin(2), "P2"}};
    for (const RuleBody& body : bodies) {
        RuleSet s;
        s.outputs = {Output{"P1"}, Output{"P2"}};
        s.rules.assign(max_rules, {"P1", true, body});
        s.rules.back().body = RunTimes{1, 1, 10};
        EXPECT_EQ(capacity_problem(s, {"S1", "S2", "S3"}), std::nullopt) << kind_of(s.rules[0]).key;
    }
}

} // namespace
