#include "builder.h"

namespace vernal {

namespace {

// Evaporation from a quiet pool: ASHRAE Handbook, HVAC Applications, ch. Natatoriums:
// W = A (0.089 + 0.0782 v) Δp / h_fg, kPa, m/s, kW; the latent heat cancels. Its activity
// factor: 0.5 of a house's pool, 1 of a public one. Radiation comes on top: ε σ (Tw⁴ − Tsky⁴).
constexpr double evaporation_still = 89.0, evaporation_wind = 78.2; // W/(m² kPa), and per m/s
constexpr double water_emissivity = 0.9;
constexpr double cover_lets_through = 0.6; // of the sun, a bubble cover; an estimate

} // namespace

void NetworkBuilder::build_pool(Segment s)
{
    const Fluid water = glycol_water(0);
    const Pool& p = l_.pool;
    const int node = add_node(p.volume_m3 * water.density_kg_m3 * water.heat_capacity_j_kgk, false, true);
    to_air(node, p.still_loss_w_m2k * p.area_m2, Loss::store);
    n_.suns_.push_back({at(node), at(SunPlane::ground), p.absorptance * (p.covered ? cover_lets_through : 1.0) * p.area_m2, p.covered ? 0.0 : water_emissivity * p.area_m2, Loss::store});
    n_.nonlinear_losses_.push_back({.node = at(node), .loss = Loss::store, .emits_m2 = p.covered ? 0.0 : water_emissivity * p.area_m2, .vapour_w_kpa = p.covered ? 0.0 : p.activity * (evaporation_still + evaporation_wind * p.air_speed_m_s) * p.area_m2, .humidity = p.humidity});
    keep(s, {{node}, 0, true, -1});
}

} // namespace vernal
