#include "builder.h"

namespace vernal {

namespace {

// Granite and the like, J/(m³ K) of solid (handbook values, from memory).
constexpr double rock_j_m3k = 2650.0 * 880.0;
constexpr int rock_nodes = 8;

} // namespace

void NetworkBuilder::build_rock_bed(Segment s)
{
    if (l_.rock_bed.volume_m3 <= 0)
        return;
    // Air and rocks of a slice are at one temperature: the limit of a bed of
    // many transfer units (Hughes' model, Duffie & Beckman, chapter on storage).
    Chain chain{{}, 0, true, -1};
    const double slice = l_.rock_bed.volume_m3 / rock_nodes;
    for (int i = 0; i < rock_nodes; ++i) {
        const int node = add_node(slice * (1 - l_.rock_bed.voids) * rock_j_m3k, false, true);
        to_room(node, l_.rock_bed.loss_w_k / rock_nodes, l_.tank.room_c, Loss::store);
        chain.nodes.push_back(node);
    }
    keep(s, std::move(chain));
}

} // namespace vernal
