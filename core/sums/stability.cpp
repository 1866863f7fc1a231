#include "stability.h"

#include "core/plant/fluid.h"

#include <cmath>
#include <cstdio>

namespace vernal {

StartStop start_stop(const Loop& loop)
{
    constexpr double mean_c = 40; // of the loop at a start; fluids change little about it
    const Arrangement& a = arrangement_of(loop);
    const Fluid fluid = a.carrier == Carrier::air ? warm_air() : fluid_at(glycol_share(loop), mean_c);
    const double rate = loop.pump.flow_m3_s * fluid.density_kg_m3 * fluid.heat_capacity_j_kgk;
    const double lost = rate * (1 - std::exp(-loop.collector.area_m2 * in_still_air(loop.collector).a1_w_m2k / rate));
    double gained = rate;
    if (a.has(Part::exchanger)) {
        // Counterflow (Kays & London): the lesser of the two rates limits.
        const Fluid water = fluid_at(0.0, mean_c);
        const double other = loop.exchanger_pump.flow_m3_s * water.density_kg_m3 * water.heat_capacity_j_kgk, least = std::min(rate, other), share = least / std::max(rate, other);
        const double ntu = loop.exchanger.ua_w_k / least, e = std::exp(-ntu * (1 - share));
        gained = least * (std::fabs(1 - share) < 1e-9 ? ntu / (1 + ntu) : (1 - e) / (1 - share * e));
    } else if (a.carrier == Carrier::glycol && a.has(Part::tank)) {
        gained = rate * (1 - std::exp(-loop.tank.coil_w_k / rate)); // the tank's side hardly moves
    }
    return {gained, lost};
}

std::string stability_text(const Loop& loop, double on_k, double off_k)
{
    const StartStop s = start_stop(loop);
    char ratio[32], has[32];
    std::snprintf(ratio, sizeof ratio, "%.0f : 1", s.ratio());
    if (off_k > 0)
        std::snprintf(has, sizeof has, "%.1f : 1", on_k / off_k);
    return std::string("For information: for a start that does not undo itself at once the published criterion (Duffie & Beckman) asks for start to stop as ") + ratio + " at this flow; this pair " + (off_k > 0 ? "has " + std::string(has) : "stops at zero, which meets it") +
           ". It is quasi-steady and ignores the cold slug in the pipes, most pairs in use fail it; the starts above are simulated.";
}

} // namespace vernal
