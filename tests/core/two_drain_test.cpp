// Two arrays that empty by themselves, out of one reservoir or open tank: each with a pump of
// its own fills, runs and empties whatever the other does.
#include "core/findings/findings.h"
#include "core/plant/hydraulic_state.h"
#include "core/run/coupled.h"
#include "core/setup/job_setup.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

LoopAnswers two(Empties empties)
{
    LoopAnswers a;
    a.fields = Fields::two;
    a.carrier = Carrier::water;
    a.empties = empties;
    a.transfer = empties == Empties::open_tank ? Transfer::straight : Transfer::coil;
    return a;
}

struct Plant {
    explicit Plant(const LoopAnswers& answers) : loop(new_job(answers).variants[0].loop), net(loop, {}), water(net, loop, 0), t(net.start(40, 5)) {}
    double stored_j() const { return net.stored_j(t.data(), water.drained()); }
    void run(std::uint32_t outputs)
    {
        Acting a;
        a.running = outputs;
        water.outputs(a, t, 10);
    }
    // Until the water has changed by itself so often.
    void pass(int changes = 1)
    {
        for (int i = 0; i < changes; ++i)
            water.pass(water.until_change_s(), t);
    }
    Loop loop;
    Network net;
    HydraulicState water;
    std::vector<double> t;
};

TEST(TwoThatEmpty, each_fills_and_empties_by_itself)
{
    for (const Empties empties : {Empties::reservoir, Empties::open_tank}) {
        Plant p(two(empties));
        EXPECT_EQ(p.water.drained(), 3U);
        const double began = p.stored_j();
        p.run(1);
        EXPECT_EQ(p.water.filling(0), Filling::filling);
        EXPECT_EQ(p.water.filling(1), Filling::empty);
        EXPECT_NEAR(p.water.until_change_s(), p.net.draining_m3(0) / p.water.filling_m3_s(), 1e-9);
        p.pass();
        EXPECT_EQ(p.water.drained(), 2U) << "the second still stands empty";
        p.run(3);
        p.water.pass(1, p.t);
        while (p.water.filling(1) == Filling::filling)
            p.pass();
        EXPECT_EQ(p.water.drained(), 0U);
        const Flows both = p.water.flows(0, 10);
        EXPECT_GT(p.net.comes_round_m3_s(both, 0), 0);
        EXPECT_GT(p.net.comes_round_m3_s(both, 1), 0);
        p.run(2);
        EXPECT_EQ(p.water.filling(0), Filling::draining);
        EXPECT_EQ(p.net.comes_round_m3_s(p.water.flows(0, 10), 0), 0);
        EXPECT_GT(p.net.comes_round_m3_s(p.water.flows(0, 10), 1), 0) << "it runs on";
        while (p.water.filling(0) == Filling::draining)
            p.pass();
        EXPECT_EQ(p.water.drained(), 1U);
        EXPECT_NEAR(p.stored_j(), began, 1e-9 * std::fabs(began)) << "water moved, and its heat with it";
    }
}

TEST(TwoThatEmpty, what_both_let_go_finds_room)
{
    const Loop both = new_job(two(Empties::reservoir)).variants[0].loop;
    Loop one = both;
    one.answers.fields = Fields::one;
    EXPECT_NEAR(draining(both, 0).array_m3, 2 * draining(one, 0).array_m3, 1e-12);
    EXPECT_GT(draining(both, 0).pipe_m3, 1.9 * draining(one, 0).pipe_m3);
}

TEST(TwoThatEmpty, a_day_closes_its_energy_and_fills_both)
{
    for (const Empties empties : {Empties::reservoir, Empties::open_tank}) {
        Job job = new_job(two(empties));
        job.days[0].begins = Begins::cold;
        job.variants[0].loop.tank.volume_m3 = 2; // room for all of it
        const CoupledResult r = run_coupled(*coupled_setup(job, job.variants[0], job.days[0]));
        EXPECT_GT(r.figures.pumps[0].run_time_s, 3600);
        EXPECT_GT(r.figures.pumps[1].run_time_s, 3600);
        EXPECT_GE(r.figures.hydraulics.fills, 2);
        EXPECT_LT(std::fabs(r.figures.residual_j()), 1e-6 * r.figures.heat.absorbed);
        bool first_alone = false, second_alone = false;
        for (const Record& record : r.records) {
            first_alone = first_alone || record.flows.drained == 2;
            second_alone = second_alone || record.flows.drained == 1;
        }
        EXPECT_TRUE(first_alone && second_alone) << "east in the morning, west in the evening";
        for (const Finding& f : findings({job, job.variants[0], &r.figures, {}}))
            EXPECT_NE(f.severity, Severity::serious) << f.title;
    }
}

// One of the two stands full while the other is empty: what is full freezes, what is empty does not.
TEST(TwoThatEmpty, only_what_stands_full_can_freeze)
{
    const Plant p(two(Empties::reservoir));
    const std::size_t first = p.net.nodes_of(Segment::collector).first, second = p.net.nodes_of(Segment::collector_2).first;
    EXPECT_TRUE(p.net.can_freeze(first, 2) && p.net.can_freeze(second, 1));
    EXPECT_FALSE(p.net.can_freeze(first, 1) || p.net.can_freeze(second, 2) || p.net.can_freeze(first, 3));
}

TEST(TwoThatEmpty, a_pump_that_does_not_lift_runs_dry_alone)
{
    Plant p(two(Empties::reservoir));
    p.loop.pump_2.head_m = 2;
    p.loop.pump_2.free_flow_m3_s = 3e-4;
    p.loop.pump_2.by_curve = true;
    HydraulicState water(p.net, p.loop, 0);
    Acting a;
    a.running = 1;
    water.outputs(a, p.t, 10);
    water.pass(water.until_change_s(), p.t);
    EXPECT_EQ(water.trouble(), Trouble::none);
    a.running = 3;
    water.outputs(a, p.t, 10);
    EXPECT_EQ(water.trouble(), Trouble::dry) << "the second";
    EXPECT_GT(p.net.comes_round_m3_s(water.flows(0, 10), 0), 0) << "the first runs all the same";
}

} // namespace
} // namespace vernal
