// The loop as a network of lumps: one set of ordinary differential equations,
//   C_i dT_i/dt = Σ_j K_ij T_j + b_i(t) − nonlinear collector loss + mixing of inversions,
// stated once here; the integrator and any reference solver use these.
// Temperatures in °C, W, W/K, J/K, seconds.
#pragma once

#include "fluid.h"
#include "loop.h"
#include "sparse_lu.h"

#include <array>
#include <cstdint>

namespace vernal {

// What acts from outside; between two instants everything is a straight line.
struct Surroundings {
    double air_c = 15.0;
    double effective_w_m2 = 0.0; // on the collector, times incidence angle modifier
    double net_sky_w_m2 = 0.0;   // σ (Ta⁴ − Tsky⁴)
};

// Heat capacity rates, W/K. They hold still during a step.
struct Flows {
    double ring_w_k = 0.0;
    double draw_w_k = 0.0;
    double mains_c = 10.0;
    bool operator==(const Flows&) const = default;
};

// A sensor: dT/dt = ((1 − k) T_node + k T_around − T)/τ. Takes no heat.
struct ProbeSite {
    ProbePlace place = ProbePlace::collector;
    double lag_s = 12.0;
    double placement = 0.0; // k, 0…1: share of the surroundings it reads
};

// How finely the loop is divided; 1 is what the program uses.
struct Fineness {
    int pipe = 1;
    int collector = 1;
};

// Heat flows, W, or their integrals, J.
struct HeatFlows {
    double absorbed = 0, collector_loss = 0, pipe_loss = 0, tank_loss = 0, drawn = 0, to_store = 0;
    HeatFlows& operator+=(const HeatFlows& q);
    HeatFlows operator*(double f) const;
};

class Network {
public:
    Network(const Loop& loop, const std::vector<ProbeSite>& probes, Fineness fine = {});

    std::size_t size() const { return n_; }
    std::size_t probe_node(std::size_t probe) const { return probe0_ + probe; }
    // Node that stands for a place, and the share of height of a tank node.
    std::size_t node_of(ProbePlace place) const;
    std::size_t tank_first() const { return tank0_; }
    std::size_t tank_nodes() const { return tank_n_; }
    const Fluid& ring_fluid() const { return fluid_; }
    double ring_rate_w_k(double flow_m3_s) const { return flow_m3_s * fluid_.density_kg_m3 * fluid_.heat_capacity_j_kgk; }
    bool wet_outdoors(std::size_t node) const { return outdoors_[node]; }

    // Every node at its start: the tank at the given temperature, the rest at the air's.
    std::vector<double> start(double tank_c, double air_c) const;

    // Matrix K for these flows, on pattern().
    void assemble(const Flows& flows, std::vector<double>& k) const;
    const SparsePattern& pattern() const { return pattern_; }
    double inverse_capacity(std::size_t i) const { return inverse_capacity_[i]; }

    // dT/dt.
    void rates(const std::vector<double>& k, const Flows& flows, const Surroundings& s, const double* t, double* dt) const;
    // How far the rates move while the surroundings go from a to b and t stays,
    // with the slopes that collector_slopes() gave.
    void drift(const Surroundings& a, const Surroundings& b, const double* collector_slopes, double* out) const;
    // The heat flows that go with it: the sum of a part linear in t, a part that
    // only the surroundings decide, and the collector's bent loss, W.
    HeatFlows heat_flows(const Flows& flows, const Surroundings& s, const double* t) const;
    HeatFlows linear_flows(const Flows& flows, const double* t) const;
    HeatFlows fixed_flows(const Flows& flows, const Surroundings& s) const;
    double bent_loss(const Surroundings& s, const double* t) const;

    // Adds to k the slopes of the nonlinear terms at t.
    void add_slopes(const double* t, double air_c, std::vector<double>& k) const;
    // Which inversions are mixing, and how far the collector is from the air:
    // slopes change only when one of the two does.
    std::uint64_t slope_key(const double* t, double air_c) const;
    // Slopes of the bent loss, W/K, one per collector node.
    void collector_slopes(const double* t, double air_c, double* out) const;
    std::size_t collector_nodes() const { return collector_n_; }
    std::size_t collector_first() const { return collector0_; }

    // Heat in the loop and the tank above 0 °C, J.
    double stored_j(const double* t) const;

private:
    struct Pair {
        int a, b;
        double w;
    };
    // Part of K that goes with one flow.
    struct Term {
        std::vector<std::size_t> slot;
        std::vector<double> weight;
        void add_to(std::vector<double>& k, double factor) const;
    };
    // Slots through which heat w·T goes from one node to another.
    struct Face {
        std::size_t from_from, to_from;
        void carry(std::vector<double>& k, double w) const;
    };
    Face face(int from, int to) const;
    int add_node(double capacity_j_k, bool outdoors);
    void add_ring_chain(std::vector<int> nodes, double dispersion);
    void build_collector(const Collector& c, int n);
    std::vector<int> build_pipe(const Pipe& p, int fine, bool outdoors_first);
    void build_tank(const Tank& t);
    std::vector<int> build_coil(const Tank& t);
    void build_probe(const ProbeSite& site);
    SparsePattern make_pattern() const;
    void add_up();

    Fluid fluid_;
    double room_c_;
    bool tank_in_ring_ = false;
    std::size_t n_ = 0, tank0_ = 0, tank_n_ = 0, collector0_ = 0, collector_n_ = 0, probe0_ = 0;
    double a1_area_ = 0, a2_area_ = 0, sky_area_ = 0, gain_area_ = 0; // per collector node
    double mix_w_k_ = 0;
    std::vector<double> capacity_, inverse_capacity_;
    std::vector<double> pipe_air_, pipe_room_, tank_room_, probe_air_, probe_room_; // W/K per node
    std::vector<double> to_air_, room_w_, pipe_loss_; // their sums, with the collector's linear loss; room_w_ in W
    double pipe_air_sum_ = 0, pipe_room_sum_ = 0, tank_room_sum_ = 0;
    std::vector<char> outdoors_;
    std::vector<int> ring_;            // nodes in the order of the flow
    std::vector<double> dispersion_;   // of the face behind ring_[i], in units of the rate
    std::vector<Pair> links_;          // plain conductances
    std::vector<Pair> coil_;           // coil node, tank node, W/K
    std::vector<Pair> probe_rows_;     // probe node, node read, 1 − k
    std::array<int, 6> place_{};
    SparsePattern pattern_;
    std::vector<double> resting_k_;         // K when nothing flows
    Term ring_k_;                           // per W/K of the ring
    std::vector<Face> tank_up_, tank_down_; // between tank node i and i + 1
};

} // namespace vernal
