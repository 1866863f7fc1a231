// Builds a network from the parts of a loop: each stretch once, whatever routes run
// through it. One file a part in this folder; a new part is a file with its
// stretch, its line in build_segment() and here. Not for others.
#pragma once

#include "core/plant/network.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <utility>

namespace vernal {

template <class E>
std::size_t at(E e) { return static_cast<std::size_t>(e); }

class NetworkBuilder {
public:
    NetworkBuilder(Network& net, const Loop& loop, Fineness fine) : n_(net), l_(loop), fine_(fine) {}

    void build(const std::vector<ProbeSite>& probes);

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
    int add_node(double capacity_j_k, bool outdoors, bool store = false);
    void to_air(int node, double w_k, Loss loss);
    void to_room(int node, double w_k, double room_c, Loss loss);
    double water_j_m3k() const { return n_.fluid_.density_kg_m3 * n_.fluid_.heat_capacity_j_kgk; }

    // This much of the node's capacity runs out when the pump rests.
    void drains(int node, Segment of, double water_j_k, double at_most_j_k);
    void mark_unread(); // once the probes are placed
    void empty_capacities();
    void build_segment(Segment s);
    void keep(Segment s, Chain chain);
    void build_collector(Segment s, const Collector& c, SunPlane plane);
    void build_pipe(Segment s, const Pipe& p, bool from_collector_on);
    void build_tank(std::size_t which, const Tank& t);
    void run_down_tank(Segment s, std::size_t which, const Tank& t);
    void run_up_tank(Segment s);
    void build_heater(Segment s);
    void build_circulation(Segment s);
    void build_coil(Segment s, std::size_t which, const Tank& t);
    void build_exchanger();
    void build_pool(Segment s);
    void build_slab(Segment s);
    void build_room(Segment s);
    // The film inside a wall that the collector's fluid runs past; with_water: its share where that is water.
    Network::Wall::Film film(double with_water, const Pump& usual) const;
    static double water_rate_w_k(const Pump& usual);
    void find_walls();
    void build_cooler(Segment s);
    void build_rock_bed(Segment s);
    void build_reservoir(Segment s);
    void place_probes();
    void build_probe(const ProbeSite& site);
    void make_rings();

    // The stretches of a route that have nodes: an absent rock bed is passed over.
    std::vector<Segment> built(std::size_t r) const;
    void deliver(std::size_t r);
    SparsePattern make_pattern(std::size_t reach) const; // how many layers mix
    Network::Face face(int from, int to) const { return {n_.pattern_.slot(from, from), n_.pattern_.slot(to, from)}; }

    // Everything that can be summed before a flow is known.
    void add_up();
    void add_loss(Loss loss);
    void add_route(std::size_t r);
    Network::Term route_term(const Ring& ring, bool forwards) const;
    Network& n_;
    const Loop& l_;
    Fineness fine_;
    const Layering layers_{fine_.tank}; // of a tank
    int slab_mass_ = -1;
    std::array<Chain, segments> chains_;
    std::vector<Ring> rings_;
    std::vector<Network::Pair> links_;
    std::vector<double> air_, room_, room_c_, probe_air_, probe_room_; // W/K per node; °C
    std::vector<Loss> loss_;
};

} // namespace vernal
