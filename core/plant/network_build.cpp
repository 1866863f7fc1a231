#include "network.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace vernal {
namespace {

// A front of warm or cold fluid is blurred as it travels: laminar cores, wall
// and film, bends. D = λ u with λ of a few tenths of a metre lies between
// Taylor's turbulent value (Proc. R. Soc. A 223 (1954) 446; about a radius) and
// the laminar one (metres). A modelling choice, no source.
constexpr double pipe_dispersion_m = 0.4;
// The same for a collector's parallel risers, as a share of the way through.
constexpr double collector_dispersion = 0.1;
constexpr int collector_base_nodes = 5;
constexpr int tank_base_nodes = 10;
// An inversion between neighbours is gone in about this time (1/e).
constexpr double mixing_s = 40.0;
constexpr double copper_j_m3k = 8960.0 * 385.0;
constexpr double pipe_wall_m = 0.001;
// Still water and the tank's own wall, W/(m K).
constexpr double tank_conductivity = 0.9;
constexpr double tank_slenderness = 3.0; // height over diameter
// Fluid held by a coil per W/K it is rated for. Typical of plain-tube coils; no source.
constexpr double coil_m3_per_w_k = 2e-5;

} // namespace

Network::Network(const Loop& loop, const std::vector<ProbeSite>& probes, Fineness fine)
    : fluid_(glycol_water(find_arrangement(loop.arrangement)->glycol ? loop.glycol_fraction : 0.0)), room_c_(loop.tank.room_c), pattern_(0, {})
{
    build_collector(loop.collector, collector_base_nodes * fine.collector);
    const auto collector_last = static_cast<int>(collector0_ + collector_n_) - 1;
    build_tank(loop.tank);
    for (Segment s : find_arrangement(loop.arrangement)->ring)
        switch (s) {
        case Segment::collector:
            break; // begins the ring, see build_collector
        case Segment::return_pipe: {
            const auto nodes = build_pipe(loop.back, fine.pipe, true);
            place_[static_cast<std::size_t>(ProbePlace::return_pipe)] = nodes.back();
            break;
        }
        case Segment::supply_pipe: {
            const auto nodes = build_pipe(loop.supply, fine.pipe, false);
            place_[static_cast<std::size_t>(ProbePlace::supply_pipe)] = nodes.front();
            break;
        }
        case Segment::coil:
            add_ring_chain(build_coil(loop.tank), 0.0);
            break;
        case Segment::tank_down: {
            tank_in_ring_ = true;
            std::vector<int> down;
            for (std::size_t i = tank_n_; i-- > 0;)
                down.push_back(static_cast<int>(tank0_ + i));
            add_ring_chain(down, 0.0);
            break;
        }
        }
    place_[static_cast<std::size_t>(ProbePlace::collector)] = collector_last;
    const auto tank_at = [&](double height) { return static_cast<int>(tank0_) + static_cast<int>(height * static_cast<double>(tank_n_)); };
    place_[static_cast<std::size_t>(ProbePlace::tank_bottom)] = tank_at(0.1);
    place_[static_cast<std::size_t>(ProbePlace::tank_middle)] = tank_at(0.5);
    place_[static_cast<std::size_t>(ProbePlace::tank_top)] = tank_at(0.9);
    probe0_ = n_;
    for (const ProbeSite& site : probes)
        build_probe(site);
    for (double c : capacity_)
        inverse_capacity_.push_back(1.0 / c);
    pattern_ = make_pattern();
    add_up();
}

// Everything that can be summed before a flow is known.
void Network::add_up()
{
    for (std::size_t i = 0; i < n_; ++i) {
        to_air_.push_back(pipe_air_[i] + probe_air_[i] + (i < collector0_ + collector_n_ && i >= collector0_ ? a1_area_ : 0.0));
        room_w_.push_back((pipe_room_[i] + tank_room_[i] + probe_room_[i]) * room_c_);
        pipe_loss_.push_back(pipe_air_[i] + pipe_room_[i]);
        pipe_air_sum_ += pipe_air_[i];
        pipe_room_sum_ += pipe_room_[i];
        tank_room_sum_ += tank_room_[i];
    }
    resting_k_.assign(pattern_.entries(), 0.0);
    for (const auto* pairs : {&links_, &coil_})
        for (const Pair& p : *pairs) {
            face(p.a, p.b).carry(resting_k_, p.w);
            face(p.b, p.a).carry(resting_k_, p.w);
        }
    for (std::size_t i = 0; i < n_; ++i)
        resting_k_[pattern_.diagonal(i)] -= pipe_loss_[i] + tank_room_[i] + (i < collector0_ + collector_n_ && i >= collector0_ ? a1_area_ : 0.0);
    for (const Pair& p : probe_rows_) {
        resting_k_[pattern_.diagonal(static_cast<std::size_t>(p.a))] -= 1.0;
        resting_k_[pattern_.slot(p.a, p.b)] += p.w;
    }
    std::vector<double> ring(pattern_.entries(), 0.0);
    const auto is_tank = [&](int i) { return i >= static_cast<int>(tank0_) && i < static_cast<int>(tank0_ + tank_n_); };
    for (std::size_t i = 0; i < ring_.size(); ++i) {
        const int a = ring_[i], b = ring_[(i + 1) % ring_.size()];
        if (is_tank(a) && is_tank(b))
            continue; // the net of loop and draw, see assemble()
        face(a, b).carry(ring, 1 + dispersion_[i]);
        face(b, a).carry(ring, dispersion_[i]);
    }
    for (std::size_t s = 0; s < ring.size(); ++s)
        if (ring[s] != 0) {
            ring_k_.slot.push_back(s);
            ring_k_.weight.push_back(ring[s]);
        }
    for (int i = static_cast<int>(tank0_); i + 1 < static_cast<int>(tank0_ + tank_n_); ++i) {
        tank_up_.push_back(face(i, i + 1));
        tank_down_.push_back(face(i + 1, i));
    }
}

Network::Face Network::face(int from, int to) const { return {pattern_.slot(from, from), pattern_.slot(to, from)}; }

int Network::add_node(double capacity_j_k, bool outdoors)
{
    capacity_.push_back(capacity_j_k);
    outdoors_.push_back(outdoors);
    for (auto* v : {&pipe_air_, &pipe_room_, &tank_room_, &probe_air_, &probe_room_})
        v->push_back(0.0);
    return static_cast<int>(n_++);
}

// dispersion: of the faces inside the chain; the face out of it has none.
void Network::add_ring_chain(std::vector<int> nodes, double dispersion)
{
    for (int node : nodes) {
        ring_.push_back(node);
        dispersion_.push_back(dispersion);
    }
    dispersion_.back() = 0.0;
}

void Network::build_collector(const Collector& c, int n)
{
    collector0_ = n_;
    collector_n_ = static_cast<std::size_t>(n);
    const double area = c.area_m2 / n;
    gain_area_ = c.eta0 * area;
    a1_area_ = c.a1_w_m2k * area;
    a2_area_ = c.a2_w_m2k2 * area;
    sky_area_ = c.sky_exchange * area;
    std::vector<int> nodes;
    for (int i = 0; i < n; ++i)
        nodes.push_back(add_node(c.capacity_j_m2k * area, true));
    add_ring_chain(nodes, collector_dispersion * n - 0.5);
}

std::vector<int> Network::build_pipe(const Pipe& p, int fine, bool outdoors_first)
{
    const int n = std::max(3, static_cast<int>(std::ceil(p.length_m / (2 * pipe_dispersion_m)))) * fine;
    const double dx = p.length_m / n;
    const double section = std::numbers::pi / 4 * p.bore_m * p.bore_m;
    const double wall = std::numbers::pi * (p.bore_m + pipe_wall_m) * pipe_wall_m;
    const double capacity = (section * fluid_.density_kg_m3 * fluid_.heat_capacity_j_kgk + wall * copper_j_m3k) * dx;
    std::vector<int> nodes;
    for (int i = 0; i < n; ++i) {
        const double from_collector = (outdoors_first ? i + 0.5 : n - i - 0.5) * dx;
        const bool outdoors = from_collector < p.outdoor_m;
        nodes.push_back(add_node(capacity, outdoors));
        (outdoors ? pipe_air_ : pipe_room_).back() = p.loss_w_mk * dx;
    }
    add_ring_chain(nodes, std::max(0.0, pipe_dispersion_m / dx - 0.5));
    return nodes;
}

void Network::build_tank(const Tank& t)
{
    const Fluid water = glycol_water(0);
    tank0_ = n_;
    tank_n_ = tank_base_nodes;
    const double parts = tank_base_nodes;
    const double diameter = std::cbrt(4 * t.volume_m3 / (std::numbers::pi * tank_slenderness));
    const double section = std::numbers::pi / 4 * diameter * diameter;
    const double capacity = t.volume_m3 * water.density_kg_m3 * water.heat_capacity_j_kgk / parts;
    mix_w_k_ = capacity / mixing_s;
    for (int i = 0; i < tank_base_nodes; ++i) {
        const int node = add_node(capacity, false);
        tank_room_.back() = t.loss_w_k / parts;
        if (i > 0)
            links_.push_back({node - 1, node, tank_conductivity * section / (tank_slenderness * diameter / parts)});
    }
}

std::vector<int> Network::build_coil(const Tank& t)
{
    const int n = std::clamp(static_cast<int>(std::lround(t.coil_top * tank_base_nodes)), 1, tank_base_nodes);
    const double capacity = coil_m3_per_w_k * t.coil_w_k * fluid_.density_kg_m3 * fluid_.heat_capacity_j_kgk / n;
    std::vector<int> nodes;
    for (int i = n; i-- > 0;) { // flows from the top of the coil down
        const int node = add_node(std::max(capacity, 100.0), false);
        nodes.push_back(node);
        coil_.push_back({node, static_cast<int>(tank0_) + i, t.coil_w_k / n});
    }
    return nodes;
}

void Network::build_probe(const ProbeSite& site)
{
    const int read = place_[static_cast<std::size_t>(site.place)];
    const int node = add_node(std::max(site.lag_s, 0.1), false);
    const bool outdoors = outdoors_[static_cast<std::size_t>(read)] != 0;
    probe_rows_.push_back({node, read, 1.0 - site.placement});
    (outdoors ? probe_air_ : probe_room_).back() = site.placement;
}

SparsePattern Network::make_pattern() const
{
    std::vector<std::pair<int, int>> e;
    const auto both = [&](int a, int b) {
        e.emplace_back(a, b);
        e.emplace_back(b, a);
    };
    for (std::size_t i = 0; i < ring_.size(); ++i)
        both(ring_[i], ring_[(i + 1) % ring_.size()]);
    for (std::size_t i = 0; i + 1 < tank_n_; ++i)
        both(static_cast<int>(tank0_ + i), static_cast<int>(tank0_ + i) + 1);
    for (const Pair& p : coil_)
        both(p.a, p.b);
    for (const Pair& p : probe_rows_)
        e.emplace_back(p.a, p.b);
    return SparsePattern(n_, e);
}

std::size_t Network::node_of(ProbePlace place) const { return static_cast<std::size_t>(place_[static_cast<std::size_t>(place)]); }

std::vector<double> Network::start(double tank_c, double air_c) const
{
    std::vector<double> t(n_, air_c);
    for (std::size_t i = 0; i < tank_n_; ++i)
        t[tank0_ + i] = tank_c;
    for (const Pair& p : coil_)
        t[static_cast<std::size_t>(p.a)] = tank_c;
    for (const Pair& p : probe_rows_)
        t[static_cast<std::size_t>(p.a)] = t[static_cast<std::size_t>(p.b)];
    return t;
}

} // namespace vernal
