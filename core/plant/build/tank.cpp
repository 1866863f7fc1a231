#include "builder.h"

#include "core/plant/mixing.h"

namespace vernal {

namespace {

// Still water and the tank's own wall, W/(m K).
constexpr double tank_conductivity = 0.9;
constexpr double tank_slenderness = 3.0; // height over diameter
// Fluid held by a coil per W/K it is rated for. Typical of plain-tube coils; no source.
constexpr double coil_m3_per_w_k = 2e-5;
// Water circling in upper connections that rise from the tank, W/K; an estimate.
constexpr double without_heat_trap_w_k = 0.8;

// Of a coil's resistance what its inside has with water at the usual flow; an estimate.
constexpr double coil_film = 0.25;

} // namespace

void NetworkBuilder::build_tank(std::size_t which, const Tank& t)
{
    if (n_.tanks_.size() > which)
        return;
    const Fluid water = glycol_water(0);
    const double parts = layers();
    const double diameter = std::cbrt(4 * t.volume_m3 / (std::numbers::pi * tank_slenderness));
    const double section = std::numbers::pi / 4 * diameter * diameter;
    const double capacity = t.volume_m3 * water.density_kg_m3 * water.heat_capacity_j_kgk / parts;
    Network::TankNodes tank;
    tank.nodes = {n_.n_, static_cast<std::size_t>(layers())};
    tank.mix_w_k = capacity / mixing_s;
    tank.downward.resize(tank.nodes.count - 1);
    tank.drawn = which == 0 && !n_.past_tank_;
    tank.dip_swapped = tank.drawn && t.dip_swapped;
    for (int i = 0; i < layers(); ++i) {
        const int node = add_node(capacity, false, true);
        to_room(node, t.loss_w_k / parts, t.room_c, Loss::store);
        if (i > 0)
            links_.push_back({node - 1, node, tank_conductivity * section / (tank_slenderness * diameter / parts)});
    }
    if (!t.heat_trap)
        to_room(static_cast<int>(tank.nodes.last()), without_heat_trap_w_k, t.room_c, Loss::store);
    if (which == 0 && n_.arrangement_.has(Part::element)) {
        const auto up = std::min(static_cast<std::size_t>(l_.element.height * parts), tank.nodes.count - 1);
        Network::NonlinearLoss heats{tank.nodes.first + up, Loss::element};
        heats.heats = &Flows::element_w;
        heats.set_c = l_.element.set_c;
        n_.nonlinear_losses_.push_back(heats);
    }
    n_.tanks_.push_back(std::move(tank));
}

void NetworkBuilder::run_down_tank(Segment s, std::size_t which, const Tank& t)
{
    if (which == 1)
        build_tank(0, l_.tank);
    build_tank(which, t);
    const NodeRange r = n_.tanks_[which].nodes;
    Chain chain{{}, 0, true, static_cast<int>(which)};
    for (std::size_t i = r.count; i-- > 0;)
        chain.nodes.push_back(static_cast<int>(r.first + i));
    n_.ranges_[at(s)] = r;
    keep(s, std::move(chain));
}

// Of the first tank, from where the circulation comes back.
void NetworkBuilder::run_up_tank(Segment s)
{
    build_tank(0, l_.tank);
    const NodeRange r = n_.tanks_[0].nodes;
    Chain chain{{}, 0, false, 0};
    for (std::size_t i = std::min(static_cast<std::size_t>(l_.circulation.enters_at * layers()), r.count - 1); i < r.count; ++i)
        chain.nodes.push_back(static_cast<int>(r.first + i));
    keep(s, std::move(chain));
}

void NetworkBuilder::build_coil(Segment s, std::size_t which, const Tank& t)
{
    if (which == 1)
        build_tank(0, l_.tank);
    build_tank(which, t);
    const int n = std::clamp(static_cast<int>(std::lround(t.coil_top * layers())), 1, layers());
    const double capacity = coil_m3_per_w_k * t.coil_w_k * n_.fluid_.density_kg_m3 * n_.fluid_.heat_capacity_j_kgk / n;
    Chain chain;
    Network::Wall& wall = n_.walls_.emplace_back();
    wall.inside = film(coil_film, l_.pump);
    wall.to_store = true;
    for (int i = n; i-- > 0;) { // flows from the top of the coil down
        const int node = add_node(std::max(capacity, 100.0), false);
        n_.ring_m3_.back() = coil_m3_per_w_k * t.coil_w_k / n;
        chain.nodes.push_back(node);
        wall.pairs.push_back({node, static_cast<int>(n_.tanks_[which].nodes.first) + i, t.coil_w_k / n});
    }
    keep(s, std::move(chain));
}

} // namespace vernal
