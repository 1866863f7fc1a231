// The water of the ring that the loop pump drives: where it stands and how fast
// it runs. In most arrangements it is always there; a drain-back array fills
// and empties, and its pump lifts the water until a siphon stands.
#pragma once

#include "network.h"
#include "power.h"

#include <limits>

namespace vernal {

// Fall over length below which water stays in what should drain: 1/4 inch per
// foot (common practice, no source).
inline constexpr double least_pitch = 0.25 / 12.0;

// Flow of a pump against a lift, m³/s, from two points of its curve,
// H = head (1 − (Q/free_flow)²), and the resistance k Q² that makes it deliver
// `flow_m3_s` without lift. 0: it does not reach the top. A pump whose curve is
// not known delivers its measured flow at any lift.
double flow_against(const Pump& pump, double lift_m);

// Greatest height above the resting water, m, at which water of this
// temperature still hangs together in a full pipe: p_atm − ρ g h = p_sat(T).
double siphon_height_m(double water_c, double altitude_m);

// What runs out of a drain-back array and what must take it.
struct Draining {
    double array_m3, pipe_m3; // of the array, of the pipe in the open
    double reservoir_m3;      // with a quarter more, so that the pump's inlet stays flooded (estimate)
    double hot_c, siphon_m;   // a hot day's return, and the height a siphon stands at it
};
Draining draining(const Loop& loop, double altitude_m);

enum class Filling : std::uint8_t { empty, filling, running, draining };

struct WaterFigures {
    int fills = 0;
    int steam_fills = 0;      // began to fill above the boiling point
    double lifting_s = 0;     // running without a siphon
    double dry_run_s = 0;     // the pump on and nothing reaches the top
};

class Water {
public:
    Water(const Network& network, const Loop& loop, double altitude_m);

    bool drains() const { return network_.arrangement().drains; }
    Filling filling() const { return state_; }
    bool drained() const { return drains() && (state_ == Filling::empty || state_ == Filling::filling); }
    bool siphon() const { return siphon_; }
    // Until the next change by itself, s; infinity: none.
    double until_change_s() const;

    // Sun on the panel, W/m², and air, °C, of the minute that begins; they hold
    // for that minute. For a pump on a panel its speed follows.
    void weather(const Surroundings& s);
    bool follows_sun() const { return power_.changes_with_sun(); }
    const Power& power() const { return power_; }

    // The outputs as they stand from now on.
    void outputs(std::uint32_t running, const std::vector<double>& t);
    // Time passes with the outputs as they stand; never beyond until_change_s()
    // by more than a sample. May move water, and with it heat, between nodes.
    void pass(double seconds, std::vector<double>& t);

    Flows flows(std::uint32_t running, double draw_w_k, double mains_c) const;
    const WaterFigures& figures() const { return figures_; }
    void forget_figures()
    {
        figures_ = {};
        power_.forget_figures();
    }

private:
    void enter(Filling state, double seconds);
    void settle_siphon(const std::vector<double>& t);
    double sweep_s() const; // of running without a siphon until the return pipe is free of air
    const Network& network_;
    const Loop& loop_;
    double altitude_m_, lifted_flow_;
    Filling state_ = Filling::running;
    double left_s_ = std::numeric_limits<double>::infinity();
    double since_full_s_ = 0;
    bool siphon_ = false, pump_ = false;
    Power power_;
    WaterFigures figures_;
};

} // namespace vernal
