// The loop as a network of lumps: one set of ordinary differential equations,
//   C_i dT_i/dt = Σ_j K_ij T_j + b_i(t) − nonlinear losses + mixing of inversions,
// stated once here; the integrator and any reference solver use these.
// Temperatures in °C, W, W/K, J/K, seconds.
#pragma once

#include "fluid.h"
#include "layering.h"
#include "loop.h"
#include "mixing.h"
#include "sparse_lu.h"

#include <algorithm>
#include <array>
#include <cstdint>
#include <initializer_list>
#include <string>

namespace vernal {

// What the sun meets: the arrays' planes, and level ground.
inline constexpr std::size_t sun_planes = 4;
enum class SunPlane : std::uint8_t { collector,
    collector_2,
    ground,
    panel };

// What acts from outside; between two instants everything is a straight line.
struct Surroundings {
    double air_c = 15.0;
    std::array<double, sun_planes> sun_w_m2{}; // on an array: times incidence angle modifier
    double net_sky_w_m2 = 0.0;                 // σ (Ta⁴ − Tsky⁴)
    double pane_k = 0.0;                       // how far a level pane that sees it stands below the air; by day 0, see pane_below_air_k()
    static Surroundings between(const Surroundings& a, const Surroundings& b, double share);
    bool operator==(const Surroundings&) const = default;
};

// Heat capacity rates, W/K; a route's is negative while it runs backwards by
// itself. They hold still during a step.
struct Flows {
    std::array<double, max_routes> route_w_k{};
    double draw_w_k = 0.0; // from the first tank
    double mains_c = 10.0;
    unsigned drained = 0;                  // bit per array: it stands empty
    double element_w = 0.0;                // of the backup element, before its own thermostat
    double heater_w = 0.0;                 // of the heater after the tank, likewise
    double wind_m_s = 0.0;                 // over the arrays, where it matters to them; it holds for a day
    std::array<double, 2> wet_share{1, 1}; // of an array's open absorber, while water runs down it
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
    int tank = 1;
};

// Where heat goes for good.
// Element and heater are booked here with the other sign.
enum class Loss : std::uint8_t { collector,
    pipe,
    store,
    cooler,
    circulation,
    element };
inline constexpr std::size_t losses = 6;

// Heat flows, W, or their integrals, J.
struct HeatFlows {
    double absorbed = 0, drawn = 0, to_store = 0;
    std::array<double, losses> lost{};
    double loss(Loss l) const { return lost[static_cast<std::size_t>(l)]; }
    double all_losses() const { return lost[0] + lost[1] + lost[2] + lost[3] + lost[4]; }
    double backup() const { return -loss(Loss::element); }
    // What came in and neither went out nor is accounted for as lost.
    double kept() const { return absorbed + backup() - all_losses() - drawn; }
    HeatFlows& operator+=(const HeatFlows& q);
    HeatFlows operator*(double f) const;
};

// Nodes of one part, in the order of the flow; of a tank from the bottom.
struct NodeRange {
    std::size_t first = 0, count = 0;
    std::size_t last() const { return first + count - 1; }
};

class Network {
public:
    // A place that the arrangement lacks reads its store. altitude_m: air carries less there.
    Network(const Loop& loop, const std::vector<ProbeSite>& probes, Fineness fine = {}, double altitude_m = 0);

    const Arrangement& arrangement() const { return arrangement_; }
    std::size_t size() const { return n_; }
    std::size_t probe_node(std::size_t probe) const { return probe0_ + probe; }
    std::size_t node_of(ProbePlace place) const { return static_cast<std::size_t>(place_[static_cast<std::size_t>(place)]); }
    bool in_pipe(std::size_t node) const { return in_pipe_[node] != 0; }
    // In a pipe, coil, exchanger or cooler with no probe on it: at rest nothing of it
    // comes to a probe.
    bool unread(std::size_t node) const { return unread_[node] != 0; }
    // Nodes of a stretch; count 0: the arrangement has none. Of a tank the nodes of the tank.
    NodeRange nodes_of(Segment s) const { return ranges_[static_cast<std::size_t>(s)]; }
    NodeRange tank(std::size_t which) const { return which < tanks_.size() ? tanks_[which].nodes : NodeRange{}; }
    bool has_tank() const { return !tanks_.empty(); }
    const std::vector<double>& tank_layers(std::size_t which) const; // shares of its height, from the bottom; empty: no such tank
    // The warmest part of the store, for limits.
    std::size_t store_top() const { return store_top_; }
    // Where what is drawn comes from: the heater after the tank, or its top.
    std::size_t delivers() const { return delivers_; }
    const Fluid& fluid_of(std::size_t route) const;
    // Of what an array's ring carries, forwards, in these flows.
    double comes_round_m3_s(const Flows& flows, std::size_t array = 0) const;
    double rate_w_k(std::size_t route, double flow_m3_s) const { return flow_m3_s * fluid_of(route).density_kg_m3 * fluid_of(route).heat_capacity_j_kgk; }
    // Holding fluid that can freeze: in the open, or the water side of an exchanger.
    // drained: as in Flows.
    bool can_freeze(std::size_t node, unsigned drained) const { return may_freeze_[node] != 0 && !((drained >> array_of_[node] & 1U) != 0 && drains_[node] > 0 && left_behind_ == 0); }
    double freezing_c(std::size_t node) const { return water_side(node) ? second_fluid_.freezing_c : fluid_.freezing_c; }
    double burst_c(std::size_t node) const { return water_side(node) ? 0.0 : burst_c_; }
    // "return pipe, 1.2 m from the collector"
    std::string place_text(std::size_t node) const;
    // Fluid of the ring that the collector is in, m³ per node.
    const std::vector<double>& ring_m3() const { return ring_m3_; }
    // Mean temperature of some stretches, °C; those the arrangement lacks do not count.
    double mean_c(std::initializer_list<Segment> stretches, const std::vector<double>& t) const;
    // Water that leaves an array and the pipe beside it, m³; 0: it does not drain.
    double draining_m3(std::size_t array = 0) const { return draining_m3_[array]; }
    std::size_t draining_to() const { return drains_to_; }
    // Moves that water, with its heat, to the reservoir or back. drained: what stands empty
    // before, as in Flows.
    void drain(std::vector<double>& t, std::size_t array = 0, unsigned drained = 0) const;
    void fill(std::vector<double>& t, std::size_t array = 0) const;
    // Heat of the water that a drain-down valve lets go, J above 0 °C. Filling it again
    // takes water of the store, whose place water from the mains takes; gives the heat of that.
    double let_out_j(const std::vector<double>& t) const;
    double let_in_j(std::vector<double>& t, double mains_c) const;

    // Every node at its start: stores at the given temperature, the rest at the air's.
    std::vector<double> start(double store_c, double air_c) const;

    // Of all that stores, by its capacity, °C; and all of it set to one temperature.
    double store_mean_c(const std::vector<double>& t) const;
    void set_stores(std::vector<double>& t, double store_c) const;

    // Matrix K for these flows, on pattern(); the mixing of inversions is not in it.
    void assemble(const Flows& flows, std::vector<double>& k) const;
    const SparsePattern& pattern() const { return pattern_; }
    double inverse_capacity(std::size_t i, unsigned drained = 0) const { return inverse_capacity_[drained][i]; }
    const std::vector<double>& inverse_capacities(unsigned drained) const { return inverse_capacity_[drained]; } // by node

    // dT/dt.
    void rates(const std::vector<double>& k, const Flows& flows, const Surroundings& s, const double* t, double* dt) const;

    // Losses that are not straight lines: of collectors with the square of the
    // difference, of a pool with the vapour pressure. Slopes against the node's
    // own temperature and against the air, W/K, one pair per nonlinear loss.
    struct NonlinearSlopes {
        double own = 0, air = 0;
    };
    bool windy() const; // some loss goes with the wind
    std::size_t nonlinear_losses() const { return nonlinear_losses_.size(); }
    std::size_t nonlinear_node(std::size_t loss) const { return nonlinear_losses_[loss].node; }
    Loss nonlinear_loss_kind(std::size_t loss) const { return nonlinear_losses_[loss].loss; }
    void nonlinear_slopes(const Flows& flows, const double* t, double air_c, NonlinearSlopes* out) const;
    // Which inversions are mixing, and how far the parts with nonlinear losses are from the air:
    // slopes are made anew only when this changes.
    std::uint64_t slope_key(const double* t, double air_c) const;
    // K and the slopes of the nonlinear terms at t, on the pattern it gives back: where no layer of a tank
    // mixes with others than its neighbours, that has no room for such. k: of these flows, from assemble().
    const SparsePattern& linearise(const Flows& flows, const std::vector<double>& k, const double* t, double air_c, std::vector<double>& out) const;

    // How far the rates move while the surroundings go from a to b and t stays,
    // with the slopes that nonlinear_slopes() gave.
    void drift(const Surroundings& a, const Surroundings& b, const NonlinearSlopes* slopes, const Flows& flows, double* out) const;

    // The heat flows that go with rates(): the sum of a part linear in t, a part
    // that only the surroundings decide, and the nonlinear losses, W.
    HeatFlows heat_flows(const Flows& flows, const Surroundings& s, const double* t) const;
    HeatFlows linear_flows(const Flows& flows, const double* t) const;
    HeatFlows fixed_flows(const Flows& flows, const Surroundings& s) const;
    HeatFlows nonlinear_flows(const Flows& flows, const Surroundings& s, const double* t) const;

    // Heat in the loop and its stores above 0 °C, J.
    double stored_j(const double* t, unsigned drained = 0) const;

private:
    friend class NetworkBuilder;
    struct Pair {
        int a, b;
        double w;
    };
    // Slots through which heat w·T goes from one node to another.
    struct Face {
        std::size_t from_from, to_from;
        void carry(std::vector<double>& k, double w) const;
    };
    // A wall between what runs inside it and what stands or runs outside: films on both sides carry
    // the heat, and with the 0.8th power of the flow (Dittus & Boelter) so does the whole.
    struct Wall {
        struct Film {
            double share = 0;         // of the resistance at the usual flow
            double usual_w_k = 0;     // that flow's rate, W/K
            std::uint32_t routes = 0; // which of them run past it
        };
        Film inside, outside;
        bool to_store = false;                  // outside is the store
        std::vector<Pair> pairs;                // inside, outside, W/K at the usual flows
        std::vector<Face> out, in;              // of each pair
        double share(const Flows& flows) const; // of that conductance
    };
    // Part of K that goes with one flow.
    struct Term {
        std::vector<std::size_t> slot;
        std::vector<double> weight;
        void add_to(std::vector<double>& k, double factor) const;
    };
    struct TankNodes {
        NodeRange nodes;
        Layering layers;
        std::vector<std::array<double, mixing_reach>> mix_w_k; // of each layer with the next ones above it
        std::vector<double> bottom_jet, top_jet;               // per inner face: share of what enters at that end
        std::vector<std::array<double, max_routes>> downward;  // per inner face: 1 where a route runs down through it, −1 up
        bool drawn = false;
        bool dip_swapped = false;   // the mains enter at the top
        std::vector<Face> up, down; // between node i and i + 1
    };
    struct Sun { // gain of a node per W/m² of its plane, less the sky's share
        std::size_t node;
        std::size_t plane;
        double gain, sky;
        Loss loss;           // of the sky's share
        double pane_w_k = 0; // through its pane
        int film = -1;       // array whose wet share it takes in; −1: all of it
        double gain_in(const Flows& f) const { return film >= 0 ? gain * f.wet_share[static_cast<std::size_t>(film)] : gain; }
        // What the report states of the sky, or what the pane does, whichever is more.
        double sky_w(const Surroundings& s) const { return std::max(sky * s.net_sky_w_m2, pane_w_k * s.pane_k); }
    };
    struct NonlinearLoss {
        std::size_t node;
        Loss loss;
        double square = 0;                     // W/K²
        double wind_j_mk = 0;                  // W/K per m/s of wind
        double emits_m2 = 0;                   // radiates over the air, σ (T⁴ − Ta⁴); what the air does over the sky is the sun's term
        double vapour_w_kpa = 0, humidity = 0; // evaporation
        double Flows::*heats = nullptr;        // gains this, falling off over 1 K below the thermostat's setting
        double set_c = 0;
        double at(const Flows& flows, double t_c, double air_c) const;
        NonlinearSlopes slopes(const Flows& flows, double t_c, double air_c) const;
    };
    // Heat into the store over a route: rate × (T_in − T_out), forwards and backwards.
    struct Delivery {
        std::size_t route, in, out, in_back, out_back;
    };
    struct LossTerm {
        Loss loss;
        std::vector<std::size_t> node;
        std::vector<double> w_k;
        double air_w_k = 0, room_w = 0; // what the surroundings give back
    };
    bool mixes_far(const double* t) const; // some layer with others than its neighbours
    // Up through an inner face of it, W/K, and what jets stir across it.
    double net_up(const TankNodes& tank, std::size_t face, const Flows& flows) const;
    double stirred(const TankNodes& tank, std::size_t face, const Flows& flows) const;
    bool water_side(std::size_t node) const;

    const Arrangement& arrangement_; // lives as long as the program
    Fluid fluid_, second_fluid_;
    std::size_t n_ = 0, probe0_ = 0, store_top_ = 0, delivers_ = 0;
    int fed_heater_ = -1;                                            // node of the heater that the tank feeds; −1: none
    bool past_tank_ = false;                                         // draws run past the tank, through the heater alone
    std::array<std::vector<double>, 4> capacity_, inverse_capacity_; // by Flows::drained
    std::vector<double> drains_;                                     // J/K of water that leaves a node
    std::size_t drains_to_ = 0;
    std::array<double, 2> draining_m3_{};
    double left_behind_ = 0;     // share that stays for want of pitch
    std::vector<char> array_of_; // by node: to which its water belongs where it drains
    std::vector<double> to_air_, room_w_;
    std::vector<LossTerm> loss_terms_;
    std::vector<char> outdoors_, may_freeze_, store_, in_pipe_, unread_;
    std::vector<double> ring_m3_;
    double burst_c_ = 0;
    std::array<double, 4> pipe_m_{}; // supply, return, and the second ones
    std::vector<TankNodes> tanks_;
    std::vector<Sun> suns_;
    std::vector<NonlinearLoss> nonlinear_losses_;
    std::vector<Pair> store_links_; // of a slab's pipe: node, store node, W/K
    std::vector<Wall> walls_;       // of coils and the exchanger
    std::vector<Delivery> deliveries_;
    std::vector<Pair> probe_rows_; // probe node, node read, 1 − k
    std::array<int, probe_places> place_{};
    std::array<NodeRange, segments> ranges_{};
    SparsePattern pattern_{0, {}}, mixing_pattern_{0, {}}; // the second with layers that mix
    std::vector<std::size_t> mixing_slot_;                 // on it, of each place of the first
    std::vector<double> resting_k_;                        // K when nothing flows
    std::array<Term, max_routes> route_k_, route_back_k_;  // per W/K of the route, tanks' inner faces left out; run backwards
};

} // namespace vernal
