// Fluids, friction, the pump's working point, suction: against published values.
#include "core/job/job.h"
#include "core/plant/hydraulics.h"
#include "core/run/acting.h"

#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <cmath>

using namespace vernal;

namespace {

double any(double lo, double hi) { return lo + (hi - lo) * *rc::gen::inRange(0, 1001) / 1000.0; }

// Water: IAPWS-95 and IAPWS 2008 viscosity at 0.1 MPa (at saturation above 100 °C),
// as tabled in steam tables: °C, kg/m³, kJ/kgK, mPa s.
struct WaterRow {
    double c, density, capacity, viscosity;
};
TEST(FluidTables, water_as_in_the_steam_table)
{
    for (const WaterRow& r : {WaterRow{0, 999.8, 4.217, 1.792}, {10, 999.7, 4.196, 1.306}, {20, 998.2, 4.184, 1.002}, {40, 992.2, 4.179, 0.653}, {60, 983.2, 4.185, 0.466}, {80, 971.8, 4.197, 0.354}, {100, 958.4, 4.216, 0.282}}) {
        const Fluid f = fluid_at(0, r.c);
        EXPECT_NEAR(f.density_kg_m3, r.density, 0.3) << r.c;
        EXPECT_NEAR(f.heat_capacity_j_kgk, 1000 * r.capacity, 6) << r.c;
        EXPECT_NEAR(f.viscosity_pa_s, r.viscosity * 1e-3, 0.03 * r.viscosity * 1e-3) << r.c;
    }
}

// Propylene glycol by mass: ASHRAE Handbook Fundamentals, secondary coolants (from
// memory): 30 % at 20 °C 1023 kg/m³, 3.82 kJ/kgK, 2.6 mPa s; 50 % 1038, 3.54, 6.0;
// 50 % at −20 °C about 60 mPa s. The fit lies up to 3 % above its heat capacities.
TEST(FluidTables, propylene_glycol_near_its_handbook)
{
    EXPECT_NEAR(fluid_at(0.3, 20).density_kg_m3, 1023, 6);
    EXPECT_NEAR(fluid_at(0.3, 20).heat_capacity_j_kgk, 3820, 80);
    EXPECT_NEAR(fluid_at(0.3, 20).viscosity_pa_s, 2.6e-3, 0.5e-3);
    EXPECT_NEAR(fluid_at(0.5, 20).density_kg_m3, 1038, 6);
    EXPECT_NEAR(fluid_at(0.5, 20).heat_capacity_j_kgk, 3540, 110);
    EXPECT_NEAR(fluid_at(0.5, 20).viscosity_pa_s, 6.0e-3, 1.2e-3);
    EXPECT_NEAR(fluid_at(0.5, -20).viscosity_pa_s, 60e-3, 20e-3);
    for (const auto& [x, c] : {std::pair{0.1, -3.3}, {0.2, -7.1}, {0.3, -12.7}, {0.4, -21.1}, {0.5, -33.5}}) // the same chapter
        EXPECT_NEAR(fluid_at(x, 20).freezing_c, c, 0.05);
}

RC_GTEST_PROP(FluidTables, are_smooth_and_possible, ())
{
    const double x = any(0, 0.6), t = any(-40, 149);
    const Fluid a = fluid_at(x, t), b = fluid_at(x, t + 0.5), more = fluid_at(std::min(0.6, x + 0.02), t);
    RC_ASSERT(a.density_kg_m3 > 800 && a.density_kg_m3 < 1120 && a.heat_capacity_j_kgk > 2500 && a.heat_capacity_j_kgk < 4500 && a.viscosity_pa_s > 1e-4);
    RC_ASSERT(b.viscosity_pa_s <= a.viscosity_pa_s * 1.0001 && std::fabs(b.density_kg_m3 - a.density_kg_m3) < 1.0);
    RC_ASSERT(burst_c(x) <= more.freezing_c + 1e-9 || x < 0.03);
}

TEST(Steam, boils_where_the_steam_table_says)
{
    for (const auto& [bar, c] : {std::pair{1.01325, 100.0}, {2.0, 120.2}, {3.0, 133.5}, {6.0, 158.8}}) // IAPWS-IF97, saturation
        EXPECT_NEAR(boiling_c(bar * 1e5), c, 0.1);
}

// Moody diagram and the Colebrook equation, solved to four digits (White, Fluid
// Mechanics, ch. 6; recomputed): Re, relative roughness, Darcy f.
TEST(Friction, colebrook_and_laminar)
{
    EXPECT_NEAR(friction_factor(1e5, 0), 0.01799, 2e-5);
    EXPECT_NEAR(friction_factor(1e5, 1e-3), 0.02217, 2e-5);
    EXPECT_NEAR(friction_factor(1e6, 1e-4), 0.01344, 2e-5);
    EXPECT_NEAR(friction_factor(1e4, 0.01), 0.04313, 5e-5);
    EXPECT_DOUBLE_EQ(friction_factor(1000, 0.01), 0.064);
}

RC_GTEST_PROP(Friction, satisfies_colebrook_and_rises_with_roughness, ())
{
    const double re = std::pow(10, any(3.61, 7.5)), k = any(0, 0.04);
    const double f = friction_factor(re, k), x = 1 / std::sqrt(f);
    RC_ASSERT(std::fabs(x + 2 * std::log10(k / 3.7 + 2.51 * x / re)) < 2e-4);
    RC_ASSERT(friction_factor(re, k + 0.005) > f);
}

// Hazen & Williams, the plumber's formula, for water at 15 °C in smooth pipe with
// C = 150: h = 10.67 L Q^1.852 / (C^1.852 d^4.87) (SI form; from memory). The two
// agree within a tenth in the range it was made for.
TEST(Friction, near_hazen_williams_for_smooth_pipe)
{
    for (const auto& [bore, flow] : {std::pair{0.02, 4e-4}, {0.026, 7e-4}, {0.05, 3e-3}}) {
        Pipe p{100, 0, bore, 0.2};
        p.fittings = 0;
        const Fluid water = fluid_at(0, 15);
        const double metres = pipe_drop_pa(p, water, flow) / (water.density_kg_m3 * gravity_m_s2);
        const double plumber = 10.67 * 100 * std::pow(flow, 1.852) / (std::pow(150, 1.852) * std::pow(bore, 4.8704));
        EXPECT_NEAR(metres, plumber, 0.1 * plumber) << bore;
    }
}

TEST(PumpCurve, two_points_exactly_three_by_least_squares)
{
    const CurveFit two = fit_pump({{0, 6}, {3e-4, 4}});
    EXPECT_NEAR(two.head_m, 6, 1e-12);
    EXPECT_NEAR(two.free_flow_m3_s, 3e-4 * std::sqrt(3.0), 1e-12);
    const CurveFit three = fit_pump({{0, 6.1}, {2e-4, 5.2}, {3e-4, 3.9}});
    EXPECT_GT(three.worst_m, 0);
    EXPECT_LT(three.worst_m, 0.2);
    EXPECT_EQ(fit_pump({{0, 4}, {1e-4, 5}}).head_m, 0) << "a rising curve is no pump's";
    EXPECT_EQ(fit_pump({{1e-4, 5}}).head_m, 0);
    EXPECT_EQ(fit_pump({}).head_m, 0);
}

// Affinity laws: flow with n, head with n² (any pump textbook).
TEST(PumpCurve, follows_the_affinity_laws)
{
    const Pump p{1e-4, 60, 9, 4e-4};
    for (double n : {0.3, 0.5, 0.8})
        EXPECT_NEAR(pump_head_m(p, n * 2e-4, n), n * n * pump_head_m(p, 2e-4, 1), 1e-12);
    EXPECT_NEAR(pump_head_m(p, 0, 0.3), 0.09 * 9, 1e-12); // 30 % of the speed has 9 % of the head (field handbook)
}

RC_GTEST_PROP(PumpCurve, works_where_head_and_friction_are_equal, ())
{
    Loop l = new_job(*rc::gen::element("drainback", "glycol-coil", "glycol-hx", "pool")).variants.front().loop;
    l.pump.head_m = any(0.5, 40);
    l.pump.free_flow_m3_s = any(1e-5, 5e-3);
    l.supply.length_m = any(0.5, 150);
    l.back.bore_m = any(0.006, 0.1);
    const double lift = any(0, 20), n = any(0.1, 1), c = any(-20, 120);
    const Route& r = arrangement_of(l).routes.front();
    const Fluid f = fluid_at(0.4, c);
    const double q = working_flow(l, r, l.pump, f, lift, n);
    RC_ASSERT(q >= 0 && q <= l.pump.free_flow_m3_s);
    if (q == 0) {
        RC_ASSERT(pump_head_m(l.pump, 0, n) <= lift + 1e-9);
        return;
    }
    RC_ASSERT(std::fabs(pump_head_m(l.pump, q, n) - lift - ring_drop_pa(l, r, f, q) / (f.density_kg_m3 * gravity_m_s2)) < 1e-6 * l.pump.head_m + 1e-9);
    RC_ASSERT(working_flow(l, r, l.pump, f, lift + 0.5, n) < q);
    l.pump.shut = true;
    RC_ASSERT(working_flow(l, r, l.pump, f, lift, n) == 0);
}

TEST(PumpFlow, cold_glycol_is_pumped_more_slowly)
{
    Job job = new_job("glycol-coil");
    Loop& l = job.variants[0].loop;
    l.pump.by_curve = true;
    l.pump.head_m = 3;
    l.pump.free_flow_m3_s = 3e-4;
    const Route& r = arrangement_of(l).routes.front();
    EXPECT_LT(pump_flow(l, r, l.pump, fluid_at(0.4, -10), 0), 0.95 * pump_flow(l, r, l.pump, fluid_at(0.4, 60), 0));
    const Network net(l, {});
    HydraulicState water(net, l, 0);
    auto t = net.start(40, -20);
    water.outputs(Acting{1}, t, 10);
    water.pass(1, t);
    const double cold = water.flows(0, 10).route_w_k[0];
    std::fill(t.begin(), t.end(), 70);
    water.pass(1, t);
    EXPECT_GT(water.flows(0, 10).route_w_k[0], cold);
}

// NPSH: water at 20 °C open to 101.325 kPa: (101.325 − 2.339) kPa / (998.2 · 9.80665) = 10.11 m.
TEST(Suction, head_over_the_vapour_pressure)
{
    EXPECT_NEAR(suction_head_m(20, 0, 0), 10.11, 0.01);
    EXPECT_NEAR(suction_head_m(20, 3, 0), 7.11, 0.01);
    EXPECT_NEAR(suction_head_m(80, 0, 0), (101.325 - 47.41) * 1000 / (971.8 * 9.80665), 0.02); // steam table
    EXPECT_LT(suction_head_m(100, 0, 0), 0.05);
}

TEST(Pressure, of_six_metres_of_water)
{
    EXPECT_NEAR(998.2 * gravity_m_s2 * 6 / 1000, 58.7, 0.1); // field handbook: 58.7 kPa
    EXPECT_NEAR(atmosphere_pa(2000), 79495, 30);             // ISO 2533
}

} // namespace
