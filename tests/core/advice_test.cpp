// What is said and chosen about rules: priorities, schools, settings card, Why not.
#include "busy_unit.h"
#include "core/advice/schools.h"
#include "core/sums/stability.h"
#include "core/wording/settings_card.h"
#include "core/wording/why.h"

#include <gtest/gtest.h>

#include <algorithm>

using namespace vernal;

namespace {

// 6: priorities do not mix, and the reason says so.
TEST(Priorities, a_protection_cannot_be_put_below_comfort)
{
    Variant v = new_job("glycol-coil").variants[0];
    std::vector<Rule> rules = v.unit.rules;
    const auto refused = move_rule(rules, 1, 3);
    ASSERT_TRUE(refused);
    EXPECT_NE(refused->find("protection"), std::string::npos);
    EXPECT_EQ(rules, v.unit.rules);
    rules.push_back(rules.back());
    std::get<Differential>(rules.back().body).on = TempDiff::kelvin(20);
    EXPECT_FALSE(move_rule(rules, 4, 3));
    EXPECT_EQ(std::get<Differential>(rules[3].body).on, TempDiff::kelvin(20));
}

TEST(Compiled, a_rule_that_cannot_work_says_why_and_leaves_the_others)
{
    RuleSet s;
    s.outputs = {Output{}};
    s.rules = {Rule{"P1", true, LowVoltage{12, 11, 0, 0}}, Rule{"P1", true, Follow{"P1", 0, 0}}, Rule{"P1", true, SpeedByDifference{"S1", "S2"}}, Rule{"P1", true, SpeedToRise{"S1", "S2"}},
        Rule{"P1", true, Heating{"S1", {HeatWindow{1, 2, Temperature::celsius(50), Temperature::celsius(40)}, {}, {}}, ""}}, Rule{"P1", true, Differential{"S1", "S2"}}};
    const Compiled c = compile(s, {"S1", "S2"});
    ASSERT_EQ(c.out_of_action.size(), 4U);
    EXPECT_EQ(c.program.latches.size(), 1U);
    EXPECT_EQ(c.program.speeds.size(), 1U);
    for (int i = 0; i < 80; ++i)
        s.rules.push_back(Rule{"P1", true, Differential{"S1", "S2"}});
    EXPECT_EQ(compile(s, {"S1", "S2"}).out_of_action.size(), 4 + 86 - max_rules) << "more than a unit holds";
}

TEST(KnobRule, follows_the_knobs_pair)
{
    Variant v = new_job("glycol-coil").variants[0];
    for (Rule& r : v.unit.rules)
        if (std::holds_alternative<Differential>(r.body))
            r.body = LinkedDifference{"S1", "S2", 10, {}};
    const auto d = difference_of(v.unit, v.unit.rules.back());
    ASSERT_TRUE(d);
    EXPECT_DOUBLE_EQ(d->on.in_kelvin(), v.unit.knob.on_last.in_kelvin());
    set_difference(v.unit, v.unit.rules.back(), v.unit.knob.on_first, v.unit.knob.off_first);
    EXPECT_NEAR(std::get<LinkedDifference>(v.unit.rules.back().body).mark, v.unit.knob.first, 0.05);
    EXPECT_TRUE(compile(v).out_of_action.empty());
}

// Chosen settings of every arrangement and answer: no serious finding, nothing out of action.
TEST(Schools, what_they_choose_does_no_harm)
{
    for (const Arrangement& a : presets())
        for (int code = 0; code < 3 * 3 * 2 * 3 * 2; ++code) {
            const Job job = new_job(a.key);
            Answers answers = likely_answers(job, job.variants[0]);
            int left = code;
            for (std::size_t q = 0; q < questions().size(); ++q) {
                const auto n = static_cast<int>(questions()[q].answers.size());
                answer(answers, q, static_cast<std::size_t>(left % n));
                EXPECT_EQ(answered(answers, q), static_cast<std::size_t>(left % n));
                left /= n;
            }
            Variant v = job.variants[0];
            const auto choices = choose_settings(job, v, answers, {});
            ASSERT_GE(choices.size(), 4U) << a.key;
            for (const Choice& c : choices) {
                EXPECT_FALSE(c.why.empty()) << a.key << c.what;
                EXPECT_FALSE(c.value.empty());
            }
            take_all(choices, v);
            EXPECT_TRUE(compile(v).out_of_action.empty()) << a.key << code;
            for (const Finding& f : findings({job, v, nullptr, {}}))
                EXPECT_NE(f.severity, Severity::serious) << a.key << " " << code << ": " << f.kind << " " << f.title;
            Variant again = v;
            take_all(choose_settings(job, again, answers, {}), again);
            EXPECT_EQ(again.unit, v.unit) << "choosing twice changes nothing: " << a.key << code;
        }
}

TEST(Schools, the_three_pairs_lie_in_their_bands)
{
    // Field practice, °F of difference: 5–10/0–3, 10–20/0–10, 16–25/10–15 (common practice, no source).
    const double bands[3][4] = {{5, 10, 0, 3}, {10, 20, 0, 10}, {16, 25, 10, 15}};
    const Job job = new_job("glycol-coil");
    Variant sure = job.variants[0];
    for (Probe& p : sure.probes)
        p.sensor.tolerance.kind = ToleranceKind::none;
    // A loop whose rise leaves room for all three.
    sure.loop.pump.flow_m3_s *= 0.3;
    sure.loop.pump.power_w *= 0.3;
    for (std::size_t school = 0; school < 3; ++school) {
        Variant v = sure;
        Answers a = likely_answers(job, v);
        answer(a, 0, school);
        take_all(choose_settings(job, v, a, {}), v);
        const Differential& d = rule_of<Differential>(v);
        EXPECT_GE(d.on.in_kelvin() * 1.8, bands[school][0]);
        EXPECT_LE(d.on.in_kelvin() * 1.8, bands[school][1]);
        EXPECT_GE(d.off.in_kelvin() * 1.8, bands[school][2]);
        EXPECT_LE(d.off.in_kelvin() * 1.8, bands[school][3]);
    }
}

// Handbook of the field: 6 m² at 5.9 L/min of water asks for about 20 : 1.
TEST(StartStop, asks_for_about_twenty_to_one)
{
    Job job = new_job("direct");
    Loop l = job.variants[0].loop;
    l.collector.area_m2 = 6;
    l.collector.a1_w_m2k = 3.5;
    l.pump.flow_m3_s = 5.9e-3 / 60;
    EXPECT_NEAR(start_stop(l).ratio(), 20, 1);
    EXPECT_TRUE(start_stop(l).stays(8, 0));
    EXPECT_FALSE(start_stop(l).stays(8, 4));
    EXPECT_NE(stability_text(l, 8, 4).find("20 : 1"), std::string::npos);
}

// Compared with simulation: a pair that meets the criterion starts less often in a
// clear morning than one that fails it far.
TEST(StartStop, a_pair_that_meets_it_starts_less_in_simulation)
{
    const Job job = new_job("direct");
    Variant v = job.variants[0];
    const auto starts = [&](double on, double off) {
        rule_of<Differential>(v).on = TempDiff::kelvin(on);
        rule_of<Differential>(v).off = TempDiff::kelvin(off);
        return run(job, v, 1).figures.starts();
    };
    const StartStop s = start_stop(v.loop);
    ASSERT_TRUE(s.stays(10, 0.3));
    ASSERT_FALSE(s.stays(10, 8));
    EXPECT_LT(starts(10, 0.3), starts(10, 8));
}

TEST(SettingsCard, names_every_rule)
{
    const Job job = new_job("drainback");
    Variant v = busy(job, true);
    v.unit.outputs[0].faults = {{"S1", OnFault::carry_on}};
    const auto rows = settings_card(v, {});
    for (const Rule& r : v.unit.rules)
        EXPECT_TRUE(std::any_of(rows.begin(), rows.end(), [&](const CardRow& x) { return x.group == std::string(kind_of(r).title) + " · " + r.output; })) << kind_of(r).title;
    EXPECT_TRUE(std::any_of(rows.begin(), rows.end(), [](const CardRow& x) { return x.name == "While S1 fails" && x.value == "carry on"; }));
    const auto fahrenheit = settings_card(v, {true, false});
    EXPECT_NE(fahrenheit, rows);
}

TEST(WhyNot, names_what_is_missing)
{
    const Job job = new_job("glycol-coil");
    Variant v = job.variants[0];
    add_output(v, "H1", Drives::element);
    add<Heating>(v);
    const Program p = compile(v).program;
    EngineState s = power_up(p);
    Inputs in;
    in.clock_ms = 13 * 3'600'000;
    in.readings[0].mk = 50000;
    in.readings[1].mk = 20000;
    in.readings[2].mk = 60000;
    step(p, in, s);
    in.clock_ms += 1000;
    const Decisions d = step(p, in, s);
    const WhyText w = why(v, p, in, s, d[1], 1, {});
    ASSERT_EQ(w.why_not.size(), 1U);
    for (const char* part : {"Backup heating would run it if", "P1 rested", "the tank top fell by 15.0 K", "its window had begun (in 16"})
        EXPECT_NE(w.why_not[0].find(part), std::string::npos) << w.why_not[0];
    EXPECT_TRUE(w.margin.empty());
}

} // namespace
