// The water of the rings that the arrays' pumps drive: where it stands and how fast
// it runs. In most arrangements it is always there; a drain-back array fills
// and empties, and its pump lifts the water until a siphon stands. Two of them do so
// each by itself, out of the same reservoir.
#pragma once

#include "hydraulics.h"
#include "network.h"
#include "power.h"

#include <limits>

namespace vernal {

// Fall over length below which water stays in what should drain: what a sag
// between two clips needs, 4 sag / span of a parabola at its end. Sag and span are estimates.
inline constexpr double least_pitch = 4 * 0.006 / 1.2;

// Greatest height above the resting water, m, at which water of this
// temperature still hangs together in a full pipe: p_atm − ρ g h = p_sat(T).
double siphon_height_m(double water_c, double altitude_m);

// What runs out of a drain-back array and what must take it.
struct Draining {
    double array_m3, pipe_m3; // of the array, of the pipe over the resting water
    double reservoir_m3;      // with a quarter more, so that the pump's inlet stays flooded (estimate)
    double hot_c, siphon_m;   // a hot day's return, and the height a siphon stands at it
};
Draining draining(const Loop& loop, double altitude_m);

enum class Filling : std::uint8_t { empty,
    filling,
    running,
    draining };

// Why a pump that is on moves nothing.
enum class Trouble : std::uint8_t { none,
    dry,
    no_prime,
    air_lock,
    cavitates,
    dead_head,
    no_power,
    steam };
const char* trouble_text(Trouble trouble); // "runs dry"; none: empty

struct HydraulicFigures {
    int fills = 0;
    int steam_fills = 0;     // began to fill above the boiling point
    double lifting_s = 0;    // running without a siphon
    double dry_run_s = 0;    // the pump on and nothing reaches the top, or its dip pipe is empty
    double air_locked_s = 0; // air goes round and no water
    double cavitating_s = 0; // the water boils at the pump's inlet
    double dead_head_s = 0;  // the pump on against a shut line
    double vapour_kg = 0;    // blown out of the vent with the air of a filling array
    double steam_s = 0;      // the pump on against steam in its array
    double reverse_s = 0;    // warm fluid rising to the cold collector by itself
};

inline constexpr std::size_t max_pumps = 3; // outputs that drive pumps of a loop

// How a pump is driven: share of its set speed, or of the time at its set speed.
struct PumpDrive {
    double share = 1.0;
    bool bursts = false;
    bool operator==(const PumpDrive&) const = default;
    double flow_share() const { return bursts ? share : 1.0; } // what is left to do once the speed is set
    double speed_share() const { return bursts ? 1.0 : share; }
    // Affinity laws; in bursts only the time counts.
    double power_share() const { return bursts ? share : share * share * share; }
};

// The outputs as they act on the water: which of them run, how the pumps turn,
// and what valves of the loop's own do.
struct Acting {
    std::uint32_t running = 0;
    std::array<PumpDrive, max_pumps> pumps{};
    bool shut = false;    // a motorised check valve stands closed
    bool emptied = false; // a drain valve has let the loop out
    bool operator==(const Acting&) const = default;
};

// What is wrong with the water for a while. Of each array.
struct WaterFaults {
    std::array<double, 2> flow_share{1, 1}; // what is left of the pump's flow
    std::array<bool, 2> air_locked{}, shut{};
    double leak = 0;      // of the check valve, 0…1
    double low_share = 1; // of its speed, what a motor on too few volts has; of direct current
    WaterFaults with(const WaterFaults& o) const;
    bool operator==(const WaterFaults&) const = default;
};

class HydraulicState {
public:
    HydraulicState(const Network& network, const Loop& loop, double altitude_m);

    bool drains() const { return network_.arrangement().drains; }
    Filling filling(std::size_t array = 0) const { return water_[array].state; }
    unsigned drained() const; // bit per array: it stands empty
    bool siphon(std::size_t array = 0) const { return water_[array].siphon; }
    // Where the water of both stands.
    struct Stands {
        std::array<Filling, 2> filling{};
        std::array<bool, 2> siphon{};
        bool operator==(const Stands&) const = default;
    };
    Stands stands() const { return {{water_[0].state, water_[1].state}, {water_[0].siphon, water_[1].siphon}}; }
    Trouble trouble() const; // of the loop pump, as it stands; where arrays empty by themselves of either
    // Flow of the loop pump when it has its water, m³/s: while it fills, up to the top, and with the siphon.
    double filling_m3_s() const { return water_[0].filling_flow; }
    double lifted_m3_s() const { return water_[0].lifted_flow; }
    double full_m3_s() const { return water_[0].full_flow; }
    // Of fluid that goes round backwards by itself, m³/s.
    double reverse_m3_s() const { return reverse_m3_s_; }
    // Which arrays hold steam: what stands there is out of the flow until it has condensed.
    void steam(const std::array<bool, 2>& arrays);
    // The loop pump is asked for, and panel or battery do not turn it.
    bool stands_still() const { return water_[0].pump && follows_sun() && power_.speed(true) <= 0; }
    bool steamed(std::size_t array) const { return steamed_[array]; }
    // Where no pump drives it, forwards, m³/s.
    double natural_m3_s() const { return natural_m3_s_; }
    // Until the next change by itself, s; infinity: none.
    double until_change_s() const;

    // Sun on the panel, W/m², and air, °C, of the minute that begins; they hold
    // for that minute. For a pump on a panel its speed follows.
    void weather(const Surroundings& s);
    bool follows_sun() const { return power_.changes_with_sun(); }
    const Power& power() const { return power_; }

    // What is wrong from now on, with the outputs as they stand.
    void faults(const WaterFaults& f);

    // The outputs as they stand from now on.
    // A drain-down valve lets water go or in: heat leaves the loop, J (negative: enters).
    double outputs(const Acting& acting, std::vector<double>& t, double mains_c);
    bool emptied() const { return acting_.emptied; }
    // Time passes with the outputs as they stand; never beyond until_change_s()
    // by more than a sample. May move water, and with it heat, between nodes.
    void pass(double seconds, std::vector<double>& t);

    Flows flows(double draw_w_k, double mains_c) const;
    void recharge() { power_.recharge(); } // the battery as it is stated for the day's beginning
    const HydraulicFigures& figures() const { return figures_; }
    void forget_figures()
    {
        figures_ = {};
        power_.forget_figures();
    }

private:
    // The water of one array.
    struct Water {
        Filling state = Filling::running;
        double left_s = std::numeric_limits<double>::infinity(); // until it changes by itself
        double since_full_s = 0;
        double filling_flow = 0, lifted_flow = 0, full_flow = 0; // m³/s
        bool siphon = false, primed = true, cavitates = false, air_locked = false;
        bool pump = false; // is on
        void enter(Filling to, double seconds)
        {
            state = to;
            left_s = seconds;
        }
    };
    std::size_t arrays() const { return network_.arrangement().has(Part::collector_2) ? 2 : 1; }
    const Pump& pump_of(std::size_t array) const { return array == 0 ? loop_.pump : loop_.pump_2; }
    void act(const Acting& acting, const std::vector<double>& t);
    void act_on(std::size_t array, bool on, const std::vector<double>& t);
    void pass(std::size_t array, double seconds, std::vector<double>& t);
    void settle_siphon(std::size_t array, const std::vector<double>& t, double seconds);
    void settle_suction(std::size_t array, const std::vector<double>& t);
    void settle_flows(const std::vector<double>& t);
    void settle_reverse(const std::vector<double>& t);
    void count_trouble(double seconds);
    void settle_natural(const std::vector<double>& t);
    void settle_tempering(const std::vector<double>& t);
    bool may_reverse() const;
    double leak() const { return std::max(loop_.check_valve.leak, faults_.leak); }
    bool blocked(std::size_t array) const { return faults_.air_locked[array] || faults_.shut[array]; }
    bool trickles() const { return network_.arrangement().answers.array == Array::trickle; } // open to the air: no siphon
    std::size_t motors_of(const Acting& acting) const;
    bool let_out() const { return acting_.emptied && network_.arrangement().answers.empties == Empties::valve; }
    bool tempers() const; // the circulation runs, and a valve at the tank mixes what comes back into it
    double round_m3_s(const Route& circulation) const;
    const Route& open_route() const; // of the loop pump, as the valves stand
    double ring_flow(std::size_t array) const;
    Trouble trouble(std::size_t array) const;
    double sweep_s(std::size_t array) const; // of running without a siphon until the return pipe is free of air
    const Network& network_;
    const Loop& loop_;
    double altitude_m_, exchanger_flow_ = 0;
    std::array<Water, 2> water_;
    int warmth_ = 4; // of the ring, in tens of degrees: what its flows are reckoned at
    Acting acting_;
    std::array<int, 2> pumps_;                // outputs of the arrays' pumps; −1: none
    double natural_m3_s_ = 0, hot_share_ = 1; // of what circulates: from the tank or heater
    double reverse_m3_s_ = 0, reverse_left_s_ = std::numeric_limits<double>::infinity();
    std::array<bool, 2> steamed_{};
    WaterFaults faults_;
    std::size_t motors_ = 0; // that hang on panel or battery and are asked for
    Power power_;
    HydraulicFigures figures_;
};

} // namespace vernal
