#include "builder.h"

namespace vernal {

void NetworkBuilder::build_room(Segment s)
{
    const Room& r = l_.room;
    const int air = add_node(r.air_m3 * n_.fluid_.density_kg_m3 * n_.fluid_.heat_capacity_j_kgk, false, true);
    const int mass = add_node(r.mass_j_k, false, true);
    to_air(air, r.loss_w_k, Loss::store);
    links_.push_back({air, mass, r.mass_w_k});
    keep(s, {{air}, 0, true, -1});
}

} // namespace vernal
