// From parts to nodes. Each stretch is built once, whatever routes run through it.
#include "hydraulic_state.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <utility>

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
constexpr int exchanger_nodes = 5;
constexpr int slab_nodes = 4;
constexpr int cooler_nodes = 3;
// An inversion between neighbours is gone in about this time (1/e).
constexpr double mixing_s = 40.0;
constexpr double copper_j_m3k = 8960.0 * 385.0;
constexpr double pipe_wall_m = 0.001;
// Still water and the tank's own wall, W/(m K).
constexpr double tank_conductivity = 0.9;
constexpr double tank_slenderness = 3.0; // height over diameter
// Fluid held by a coil per W/K it is rated for. Typical of plain-tube coils; no source.
constexpr double coil_m3_per_w_k = 2e-5;
// Concrete: 2300 kg/m³, 880 J/kgK (handbook values, from memory); pipe in it every 15 cm, 13 mm bore.
constexpr double concrete_j_m3k = 2300.0 * 880.0;
constexpr double slab_pipe_m3_m2 = 1.0 / 0.15 * std::numbers::pi / 4 * 0.013 * 0.013;
// Evaporation from a quiet pool: ASHRAE Handbook, HVAC Applications, ch. Natatoriums:
// W = A (0.089 + 0.0782 v) Δp / h_fg, kPa, m/s, kW; the latent heat cancels.
constexpr double evaporation_still = 89.0, evaporation_wind = 78.2; // W/(m² kPa), and per m/s
constexpr double water_emissivity = 0.9;
// Water circling in upper connections that rise from the tank, W/K; an estimate.
constexpr double without_heat_trap_w_k = 0.8;
// Granite and the like, J/(m³ K) of solid (handbook values, from memory).
constexpr double rock_j_m3k = 2650.0 * 880.0;
constexpr int rock_nodes = 8;
constexpr double cover_lets_through = 0.6; // of the sun, a bubble cover; an estimate

template <class E>
std::size_t at(E e) { return static_cast<std::size_t>(e); }

} // namespace

class NetworkBuilder {
public:
    NetworkBuilder(Network& net, const Loop& loop, Fineness fine) : n_(net), l_(loop), fine_(fine) {}

    void build(const std::vector<ProbeSite>& probes)
    {
        for (const Route& r : n_.arrangement_.routes)
            for (Segment s : r.ring)
                if (chains_[at(s)].nodes.empty())
                    build_segment(s);
        place_probes();
        n_.probe0_ = n_.n_;
        for (const ProbeSite& site : probes)
            build_probe(site);
        empty_capacities();
        make_rings();
        n_.pattern_ = make_pattern();
        add_up();
    }

private:
    struct Chain {
        std::vector<int> nodes;
        double dispersion = 0; // of the faces inside; the face out of it has none
        bool delivers = false; // what enters and does not leave is heat to the store
        int tank = -1;
    };
    struct Ring {
        std::vector<int> node;
        std::vector<double> dispersion; // of the face behind
    };

    int add_node(double capacity_j_k, bool outdoors, bool store = false)
    {
        n_.capacity_[0].push_back(capacity_j_k);
        n_.drains_.push_back(0.0);
        n_.outdoors_.push_back(outdoors);
        n_.may_freeze_.push_back(outdoors);
        n_.ring_m3_.push_back(0.0);
        n_.store_.push_back(store);
        for (auto* v : {&air_, &room_, &probe_air_, &probe_room_})
            v->push_back(0.0);
        room_c_.push_back(l_.tank.room_c);
        loss_.push_back(Loss::pipe);
        return static_cast<int>(n_.n_++);
    }
    void to_air(int node, double w_k, Loss loss)
    {
        air_[at(node)] += w_k;
        loss_[at(node)] = loss;
    }
    void to_room(int node, double w_k, double room_c, Loss loss)
    {
        room_[at(node)] += w_k;
        room_c_[at(node)] = room_c;
        loss_[at(node)] = loss;
    }

    double water_j_m3k() const { return n_.fluid_.density_kg_m3 * n_.fluid_.heat_capacity_j_kgk; }

    // This much of the node's capacity runs out when the pump rests.
    void drains(int node, double water_j_k, double at_most_j_k)
    {
        if (!n_.arrangement_.drains)
            return;
        const double pitch_share = l_.drain_back.check_valve ? 0.0 : std::clamp(l_.drain_back.pitch / least_pitch, 0.0, 1.0);
        n_.left_behind_ = 1.0 - pitch_share;
        n_.drains_[at(node)] = std::min(water_j_k, at_most_j_k) * pitch_share;
        n_.draining_m3_ += n_.drains_[at(node)] / water_j_m3k();
    }

    void empty_capacities()
    {
        n_.capacity_[1] = n_.capacity_[0];
        if (n_.arrangement_.drains) {
            const Chain& reservoir = chains_[at(Segment::reservoir)];
            n_.drains_to_ = reservoir.nodes.empty() ? n_.store_top_ : at(reservoir.nodes.front());
            for (std::size_t i = 0; i < n_.n_; ++i) {
                n_.capacity_[1][i] -= n_.drains_[i];
                n_.capacity_[1][n_.drains_to_] += n_.drains_[i];
            }
        }
        for (std::size_t d = 0; d < 2; ++d)
            for (double c : n_.capacity_[d])
                n_.inverse_capacity_[d].push_back(1.0 / c);
    }

    void build_segment(Segment s)
    {
        switch (s) {
        case Segment::collector: return build_collector(s, l_.collector, SunPlane::collector);
        case Segment::collector_2: return build_collector(s, l_.collector_2, SunPlane::collector_2);
        case Segment::return_pipe: return build_pipe(s, l_.back, true);
        case Segment::return_2: return build_pipe(s, l_.back_2, true);
        case Segment::supply_pipe: return build_pipe(s, l_.supply, false);
        case Segment::supply_2: return build_pipe(s, l_.supply_2, false);
        case Segment::tank_down: return run_down_tank(s, 0, l_.tank);
        case Segment::coil: return build_coil(s, 0, l_.tank);
        case Segment::coil_2: return build_coil(s, 1, l_.tank_2);
        case Segment::exchanger_hot: return build_exchanger();
        case Segment::exchanger_cold: return build_exchanger();
        case Segment::rock_bed: return build_rock_bed(s);
        case Segment::pool: return build_pool(s);
        case Segment::slab: return build_slab(s);
        case Segment::room: return build_room(s);
        case Segment::cooler: return build_cooler(s);
        case Segment::reservoir: return build_reservoir(s);
        }
    }

    void keep(Segment s, Chain chain)
    {
        if (chain.tank < 0)
            n_.ranges_[at(s)] = {static_cast<std::size_t>(chain.nodes.front()), chain.nodes.size()};
        chains_[at(s)] = std::move(chain);
    }

    void build_collector(Segment s, const Collector& c, SunPlane plane)
    {
        const int n = collector_base_nodes * fine_.collector;
        const double area = c.area_m2 / n;
        Chain chain{{}, collector_dispersion * n - 0.5, false, -1};
        for (int i = 0; i < n; ++i) {
            const int node = add_node(c.capacity_j_m2k * area, true);
            n_.ring_m3_.back() = c.content_m3 / n;
            drains(node, c.content_m3 / n * water_j_m3k(), 0.9 * c.capacity_j_m2k * area);
            to_air(node, c.a1_w_m2k * area, Loss::collector);
            n_.suns_.push_back({at(node), at(plane), c.eta0 * area, c.sky_exchange * area, Loss::collector});
            n_.nonlinear_losses_.push_back({at(node), Loss::collector, c.a2_w_m2k2 * area});
            chain.nodes.push_back(node);
        }
        keep(s, std::move(chain));
    }

    void build_pipe(Segment s, const Pipe& p, bool from_collector_on)
    {
        n_.pipe_m_[s == Segment::supply_pipe ? 0 : s == Segment::return_pipe ? 1
                                               : s == Segment::supply_2      ? 2
                                                                             : 3] = p.length_m;
        const int n = std::max(3, static_cast<int>(std::ceil(p.length_m / (2 * pipe_dispersion_m)))) * fine_.pipe;
        const double dx = p.length_m / n;
        const double section = std::numbers::pi / 4 * p.bore_m * p.bore_m;
        const double wall = std::numbers::pi * (p.bore_m + pipe_wall_m) * pipe_wall_m;
        const double capacity = (section * n_.fluid_.density_kg_m3 * n_.fluid_.heat_capacity_j_kgk + wall * copper_j_m3k) * dx;
        Chain chain{{}, std::max(0.0, pipe_dispersion_m / dx - 0.5), false, -1};
        for (int i = 0; i < n; ++i) {
            const double from_collector = (from_collector_on ? i + 0.5 : n - i - 0.5) * dx;
            const bool outdoors = from_collector < p.outdoor_m;
            const int node = add_node(capacity, outdoors);
            n_.ring_m3_.back() = section * dx;
            if (outdoors)
                drains(node, section * dx * water_j_m3k(), capacity);
            outdoors ? to_air(node, p.loss_w_mk * dx, Loss::pipe) : to_room(node, p.loss_w_mk * dx, l_.tank.room_c, Loss::pipe);
            chain.nodes.push_back(node);
        }
        keep(s, std::move(chain));
    }

    void build_tank(std::size_t which, const Tank& t)
    {
        if (n_.tanks_.size() > which)
            return;
        const Fluid water = glycol_water(0);
        const double parts = tank_base_nodes;
        const double diameter = std::cbrt(4 * t.volume_m3 / (std::numbers::pi * tank_slenderness));
        const double section = std::numbers::pi / 4 * diameter * diameter;
        const double capacity = t.volume_m3 * water.density_kg_m3 * water.heat_capacity_j_kgk / parts;
        Network::TankNodes tank;
        tank.nodes = {n_.n_, static_cast<std::size_t>(tank_base_nodes)};
        tank.mix_w_k = capacity / mixing_s;
        tank.drawn = which == 0;
        tank.dip_swapped = tank.drawn && t.dip_swapped;
        for (int i = 0; i < tank_base_nodes; ++i) {
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
            heats.element = true;
            heats.set_c = l_.element.set_c;
            n_.nonlinear_losses_.push_back(heats);
        }
        n_.tanks_.push_back(std::move(tank));
    }

    void run_down_tank(Segment s, std::size_t which, const Tank& t)
    {
        build_tank(which, t);
        const NodeRange r = n_.tanks_[which].nodes;
        Chain chain{{}, 0, true, static_cast<int>(which)};
        for (std::size_t i = r.count; i-- > 0;)
            chain.nodes.push_back(static_cast<int>(r.first + i));
        n_.ranges_[at(s)] = r;
        keep(s, std::move(chain));
    }

    void build_coil(Segment s, std::size_t which, const Tank& t)
    {
        if (which == 1)
            build_tank(0, l_.tank);
        build_tank(which, t);
        const int n = std::clamp(static_cast<int>(std::lround(t.coil_top * tank_base_nodes)), 1, tank_base_nodes);
        const double capacity = coil_m3_per_w_k * t.coil_w_k * n_.fluid_.density_kg_m3 * n_.fluid_.heat_capacity_j_kgk / n;
        Chain chain;
        for (int i = n; i-- > 0;) { // flows from the top of the coil down
            const int node = add_node(std::max(capacity, 100.0), false);
            n_.ring_m3_.back() = coil_m3_per_w_k * t.coil_w_k / n;
            chain.nodes.push_back(node);
            n_.store_links_.push_back({node, static_cast<int>(n_.tanks_[which].nodes.first) + i, t.coil_w_k / n});
        }
        keep(s, std::move(chain));
    }

    void build_exchanger()
    {
        Chain hot, cold;
        const auto side = [&](const Fluid& f) { return std::max(100.0, l_.exchanger.content_m3 * f.density_kg_m3 * f.heat_capacity_j_kgk / exchanger_nodes); };
        for (int i = 0; i < exchanger_nodes; ++i)
            hot.nodes.push_back(add_node(side(n_.fluid_), false)), n_.ring_m3_.back() = l_.exchanger.content_m3 / exchanger_nodes;
        for (int i = 0; i < exchanger_nodes; ++i)
            cold.nodes.push_back(add_node(side(n_.second_fluid_), false)), n_.may_freeze_.back() = 1;
        for (int node : cold.nodes)
            to_room(node, l_.exchanger.loss_w_k / exchanger_nodes, l_.tank.room_c, Loss::pipe);
        for (std::size_t i = 0; i < exchanger_nodes; ++i) // counterflow
            links_.push_back({hot.nodes[i], cold.nodes[exchanger_nodes - 1 - i], l_.exchanger.ua_w_k / exchanger_nodes});
        keep(Segment::exchanger_hot, std::move(hot));
        keep(Segment::exchanger_cold, std::move(cold));
    }

    void build_pool(Segment s)
    {
        const Fluid water = glycol_water(0);
        const Pool& p = l_.pool;
        const int node = add_node(p.volume_m3 * water.density_kg_m3 * water.heat_capacity_j_kgk, false, true);
        to_air(node, p.still_loss_w_m2k * p.area_m2, Loss::store);
        n_.suns_.push_back({at(node), at(SunPlane::ground), p.absorptance * (p.covered ? cover_lets_through : 1.0) * p.area_m2, p.covered ? 0.0 : water_emissivity * p.area_m2, Loss::store});
        n_.nonlinear_losses_.push_back({at(node), Loss::store, 0, p.covered ? 0.0 : (evaporation_still + evaporation_wind * p.air_speed_m_s) * p.area_m2, p.humidity});
        keep(s, {{node}, 0, true, -1});
    }

    void build_slab(Segment s)
    {
        const Slab& b = l_.slab;
        slab_mass_ = add_node(b.area_m2 * b.thickness_m * concrete_j_m3k, false, true);
        to_room(slab_mass_, b.room_w_m2k * b.area_m2, b.room_c, Loss::store);
        Chain chain;
        const double capacity = slab_pipe_m3_m2 * b.area_m2 * n_.fluid_.density_kg_m3 * n_.fluid_.heat_capacity_j_kgk / slab_nodes;
        for (int i = 0; i < slab_nodes; ++i) {
            const int node = add_node(capacity, false);
            n_.store_links_.push_back({node, slab_mass_, b.pipe_w_m2k * b.area_m2 / slab_nodes});
            chain.nodes.push_back(node);
        }
        keep(s, std::move(chain));
    }

    void build_room(Segment s)
    {
        const Room& r = l_.room;
        const int air = add_node(r.air_m3 * n_.fluid_.density_kg_m3 * n_.fluid_.heat_capacity_j_kgk, false, true);
        const int mass = add_node(r.mass_j_k, false, true);
        to_air(air, r.loss_w_k, Loss::store);
        links_.push_back({air, mass, r.mass_w_k});
        keep(s, {{air}, 0, true, -1});
    }

    void build_cooler(Segment s)
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

    void build_rock_bed(Segment s)
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

    void build_reservoir(Segment s)
    {
        const int node = add_node(l_.reservoir.volume_m3 * n_.fluid_.density_kg_m3 * n_.fluid_.heat_capacity_j_kgk, false);
        to_room(node, l_.reservoir.loss_w_k, l_.tank.room_c, Loss::pipe);
        keep(s, {{node}, 0, false, -1});
    }

    void place_probes()
    {
        const auto last = [&](Segment s) { return chains_[at(s)].nodes.empty() ? -1 : chains_[at(s)].nodes.back(); };
        const auto first = [&](Segment s) { return chains_[at(s)].nodes.empty() ? -1 : chains_[at(s)].nodes.front(); };
        const auto in_tank = [&](std::size_t which, double height) {
            const NodeRange r = n_.tank(which);
            return r.count == 0 ? -1 : static_cast<int>(r.first) + static_cast<int>(height * static_cast<double>(r.count));
        };
        int store = in_tank(0, 0.9);
        for (int other : {last(Segment::pool), slab_mass_, last(Segment::room)})
            store = store < 0 ? other : store;
        n_.store_top_ = n_.has_tank() ? n_.tank(0).last() : at(store);
        const auto put = [&](ProbePlace p, int node) { n_.place_[at(p)] = node < 0 ? store : node; };
        put(ProbePlace::collector, last(Segment::collector));
        put(ProbePlace::tank_bottom, in_tank(0, 0.1));
        put(ProbePlace::tank_middle, in_tank(0, 0.5));
        put(ProbePlace::tank_top, in_tank(0, 0.9));
        put(ProbePlace::return_pipe, last(Segment::return_pipe));
        put(ProbePlace::supply_pipe, first(Segment::supply_pipe));
        put(ProbePlace::collector_2, last(Segment::collector_2));
        put(ProbePlace::tank_2_bottom, in_tank(1, 0.1));
        put(ProbePlace::tank_2_top, in_tank(1, 0.9));
        put(ProbePlace::pool_water, last(Segment::pool));
        put(ProbePlace::slab_return, last(Segment::slab));
        put(ProbePlace::room_air, last(Segment::room));
    }

    void build_probe(const ProbeSite& site)
    {
        const int read = n_.place_[at(site.place)];
        const int node = add_node(std::max(site.lag_s, 0.1), false);
        n_.probe_rows_.push_back({node, read, 1.0 - site.placement});
        (n_.outdoors_[at(read)] ? probe_air_ : probe_room_)[at(node)] = site.placement;
    }

    void make_rings()
    {
        const auto& routes = n_.arrangement_.routes;
        for (std::size_t r = 0; r < routes.size(); ++r) {
            Ring ring;
            for (Segment s : built(r)) {
                const Chain& c = chains_[at(s)];
                for (int node : c.nodes) {
                    ring.node.push_back(node);
                    ring.dispersion.push_back(c.dispersion);
                }
                ring.dispersion.back() = 0.0;
                if (c.tank >= 0)
                    n_.tanks_[at(c.tank)].downward[r] = 1.0;
            }
            rings_.push_back(std::move(ring));
            deliver(r);
        }
    }

    // The stretches of a route that have nodes: an absent rock bed is passed over.
    std::vector<Segment> built(std::size_t r) const
    {
        std::vector<Segment> way = n_.arrangement_.routes[r].ring;
        std::erase_if(way, [this](Segment s) { return chains_[at(s)].nodes.empty(); });
        return way;
    }

    void deliver(std::size_t r)
    {
        const std::vector<Segment> way = built(r);
        const auto nodes = [&](std::size_t i) -> const std::vector<int>& { return chains_[at(way[i % way.size()])].nodes; };
        for (std::size_t i = 0; i < way.size(); ++i)
            if (chains_[at(way[i])].delivers)
                n_.deliveries_.push_back({r, at(nodes(i + way.size() - 1).back()), at(nodes(i).back()), at(nodes(i + 1).front()), at(nodes(i).front())});
    }

    SparsePattern make_pattern() const
    {
        std::vector<std::pair<int, int>> e;
        const auto both = [&](int a, int b) {
            e.emplace_back(a, b);
            e.emplace_back(b, a);
        };
        for (const Ring& ring : rings_)
            for (std::size_t i = 0; i < ring.node.size(); ++i)
                both(ring.node[i], ring.node[(i + 1) % ring.node.size()]);
        for (const Network::TankNodes& t : n_.tanks_)
            for (std::size_t i = t.nodes.first; i < t.nodes.last(); ++i)
                both(static_cast<int>(i), static_cast<int>(i) + 1);
        for (const std::vector<Network::Pair>* pairs : {&std::as_const(links_), &std::as_const(n_.store_links_)})
            for (const Network::Pair& p : *pairs)
                both(p.a, p.b);
        for (const Network::Pair& p : n_.probe_rows_)
            e.emplace_back(p.a, p.b);
        return SparsePattern(n_.n_, e);
    }

    Network::Face face(int from, int to) const { return {n_.pattern_.slot(from, from), n_.pattern_.slot(to, from)}; }

    // Everything that can be summed before a flow is known.
    void add_up()
    {
        std::vector<double>& k = n_.resting_k_;
        k.assign(n_.pattern_.entries(), 0.0);
        for (std::size_t i = 0; i < n_.n_; ++i) {
            n_.to_air_.push_back(air_[i] + probe_air_[i]);
            n_.room_w_.push_back(room_[i] * room_c_[i] + probe_room_[i] * l_.tank.room_c);
            k[n_.pattern_.diagonal(i)] -= air_[i] + room_[i];
        }
        n_.burst_c_ = n_.arrangement_.carrier == Carrier::glycol ? burst_c(l_.glycol_fraction) : n_.fluid_.freezing_c;
        for (Loss loss : {Loss::collector, Loss::pipe, Loss::store, Loss::cooler})
            add_loss(loss);
        for (const std::vector<Network::Pair>* pairs : {&std::as_const(links_), &std::as_const(n_.store_links_)})
            for (const Network::Pair& p : *pairs) {
                face(p.a, p.b).carry(k, p.w);
                face(p.b, p.a).carry(k, p.w);
            }
        for (const Network::Pair& p : n_.probe_rows_) {
            k[n_.pattern_.diagonal(at(p.a))] -= 1.0;
            k[n_.pattern_.slot(p.a, p.b)] += p.w;
        }
        for (std::size_t r = 0; r < rings_.size(); ++r)
            add_route(r);
        for (Network::TankNodes& t : n_.tanks_)
            for (int i = static_cast<int>(t.nodes.first); i < static_cast<int>(t.nodes.last()); ++i) {
                t.up.push_back(face(i, i + 1));
                t.down.push_back(face(i + 1, i));
            }
    }

    void add_loss(Loss loss)
    {
        Network::LossTerm term{loss, {}, {}, 0, 0};
        for (std::size_t i = 0; i < n_.n_; ++i)
            if (loss_[i] == loss && air_[i] + room_[i] > 0) {
                term.node.push_back(i);
                term.w_k.push_back(air_[i] + room_[i]);
                term.air_w_k += air_[i];
                term.room_w += room_[i] * room_c_[i];
            }
        if (!term.node.empty())
            n_.loss_terms_.push_back(std::move(term));
    }

    void add_route(std::size_t r)
    {
        n_.route_k_[r] = route_term(rings_[r], true);
        n_.route_back_k_[r] = route_term(rings_[r], false);
    }

    Network::Term route_term(const Ring& ring, bool forwards) const
    {
        std::vector<double> k(n_.pattern_.entries(), 0.0);
        const auto tank_of = [&](int node) {
            for (std::size_t t = 0; t < n_.tanks_.size(); ++t)
                if (at(node) >= n_.tanks_[t].nodes.first && at(node) <= n_.tanks_[t].nodes.last())
                    return static_cast<int>(t);
            return -1;
        };
        for (std::size_t i = 0; i < ring.node.size(); ++i) {
            const int a = ring.node[i], b = ring.node[(i + 1) % ring.node.size()];
            if (tank_of(a) >= 0 && tank_of(a) == tank_of(b))
                continue; // the net of all that runs through, see Network::assemble()
            face(a, b).carry(k, ring.dispersion[i] + (forwards ? 1 : 0));
            face(b, a).carry(k, ring.dispersion[i] + (forwards ? 0 : 1));
        }
        Network::Term term;
        for (std::size_t s = 0; s < k.size(); ++s)
            if (k[s] != 0) {
                term.slot.push_back(s);
                term.weight.push_back(k[s]);
            }
        return term;
    }

    Network& n_;
    const Loop& l_;
    Fineness fine_;
    int slab_mass_ = -1;
    std::array<Chain, segments> chains_;
    std::vector<Ring> rings_;
    std::vector<Network::Pair> links_;
    std::vector<double> air_, room_, room_c_, probe_air_, probe_room_; // W/K per node; °C
    std::vector<Loss> loss_;
};

Network::Network(const Loop& loop, const std::vector<ProbeSite>& probes, Fineness fine)
    : arrangement_(*find_arrangement(loop.arrangement)),
      fluid_(arrangement_.carrier == Carrier::air ? warm_air() : glycol_water(arrangement_.carrier == Carrier::glycol ? loop.glycol_fraction : 0.0)), second_fluid_(glycol_water(0))
{
    NetworkBuilder(*this, loop, fine).build(probes);
}

} // namespace vernal
