// Why two variants differ, and why a log and the rules do, in words.
#include "core/run/replay.h"
#include "core/setup/job_setup.h"
#include "core/study/difference.h"
#include "core/study/figures_only.h"
#include "core/wording/disagreement.h"
#include "rule_of.h"

#include <gtest/gtest.h>

using namespace vernal;

namespace {

Job two()
{
    Job job = new_job("glycol-coil");
    job.variants.resize(1);
    job.variants.push_back(job.variants[0]);
    job.variants[0].name = "mine";
    job.variants[1].name = "other";
    return job;
}

std::vector<std::string> whats(const std::vector<VariantChange>& all)
{
    std::vector<std::string> out;
    for (const VariantChange& c : all)
        out.push_back(c.what);
    return out;
}

TEST(Difference, names_each_rule_part_and_probe_that_differs)
{
    Job job = two();
    EXPECT_TRUE(changes_between(job, 0, 1, {}).empty());
    Variant& v = job.variants[0];
    rule_of<Differential>(v).on = TempDiff::kelvin(12);
    v.loop.tank.volume_m3 = 0.5;
    v.probes[1].lag_s = 77;
    v.input.bits = 9;
    v.horizon = {{0, 10}};
    v.unit.rules.erase(v.unit.rules.begin());
    const auto all = whats(changes_between(job, 0, 1, {}));
    ASSERT_EQ(all.size(), 6U);
    EXPECT_EQ(all[0], "Difference: Start at 12.0 K, not " + to_text(rule_of<Differential>(job.variants[1]).on.in_kelvin(), Quantity::difference, {}));
    EXPECT_NE(all[1].find("removed"), std::string::npos);
    EXPECT_EQ(all[2], "Tank: Volume 500 L, not 300 L");
    EXPECT_NE(all[3].find("77 s"), std::string::npos) << all[3];
    EXPECT_EQ(all[4], "the unit's input");
    EXPECT_EQ(all[5], "another horizon");
}

// All changes together make the one into the other.
TEST(Difference, applied_one_after_the_other_they_are_the_whole)
{
    Job job = two();
    Variant& v = job.variants[0];
    rule_of<Differential>(v).off = TempDiff::kelvin(1);
    v.loop.pump.flow_m3_s *= 1.5;
    v.loop.glycol_fraction = 0.2;
    v.probes[0].placement = 0.05;
    v.unit.outputs[0].mode = Mode::on;
    v.unit.rules.front().enabled = false;
    Variant made = job.variants[1];
    for (const VariantChange& c : changes_between(job, 0, 1, {}))
        c.apply(made);
    made.name = v.name;
    made.id = v.id;
    EXPECT_EQ(made, v);
    job.variants[0] = new_job("pool").variants[0];
    ASSERT_EQ(changes_between(job, 0, 1, {}).size(), 1U) << "another arrangement is one change";
}

TEST(Difference, a_change_that_stands_alone_does_all_of_it)
{
    Job job = two();
    rule_of<Differential>(job.variants[0]).on = TempDiff::kelvin(45);
    job.variants[0].loop.wiring.cable_m += 1; // moves nothing
    const Day& cloudy = job.days[1];          // on a clear one the tank is full either way
    const auto d = difference_between(job, 0, 1, cloudy, {});
    ASSERT_TRUE(d);
    const auto mine = figures_only(job, job.variants[0], cloudy), other = figures_only(job, job.variants[1], cloudy);
    EXPECT_EQ(d->effect.starts, mine->starts() - other->starts());
    EXPECT_DOUBLE_EQ(d->effect.heat_j, mine->heat.to_store - other->heat.to_store);
    ASSERT_EQ(d->changes.size(), 2U);
    EXPECT_EQ(d->changes[0].effect.starts, d->effect.starts) << "the rule does it";
    EXPECT_DOUBLE_EQ(d->changes[0].effect.heat_j, d->effect.heat_j);
    EXPECT_EQ(d->changes[1].effect.heat_j, 0.0);
    const std::string s = difference_text(*d, "mine", "other", {});
    EXPECT_EQ(s.rfind("mine against other: ", 0), 0U) << s;
    EXPECT_NE(s.find("does nothing today: Cable and breaker: Cable, one way"), std::string::npos) << s;
}

// The array moved behind a ridge in the east: in one sentence how much later the pump starts, and what it costs.
TEST(Difference, two_places_of_an_array_are_told_apart_by_their_first_start)
{
    Job job = two();
    job.variants[0].horizon = {{-180, 0}, {-130, 30}, {-50, 30}, {-30, 0}, {180, 0}};
    const auto d = difference_between(job, 0, 1, job.days[0], {});
    ASSERT_TRUE(d);
    const auto mine = figures_only(job, job.variants[0], job.days[0]), other = figures_only(job, job.variants[1], job.days[0]);
    EXPECT_DOUBLE_EQ(d->effect.first_later_s, mine->pumps[0].first_start_s - other->pumps[0].first_start_s);
    EXPECT_GT(d->effect.first_later_s, 1200);
    const std::string s = difference_text(*d, "behind the barn", "on the roof", {});
    EXPECT_NE(s.find("first start " + to_text(d->effect.first_later_s, Quantity::minutes, {}) + " later"), std::string::npos) << s;
    EXPECT_NE(s.find("another horizon"), std::string::npos) << s;
    VariantDifference never{{0, 0, NAN}, d->changes};
    EXPECT_NE(difference_text(never, "a", "b", {}).find("only one of them starts"), std::string::npos);
}

// Likewise two tilts, and two places of a probe.
TEST(Difference, two_tilts_and_two_places_of_a_probe_are_told_apart)
{
    for (const bool tilt : {true, false}) {
        Job job = two();
        if (tilt)
            job.variants[0].loop.collector.tilt_deg += 25;
        else
            job.variants[0].probes[0].placement = 0.4;
        const auto d = difference_between(job, 0, 1, job.days[0], {});
        ASSERT_TRUE(d);
        const auto mine = figures_only(job, job.variants[0], job.days[0]), other = figures_only(job, job.variants[1], job.days[0]);
        EXPECT_DOUBLE_EQ(d->effect.heat_j, mine->heat.to_store - other->heat.to_store);
        EXPECT_EQ(d->effect.starts, mine->starts() - other->starts());
        EXPECT_GT(std::fabs(d->effect.first_later_s), 60) << tilt;
        const std::string s = difference_text(*d, "there", "here", {});
        EXPECT_NE(s.find("first start "), std::string::npos) << s;
        EXPECT_NE(s.find("kWh"), std::string::npos) << s;
    }
}

TEST(Difference, without_one_it_says_so)
{
    const Job job = two();
    const auto d = difference_between(job, 0, 1, job.days[0], {});
    ASSERT_TRUE(d);
    EXPECT_EQ(difference_text(*d, "mine", "other", {}), "mine and other have the same settings.");
}

TEST(Difference, a_cancelled_question_has_no_answer)
{
    const Job job = two();
    std::stop_source stop;
    stop.request_stop();
    EXPECT_FALSE(difference_between(job, 0, 1, job.days[0], {}, stop.get_token()));
}

// A log whose pump ran while the collector was 5 K above the store, and rested at 30 K.
TEST(Disagreement, says_how_far_from_start_and_stop_it_was)
{
    Variant v = new_job("glycol-coil").variants[0];
    auto& d = rule_of<Differential>(v);
    d.on = TempDiff::kelvin(9);
    d.off = TempDiff::kelvin(3);
    ReplaySetup setup;
    const Compiled compiled = compile(v);
    setup.program = compiled.program;
    for (const Probe& p : v.probes)
        setup.probe_columns.push_back(p.key);
    setup.output_columns = {"P1"};
    Trace trace;
    const auto column = [&](const char* name, std::vector<double> x) { trace.columns.push_back({name, Quantity::temperature, std::move(x)}); };
    for (int i = 0; i < 40; ++i)
        trace.time_s.push_back(i * 30.0);
    std::vector<double> collector(40, 25), store(40, 20), top(40, 20), pump(40, 1);
    for (std::size_t i = 20; i < 40; ++i) {
        collector[i] = 50;
        pump[i] = 0;
    }
    column(v.probes[0].key.c_str(), collector);
    column(v.probes[1].key.c_str(), store);
    column(v.probes[2].key.c_str(), top);
    trace.columns.push_back({"P1", Quantity::number, pump});
    const auto r = run_replay(setup, trace);
    ASSERT_TRUE(r) << r.error().text();
    ASSERT_GE(r->disagreements.size(), 2U);
    EXPECT_EQ(disagreement_text(v, *r, r->disagreements.front(), {}), "The log's P1 ran, the rules say rest: 4.0 K short of the start. The log begins here: what the unit still remembered from before is not in it.");
    EXPECT_EQ(disagreement_text(v, *r, r->disagreements.back(), {}), "The log's P1 rested, the rules say run: 21.0 K past the start.");
    EXPECT_EQ(disagreement_text(v, *r, r->disagreements.front(), Units::us()), "The log's P1 ran, the rules say rest: 7.2 °F short of the start. The log begins here: what the unit still remembered from before is not in it.");
}

} // namespace
