#include "passing.h"

#include "fluid.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace vernal {
namespace {

constexpr double reference_c = 50.0;  // at which a fluid's heat is taken
constexpr double slug_reserve_s = 30; // for the probe's own lag; estimate

} // namespace

double carried_w_k(const Loop& l, double flow_m3_s)
{
    const Arrangement& a = arrangement_of(l);
    const Fluid f = a.carrier == Carrier::air ? warm_air() : fluid_at(glycol_share(l), reference_c);
    return flow_m3_s * f.density_kg_m3 * f.heat_capacity_j_kgk;
}

double settled_rise_k(const Loop& loop, const Collector& report, double flow_m3_s, double g, double inlet_c, double air_c)
{
    const Collector c = in_still_air(report);
    const double over = inlet_c - air_c, gained = c.eta0 * g - c.a1_w_m2k * over - c.a2_w_m2k2 * over * std::fabs(over);
    return std::max(0.0, c.area_m2 * gained / (carried_w_k(loop, flow_m3_s) + c.area_m2 * c.a1_w_m2k / 2));
}

double passing_s(const Collector& c, const Pipe& to_it, double flow_m3_s)
{
    const double pipe_m3 = std::numbers::pi / 4 * to_it.bore_m * to_it.bore_m * to_it.length_m;
    return (c.content_m3 + pipe_m3) / std::max(1e-9, flow_m3_s);
}

double past_the_slug_s(const Collector& c, const Pipe& to_it, double flow_m3_s) { return std::ceil((2 * passing_s(c, to_it, flow_m3_s) + slug_reserve_s) / 10) * 10; }

} // namespace vernal
