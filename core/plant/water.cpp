#include "water.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace vernal {
namespace {

constexpr double never = std::numeric_limits<double>::infinity();
constexpr double gravity_m_s2 = 9.80665;
constexpr double boiling_c = 100.0;
constexpr double speed_steps = 64.0; // as finely as the flow follows the sun: factors are kept per flow
// Slower water runs down the wall and leaves the air in the pipe. About half a
// metre per second in small pipe (Froude number near 1); an estimate.
constexpr double siphon_froude = 1.0;
constexpr double reservoir_reserve = 1.25;
constexpr double hot_return_c = 80.0; // of a good day; estimate

// Saturation pressure, Pa: Wagner & Pruss, J. Phys. Chem. Ref. Data 22 (1993) 783
// (IAPWS supplementary release), coefficients from memory, checked against the steam table in the tests.
double saturation_pa(double t_c)
{
    constexpr double critical_k = 647.096, critical_pa = 22.064e6;
    const double k = std::clamp(t_c + 273.15, 273.16, 640.0), x = 1 - k / critical_k;
    const double sum = -7.85951783 * x + 1.84408259 * std::pow(x, 1.5) - 11.7866497 * std::pow(x, 3) + 22.6807411 * std::pow(x, 3.5) - 15.9618719 * std::pow(x, 4) + 1.80122502 * std::pow(x, 7.5);
    return critical_pa * std::exp(critical_k / k * sum);
}

// International standard atmosphere, troposphere.
double atmosphere_pa(double altitude_m) { return 101325.0 * std::pow(1 - 2.25577e-5 * altitude_m, 5.25588); }

} // namespace

double flow_against(const Pump& p, double lift_m)
{
    if (p.head_m <= 0 || p.free_flow_m3_s <= p.flow_m3_s)
        return p.flow_m3_s;
    if (lift_m >= p.head_m)
        return 0.0;
    const double own = p.head_m / (p.free_flow_m3_s * p.free_flow_m3_s);
    const double loop = p.head_m / (p.flow_m3_s * p.flow_m3_s) - own;
    return std::sqrt((p.head_m - lift_m) / (own + loop));
}

double siphon_height_m(double water_c, double altitude_m)
{
    // Density of water after Kell, J. Chem. Eng. Data 20 (1975) 97, as a parabola good to 0.1 % between 20 and 100 °C.
    const double density = 1001.1 - 0.0867 * water_c - 0.0034 * water_c * water_c;
    return std::max(0.0, (atmosphere_pa(altitude_m) - saturation_pa(water_c)) / (density * gravity_m_s2));
}

Draining draining(const Loop& l, double altitude_m)
{
    const auto outdoors = [](const Pipe& p) { return std::min(p.outdoor_m, p.length_m) * std::numbers::pi / 4 * p.bore_m * p.bore_m; };
    const double array = l.drain_back.content_m3, pipe = outdoors(l.supply) + outdoors(l.back);
    return {array, pipe, reservoir_reserve * (array + pipe), hot_return_c, siphon_height_m(hot_return_c, altitude_m)};
}

Water::Water(const Network& network, const Loop& loop, double altitude_m)
    : network_(network), loop_(loop), altitude_m_(altitude_m), lifted_flow_(flow_against(loop.pump, loop.drain_back.lift_m)),
      power_(loop, network.arrangement().has(Part::battery) ? Power::Source::battery : network.arrangement().has(Part::panel) ? Power::Source::panel : Power::Source::mains)
{
    if (drains())
        enter(Filling::empty, never);
}

void Water::enter(Filling state, double seconds)
{
    state_ = state;
    left_s_ = seconds;
}

void Water::weather(const Surroundings& s)
{
    if (follows_sun())
        power_.minute(s.sun_w_m2[static_cast<std::size_t>(SunPlane::panel)], s.air_c, pump_);
}

void Water::outputs(std::uint32_t running, const std::vector<double>& t)
{
    const bool on = (running & 1U) != 0;
    if (on == pump_)
        return;
    pump_ = on;
    power_.switched(on);
    if (!drains())
        return;
    siphon_ = false;
    since_full_s_ = 0;
    if (!on) // a half-filled array runs back sooner; the whole time is the safe side
        return enter(state_ == Filling::running ? Filling::draining : Filling::empty, state_ == Filling::running ? loop_.drain_back.drain_s : never);
    if (state_ == Filling::draining) // what is still up there is soon joined
        return enter(Filling::running, never);
    ++figures_.fills;
    figures_.steam_fills += t[network_.node_of(ProbePlace::collector)] > boiling_c ? 1 : 0;
    enter(Filling::filling, lifted_flow_ > 0 ? network_.draining_m3() / lifted_flow_ : never);
}

double Water::sweep_s() const
{
    const double section = std::numbers::pi / 4 * loop_.back.bore_m * loop_.back.bore_m;
    return lifted_flow_ > 0 ? loop_.back.length_m * section / lifted_flow_ : never;
}

double Water::until_change_s() const
{
    if (!drains())
        return never;
    const double sweep = sweep_s() - since_full_s_;
    return state_ == Filling::running && !siphon_ && sweep > 0 ? sweep : left_s_;
}

void Water::settle_siphon(const std::vector<double>& t)
{
    const double bore = loop_.back.bore_m, section = std::numbers::pi / 4 * bore * bore;
    const double flow = siphon_ ? loop_.pump.flow_m3_s : lifted_flow_;
    const bool fast = flow / section > siphon_froude * std::sqrt(gravity_m_s2 * bore);
    const bool swept = since_full_s_ >= sweep_s();
    const double top_c = t[network_.node_of(ProbePlace::collector)];
    siphon_ = loop_.drain_back.siphon && fast && (siphon_ || swept) && loop_.drain_back.lift_m < siphon_height_m(top_c, altitude_m_);
}

void Water::pass(double seconds, std::vector<double>& t)
{
    power_.pass(seconds, pump_);
    if (!drains())
        return;
    if (state_ == Filling::running) {
        since_full_s_ += seconds;
        settle_siphon(t);
        figures_.lifting_s += siphon_ ? 0.0 : seconds;
    }
    figures_.dry_run_s += pump_ && (lifted_flow_ <= 0) && state_ == Filling::filling ? seconds : 0.0;
    left_s_ -= seconds;
    if (left_s_ > 1e-9)
        return;
    if (state_ == Filling::filling) {
        network_.fill(t);
        return enter(Filling::running, never);
    }
    network_.drain(t);
    enter(Filling::empty, never);
}

Flows Water::flows(std::uint32_t running, double draw_w_k, double mains_c) const
{
    const auto on = [running](std::size_t output) { return (running >> output & 1U) != 0; };
    Flows f{{}, draw_w_k, mains_c, drained()};
    const auto& routes = network_.arrangement().routes;
    for (std::size_t r = 0; r < routes.size(); ++r) {
        if (!on(routes[r].pump) || (routes[r].valve >= 0 && on(static_cast<std::size_t>(routes[r].valve)) != routes[r].when))
            continue;
        double flow = (routes[r].pump == 0 ? loop_.pump : loop_.pump_2).flow_m3_s;
        if (drains())
            flow = state_ != Filling::running ? 0.0 : siphon_ ? flow : lifted_flow_;
        if (follows_sun())
            flow *= std::round(power_.speed(pump_) * speed_steps) / speed_steps;
        f.route_w_k[r] = network_.rate_w_k(r, flow);
    }
    return f;
}

} // namespace vernal
