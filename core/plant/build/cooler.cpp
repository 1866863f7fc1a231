#include "builder.h"

namespace vernal {

namespace {

constexpr int cooler_nodes = 3;

} // namespace

void NetworkBuilder::build_cooler(Segment s)
{
    Chain chain;
    for (int i = 0; i < cooler_nodes; ++i) {
        const int node = add_node(std::max(100.0, l_.cooler.content_m3 * n_.fluid_.density_kg_m3 * n_.fluid_.heat_capacity_j_kgk / cooler_nodes), !l_.cooler.indoors);
        n_.ring_m3_.back() = l_.cooler.content_m3 / cooler_nodes;
        const double share = l_.cooler.ua_w_k / cooler_nodes;
        l_.cooler.indoors ? to_room(node, share, l_.tank.room_c, Loss::cooler) : to_air(node, share, Loss::cooler);
        chain.nodes.push_back(node);
    }
    keep(s, std::move(chain));
}

} // namespace vernal
