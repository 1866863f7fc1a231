#include "builder.h"

namespace vernal {

namespace {

// Water in a heater that heats what runs through it; an estimate.
constexpr double through_flow_m3 = 0.002;

} // namespace

// One stirred volume: what is drawn or circulates enters it and leaves it.
void NetworkBuilder::build_heater(Segment s)
{
    const Fluid water = glycol_water(0);
    const bool storage = l_.heater.kind == HeaterKind::storage;
    const int node = add_node((storage ? l_.heater.volume_m3 : through_flow_m3) * water.density_kg_m3 * water.heat_capacity_j_kgk, false);
    to_room(node, storage ? l_.heater.loss_w_k : 0.0, l_.tank.room_c, Loss::store);
    Network::NonlinearLoss heats{at(node), Loss::element};
    heats.heats = &Flows::heater_w;
    heats.set_c = l_.heater.set_c;
    n_.nonlinear_losses_.push_back(heats);
    keep(s, {{node}, 0, false, -1});
}

} // namespace vernal
