#include "hydraulic_state.h"

#include "core/units/safe_temperatures.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace vernal {
namespace {

constexpr double never = std::numeric_limits<double>::infinity();
constexpr double speed_steps = 64.0; // as finely as the flow follows the sun: factors are kept per flow
constexpr double reservoir_reserve = 1.25;
constexpr double hot_return_c = 80.0; // of a good day; estimate

constexpr double reverse_every_s = 300.0; // the thermosiphon is looked at anew
constexpr double least_reverse = 1e-4;    // of the pump's flow; less is none
constexpr double warmth_step_k = 10.0;
constexpr double natural_every_s = 60.0; // where the water circulates by itself, and where a valve tempers what circulates
constexpr double tempering_steps = 64.0;

} // namespace

const char* trouble_text(Trouble trouble)
{
    static constexpr std::array texts{"", "runs dry", "has lost its prime", "locked by air", "draws steam", "works against a shut line", "has no power to turn", "stands against steam"};
    return texts[static_cast<std::size_t>(trouble)];
}

double siphon_height_m(double water_c, double altitude_m)
{
    return std::max(0.0, suction_head_m(water_c, 0, altitude_m));
}

Draining draining(const Loop& l, double altitude_m)
{
    // Climbs the lift indoors, then runs outdoors: at most its whole length.
    const auto above = [&](const Pipe& p) { return std::min(p.outdoor_m + std::max(0.0, l.drain_back.lift_m), p.length_m) * std::numbers::pi / 4 * p.bore_m * p.bore_m; };
    const bool two = arrangement_of(l).has(Part::collector_2);
    const double array = l.collector.content_m3 + (two ? l.collector_2.content_m3 : 0.0), pipe = above(l.supply) + above(l.back) + (two ? above(l.supply_2) + above(l.back_2) : 0.0);
    return {array, pipe, reservoir_reserve * (array + pipe), hot_return_c, siphon_height_m(hot_return_c, altitude_m)};
}

HydraulicState::HydraulicState(const Network& network, const Loop& loop, double altitude_m)
    : network_(network), loop_(loop), altitude_m_(altitude_m),
      power_(loop, network.arrangement().has(Part::battery) ? Power::Source::battery : network.arrangement().has(Part::panel) ? Power::Source::panel
                                                                                                                              : Power::Source::mains)
{
    pumps_ = {network.arrangement().output_of(Driver::pump), network.arrangement().output_of(Driver::pump_2)};
    settle_flows({});
    if (may_reverse())
        reverse_left_s_ = reverse_every_s;
    if (drains())
        for (std::size_t k = 0; k < arrays(); ++k)
            water_[k].enter(Filling::empty, never);
}

unsigned HydraulicState::drained() const
{
    unsigned out = 0;
    for (std::size_t k = 0; k < arrays(); ++k) {
        const Filling state = water_[k].state;
        out |= static_cast<unsigned>(let_out() || (drains() && (state == Filling::empty || state == Filling::filling))) << k;
    }
    return out;
}

bool HydraulicState::may_reverse() const { return leak() > 0 && network_.arrangement().has(Part::check_valve); }

const Route& HydraulicState::open_route() const
{
    const auto& routes = network_.arrangement().routes;
    for (const Route& r : routes)
        if (r.turns == Driver::pump && r.open(acting_.running))
            return r;
    return routes.front();
}

// By the curve the flow goes with the fluid's viscosity, so with the ring's warmth.
void HydraulicState::settle_flows(const std::vector<double>& t)
{
    const bool curves = loop_.pump.by_curve || loop_.pump_2.by_curve || loop_.exchanger_pump.by_curve;
    if (!t.empty()) {
        if (!curves)
            return;
        const double mean = network_.mean_c({Segment::collector, Segment::return_pipe, Segment::supply_pipe}, t);
        const int warmth = static_cast<int>(std::lround(std::clamp(mean, -30.0, 140.0) / warmth_step_k));
        if (warmth == warmth_)
            return;
        warmth_ = warmth;
    }
    const Arrangement& a = network_.arrangement();
    const Fluid fluid = a.carrier == Carrier::air ? warm_air(altitude_m_) : fluid_at(glycol_share(loop_), warmth_ * warmth_step_k);
    const auto flow = [&](const Route& r, Pump pump, std::size_t which, const Fluid& carried, double lift_m) {
        pump.speed *= acting_.pumps[which].speed_share();
        return pump_flow(loop_, r, pump, carried, lift_m) * acting_.pumps[which].flow_share();
    };
    const auto settle = [&](Water& w, const Route& r, const Pump& pump, std::size_t which) {
        const double lift_m = loop_.drain_back.lift_m;
        Pump filling = pump;
        filling.speed = loop_.drain_back.fill_boost ? 1.0 : filling.speed;
        w.full_flow = flow(r, pump, which, fluid, 0);
        w.lifted_flow = a.drains ? flow(r, pump, which, fluid, lift_m) : w.full_flow;
        w.filling_flow = a.drains ? flow(r, filling, which, fluid, lift_m) : w.full_flow;
    };
    settle(water_[0], a.routes.front(), loop_.pump, 0);
    for (const Route& r : a.routes) {
        if (r.turns == Driver::pump_2)
            settle(water_[1], r, loop_.pump_2, r.pump);
        if (r.turns == Driver::exchanger_pump)
            exchanger_flow_ = flow(r, loop_.exchanger_pump, r.pump, glycol_water(0), 0);
    }
}

void HydraulicState::settle_reverse(const std::vector<double>& t)
{
    reverse_left_s_ = reverse_every_s;
    const auto cold = {Segment::collector, Segment::supply_pipe}, warm = {Segment::return_pipe, Segment::coil, Segment::tank_down, Segment::exchanger_hot, Segment::pool, Segment::slab, Segment::room};
    const double free = water_[0].pump || acting_.shut || acting_.emptied ? 0.0 : thermosiphon_flow(loop_, open_route(), network_.mean_c(cold, t), network_.mean_c(warm, t));
    // In steps of a fifth: factors are kept per flow.
    const double share = free * leak() / loop_.pump.flow_m3_s;
    reverse_m3_s_ = share < least_reverse ? 0.0 : std::exp2(std::round(4 * std::log2(share)) / 4) * loop_.pump.flow_m3_s;
}

// The cold column: the supply and where it leaves the store; the warm one: array and return.
void HydraulicState::settle_natural(const std::vector<double>& t)
{
    const Route& route = network_.arrangement().routes.front();
    const NodeRange coil = network_.nodes_of(Segment::coil);
    const double store_c = t[coil.count > 0 ? coil.last() : network_.tank(0).first];
    const double cold_c = (network_.mean_c({Segment::supply_pipe}, t) + store_c) / 2;
    const double share = natural_flow(loop_, route, cold_c, network_.mean_c({Segment::collector, Segment::return_pipe}, t)) / most_natural_m3_s;
    // In steps of a fifth: factors are kept per flow.
    natural_m3_s_ = share < least_reverse ? 0.0 : std::exp2(std::round(4 * std::log2(share)) / 4) * most_natural_m3_s;
}

bool HydraulicState::tempers() const
{
    const Arrangement& a = network_.arrangement();
    return a.has(Part::circulation) && loop_.circulation.tempering == Tempering::at_tank && (acting_.running >> a.driven_by(Driver::circulation) & 1U) != 0;
}

void HydraulicState::settle_tempering(const std::vector<double>& t)
{
    hot_share_ = 1;
    if (!tempers())
        return;
    const double hot = t[network_.delivers()], back = t[network_.node_of(ProbePlace::circulation_return)];
    if (hot > tempered_c && hot > back)
        hot_share_ = std::round(std::clamp((tempered_c - back) / (hot - back), 0.0, 1.0) * tempering_steps) / tempering_steps;
}

double HydraulicState::round_m3_s(const Route& r) const
{
    return loop_.circulation.flow_m3_s * (r.ring.size() > 1 ? hot_share_ : 1 - hot_share_);
}

WaterFaults WaterFaults::with(const WaterFaults& o) const
{
    WaterFaults out = *this;
    for (std::size_t k = 0; k < 2; ++k) {
        out.flow_share[k] *= o.flow_share[k];
        out.air_locked[k] = out.air_locked[k] || o.air_locked[k];
        out.shut[k] = out.shut[k] || o.shut[k];
    }
    out.leak = std::max(leak, o.leak);
    out.low_share = std::min(low_share, o.low_share);
    return out;
}

void HydraulicState::faults(const WaterFaults& f)
{
    if (f == faults_)
        return;
    const bool reversed = may_reverse();
    faults_ = f;
    if (reversed != may_reverse()) {
        reverse_m3_s_ = 0;
        reverse_left_s_ = may_reverse() && !water_[0].pump ? reverse_every_s : never;
    }
    for (std::size_t k = 0; drains() && k < arrays(); ++k) // a half-filled array waits, and is filled anew
        if (Water& w = water_[k]; w.state == Filling::filling)
            w.left_s = w.filling_flow > 0 && trouble(k) == Trouble::none ? network_.draining_m3(k) / (w.filling_flow * std::max(0.05, f.flow_share[k])) : never;
}

Trouble HydraulicState::trouble() const
{
    const Trouble first = trouble(0);
    return first != Trouble::none || !drains() || arrays() < 2 ? first : trouble(1);
}

void HydraulicState::count_trouble(double seconds)
{
    switch (trouble()) {
    case Trouble::none:
    case Trouble::no_power: return; // Power counts it
    case Trouble::dry:
    case Trouble::no_prime: figures_.dry_run_s += seconds; return;
    case Trouble::air_lock: figures_.air_locked_s += seconds; return;
    case Trouble::cavitates: figures_.cavitating_s += seconds; return;
    case Trouble::dead_head: figures_.dead_head_s += seconds; return;
    case Trouble::steam: figures_.steam_s += seconds; return;
    }
}

void HydraulicState::weather(const Surroundings& s)
{
    if (follows_sun())
        power_.minute(s.sun_w_m2[static_cast<std::size_t>(SunPlane::panel)], s.air_c, motors_ > 0);
}

double HydraulicState::outputs(const Acting& acting, std::vector<double>& t, double mains_c)
{
    const bool was_out = let_out();
    act(acting, t);
    if (was_out == let_out())
        return 0;
    return was_out ? -network_.let_in_j(t, mains_c) : network_.let_out_j(t);
}

std::size_t HydraulicState::motors_of(const Acting& acting) const
{
    const Arrangement& a = network_.arrangement();
    std::size_t n = 0;
    for (const auto& [part, driver] : {std::pair{Part::pump, Driver::pump}, {Part::pump_2, Driver::pump_2}, {Part::exchanger_pump, Driver::exchanger_pump}})
        n += a.has(part) && (acting.running >> a.driven_by(driver) & 1U) != 0 ? 1 : 0;
    return pumps_[0] >= 0 ? n : 0;
}

void HydraulicState::steam(const std::array<bool, 2>& arrays) { steamed_ = arrays; }

void HydraulicState::act(const Acting& acting, const std::vector<double>& t)
{
    const auto asked = [&](std::size_t array) { return pumps_[array] >= 0 && (acting.running >> pumps_[array] & 1U) != 0; };
    const bool turned = acting.pumps != acting_.pumps, moved = acting.shut != acting_.shut || acting.emptied != acting_.emptied;
    acting_ = acting;
    if (turned) {
        power_.load(acting.pumps[0].power_share());
        settle_flows({});
    }
    for (std::size_t k = 0; k < arrays(); ++k)
        if (Water& w = water_[k]; turned && drains() && asked(k) && w.pump && w.state == Filling::filling) // what is still missing, at the new speed
            w.left_s = w.filling_flow > 0 && trouble(k) == Trouble::none ? std::min(w.left_s, network_.draining_m3(k) / w.filling_flow) : never;
    if (moved && may_reverse() && !asked(0)) {
        reverse_m3_s_ = 0;
        reverse_left_s_ = reverse_every_s;
    }
    if (const std::size_t motors = motors_of(acting); motors != motors_) {
        const bool starts = motors > motors_;
        motors_ = motors;
        power_.motors(motors);
        if (starts || motors == 0) // one that only stops leaves the others as they are until power is looked at again
            power_.switched(motors > 0);
    }
    if (may_reverse() && asked(0) != water_[0].pump) {
        reverse_m3_s_ = 0;
        reverse_left_s_ = asked(0) ? never : reverse_every_s;
    }
    for (std::size_t k = 0; k < arrays(); ++k)
        if (asked(k) != water_[k].pump)
            act_on(k, asked(k), t);
}

double HydraulicState::until_change_s() const
{
    if (!network_.arrangement().pumped() || tempers())
        return natural_every_s;
    if (!drains())
        return reverse_left_s_;
    double out = never;
    for (std::size_t k = 0; k < arrays(); ++k) {
        const Water& w = water_[k];
        const double sweep = sweep_s(k) - w.since_full_s;
        out = std::min(out, w.state == Filling::running && !w.siphon && sweep > 0 ? sweep : w.left_s);
    }
    return out;
}

void HydraulicState::pass(double seconds, std::vector<double>& t)
{
    power_.pass(seconds, motors_ > 0);
    count_trouble(seconds);
    settle_flows(t);
    figures_.reverse_s += reverse_m3_s_ > 0 ? seconds : 0.0;
    reverse_left_s_ -= seconds;
    if (reverse_left_s_ <= 1e-9)
        settle_reverse(t);
    if (!network_.arrangement().pumped())
        settle_natural(t);
    if (network_.arrangement().has(Part::circulation))
        settle_tempering(t);
    if (!drains())
        return;
    bool lifts = false;
    for (std::size_t k = 0; k < arrays(); ++k) {
        pass(k, seconds, t);
        lifts = lifts || (water_[k].since_full_s > 0 && water_[k].state == Filling::running && !water_[k].siphon);
    }
    figures_.lifting_s += lifts ? seconds : 0.0;
}

Flows HydraulicState::flows(double draw_w_k, double mains_c) const
{
    const auto on = [this](std::size_t output) { return (acting_.running >> output & 1U) != 0; };
    Flows f{{}, draw_w_k, mains_c, drained()};
    const auto& routes = network_.arrangement().routes;
    for (std::size_t r = 0; r < routes.size(); ++r) {
        const Route& route = routes[r];
        const std::size_t side = route.turns == Driver::pump_2 ? 1 : 0;
        const bool stopped = route.collects() && (steamed_[side] || blocked(side));
        if (route.turns == Driver::nothing) {
            f.route_w_k[r] = stopped ? 0.0 : network_.rate_w_k(r, natural_m3_s_ * faults_.flow_share[0]);
            continue;
        }
        const bool open = route.open(acting_.running), first = route.turns == Driver::pump;
        if (route.turns == Driver::circulation) {
            f.route_w_k[r] = on(route.pump) ? network_.rate_w_k(r, round_m3_s(route)) : 0.0;
            continue;
        }
        if (open && first && !on(0) && reverse_m3_s_ > 0)
            f.route_w_k[r] = -network_.rate_w_k(r, reverse_m3_s_);
        if (!open || !on(route.pump) || (first && acting_.shut) || (route.collects() && acting_.emptied) || stopped)
            continue;
        const std::size_t array = first ? 0 : 1;
        double flow = route.turns == Driver::exchanger_pump ? exchanger_flow_ : water_[array].full_flow;
        if (drains() && route.collects())
            flow = water_[array].state == Filling::running ? ring_flow(array) : 0.0;
        if (follows_sun())
            flow *= std::round(power_.speed(motors_ > 0) * faults_.low_share * speed_steps) / speed_steps;
        if (route.collects())
            flow *= faults_.flow_share[array];
        f.route_w_k[r] = network_.rate_w_k(r, flow);
    }
    for (std::size_t k = 0; trickles() && k < arrays(); ++k)
        if (const double round = network_.comes_round_m3_s(f, k), wet_at = (k == 0 ? loop_.collector : loop_.collector_2).wetted_at_m3_s; round > 0 && wet_at > 0)
            f.wet_share[k] = std::min(1.0, round / wet_at);
    return f;
}

} // namespace vernal
