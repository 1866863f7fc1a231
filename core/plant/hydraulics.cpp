#include "hydraulics.h"

#include "core/units/root.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace vernal {
namespace {

constexpr double laminar_re = 2300.0, turbulent_re = 4000.0;

double section_m2(const Pipe& p) { return std::numbers::pi / 4 * p.bore_m * p.bore_m; }

double colebrook(double re, double roughness)
{
    double x = -1.8 * std::log10(std::pow(roughness / 3.7, 1.11) + 6.9 / re); // 1/√f
    for (int i = 0; i < 4; ++i)
        x = -2 * std::log10(roughness / 3.7 + 2.51 * x / re);
    return 1 / (x * x);
}

} // namespace

double atmosphere_pa(double altitude_m) { return 101325.0 * std::pow(1 - 2.25577e-5 * altitude_m, 5.25588); }

double friction_factor(double re, double roughness)
{
    if (re <= laminar_re)
        return 64 / std::max(re, 1e-9);
    if (re >= turbulent_re)
        return colebrook(re, roughness);
    return std::lerp(64 / laminar_re, colebrook(turbulent_re, roughness), (re - laminar_re) / (turbulent_re - laminar_re));
}

double pipe_drop_pa(const Pipe& p, const Fluid& fluid, double flow)
{
    if (flow <= 0)
        return 0;
    const double u = flow / section_m2(p), re = u * p.bore_m / fluid.kinematic_m2_s();
    return (friction_factor(re, p.roughness_m / p.bore_m) * p.length_m / p.bore_m + p.fittings) * fluid.density_kg_m3 * u * u / 2;
}

double ring_drop_pa(const Loop& l, const Route& route, const Fluid& fluid, double flow)
{
    const auto stated = [flow](const Collector& c) { return c.drop_pa * (flow / c.drop_flow_m3_s) * (flow / c.drop_flow_m3_s); };
    double sum = 0;
    for (Segment s : route.ring)
        switch (s) {
        case Segment::supply_pipe: sum += pipe_drop_pa(l.supply, fluid, flow); break;
        case Segment::return_pipe: sum += pipe_drop_pa(l.back, fluid, flow); break;
        case Segment::supply_2: sum += pipe_drop_pa(l.supply_2, fluid, flow); break;
        case Segment::return_2: sum += pipe_drop_pa(l.back_2, fluid, flow); break;
        case Segment::collector: sum += stated(l.collector); break;
        case Segment::collector_2: sum += stated(l.collector_2); break;
        default: break;
        }
    return sum;
}

bool curve_known(const Pump& p) { return p.head_m > 0 && p.free_flow_m3_s > 0; }

double pump_head_m(const Pump& p, double flow, double speed)
{
    return p.head_m * (speed * speed - (flow / p.free_flow_m3_s) * (flow / p.free_flow_m3_s));
}

CurveFit fit_pump(const std::vector<PumpPoint>& points)
{
    double n = 0, x = 0, y = 0, xx = 0, xy = 0; // of Q² and H
    for (const PumpPoint& p : points) {
        const double q2 = p.flow_m3_s * p.flow_m3_s;
        n += 1, x += q2, y += p.head_m, xx += q2 * q2, xy += q2 * p.head_m;
    }
    const double spread = n * xx - x * x, slope = spread > 0 ? (n * xy - x * y) / spread : 0, head = n > 0 ? (y - slope * x) / n : 0;
    if (slope >= 0 || head <= 0)
        return {};
    CurveFit fit{head, std::sqrt(-head / slope), 0};
    for (const PumpPoint& p : points)
        fit.worst_m = std::max(fit.worst_m, std::fabs(head + slope * p.flow_m3_s * p.flow_m3_s - p.head_m));
    return fit;
}

double working_flow(const Loop& l, const Route& route, const Pump& p, const Fluid& fluid, double lift_m, double speed)
{
    if (p.shut || !curve_known(p) || pump_head_m(p, 0, speed) <= lift_m)
        return 0;
    const double weight = fluid.density_kg_m3 * gravity_m_s2;
    return falling_zero(0.0, p.free_flow_m3_s * speed, [&](double q) { return pump_head_m(p, q, speed) - lift_m - ring_drop_pa(l, route, fluid, q) / weight; });
}

double flow_against(const Pump& p, double lift_m, double speed)
{
    if (p.shut)
        return 0;
    if (p.head_m <= 0 || p.free_flow_m3_s <= p.flow_m3_s)
        return p.flow_m3_s * speed;
    const double head = p.head_m * speed * speed;
    return lift_m >= head ? 0.0 : p.flow_m3_s * std::sqrt((head - lift_m) / p.head_m);
}

double pump_flow(const Loop& l, const Route& route, const Pump& p, const Fluid& fluid, double lift_m)
{
    return p.by_curve && curve_known(p) ? working_flow(l, route, p, fluid, lift_m, p.speed) : flow_against(p, lift_m, p.speed);
}

namespace {

// What the weights of two columns of this height drive through the ring; below `most`.
double driven_flow(const Loop& l, const Route& route, double cold_c, double warm_c, double height_m, double most)
{
    const double x = glycol_share(l);
    const double drive = (fluid_at(x, cold_c).density_kg_m3 - fluid_at(x, warm_c).density_kg_m3) * gravity_m_s2 * height_m;
    if (drive <= 0)
        return 0;
    const Fluid middle = fluid_at(x, (cold_c + warm_c) / 2);
    return falling_zero(0.0, most, [&](double q) { return drive - ring_drop_pa(l, route, middle, q); });
}

} // namespace

double thermosiphon_flow(const Loop& l, const Route& route, double cold_c, double warm_c)
{
    return driven_flow(l, route, cold_c, warm_c, l.check_valve.rise_m, l.pump.flow_m3_s);
}

double natural_flow(const Loop& l, const Route& route, double cold_c, double warm_c)
{
    return driven_flow(l, route, cold_c, warm_c, l.tank.above_m, most_natural_m3_s);
}

double suction_head_m(double water_c, double suction_m, double altitude_m)
{
    return (atmosphere_pa(altitude_m) - saturation_pa(water_c)) / (fluid_at(0, water_c).density_kg_m3 * gravity_m_s2) - suction_m;
}

} // namespace vernal
