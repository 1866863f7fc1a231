#include "builder.h"

namespace vernal {

namespace {

// A front of warm or cold fluid is blurred as it travels: laminar cores, wall
// and film, bends. D = λ u with λ of a few tenths of a metre lies between
// Taylor's turbulent value (Proc. R. Soc. A 223 (1954) 446; about a radius) and
// the laminar one (metres). A modelling choice, no source.
constexpr double pipe_dispersion_m = 0.4;
constexpr double copper_j_m3k = 8960.0 * 385.0;
constexpr double pipe_wall_m = 0.001;
// A jacket in the sun stands this far above the air per W/m² of level sun: α/(π h) with α
// 0.7 and h 20 W/m²K (sol-air temperature, ASHRAE Handbook of Fundamentals; both figures estimates).
constexpr double jacket_k_m2_w = 0.7 / (std::numbers::pi * 20);

} // namespace

void NetworkBuilder::build_pipe(Segment s, const Pipe& p, bool from_collector_on)
{
    n_.pipe_m_[s == Segment::supply_pipe ? 0 : s == Segment::return_pipe ? 1
                                           : s == Segment::supply_2      ? 2
                                                                         : 3] = p.length_m;
    const int n = std::max(3, static_cast<int>(std::ceil(p.length_m / (2 * pipe_dispersion_m)))) * fine_.pipe;
    const double dx = p.length_m / n;
    const double section = std::numbers::pi / 4 * p.bore_m * p.bore_m;
    const double wall = std::numbers::pi * (p.bore_m + pipe_wall_m) * pipe_wall_m;
    const double capacity = (section * n_.fluid_.density_kg_m3 * n_.fluid_.heat_capacity_j_kgk + wall * copper_j_m3k) * dx;
    Chain chain{{}, std::max(0.0, pipe_dispersion_m / dx - 0.5), false, -1};
    for (int i = 0; i < n; ++i) {
        const double from_collector = (from_collector_on ? i + 0.5 : n - i - 0.5) * dx;
        const bool outdoors = from_collector < p.outdoor_m;
        const int node = add_node(capacity, outdoors);
        n_.ring_m3_.back() = section * dx;
        // As far as draining() has it: what lies outdoors, and indoors what climbs above the reservoir's water.
        const double empty_m = p.outdoor_m + (n_.arrangement_.drains ? std::max(0.0, l_.drain_back.lift_m) : 0.0);
        if (const double share = std::clamp((empty_m - from_collector) / dx + 0.5, 0.0, 1.0); share > 0)
            drains(node, s, section * dx * share * water_j_m3k(), capacity * share);
        outdoors ? to_air(node, p.loss_w_mk * dx, Loss::pipe) : to_room(node, p.loss_w_mk * dx, l_.tank.room_c, Loss::pipe);
        if (outdoors && p.sunlit > 0)
            n_.suns_.push_back({at(node), at(SunPlane::ground), p.loss_w_mk * dx * jacket_k_m2_w * p.sunlit, 0, Loss::pipe});
        chain.nodes.push_back(node);
    }
    keep(s, std::move(chain));
}

} // namespace vernal
