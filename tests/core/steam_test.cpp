// Steam as an equilibrium of pressure and boiling point.
#include "core/plant/fluid.h"
#include "core/plant/hydraulic_state.h"
#include "core/plant/hydraulics.h"
#include "core/plant/vessel.h"
#include "core/setup/job_setup.h"

#include <gtest/gtest.h>

#include <rapidcheck/gtest.h>

#include <cmath>

using namespace vernal;

namespace {

struct Array {
    Loop loop = new_job("glycol-coil").variants.front().loop;
    double altitude_m = 640;
    Array()
    {
        loop.answers.carrier = Carrier::water;
        loop.vessel.volume_m3 = 0.008;
        loop.check_valve.rise_m = 5;
    }
    // The array at this temperature, the rest of the ring at 60 °C.
    struct Settled {
        double top_pa, vessel_pa, lost_kg;
    };
    Settled at(double array_c) const
    {
        const Network net(loop, {});
        Pressure p(net, loop, altitude_m);
        std::vector<double> t(net.size(), 60);
        const NodeRange c = net.nodes_of(Segment::collector);
        for (std::size_t i = 0; i < c.count; ++i)
            t[c.first + i] = array_c;
        p.settle(t, 1);
        return {p.pa() - 983.2 * gravity_m_s2 * loop.check_valve.rise_m, p.pa(), p.figures().lost_kg};
    }
};

// Water at 139 °C: 3.515 bar (IAPWS-IF97 table, from memory); the air at 640 m has 0.939 bar (ISO 2533).
TEST(Steam, while_there_is_some_the_top_stands_at_saturation)
{
    Array a;
    a.loop.vessel.relief_pa = 6e5;
    const auto s = a.at(139);
    EXPECT_NEAR(s.top_pa, 3.515e5 - 0.939e5, 0.06e5) << "near 2.5 bar on a gauge at the top";
    EXPECT_EQ(s.lost_kg, 0);
    EXPECT_NEAR(a.at(150).top_pa, 4.76e5 - 0.939e5, 0.06e5); // 150 °C: 4.76 bar
}

TEST(Steam, without_any_only_the_vessel_decides)
{
    Array a;
    a.loop.vessel.fill_pa = 3e5;
    a.loop.vessel.precharge_pa = 2.7e5;
    const auto s = a.at(120);
    EXPECT_GT(s.top_pa, saturation_pa(120) - atmosphere_pa(640)) << "held above boiling";
    // Boyle by hand: what the ring gains over the fill at 15 °C pushes into the gas. Water has
    // 999.1, 983.2 and 943.1 kg/m³ at 15, 60 and 120 °C and 997.0 in the vessel (IAPWS tables, from memory).
    const double air_pa = 0.939e5, array = a.loop.collector.content_m3, rest = ring_content_m3(a.loop) - array;
    const double gains = (rest * (999.1 - 983.2) + array * (999.1 - 943.1)) / 997.0;
    const double gas = 0.008 * (2.7e5 + air_pa) / (3e5 + air_pa) - gains;
    EXPECT_NEAR(s.vessel_pa, 0.008 * (2.7e5 + air_pa) / gas - air_pa, 0.03e5);
}

TEST(Steam, opens_the_relief_valve_only_when_it_must)
{
    Array a;
    a.loop.vessel.relief_pa = 2.5e5; // below what 139 °C and the height ask for
    EXPECT_GT(a.at(139).lost_kg, 0.1);
    a.loop.vessel.relief_pa = 4e5;
    EXPECT_EQ(a.at(139).lost_kg, 0);
}

// No flip-flop: warmer is never less pressure, and a little warmer is a little more.
RC_GTEST_PROP(Steam, rises_steadily_while_the_array_warms, ())
{
    Array a;
    a.loop.vessel.volume_m3 = *rc::gen::inRange(3, 60) / 1000.0;
    a.loop.vessel.fill_pa = *rc::gen::inRange(5, 40) * 1e4;
    a.loop.vessel.precharge_pa = 0.9 * a.loop.vessel.fill_pa;
    double last = a.at(90).vessel_pa;
    for (double c = 90.5; c < 175; c += 0.5) {
        const double pa = a.at(c).vessel_pa;
        RC_ASSERT(pa >= last - 1);
        RC_ASSERT(pa <= last + 0.25e5);
        last = pa;
    }
}

// What has boiled is out of the flow until it has condensed, though the pump is on.
TEST(Steam, stops_the_flow_until_it_has_condensed)
{
    Job job = new_job("glycol-coil");
    Variant& v = job.variants[0];
    v.unit.outputs[0].mode = Mode::on;
    const CoupledSetup s = *coupled_setup(job, v, job.days[0]);
    const Network net(s.loop, s.probes);
    Pressure pressure(net, s.loop, 0);
    HydraulicState water(net, s.loop, 0);
    std::vector<double> t(net.size(), 60);
    Acting on;
    on.running = 1;
    (void)water.outputs(on, t, 10);
    const auto array_at = [&](double c) {
        const NodeRange r = net.nodes_of(Segment::collector);
        for (std::size_t i = 0; i < r.count; ++i)
            t[r.first + i] = c;
        pressure.settle(t, 1);
        water.steam(pressure.steamed());
        return water.flows(0, 10).route_w_k[0];
    };
    EXPECT_GT(array_at(90), 0);
    EXPECT_EQ(array_at(165), 0);
    EXPECT_EQ(water.trouble(), Trouble::steam);
    EXPECT_EQ(array_at(pressure.boils_at_c() + 0.1), 0) << "the last of it";
    EXPECT_GT(array_at(80), 0);
    EXPECT_EQ(water.trouble(), Trouble::none);
}

} // namespace
