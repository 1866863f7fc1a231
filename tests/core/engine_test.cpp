#include "core/rules/outlook.h"
#include "core/rules/rule_set.h"
#include "naive_engine.h"
#include "random_unit.h"

#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <random>

using namespace vernal;

namespace {

const std::vector<std::string> probes{"S1", "S2", "S3"};
const random_unit::Scale small;

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
    EXPECT_EQ(b.sample(at(80, 60, 70)).priority, Priority::limit);
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
    EXPECT_EQ(b.sample(at(20, 20, 40)).priority, Priority::min_run);
    EXPECT_EQ(b.sample(at(20, 20, 71)).priority, Priority::limit);
    b.sample(at(40, 20, 60));
    EXPECT_EQ(b.sample(at(40, 20, 60)).priority, Priority::min_off); // the stop by the limit began the rest
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
    EXPECT_EQ(b.sample(in).priority, Priority::on_switch);
    const auto all = requests(b.program, in, b.state, 0);
    ASSERT_GE(all.size(), 3U);
    EXPECT_EQ(all[1].priority, Priority::cut_out);
    EXPECT_EQ(all[2].priority, Priority::limit);
    in.modes[0] = Mode::off;
    EXPECT_EQ(b.sample(in).priority, Priority::off_switch);
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
    EXPECT_EQ(b.sample(broken).priority, Priority::fault);
    for (int i = 0; i < 10; ++i)
        EXPECT_EQ(b.sample(at(26, 20, 40)).priority, Priority::fault) << i;
    EXPECT_EQ(b.sample(at(26, 20, 40)).priority, Priority::nothing); // 6 K: latch was cleared, does not resume
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
    const auto nearest = [&](const Inputs& in) {
        b.sample(in);
        return margins(b.program, in, b.state, 0).front();
    };
    EXPECT_EQ(nearest(at(26.6, 20, 40)), (Margin{0, 1, 1400, true, 3}));
    EXPECT_EQ(nearest(at(35, 20, 40)), (Margin{0, 1, 11000, false, 3}));
    EXPECT_EQ(nearest(at(90, 62, 69.5)), (Margin{2, zero_channel, 500, true, 1})); // the limit is nearer
}

TEST(Quantised, rounds_before_the_engine)
{
    EXPECT_EQ(quantised(20.05, 0.1), 20100);
    EXPECT_EQ(quantised(-20.04, 0.1), -20000);
    EXPECT_EQ(quantised(20.0004, 0), 20000);
}

// Random units of every kind of rule against the naive statement.

// Quick whole numbers from lo up to, not including, hi.
struct Dice {
    std::mt19937 random{*rc::gen::inRange<std::uint32_t>(0, 1U << 30)};
    int operator()(int lo, int hi) { return lo + static_cast<int>(random() % static_cast<std::uint32_t>(hi - lo)); }
};
const auto rapid = [](int lo, int hi) { return *rc::gen::inRange(lo, hi); };

// A random unit from power-up on, and its samples one after the other.
struct Play {
    explicit Play(random_unit::Scale of = {}) : scale(std::move(of)) {}
    random_unit::Scale scale;
    Dice dice;
    RuleSet set = random_unit::unit(std::ref(dice), scale);
    Program program = compile(set, scale.probes, scale.reads).program;
    EngineState state = power_up(program);
    Inputs in = random_unit::first_inputs();
    int pick(int lo, int hi) { return dice(lo, hi); }
    void next_inputs() { in = random_unit::inputs(set, in, std::ref(dice), scale); }
    void move_clock(Inputs& x, std::int64_t samples) const { x.move_clock(samples * program.sample_ms); }
};

void expect_same(const Decisions& d, const std::vector<naive::Unit::Answer>& expected)
{
    for (std::size_t o = 0; o < expected.size(); ++o) {
        RC_ASSERT(d[o].on == expected[o].on);
        RC_ASSERT(d[o].priority == expected[o].priority);
        RC_ASSERT(d[o].rule == expected[o].rule);
        RC_ASSERT(!d[o].on || d[o].speed_pm == expected[o].speed_pm);
    }
}

// A hundred units of ten thousand samples: a million steps. The short one below
// shrinks to a small example where they differ.
RC_GTEST_PROP(Engine, decides_as_the_naive_statement_for_a_million_steps, ())
{
    Play play;
    naive::Unit unit(play.set, small.probes, small.reads);
    for (int k = 0; k < 10000; ++k) {
        play.next_inputs();
        expect_same(step(play.program, play.in, play.state), unit.sample(play.in));
    }
}

// As many rules, outputs and probes as there is room for.
RC_GTEST_PROP(Engine, a_full_unit_decides_as_the_naive_statement, ())
{
    Play play(random_unit::full_scale());
    RC_PRE(!capacity_problem(play.set, play.scale.probes, play.scale.reads));
    naive::Unit unit(play.set, play.scale.probes, play.scale.reads);
    for (int k = 0; k < 300; ++k) {
        play.next_inputs();
        expect_same(step(play.program, play.in, play.state), unit.sample(play.in));
    }
}

RC_GTEST_PROP(Engine, decides_as_the_naive_statement, ())
{
    const RuleSet set = random_unit::unit(rapid);
    const Compiled c = compile(set, small.probes, small.reads);
    naive::Unit unit(set, small.probes, small.reads);
    EngineState state = power_up(c.program);
    Inputs in = random_unit::first_inputs();
    for (int k = 0; k < 200; ++k) {
        in = random_unit::inputs(set, in, rapid);
        expect_same(step(c.program, in, state), unit.sample(in));
    }
}

// 1: stepping n samples with constant inputs at once equals n single steps.
RC_GTEST_PROP(Engine, many_samples_at_once_equal_single_ones, ())
{
    Play play;
    EngineState single = play.state;
    for (int k = 0; k < 20; ++k) {
        play.next_inputs();
        const int n = play.pick(1, 60);
        Inputs at_each = play.in;
        Decisions b;
        for (int i = 0; i < n; ++i) {
            play.move_clock(at_each, i > 0 ? 1 : 0);
            b = step(play.program, at_each, single);
        }
        play.in = at_each; // the clock of the last of them
        const Decisions a = step(play.program, play.in, play.state, n);
        for (std::size_t o = 0; o < 3; ++o)
            RC_ASSERT(a[o] == b[o]);
        RC_ASSERT(play.state == single);
    }
}

// 1: skipping by the safe bound changes nothing, whatever the readings do inside their bounds.
RC_GTEST_PROP(Engine, nothing_switches_within_the_safe_skip, ())
{
    Play play;
    for (int k = 0; k < 40; ++k) {
        play.next_inputs();
        play.in.pressed = 0;
        const Decisions before = step(play.program, play.in, play.state);
        ReadingBounds bounds;
        for (std::size_t p = 0; p < max_read; ++p) {
            bounds.invalid |= play.in.readings[p].valid ? 0U : 1U << p;
            bounds.low[p] = play.in.readings[p].mk - play.pick(0, 1500);
            bounds.high[p] = play.in.readings[p].mk + play.pick(0, 1500);
        }
        const std::int64_t n = std::min<std::int64_t>(40, safe_skip(play.program, play.state, play.in, bounds));
        for (std::int64_t i = 0; i < n; ++i) {
            for (std::size_t p = 0; p < max_read; ++p)
                play.in.readings[p].mk = play.pick(bounds.low[p], bounds.high[p] + 1);
            play.move_clock(play.in, 1);
            const Decisions now = step(play.program, play.in, play.state);
            for (std::size_t o = 0; o < 3; ++o)
                RC_ASSERT(now[o] == before[o]);
        }
    }
}

// 7: all readings frozen, the output keeps until the time foretold and changes then.
RC_GTEST_PROP(Outlook, the_time_to_the_next_change_is_foretold, ())
{
    Play play;
    for (int k = 0; k < 30; ++k) {
        play.next_inputs();
        const Decisions now = step(play.program, play.in, play.state);
        play.in.pressed = 0;
        for (std::size_t o = 0; o < 3; ++o) {
            const auto left = until_change(play.program, play.in, play.state, o);
            const std::int64_t n = left ? *left / play.program.sample_ms : 200;
            if (n > 400)
                continue;
            EngineState later = play.state;
            Inputs still = play.in;
            for (std::int64_t i = 1; i <= n; ++i) {
                play.move_clock(still, 1);
                RC_ASSERT(step(play.program, still, later)[o].on == (now[o].on != (left && i == n)));
            }
        }
    }
}

} // namespace
