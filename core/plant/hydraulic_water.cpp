// The water of one array: how it fills, what it needs to run, when a siphon stands, how it empties.
#include "hydraulic_state.h"

#include "core/units/safe_temperatures.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace vernal {
namespace {

// Slower water runs down the wall and leaves the air in the pipe. About half a
// metre per second in small pipe (Froude number near 1); an estimate.
constexpr double siphon_froude = 1.0;
constexpr double vapour_j_kgk = 461.5; // gas constant of water vapour

} // namespace

// A dip pipe that lost its water, and water that boils before the pump takes it.
void HydraulicState::settle_suction(std::size_t array, const std::vector<double>& t)
{
    const DrainBack& d = loop_.drain_back;
    Water& w = water_[array];
    const std::size_t inlet = array == 0 ? network_.node_of(ProbePlace::supply_pipe) : network_.nodes_of(Segment::supply_2).first;
    w.cavitates = w.cavitates || suction_head_m(t[inlet], d.suction_m, altitude_m_) < d.suction_need_m;
    w.air_locked = w.air_locked || (d.ports_swapped && w.state == Filling::running && w.since_full_s >= sweep_s(array));
}

Trouble HydraulicState::trouble(std::size_t array) const
{
    const Water& w = water_[array];
    if (!w.pump)
        return Trouble::none;
    if (follows_sun() && power_.speed(true) <= 0)
        return Trouble::no_power;
    if (pump_of(array).shut || faults_.shut[array] || (array == 0 && acting_.shut))
        return Trouble::dead_head;
    if (steamed_[array])
        return Trouble::steam;
    if (faults_.air_locked[array])
        return Trouble::air_lock;
    if (!drains())
        return Trouble::none;
    return !w.primed ? Trouble::no_prime : w.cavitates                                        ? Trouble::cavitates
                                       : w.air_locked                                         ? Trouble::air_lock
                                       : w.filling_flow <= 0 && w.state == Filling::filling   ? Trouble::dry
                                       : w.state == Filling::running && ring_flow(array) <= 0 ? Trouble::dry
                                                                                              : Trouble::none;
}

// An array's pump starts or stops.
void HydraulicState::act_on(std::size_t array, bool on, const std::vector<double>& t)
{
    Water& w = water_[array];
    w.pump = on;
    if (!drains())
        return;
    w.siphon = w.cavitates = w.air_locked = false;
    w.primed = w.primed && (on || loop_.drain_back.holds_prime || loop_.drain_back.suction_m <= 0);
    if (on)
        settle_suction(array, t);
    w.since_full_s = 0;
    if (!on) // a half-filled array runs back sooner; the whole time is the safe side
        return w.enter(w.state == Filling::running ? Filling::draining : Filling::empty, w.state == Filling::running ? loop_.drain_back.drain_s : INFINITY);
    if (w.state == Filling::draining) // what is still up there is soon joined
        return w.enter(Filling::running, INFINITY);
    ++figures_.fills;
    const std::size_t outlet = network_.node_of(array == 0 ? ProbePlace::collector : ProbePlace::collector_2);
    figures_.steam_fills += t[outlet] > open_steam_c ? 1 : 0;
    w.enter(Filling::filling, w.filling_flow > 0 && trouble(array) == Trouble::none ? network_.draining_m3(array) / w.filling_flow : INFINITY);
}

// While the array is full: until the return is swept at the filling speed, then at the set one.
double HydraulicState::ring_flow(std::size_t array) const
{
    const Water& w = water_[array];
    return w.cavitates || w.air_locked ? 0.0 : w.siphon                      ? w.full_flow
                                           : w.since_full_s < sweep_s(array) ? w.filling_flow
                                                                             : w.lifted_flow;
}

double HydraulicState::sweep_s(std::size_t array) const
{
    const Pipe& back = array == 0 ? loop_.back : loop_.back_2;
    const double section = std::numbers::pi / 4 * back.bore_m * back.bore_m;
    return water_[array].filling_flow > 0 ? back.length_m * section / water_[array].filling_flow : INFINITY;
}

void HydraulicState::settle_siphon(std::size_t array, const std::vector<double>& t, double seconds)
{
    Water& w = water_[array];
    const double bore = (array == 0 ? loop_.back : loop_.back_2).bore_m, section = std::numbers::pi / 4 * bore * bore;
    const bool swept = w.since_full_s >= sweep_s(array), just = swept && w.since_full_s - seconds < sweep_s(array);
    // Formed by the flow that sweeps, held by what the set speed gives.
    const double flow = w.siphon ? w.full_flow : just ? std::min(w.filling_flow, w.full_flow)
                                                      : w.lifted_flow;
    const bool fast = flow / section > siphon_froude * std::sqrt(gravity_m_s2 * bore);
    const double top_c = t[network_.node_of(array == 0 ? ProbePlace::collector : ProbePlace::collector_2)];
    w.siphon = loop_.drain_back.siphon && !trickles() && fast && (w.siphon || swept) && loop_.drain_back.lift_m < siphon_height_m(top_c, altitude_m_);
}

void HydraulicState::pass(std::size_t array, double seconds, std::vector<double>& t)
{
    Water& w = water_[array];
    if (w.pump)
        settle_suction(array, t);
    if (w.state == Filling::running) {
        w.since_full_s += seconds;
        settle_siphon(array, t, seconds);
    }
    w.left_s -= seconds;
    if (w.left_s > 1e-9)
        return;
    if (w.state == Filling::filling) {
        network_.fill(t, array);
        if (loop_.drain_back.vented || !network_.arrangement().has(Part::reservoir)) {
            const double k = t[network_.draining_to()] + 273.15; // the array's air leaves saturated
            figures_.vapour_kg += network_.draining_m3(array) * saturation_pa(k - 273.15) / (vapour_j_kgk * k);
        }
        return w.enter(Filling::running, INFINITY);
    }
    network_.drain(t, array, drained());
    w.enter(Filling::empty, INFINITY);
}

} // namespace vernal
