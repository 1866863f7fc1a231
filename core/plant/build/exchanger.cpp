#include "builder.h"

namespace vernal {

namespace {

constexpr int exchanger_nodes = 5;
// Of the resistance each side with water at the usual flow; the plate has the rest; an estimate.
constexpr double exchanger_film = 0.4;

} // namespace

void NetworkBuilder::build_exchanger()
{
    Chain hot, cold;
    const auto side = [&](const Fluid& f) { return std::max(100.0, l_.exchanger.content_m3 * f.density_kg_m3 * f.heat_capacity_j_kgk / exchanger_nodes); };
    for (int i = 0; i < exchanger_nodes; ++i)
        hot.nodes.push_back(add_node(side(n_.fluid_), false)), n_.ring_m3_.back() = l_.exchanger.content_m3 / exchanger_nodes;
    for (int i = 0; i < exchanger_nodes; ++i)
        cold.nodes.push_back(add_node(side(n_.second_fluid_), false)), n_.may_freeze_.back() = 1;
    for (int node : cold.nodes)
        to_room(node, l_.exchanger.loss_w_k / exchanger_nodes, l_.tank.room_c, Loss::pipe);
    Network::Wall& wall = n_.walls_.emplace_back();
    wall.inside = film(exchanger_film, l_.pump);
    wall.outside = {exchanger_film, water_rate_w_k(l_.exchanger_pump), 0};
    for (std::size_t i = 0; i < exchanger_nodes; ++i) // counterflow
        wall.pairs.push_back({hot.nodes[i], cold.nodes[exchanger_nodes - 1 - i], l_.exchanger.ua_w_k / exchanger_nodes});
    keep(Segment::exchanger_hot, std::move(hot));
    keep(Segment::exchanger_cold, std::move(cold));
}

} // namespace vernal
