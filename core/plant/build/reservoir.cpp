#include "builder.h"

namespace vernal {

void NetworkBuilder::build_reservoir(Segment s)
{
    const int node = add_node(l_.reservoir.volume_m3 * n_.fluid_.density_kg_m3 * n_.fluid_.heat_capacity_j_kgk, false);
    to_room(node, l_.reservoir.loss_w_k, l_.tank.room_c, Loss::pipe);
    keep(s, {{node}, 0, false, -1});
}

} // namespace vernal
