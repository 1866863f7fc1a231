#include "shared.h"

#include "core/plant/vessel.h"

namespace vernal {

using namespace sums;

namespace {

SumResult vessel_size(X x, C c)
{
    const double content = ring_content_m3(c.loop()), needed = vessel_for(c.loop(), x[0]);
    if (!std::isfinite(needed))
        return {"The gas must stand below nine tenths of the relief valve's pressure.", NAN};
    const double grows = expansion(glycol_share(c.loop()), 15, x[0]);
    const Network network(c.loop(), {});
    Pressure p(network, c.loop(), c.job.site.place.altitude_m);
    p.settle(std::vector<double>(network.size(), x[0]), 0);
    return {line("the loop, ", show(content, Q::volume, c), ", grows by ", show(content * grows, Q::volume, c), "\n+ the array as steam + a reserve,\n× p / (p − gas) = ", show(needed, Q::volume, c), "\nthe present one, all at ", show(x[0], Q::temperature, c), ":\n", show(p.pa(), Q::pressure, c)),
        needed};
}

constexpr double cold_c = 15;

SumResult cold_fill(X x, C c)
{
    const double column = x[0] * fluid_of(c.loop(), cold_c).density_kg_m3 * gravity_m_s2, fill = column + x[1];
    return {line(show(x[0], Q::length, c), " of fluid = ", show(column, Q::pressure, c), "\n+ ", show(x[1], Q::pressure, c), " at the top = ", show(fill, Q::pressure, c), "\ngas of the empty vessel: ", show(fill - 0.3e5, Q::pressure, c)), fill};
}

} // namespace

std::vector<FieldSum> closed_loop_sums()
{
    using P = Part;
    return {
        {"vessel", {P::vessel}, "Vessel for expansion and steam", "Boyle's law", {{{"hot_c", "Loop at its hottest", Q::temperature, 40, 180, "Fluid, before it boils: about 120 °C"}, [](C) { return 120.0; }}}, vessel_size, "Take this vessel", [](Loop& l, P, X, double v) { l.vessel.volume_m3 = v; }},
        {"cold_fill", {P::vessel}, "Cold fill", "hydrostatics; the pressure at the top is an estimate", {{{"height_m", "Top of the loop over the gauge", Q::length, 0, 100, ""}, [](C c) { return std::max(0.0, c.loop().check_valve.rise_m + 2); }}, {{"top_pa", "Pressure at the top", Q::pressure, 0, 1e6, "0.5 to 1.5 bar, so that no air comes in"}, [](C) { return 1.0e5; }}}, cold_fill, "Take fill and gas", [](Loop& l, P, X, double v) {
             l.vessel.fill_pa = v;
             l.vessel.precharge_pa = std::max(0.0, v - 0.3e5);
         }},
    };
}

} // namespace vernal
