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

constexpr double least_coil = 0.01; // of the height: it ends in the layer below rather than with less
// Of a coil's resistance what its inside has with water at the usual flow; an estimate.
constexpr double coil_film = 0.25;

} // namespace

void NetworkBuilder::build_tank(std::size_t which, const Tank& t)
{
    if (n_.tanks_.size() > which)
        return;
    const Fluid water = glycol_water(0);
    const double diameter = std::cbrt(4 * t.volume_m3 / (std::numbers::pi * tank_slenderness));
    const double section = std::numbers::pi / 4 * diameter * diameter;
    const double capacity = t.volume_m3 * water.density_kg_m3 * water.heat_capacity_j_kgk;
    Network::TankNodes tank;
    tank.nodes = {n_.n_, layers_.count()};
    tank.layers = layers_;
    tank.downward.resize(tank.nodes.count - 1);
    tank.drawn = which == 0 && !n_.past_tank_;
    tank.dip_swapped = tank.drawn && t.dip_swapped;
    for (std::size_t i = 0; i < layers_.count(); ++i) {
        const int node = add_node(capacity * layers_.share(i), false, true);
        to_room(node, t.loss_w_k * layers_.share(i), t.room_c, Loss::store);
        if (i == 0)
            continue;
        const double apart = layers_.middle(i) - layers_.middle(i - 1), face = layers_.top(i - 1);
        links_.push_back({node - 1, node, tank_conductivity * section / (tank_slenderness * diameter * apart)});
        tank.bottom_jet.push_back(jet(face) * jet_over / apart);
        tank.top_jet.push_back(jet(1 - face) * jet_over / apart);
    }
    for (std::size_t i = 0; i < layers_.count(); ++i) {
        std::array<double, mixing_reach>& mixes = tank.mix_w_k.emplace_back();
        for (std::size_t j = i + 1; j < std::min(i + 1 + mixing_reach, layers_.count()); ++j)
            mixes[j - i - 1] = 2 * capacity / mixing_s / (1 / layers_.share(i) + 1 / layers_.share(j));
    }
    if (!t.heat_trap)
        to_room(static_cast<int>(tank.nodes.last()), without_heat_trap_w_k, t.room_c, Loss::store);
    if (which == 0 && n_.arrangement_.has(Part::element)) {
        Network::NonlinearLoss heats{tank.nodes.first + layers_.at(l_.element.height), Loss::element};
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
    for (std::size_t i = layers_.at(l_.circulation.enters_at); i < r.count; ++i)
        chain.nodes.push_back(static_cast<int>(r.first + i));
    keep(s, std::move(chain));
}

void NetworkBuilder::build_coil(Segment s, std::size_t which, const Tank& t)
{
    if (which == 1)
        build_tank(0, l_.tank);
    build_tank(which, t);
    const double top = std::max(t.coil_top, least_coil);
    const std::size_t last = layers_.at(top - least_coil);
    Chain chain;
    Network::Wall& wall = n_.walls_.emplace_back();
    wall.inside = film(coil_film, l_.pump);
    wall.to_store = true;
    for (std::size_t i = last + 1; i-- > 0;) {                                                                           // flows from the top of the coil down
        const double from = i == 0 ? 0.0 : layers_.top(i - 1), here = ((i == last ? top : layers_.top(i)) - from) / top; // of the coil
        const double holds_m3 = coil_m3_per_w_k * t.coil_w_k * here;
        const int node = add_node(std::max(holds_m3 * water_j_m3k(), 100.0), false);
        n_.ring_m3_.back() = holds_m3;
        chain.nodes.push_back(node);
        wall.pairs.push_back({node, static_cast<int>(n_.tanks_[which].nodes.first + i), t.coil_w_k * here});
    }
    keep(s, std::move(chain));
}

} // namespace vernal
