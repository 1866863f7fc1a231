#include "fluid.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace vernal {
namespace {

// Propylene glycol in water. Freezing points after ASHRAE Handbook Fundamentals,
// chapter on secondary coolants; all values from memory.
constexpr std::array<Fluid, 7> table{{{992.2, 4179, 0.0},
                                      {998.0, 4110, -3.3},
                                      {1006.0, 4020, -7.1},
                                      {1014.0, 3910, -12.7},
                                      {1021.0, 3770, -21.1},
                                      {1028.0, 3610, -33.5},
                                      {1033.0, 3430, -51.1}}};

} // namespace

Fluid glycol_water(double mass_fraction)
{
    const double at = std::clamp(mass_fraction * 10.0, 0.0, 6.0);
    const auto i = std::min<std::size_t>(static_cast<std::size_t>(at), table.size() - 2);
    const double f = at - static_cast<double>(i);
    const Fluid &a = table[i], &b = table[i + 1];
    return {std::lerp(a.density_kg_m3, b.density_kg_m3, f), std::lerp(a.heat_capacity_j_kgk, b.heat_capacity_j_kgk, f), std::lerp(a.freezing_c, b.freezing_c, f)};
}

// Ideal gas at 101.325 kPa, R = 287.05 J/kgK; c_p as tabled for dry air at 300 K
// (Incropera & DeWitt, Fundamentals of Heat and Mass Transfer, table A.4; from memory).
Fluid warm_air() { return {101325.0 / (287.05 * 313.15), 1007.0, -273.15}; }

} // namespace vernal
