#include "builder.h"

namespace vernal {

namespace {

constexpr int circulation_nodes = 6; // enough for what it loses and when it is warm; a plug is not followed

} // namespace

// In the middle of it its stretch in the open.
void NetworkBuilder::build_circulation(Segment s)
{
    const Circulation& c = l_.circulation;
    const Fluid water = glycol_water(0);
    const double section = std::numbers::pi / 4 * c.bore_m * c.bore_m;
    const double outdoor_m = std::min(c.outdoor_m, c.length_m);
    const auto outdoors = outdoor_m > 0 ? std::clamp(static_cast<int>(std::lround(circulation_nodes * outdoor_m / c.length_m)), 1, circulation_nodes) : 0;
    const int begin = (circulation_nodes - outdoors) / 2;
    Chain chain;
    for (int i = 0; i < circulation_nodes; ++i) {
        const bool open = i >= begin && i < begin + outdoors;
        const double metres = open ? outdoor_m / outdoors : (c.length_m - outdoor_m) / std::max(1, circulation_nodes - outdoors);
        const int node = add_node(std::max(100.0, section * metres * water.density_kg_m3 * water.heat_capacity_j_kgk), open);
        open ? to_air(node, c.loss_w_mk * metres, Loss::circulation) : to_room(node, c.loss_w_mk * metres, l_.tank.room_c, Loss::circulation);
        chain.nodes.push_back(node);
    }
    keep(s, std::move(chain));
}

} // namespace vernal
