// An open absorber down which water trickles: wet from the flow on that it is stated for.
#include "core/findings/findings.h"
#include "core/plant/collector_kinds.h"
#include "core/run/coupled.h"
#include "core/run/simulation.h"
#include "core/setup/job_setup.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

LoopAnswers trickle()
{
    LoopAnswers a;
    a.array = Array::trickle;
    a.carrier = Carrier::water;
    a.empties = Empties::open_tank;
    a.transfer = Transfer::straight;
    return a;
}

Job cold_day(double flow_share)
{
    Job job = new_job(trickle());
    job.days[0].begins = Begins::cold;
    Loop& l = job.variants[0].loop;
    l.pump.flow_m3_s = flow_share * l.collector.wetted_at_m3_s;
    return job;
}

CoupledResult day(const Job& job) { return run_coupled(*coupled_setup(job, job.variants[0], job.days[0])); }

TEST(Trickle, goes_with_plain_water_that_runs_off_again)
{
    EXPECT_EQ(cannot_combine(trickle()), "");
    LoopAnswers full = trickle(), glycol = trickle(), air = trickle(), reservoir = trickle();
    full.empties = Empties::full;
    EXPECT_NE(cannot_combine(full), "");
    glycol.carrier = Carrier::glycol;
    EXPECT_NE(cannot_combine(glycol), "");
    air.carrier = Carrier::air;
    EXPECT_NE(cannot_combine(air), "");
    reservoir.empties = Empties::reservoir;
    reservoir.transfer = Transfer::coil;
    EXPECT_EQ(cannot_combine(reservoir), "");
}

TEST(Trickle, fresh_loops_are_wet_all_over_and_pass)
{
    const Job job = new_job(trickle());
    const CoupledResult r = day(job);
    EXPECT_GT(r.figures.heat.to_store, 5 * 3.6e6);
    for (const Record& record : r.records)
        EXPECT_EQ(record.flows.wet_share[0], 1);
    for (const Finding& f : findings({job, job.variants[0], &r.figures, {}}))
        EXPECT_NE(f.severity, Severity::serious) << f.title;
}

// Of the sun on it only what falls on the wet part is taken in; nothing is lost on the way.
TEST(Trickle, half_the_flow_wets_half_of_it)
{
    const Job job = cold_day(0.5);
    Simulation s(*coupled_setup(job, job.variants[0], job.days[0]));
    s.spin_up();
    std::size_t ran = 0;
    while (s.now_s() < 14 * 3600) {
        s.advance(s.now_s() + 300);
        const Flows f = s.hydraulics().flows(0, 10);
        if (f.drained || s.network().comes_round_m3_s(f) <= 0)
            continue;
        ++ran;
        Flows wet = f;
        wet.wet_share[0] = 1;
        const Surroundings now = surroundings_at(s.day(), s.time_of_day_s());
        EXPECT_NEAR(f.wet_share[0], 0.5, 1e-9);
        EXPECT_NEAR(s.network().fixed_flows(f, now).absorbed, 0.5 * s.network().fixed_flows(wet, now).absorbed, 1e-6);
    }
    EXPECT_GT(ran, 10U);
    const CoupledResult r = day(job);
    EXPECT_LT(std::fabs(r.figures.residual_j()), 1e-6 * r.figures.heat.absorbed);
}

TEST(Trickle, gathers_with_the_flow_up_to_where_it_is_wet)
{
    const auto gathered = [](double share) { return day(cold_day(share)).figures.heat.to_store; };
    const double third = gathered(0.33), half = gathered(0.5), all = gathered(1), more = gathered(1.5);
    EXPECT_LT(third, half);
    EXPECT_LT(half, 0.75 * all);
    EXPECT_NEAR(more, all, 0.08 * all) << "from there on only the collector's warmth";
}

// Nothing hangs in a gutter: the pump lifts the water for as long as it runs.
TEST(Trickle, never_runs_as_a_siphon)
{
    Job job = cold_day(1.4);
    job.variants[0].loop.drain_back.siphon = true;
    const CoupledResult r = day(job);
    ASSERT_GT(r.figures.pumps[0].run_time_s, 3600);
    EXPECT_GT(r.figures.hydraulics.lifting_s, 0.9 * r.figures.pumps[0].run_time_s);
}

TEST(Trickle, a_finding_says_what_stays_dry)
{
    const auto says = [](const Job& job) {
        const auto all = findings({job, job.variants[0], nullptr, {}});
        return std::any_of(all.begin(), all.end(), [](const Finding& f) { return std::string(f.kind) == "trickle_stays_dry"; });
    };
    Job job = new_job(trickle());
    EXPECT_FALSE(says(job));
    job.variants[0].unit.rules.push_back({"P1", true, SpeedByDifference{"S1", "S2", TempDiff::kelvin(5), TempDiff::kelvin(1), {0.5, 1, 0.1, 0.01, DriveKind::pwm}}});
    EXPECT_TRUE(says(job)) << "at half speed half of what it wants";
    LoopAnswers pair = trickle();
    pair.fields = Fields::two;
    Job two = new_job(pair);
    EXPECT_FALSE(says(two));
    two.variants[0].loop.pump_2.flow_m3_s *= 0.5;
    EXPECT_TRUE(says(two)) << "the second as well";
    EXPECT_FALSE(says(cold_day(1.1)));
    EXPECT_TRUE(says(cold_day(0.9)));
}

} // namespace
} // namespace vernal
