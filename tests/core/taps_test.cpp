// A heater after the tank, the tap circulation, water that circulates by itself, and a
// drain-down valve that lets heat go: restated from what is stated about them.
#include "core/plant/hydraulics.h"
#include "core/setup/job_setup.h"
#include "core/setup/loop_answers.h"
#include "core/units/safe_temperatures.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace vernal;

namespace {

Job with(const GivenAnswers& given, const std::string& preset = "glycol-coil") { return new_job(*complete(given, preset)); }

Figures run(const Job& job, std::size_t day = 0)
{
    CoupledOptions o;
    o.keep_records = false;
    return run_coupled(*coupled_setup(job, job.variants[0], job.days[day]), o).figures;
}

// A tank that neither sun nor draw moves, warm at the start.
CoupledSetup still(Job& job, double start_c)
{
    Variant& v = job.variants[0];
    v.loop.collector.area_m2 = 0.1;
    v.unit.outputs[0].mode = Mode::off;
    job.days[0].draws.clear();
    CoupledSetup s = *coupled_setup(job, v, job.days[0]);
    s.spin_up_days = 0;
    s.start_tank_c = start_c;
    return s;
}

TEST(Circulation, loses_what_its_pipe_loses)
{
    Job job = with({{"circulation", "taps"}});
    Variant& v = job.variants[0];
    v.loop.tank.volume_m3 = 20; // hardly cools
    v.loop.tank.loss_w_k = 0;
    v.unit.outputs[1].mode = Mode::on;
    const CoupledSetup s = still(job, 60);
    const Figures f = run_coupled(s).figures;
    // NTU = U L / C: the pipe's mean excess over the room falls off along it.
    const Circulation& c = v.loop.circulation;
    const double rate = c.flow_m3_s * 983.2 * 4185, ntu = c.loss_w_mk * c.length_m / rate; // water at 60 °C (IAPWS-95 tables, from memory)
    const double watt = rate * (60 - v.loop.tank.room_c) * (1 - std::exp(-ntu));
    EXPECT_NEAR(f.heat.loss(Loss::circulation), watt * 86400, 0.03 * watt * 86400);
    EXPECT_NEAR(f.circulation_s, 86400, 1);
    EXPECT_NEAR(f.circulation_warmest_c, v.loop.tank.room_c + (60 - v.loop.tank.room_c) * std::exp(-ntu), 0.3);
    EXPECT_LT(f.heat.to_store, 1e-3 * f.heat.loss(Loss::circulation)) << "what is stirred is not collected";
}

// Only what lies above its return is stirred.
TEST(Circulation, stirs_the_tank_above_its_return)
{
    Job job = with({{"circulation", "taps"}});
    job.variants[0].loop.circulation.enters_at = 0.5;
    job.variants[0].loop.circulation.loss_w_mk = 0.02;
    job.variants[0].unit.outputs[1].mode = Mode::on;
    const CoupledSetup s = still(job, 50);
    Simulation sim(s);
    const NodeRange tank = sim.network().tank(0);
    Flows flows;
    for (std::size_t r = 0; r < sim.network().arrangement().routes.size(); ++r)
        if (const Route& route = sim.network().arrangement().routes[r]; route.turns == Driver::circulation && route.ring.size() == 2)
            flows.route_w_k[r] = 100;
    std::vector<double> t(sim.network().size(), 50), k, dt(t.size());
    for (std::size_t i = 0; i < tank.count; ++i)
        t[tank.first + i] = 40 + 2 * static_cast<double>(i); // warmer above
    std::vector<double> at_rest(t.size());
    sim.network().assemble({}, k);
    sim.network().rates(k, {}, {}, t.data(), at_rest.data());
    sim.network().assemble(flows, k);
    sim.network().rates(k, flows, {}, t.data(), dt.data());
    const std::size_t returns = Layering().at(0.5);
    for (std::size_t i = 0; i < tank.count; ++i)
        EXPECT_EQ(dt[tank.first + i] == at_rest[tank.first + i], i < returns) << i;
    for (std::size_t i = returns + 1; i < tank.count; ++i)
        EXPECT_LT(dt[tank.first + i], at_rest[tank.first + i]) << "colder water comes up from below";
}

TEST(Circulation, a_valve_at_the_tank_sends_round_what_does_not_scald)
{
    Job job = with({{"circulation", "taps"}});
    Variant& v = job.variants[0];
    v.loop.tank.volume_m3 = 5;
    v.loop.circulation.tempering = Tempering::at_tank;
    v.unit.outputs[1].mode = Mode::on;
    CoupledSetup s = still(job, 75);
    Simulation sim(s);
    sim.spin_up();
    ASSERT_TRUE(sim.advance(4 * 3600));
    const NodeRange pipe = sim.network().nodes_of(Segment::circulation);
    EXPECT_NEAR(sim.temperatures()[pipe.first], tempered_c, 1.5);
    EXPECT_LT(sim.temperatures()[pipe.last()], tempered_c);
    v.loop.circulation.tempering = Tempering::at_taps;
    s = still(job, 75);
    Simulation hot(s);
    hot.spin_up();
    ASSERT_TRUE(hot.advance(4 * 3600));
    EXPECT_GT(hot.temperatures()[pipe.last()], 65);
}

TEST(Circulation, freezes_where_it_lies_in_the_open)
{
    Job job = with({{"circulation", "taps"}});
    job.variants[0].loop.circulation.outdoor_m = 5;
    const Figures f = run(job, 2);
    EXPECT_GT(f.freezing_s, 3600);
    EXPECT_EQ(f.first_freeze_at.rfind("tap circulation", 0), 0U) << f.first_freeze_at;
    EXPECT_EQ(run(with({{"circulation", "taps"}}), 2).freezing_s, 0);
}

TEST(Circulation, as_a_cooler_it_takes_heat_from_a_tank_that_nobody_uses)
{
    const auto unused = [](Job job) {
        for (Day& d : job.days)
            d.draws.clear();
        return run(job);
    };
    const Figures plain = unused(with({{"circulation", "taps"}})), cooled = unused(with({{"excess", "circulation"}}));
    EXPECT_GT(cooled.heat.loss(Loss::circulation), plain.heat.loss(Loss::circulation) + 3.6e6);
    EXPECT_LT(cooled.above_limit_s, plain.above_limit_s);
}

TEST(HeaterAfter, makes_up_what_the_sun_left_out)
{
    Job job = with({{"backup", "heater-after"}});
    job.days[0].draws = {{6, 3600, 3e-5}};
    Heater& h = job.variants[0].loop.heater;
    h.kind = HeaterKind::through_flow;
    h.power_w = 20000;
    const Figures series = run(job, 2);
    EXPECT_EQ(series.short_j, 0);
    // Without the sun's share it is flow × c × rise, and nothing else.
    h.way = HeaterWay::heater_only;
    job.days[2].draws = {{6, 3600, 3e-5}};
    const Figures alone = run(job, 2);
    const double litres = 3e-5 * 3600 * (45 - 10.0) / (60 - 10.0) * 1000; // mixed down from 60 °C
    EXPECT_NEAR(alone.heat.backup(), litres * 4.19 * 50 * 1000, 0.05 * litres * 4.19 * 50 * 1000);
    EXPECT_GT(alone.highest_store_c, series.highest_store_c) << "nothing is drawn from the solar tank";
    h.way = HeaterWay::tank_only;
    EXPECT_EQ(run(job, 2).heat.backup(), 0);
}

TEST(HeaterAfter, an_electric_one_falls_with_the_mains_and_a_gas_one_does_not)
{
    Job job = with({{"backup", "heater-after"}});
    job.days[2].outage_start_h = 0;
    job.days[2].outage_h = 24;
    EXPECT_EQ(run(job, 2).heat.backup(), 0);
    job.variants[0].loop.heater.energy = HeaterEnergy::gas;
    EXPECT_GT(run(job, 2).heat.backup(), 1e6);
}

// Buoyancy and friction by hand: laminar in two smooth pipes, at small flow.
TEST(ByItself, flows_as_buoyancy_and_friction_balance)
{
    Loop l = with({{"power", "none"}, {"carrier", "water"}, {"transfer", "straight"}, {"backup", "element"}}, "").variants[0].loop;
    l.supply.fittings = l.back.fittings = 0;
    l.collector.drop_pa = 0;
    const Route& route = arrangement_of(l).routes.front();
    const double q = natural_flow(l, route, 30, 31);
    // Water at 30 and 31 °C: 995.65 and 995.34 kg/m³, at 30.5 °C 0.789 mPa s (IAPWS tables, from memory).
    const double drive = (995.65 - 995.34) * 9.80665 * l.tank.above_m;
    const double metres = l.supply.length_m + l.back.length_m, hagen_poiseuille = 128 * 0.789e-3 * metres / (M_PI * std::pow(l.supply.bore_m, 4));
    ASSERT_LT(4 * 995.5 * q / (M_PI * l.supply.bore_m * 0.789e-3), 2300) << "laminar";
    EXPECT_NEAR(q, drive / hagen_poiseuille, 0.06 * q);
    EXPECT_EQ(natural_flow(l, route, 31, 30), 0);
    l.tank.above_m = -1;
    EXPECT_EQ(natural_flow(l, route, 30, 31), 0);
}

TEST(ByItself, collects_without_anything_that_is_switched)
{
    const Job job = with({{"power", "none"}, {"backup", "element"}}, "");
    const Figures f = run(job);
    EXPECT_GT(f.heat.to_store, 0.3 * f.heat.absorbed);
    EXPECT_EQ(f.pump_energy_j, 0);
    EXPECT_LT(std::fabs(f.residual_j()), 1e-9 * f.heat.absorbed);
    Job below = job;
    below.variants[0].loop.tank.above_m = -1;
    EXPECT_LT(run(below).heat.to_store, 0.05 * f.heat.to_store);
}

// It opens with its pump, though the unit shows a follower one sample later; with a delay the pump works against it.
TEST(MotorisedCheckValve, follows_without_a_second_of_dead_head)
{
    Job job = with({});
    Variant& v = job.variants[0];
    Output valve{"V1", "Check valve"};
    valve.drives = Drives::check_valve;
    v.unit.outputs.push_back(valve);
    v.unit.rules.push_back(Rule{"V1", true, Follow{"P1", 0, 0}});
    const Figures f = run(job, 1);
    EXPECT_GT(f.starts(), 3);
    EXPECT_EQ(f.hydraulics.dead_head_s, 0);
    std::get<Follow>(v.unit.rules.back().body).delay_s = 5;
    EXPECT_GE(run(job, 1).hydraulics.dead_head_s, 5);
}

// What a drain-down valve lets go is gone: the water of array and pipe, at what it had.
TEST(DrainDown, lets_the_heat_of_the_water_go)
{
    Job job = with({}, "direct");
    Variant& v = job.variants[0];
    for (Output& o : v.unit.outputs)
        o.mode = Mode::off; // a valve without power stands open
    const CoupledSetup s = still(job, 40);
    const Network net(s.loop, s.probes);
    HydraulicState water(net, s.loop, 0);
    std::vector<double> t(net.size(), 50);
    const double full = net.stored_j(t.data(), false);
    Acting open;
    open.emptied = true;
    const double out = water.outputs(open, t, 10);
    EXPECT_NEAR(out, net.draining_m3() * 988 * 4181 * 50, 0.02 * out); // water at 50 °C (IAPWS tables, from memory)
    EXPECT_NEAR(full - net.stored_j(t.data(), true), out, 1e-6 * full);
    const double before = net.stored_j(t.data(), true), in = -water.outputs(Acting{}, t, 10);
    EXPECT_NEAR(net.stored_j(t.data(), false), before + in, 1e-6 * full);
    EXPECT_NEAR(in, out / 5, 0.02 * out) << "cold water from the mains comes in its place";
    const Figures f = run(job, 0);
    EXPECT_LT(std::fabs(f.residual_j()), 1e-9 * (f.heat.absorbed + f.heat.drawn));
}

} // namespace
