#include "core/rules/engine.h"
#include "core/rules/rule_set.h"
#include "naive_engine.h"

#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <random>

using namespace vernal;

namespace {

const std::vector<std::string> probes{"S1", "S2", "S3"};

RuleSet usual()
{
    RuleSet s;
    s.outputs = {Output{}};
    s.rules = {Rule{"P1", true, CutOut{"S1", Temperature::celsius(125), TempDiff::kelvin(15)}}, Rule{"P1", true, StoreLimit{"S3", Temperature::celsius(70), TempDiff::kelvin(4)}},
               Rule{"P1", true, RunTimes{0, 0}}, Rule{"P1", true, Differential{"S1", "S2", TempDiff::kelvin(8), TempDiff::kelvin(4)}}};
    return s;
}

Inputs at(double collector, double bottom, double top)
{
    Inputs in;
    in.readings[0].mk = quantised(collector, 0);
    in.readings[1].mk = quantised(bottom, 0);
    in.readings[2].mk = quantised(top, 0);
    return in;
}

struct Bench {
    explicit Bench(const RuleSet& s) : program(compile(s, probes).program), state(power_up(program)) {}
    Decision sample(const Inputs& in) { return step(program, in, state)[0]; }
    Program program;
    EngineState state;
};

// docs/engine-semantics.md, 3
TEST(Engine, differential_sets_at_on_and_clears_at_off_exactly)
{
    Bench b(usual());
    EXPECT_FALSE(b.sample(at(27.999, 20, 40)).on);
    EXPECT_TRUE(b.sample(at(28.0, 20, 40)).on);
    EXPECT_TRUE(b.sample(at(24.001, 20, 40)).on);
    EXPECT_FALSE(b.sample(at(24.0, 20, 40)).on);
}

TEST(Engine, release_inside_the_band_resumes_a_set_latch)
{
    Bench b(usual());
    b.sample(at(80, 60, 69));
    EXPECT_EQ(b.sample(at(80, 60, 70)).tier, Tier::limit);
    EXPECT_FALSE(b.sample(at(66, 60, 66.001)).on);
    EXPECT_TRUE(b.sample(at(66, 60, 66.0)).on); // difference 6 K: between off and on
}

TEST(Engine, off_not_below_on_is_out_of_action)
{
    RuleSet s = usual();
    std::get<Differential>(s.rules[3].body).off = TempDiff::kelvin(8);
    const Compiled c = compile(s, probes);
    ASSERT_EQ(c.out_of_action.size(), 1U);
    EXPECT_EQ(c.out_of_action[0].rule, 3U);
    Bench b(s);
    EXPECT_FALSE(b.sample(at(90, 20, 40)).on);
}

// 5 and 6
TEST(Engine, comfort_timers_never_delay_a_protection)
{
    RuleSet s = usual();
    s.rules[2].body = RunTimes{300, 120};
    Bench b(s);
    EXPECT_TRUE(b.sample(at(40, 20, 40)).on);
    EXPECT_EQ(b.sample(at(20, 20, 40)).tier, Tier::min_run);
    EXPECT_EQ(b.sample(at(20, 20, 71)).tier, Tier::limit);
    b.sample(at(40, 20, 60));
    EXPECT_EQ(b.sample(at(40, 20, 60)).tier, Tier::min_off); // the stop by the limit began the rest
}

TEST(Engine, rest_ends_when_elapsed_reaches_the_setting)
{
    RuleSet s = usual();
    s.rules[2].body = RunTimes{0, 3};
    Bench b(s);
    b.sample(at(40, 20, 40));
    b.sample(at(20, 20, 40)); // stops here
    EXPECT_FALSE(b.sample(at(40, 20, 40)).on);
    EXPECT_FALSE(b.sample(at(40, 20, 40)).on);
    EXPECT_TRUE(b.sample(at(40, 20, 40)).on);
}

TEST(Engine, switches_beat_rules_and_say_what_they_defeat)
{
    Bench b(usual());
    Inputs in = at(150, 20, 80);
    in.modes[0] = Mode::on;
    EXPECT_EQ(b.sample(in).tier, Tier::on_switch);
    const auto all = voices(b.program, in, b.state, 0);
    ASSERT_GE(all.size(), 3U);
    EXPECT_EQ(all[1].tier, Tier::cut_out);
    EXPECT_EQ(all[2].tier, Tier::limit);
    in.modes[0] = Mode::off;
    EXPECT_EQ(b.sample(in).tier, Tier::off_switch);
}

TEST(Engine, on_returns_to_auto_after_its_time)
{
    RuleSet s = usual();
    s.outputs[0].on_timeout_s = 2;
    Bench b(s);
    Inputs in = at(20, 20, 40);
    in.modes[0] = Mode::on;
    EXPECT_TRUE(b.sample(in).on);
    EXPECT_TRUE(b.sample(in).on);
    EXPECT_FALSE(b.sample(in).on);
}

// 9
TEST(Engine, a_fault_clears_the_latch_and_returns_after_ten_seconds)
{
    Bench b(usual());
    b.sample(at(40, 20, 40));
    Inputs broken = at(40, 20, 40);
    broken.readings[1].valid = false;
    EXPECT_EQ(b.sample(broken).tier, Tier::fault);
    for (int i = 0; i < 10; ++i)
        EXPECT_EQ(b.sample(at(26, 20, 40)).tier, Tier::fault) << i;
    EXPECT_EQ(b.sample(at(26, 20, 40)).tier, Tier::nothing); // 6 K: latch was cleared, does not resume
}

TEST(Engine, a_probe_no_rule_uses_cannot_fault_the_output)
{
    RuleSet s = usual();
    s.rules.erase(s.rules.begin() + 1);
    Bench b(s);
    Inputs in = at(40, 20, 40);
    in.readings[2].valid = false;
    EXPECT_TRUE(b.sample(in).on);
}

// 7
TEST(Engine, margin_is_what_is_left_to_the_next_change)
{
    Bench b(usual());
    EXPECT_EQ(b.sample(at(26.6, 20, 40)).margin, (Margin{MarginUnit::millikelvin, 1400, 3}));
    EXPECT_EQ(b.sample(at(35, 20, 40)).margin, (Margin{MarginUnit::millikelvin, 11000, 3}));
    EXPECT_EQ(b.sample(at(90, 62, 69.5)).margin, (Margin{MarginUnit::millikelvin, 500, 1})); // the limit is nearer
}

TEST(Quantised, rounds_before_the_engine)
{
    EXPECT_EQ(quantised(20.05, 0.1), 20100);
    EXPECT_EQ(quantised(-20.04, 0.1), -20000);
    EXPECT_EQ(quantised(20.0004, 0), 20000);
}

// Random units and random inputs against the naive statement.
RuleSet random_set()
{
    const auto pick = [](int lo, int hi) { return *rc::gen::inRange(lo, hi); };
    RuleSet s;
    s.outputs = {Output{"P1", "", Mode::automatic, static_cast<double>(pick(0, 3) * 4)}, Output{"P2", "", Mode::automatic, 0}};
    s.fault_return_s = pick(0, 5);
    s.sample_s = pick(1, 4);
    const int n = pick(0, 7);
    for (int i = 0; i < n; ++i) {
        Rule r{pick(0, 3) ? "P1" : "P2", pick(0, 8) != 0, {}};
        const std::string a = probes[static_cast<std::size_t>(pick(0, 3))], b = probes[static_cast<std::size_t>(pick(0, 3))];
        const TempDiff h = TempDiff::kelvin(pick(-1, 6));
        switch (pick(0, 5)) {
        case 0: r.body = Differential{a, b, TempDiff::kelvin(pick(0, 10)), TempDiff::kelvin(pick(-2, 8))}; break;
        case 1: r.body = StoreLimit{a, Temperature::celsius(pick(20, 40)), h}; break;
        case 2: r.body = CutOut{a, Temperature::celsius(pick(25, 45)), h}; break;
        case 3: r.body = Divert{a, Temperature::celsius(pick(20, 45)), h}; break;
        default: r.body = RunTimes{static_cast<double>(pick(0, 12)), static_cast<double>(pick(0, 12))};
        }
        s.rules.push_back(r);
    }
    sort_by_rank(s.rules);
    return s;
}

// pick(lo, hi): a whole number from lo up to, not including, hi.
template <class Pick>
Inputs random_inputs(const Inputs& before, Pick pick)
{
    Inputs in = before;
    for (std::size_t p = 0; p < probes.size(); ++p) {
        in.readings[p].mk = std::clamp(in.readings[p].mk + pick(-30, 31) * 100, 10000, 50000);
        in.readings[p].valid = pick(0, 25) != 0;
    }
    if (pick(0, 12) == 0)
        in.modes[0] = static_cast<Mode>(pick(0, 3));
    return in;
}

Inputs random_inputs(const Inputs& before)
{
    return random_inputs(before, [](int lo, int hi) { return *rc::gen::inRange(lo, hi); });
}

// A hundred units of ten thousand samples: a million steps. The short one below
// shrinks to a small example where they differ.
RC_GTEST_PROP(Engine, decides_as_the_naive_statement_for_a_million_steps, ())
{
    const RuleSet set = random_set();
    const Compiled c = compile(set, probes);
    naive::Unit unit(set, probes);
    EngineState state = power_up(c.program);
    Inputs in = at(30, 25, 28);
    std::mt19937 random(*rc::gen::inRange<std::uint32_t>(0, 1U << 30));
    const auto pick = [&](int lo, int hi) { return lo + static_cast<int>(random() % static_cast<std::uint32_t>(hi - lo)); };
    for (int k = 0; k < 10000; ++k) {
        in = random_inputs(in, pick);
        const Decisions d = step(c.program, in, state);
        const auto expected = unit.sample(in);
        for (std::size_t o = 0; o < 2; ++o)
            RC_ASSERT(d[o].on == expected[o].on && d[o].tier == expected[o].tier && (d[o].tier == Tier::fault || d[o].rule == expected[o].rule));
    }
}

RC_GTEST_PROP(Engine, decides_as_the_naive_statement, ())
{
    const RuleSet set = random_set();
    const Compiled c = compile(set, probes);
    naive::Unit unit(set, probes);
    EngineState state = power_up(c.program);
    Inputs in = at(30, 25, 28);
    for (int k = 0; k < 200; ++k) {
        in = random_inputs(in);
        const Decisions d = step(c.program, in, state);
        const auto expected = unit.sample(in);
        for (std::size_t o = 0; o < 2; ++o) {
            RC_ASSERT(d[o].on == expected[o].on);
            RC_ASSERT(d[o].tier == expected[o].tier);
            if (d[o].tier != Tier::fault)
                RC_ASSERT(d[o].rule == expected[o].rule);
        }
    }
}

// 1: stepping n samples with constant inputs at once equals n single steps.
RC_GTEST_PROP(Engine, many_samples_at_once_equal_single_ones, ())
{
    const Compiled c = compile(random_set(), probes);
    EngineState once = power_up(c.program), single = once;
    Inputs in = at(30, 25, 28);
    for (int k = 0; k < 20; ++k) {
        in = random_inputs(in);
        const int n = *rc::gen::inRange(1, 60);
        const Decisions a = step(c.program, in, once, n);
        Decisions b;
        for (int i = 0; i < n; ++i)
            b = step(c.program, in, single);
        for (std::size_t o = 0; o < 2; ++o)
            RC_ASSERT(a[o] == b[o]);
        RC_ASSERT(once == single);
    }
}

// 1: skipping by the safe bound changes nothing, whatever the readings do inside their bounds.
RC_GTEST_PROP(Engine, nothing_switches_within_the_safe_skip, ())
{
    const Compiled c = compile(random_set(), probes);
    EngineState state = power_up(c.program);
    Inputs in = at(30, 25, 28);
    for (int k = 0; k < 40; ++k) {
        in = random_inputs(in);
        Decisions before = step(c.program, in, state);
        for (std::size_t p = 0; p < probes.size(); ++p)
            in.readings[p].valid = *rc::gen::inRange(0, 4) > 0;
        before = step(c.program, in, state);
        ReadingBounds bounds;
        for (std::size_t p = 0; p < probes.size(); ++p)
            bounds.invalid |= in.readings[p].valid ? 0U : 1U << p;
        for (std::size_t p = 0; p < probes.size(); ++p) {
            bounds.low[p] = in.readings[p].mk - *rc::gen::inRange(0, 1500);
            bounds.high[p] = in.readings[p].mk + *rc::gen::inRange(0, 1500);
        }
        const std::int64_t n = std::min<std::int64_t>(40, safe_skip(c.program, state, in.modes, bounds));
        for (std::int64_t i = 0; i < n; ++i) {
            for (std::size_t p = 0; p < probes.size(); ++p)
                in.readings[p].mk = *rc::gen::inRange(bounds.low[p], bounds.high[p] + 1);
            const Decisions now = step(c.program, in, state);
            for (std::size_t o = 0; o < 2; ++o) {
                RC_ASSERT(now[o].on == before[o].on);
                RC_ASSERT(now[o].tier == before[o].tier);
                RC_ASSERT(now[o].rule == before[o].rule);
            }
        }
    }
}

} // namespace
