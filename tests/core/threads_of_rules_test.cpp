// Knots of the rules on the outputs' threads, and rules as sentences.
#include "core/job/fresh_rule.h"
#include "core/setup/job_setup.h"
#include "core/wording/sentence.h"
#include "core/wording/threads.h"
#include "rule_of.h"

#include <gtest/gtest.h>

using namespace vernal;

namespace {

// A unit of a loop with its readings; settled by stepping.
struct Bench {
    Variant v;
    Compiled compiled;
    Inputs in;
    EngineState state;
    Decisions decisions{};
    explicit Bench(Variant variant) : v(std::move(variant)), compiled(compile(v)), state(power_up(compiled.program)) {}
    void read(const char* key, double c)
    {
        for (std::size_t i = 0; i < v.probes.size(); ++i)
            if (v.probes[i].key == key)
                in.readings[i].mk = in_milli(c);
    }
    void run(int seconds)
    {
        for (int s = 0; s < seconds; ++s)
            decisions = step(compiled.program, in, state);
    }
    template <class R>
    Knot knot(std::size_t output = 0) const
    {
        const auto all = knots(v.unit, compiled.program, compiled.out_of_action, in, state, decisions[output], output);
        for (std::size_t i = 0; i < v.unit.rules.size(); ++i)
            if (std::holds_alternative<R>(v.unit.rules[i].body))
                return all[i];
        ADD_FAILURE() << "no such rule";
        return Knot::none;
    }
};

Variant glycol()
{
    Variant v = new_job("glycol-coil").variants[0];
    rule_of<RunTimes>(v) = RunTimes{0, 0};
    rule_of<Differential>(v).on = TempDiff::kelvin(9);
    rule_of<Differential>(v).off = TempDiff::kelvin(3);
    return v;
}

TEST(Knots, the_rule_that_decides_those_that_ask_and_those_that_are_silent)
{
    Bench b(glycol());
    for (const Probe& p : b.v.probes)
        b.read(p.key.c_str(), 20);
    b.run(20);
    EXPECT_EQ(b.knot<Differential>(), Knot::silent) << "nobody asks for anything";
    b.read("S1", 40);
    b.run(2);
    EXPECT_TRUE(b.decisions[0].on);
    EXPECT_EQ(b.knot<Differential>(), Knot::decides);
    EXPECT_EQ(b.knot<StoreLimit>(), Knot::silent);
    const StoreLimit limit = rule_of<StoreLimit>(b.v);
    b.read(limit.probe.c_str(), limit.limit.in_celsius() + 1);
    b.read("S1", limit.limit.in_celsius() + 20);
    b.run(2);
    EXPECT_FALSE(b.decisions[0].on);
    EXPECT_EQ(b.knot<StoreLimit>(), Knot::decides);
    EXPECT_EQ(b.knot<Differential>(), Knot::asks) << "it still asks, and a higher one decides";
}

TEST(Knots, a_speed_rule_sets_the_speed_and_one_switched_off_is_out)
{
    Variant v = glycol();
    SpeedByDifference speed;
    speed.source = "S1";
    speed.store = "S2";
    v.unit.rules.push_back({"P1", true, speed});
    Bench b(v);
    for (const Probe& p : b.v.probes)
        b.read(p.key.c_str(), 20);
    b.read("S1", 31);
    b.run(3);
    EXPECT_LT(b.decisions[0].speed_pm, full_speed);
    EXPECT_EQ(b.knot<SpeedByDifference>(), Knot::speed);
    EXPECT_EQ(b.knot<Differential>(), Knot::decides);
    b.read("S1", 20);
    b.run(3);
    EXPECT_EQ(b.knot<SpeedByDifference>(), Knot::silent) << "the output rests";
    v.unit.rules.back().enabled = false;
    Bench off(v);
    off.run(1);
    EXPECT_EQ(off.knot<SpeedByDifference>(), Knot::out);
    rule_of<Differential>(v).off = rule_of<Differential>(v).on;
    Bench broken(v);
    broken.run(1);
    EXPECT_EQ(broken.knot<Differential>(), Knot::out) << "it stops at or above its start";
}

TEST(Knots, a_rule_of_another_output_has_none)
{
    Variant v = new_job("two-stores").variants[0];
    Bench b(v);
    b.run(1);
    const auto valve = knots(v.unit, b.compiled.program, b.compiled.out_of_action, b.in, b.state, b.decisions[1], 1);
    for (std::size_t i = 0; i < v.unit.rules.size(); ++i)
        EXPECT_TRUE(!std::holds_alternative<CutOut>(v.unit.rules[i].body) || valve[i] == Knot::none);
    EXPECT_NE(b.knot<SecondStore>(1), Knot::none) << "it switches the valve";
    EXPECT_TRUE(knots(v.unit, b.compiled.program, {}, b.in, b.state, {}, 7) == std::vector<Knot>(v.unit.rules.size(), Knot::none)) << "no such output";
}

// The mode and the switch decide without any rule.
TEST(Knots, a_switch_leaves_all_rules_below_it)
{
    Bench b(glycol());
    for (const Probe& p : b.v.probes)
        b.read(p.key.c_str(), 20);
    b.read("S1", 40);
    b.in.modes[0] = Mode::off;
    b.run(3);
    EXPECT_EQ(b.decisions[0].priority, Priority::off_switch);
    EXPECT_EQ(b.knot<Differential>(), Knot::asks);
}

TEST(Sentence, of_every_kind_has_its_words_and_no_braces)
{
    const Variant v = new_job("two-stores").variants[0];
    for (std::size_t k = 0; k < rule_kinds().size(); ++k) {
        const std::string s = sentence(v, fresh_rule(v, k), Units::us());
        EXPECT_EQ(s.find_first_of("{}"), std::string::npos) << s;
        EXPECT_GT(s.size(), 10U) << s;
        EXPECT_TRUE(s.back() == '.') << s;
    }
    Variant g = glycol();
    EXPECT_EQ(sentence(g, *std::find_if(g.unit.rules.begin(), g.unit.rules.end(), [](const Rule& r) { return std::holds_alternative<Differential>(r.body); }), {}), "Start P1 when the collector is 9.0 K above the tank bottom; stop at 3.0 K.");
}

// What is added runs by the difference that is there: its pair, its output, its start.
TEST(FreshRule, takes_over_what_the_difference_says)
{
    Variant v = new_job("two-stores").variants[0];
    auto& d = rule_of<Differential>(v);
    d.on = TempDiff::kelvin(11.5);
    v.probes.push_back(v.probes.front());
    v.probes.back().key = "S9";
    d.source = "S9";
    const std::string output = std::find_if(v.unit.rules.begin(), v.unit.rules.end(), [](const Rule& r) { return std::holds_alternative<Differential>(r.body); })->output;
    const Rule by = fresh_rule(v, kind_index<SpeedByDifference>());
    EXPECT_EQ(by.output, output);
    EXPECT_EQ(std::get<SpeedByDifference>(by.body).source, "S9");
    EXPECT_EQ(std::get<SpeedByDifference>(by.body).store, d.store);
    EXPECT_EQ(std::get<SpeedByDifference>(by.body).above, d.on);
    EXPECT_EQ(std::get<SpeedToRise>(fresh_rule(v, kind_index<SpeedToRise>()).body).source, "S9");
    EXPECT_EQ(std::get<SpeedToTemperature>(fresh_rule(v, kind_index<SpeedToTemperature>()).body).probe, "S9");
    for (Rule& r : v.unit.rules)
        r.enabled = false;
    EXPECT_EQ(std::get<SpeedByDifference>(fresh_rule(v, kind_index<SpeedByDifference>()).body).source, probe_for(v, ProbeRole::array)) << "none is in use";
}

} // namespace
