#include "core/plant/passing.h"
#include "core/setup/job_setup.h"

#include <gtest/gtest.h>

#include <numbers>

using namespace vernal;

namespace {

// Water at 50 °C: 988.0 kg/m³ and 4.180 kJ/(kg K) (steam tables).
TEST(Passing, settled_rise_by_hand)
{
    Loop l = new_job("direct").variants[0].loop;
    Collector c;
    c.area_m2 = 2;
    c.eta0 = 0.8;
    c.a1_w_m2k = 4;
    c.a2_w_m2k2 = 0;
    const double rate = 2e-5 * 988.0 * 4180;
    EXPECT_NEAR(settled_rise_k(l, c, 2e-5, 1000, 20, 20), 2 * 800 / (rate + 4), 0.02);
    EXPECT_NEAR(settled_rise_k(l, c, 2e-5, 1000, 60, 20), 2 * (800 - 160) / (rate + 4), 0.02);
    EXPECT_EQ(settled_rise_k(l, c, 2e-5, 100, 60, 20), 0) << "it would lose heat";
}

// The array's own run in steady sun comes to it: collector probe above the tank's bottom
// once the pipes have warmed, less what they lose.
TEST(Passing, settled_rise_is_what_a_run_comes_to)
{
    Job job = new_job("direct");
    Variant& v = job.variants[0];
    v.loop.tank.volume_m3 = 20; // does not warm
    job.days[0].begins = Begins::cold;
    job.days[0].draws.clear(); // no mains water below the bottom's probe
    v.loop.collector.iam_b0 = 0;
    v.loop.collector.iam_diffuse = 1;
    for (Probe& p : v.probes)
        p.placement = 0;
    const CoupledResult r = run_coupled(*coupled_setup(job, v, job.days[0]));
    int compared = 0;
    for (const Record& k : r.records) {
        if (k.time_s < 12 * 3600 || k.time_s > 14 * 3600 || (k.state.running & 1U) == 0)
            continue;
        const double rise = (k.inputs.readings[0].mk - k.inputs.readings[1].mk) / 1000.0;
        EXPECT_NEAR(rise, settled_rise_k(v.loop, v.loop.collector, v.loop.pump.flow_m3_s, k.plane_w_m2, k.inputs.readings[1].mk / 1000.0, k.air_c), 0.05 * rise + 0.1);
        ++compared;
    }
    EXPECT_GT(compared, 5);
}

TEST(Passing, takes_as_long_as_the_volumes_need)
{
    Collector c;
    c.content_m3 = 0.003;
    const Pipe p{10, 0, 0.02, 0.2};
    EXPECT_NEAR(passing_s(c, p, 1e-4), (0.003 + std::numbers::pi / 4 * 4e-4 * 10) / 1e-4, 1e-9);
}

} // namespace
