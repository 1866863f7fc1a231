#include "simulation.h"

#include "core/units/constants.h"

#include <algorithm>
#include <cmath>
#include <utility>

namespace vernal {
namespace {

constexpr double mixed_anew_s = 15.0;  // a small heater cools fast while it is drawn from: what the tempering valve mixes in changes with it
constexpr double gauge_every_s = 60.0; // where a rule reads the pressure, which stands while a step lasts
// Of a step's error tolerance: what a part may be bent. It moves the instant of a
// switch, which shall be right within one sample.
constexpr double part_share = 0.02;

} // namespace

Simulation::Model::Model(CoupledSetup s) : setup(std::move(s)), network(setup.loop, setup.probes, setup.fine, setup.altitude_m)
{
    for (std::size_t i = 0; i < setup.program.outputs; ++i)
        if (setup.drives[i] == Drives::element)
            element_output = static_cast<int>(i);
}

Simulation::Simulation(CoupledSetup s)
    : model_(std::make_shared<const Model>(std::move(s))), integrator_(network(), resting_share), hydraulics_(network(), setup().loop, setup().altitude_m), pressure_(network(), setup().loop, setup().altitude_m),
      readings_(setup().sensors, program().probes, setup().resolution_k), steps_(setup()), sample_s_(static_cast<double>(program().sample_ms) / 1000.0), day_(setup().days.front())
{
    temps_ = setup().start_c.size() == network().size() ? setup().start_c : network().start(setup().start_tank_c, day_->air_c.front());
    if (hydraulics_.follows_sun()) // a rule for low voltage sees the true one at once
        hydraulics_.weather(surroundings_at(*day_, 0));
    gauge_bar_ = pressure_.pa() / inside_per_reading(Reads::pressure);
    for (std::size_t i = 0; i < program().probes; ++i)
        gauged_ = gauged_ || ((program().used >> i & 1U) != 0 && readings_.reads(i) == Reads::pressure);
    state_ = power_up(program());
    inputs_.modes = setup().modes;
    inputs_.away = setup().away;
    unit_powered() ? decide() : stand_still();
    act();
    begin_day(0);
}

double Simulation::length_s() const { return day_s * static_cast<double>(setup().days.size()); }

float Simulation::pressure_pa() const { return pressure_.present() ? static_cast<float>(pressure_.pa()) : NAN; }

void Simulation::begin_day(std::size_t day)
{
    day_index_ = day;
    day_ = !counting_ && setup().before ? setup().before : setup().days[std::min(day, setup().days.size() - 1)];
    time_of_day_s_ = 0;
    steps_.begin_day(*day_);
}

// The first day once more, with what does not settle in a day as it is stated.
void Simulation::begin_again()
{
    begin_day(0);
    day_start_s_ = 0;
    hydraulics_.recharge();
    const Arrangement& a = network().arrangement();
    take_readings();
    if (a.has(Part::pool) || a.has(Part::slab)) {
        // The unit has not seen the warmer store of the repeat: its latches begin with the store.
        network().set_stores(temps_, setup().start_tank_c);
        take_readings();
        state_ = power_up(program());
        unit_powered() ? decide() : stand_still();
        act();
    }
}

void Simulation::spin_up(std::stop_token stop)
{
    constexpr double settled_k = 0.1;
    for (int i = 0; i < setup().spin_up_days && !stop.stop_requested(); ++i) {
        const double before = network().store_mean_c(temps_);
        advance(day_s, stop);
        begin_again();
        if (setup().draws_before && std::fabs(network().store_mean_c(temps_) - before) < settled_k)
            break;
    }
    counting_ = true;
    if (setup().before)
        begin_day(0);
    hydraulics_.forget_figures();
    if (pressure_.present())
        pressure_.refill();
    if (plan()) {
        follow_faults();
        act();
    }
    tell([this](Listener& l) { l.day_began(*this); });
}

bool Simulation::advance(double until_s, std::stop_token stop)
{
    while (until_s - now_s() > 0.5 * sample_s_) {
        if (stop.stop_requested())
            return false;
        if (time_of_day_s_ >= day_s - 0.5 * sample_s_) {
            day_start_s_ += day_s;
            begin_day(day_index_ + 1);
            tell([this](Listener& l) { l.day_began(*this); });
        }
        const auto k = static_cast<std::int64_t>(std::llround(time_of_day_s_ / sample_s_));
        const double end = std::min(day_s, until_s - day_start_s_);
        one_step(k, std::max<std::int64_t>(1, std::llround(end / sample_s_) - k));
    }
    return true;
}

// One accepted step from sample k; returns its length in samples.
std::int64_t Simulation::one_step(std::int64_t k, std::int64_t left)
{
    const double t = static_cast<double>(k) * sample_s_;
    const Surroundings a = surroundings_at(*day_, t);
    if (hydraulics_.follows_sun())
        hydraulics_.weather(surroundings_at(*day_, 60.0 * std::floor(t / 60.0 + 1e-9)));
    const DrawNow draw = network().has_tank() && (counting_ || setup().draws_before) ? draw_at(*day_, t, temps_[network().delivers()]) : DrawNow{};
    Flows flows = hydraulics_.flows(draw.rate_w_k, day_->mains_c);
    flows.element_w = element_w_at(t);
    flows.heater_w = heater_w_at(t, draw.rate_w_k > 0);
    comes_round_l_min_ = network().comes_round_m3_s(flows) / inside_per_reading(Reads::flow);
    gauge_bar_ = pressure_.pa() / inside_per_reading(Reads::pressure);
    flows.wind_m_s = network().windy() ? day_->wind_m_s : 0;
    std::int64_t n = std::exchange(touched_, false) ? 1 : std::min(steps_.allowed(t, next_change_s(t)), left), tried = n;
    for (;;) {
        tried = n;
        const double h = static_cast<double>(n) * sample_s_;
        if (n == 1 && h > steps_.longest_piece_s() * 1.001) {
            walk_one_sample(t, flows);
            break;
        }
        const Integrator::Trial& trial = integrator_.attempt(temps_, flows, a, surroundings_at(*day_, t + h), h);
        const bool resting = running_ == 0;
        if (n > 1 && !steps_.fixed() && trial.error_k > steps_.error_tolerance_k(resting)) {
            ++rejected_;
            n = steps_.shorter(n, trial.error_k, resting);
            continue;
        }
        const std::int64_t good = quiet_samples(n, h);
        if (good == n) {
            take(trial);
            steps_.accepted(n, trial.error_k, resting);
            break;
        }
        // What comes before something could switch is in the attempt already.
        const double error_k = trial.error_k * std::pow(static_cast<double>(good) / static_cast<double>(n), 3);
        if (take_part(good, n)) {
            n = good;
            steps_.accepted(n, error_k, resting);
            break;
        }
        ++rejected_;
        n = good;
    }
    finish_step(k, n, tried, draw);
    return n;
}

double Simulation::element_w_at(double t) const
{
    if (!day_->powered(t))
        return 0;
    if (model_->element_output < 0)
        return element_w(setup().loop, t);
    return (running_ >> model_->element_output & 1U) != 0 ? setup().loop.element.power_w : 0.0;
}

double Simulation::heater_w_at(double t, bool drawn) const
{
    const Heater& h = setup().loop.heater;
    const bool stands = h.way == HeaterWay::tank_only || (h.kind == HeaterKind::through_flow && !drawn && !circulates()) || (h.energy == HeaterEnergy::electric && !day_->powered(t));
    return stands || !network().arrangement().has(Part::heater) ? 0.0 : h.power_w;
}

bool Simulation::circulates() const
{
    const int output = network().arrangement().output_of(Driver::circulation);
    return output >= 0 && (running_ >> output & 1U) != 0;
}

// Of the water by itself, of a pump on a panel with every minute of sun, and of a pressure that a rule reads.
double Simulation::next_change_s(double t) const
{
    const bool mixed = network().arrangement().has(Part::heater) && draw_at(*day_, t, 0).rate_w_k > 0;
    const double by_itself = t + std::min({hydraulics_.until_change_s(), mixed ? mixed_anew_s : INFINITY, gauged_ ? gauge_every_s : INFINITY});
    const double fault = plan() ? plan()->next_change_s(day_start_s_ + t) - day_start_s_ : INFINITY;
    const bool by_sun = hydraulics_.follows_sun() && (running_ != 0 || plane_at(*day_, t) > 0);
    return std::min(fault, by_sun ? std::min(by_itself, 60.0 * (std::floor(t / 60.0 + 1e-9) + 1)) : by_itself);
}

// In how many of the n samples tried nothing can switch; at least 1.
std::int64_t Simulation::quiet_samples(std::int64_t n, double h)
{
    if (n == 1)
        return n;
    integrator_.close();
    if (quiet(n, n, h))
        return n;
    std::int64_t m = 1, noisy = n; // the last that is quiet, the first that is not
    while (noisy - m > 1) {
        const std::int64_t middle = (m + noisy) / 2;
        (quiet(middle, n, h) ? m : noisy) = middle;
    }
    return m;
}

// Whether nothing can switch in the first m of n samples: the readings keep within
// what the attempt's own cubic comes to there.
bool Simulation::quiet(std::int64_t m, std::int64_t n, double h)
{
    constexpr double rounding_k = 1e-9;
    const double x = static_cast<double>(m) / static_cast<double>(n);
    Readings::Tips low{}, high{};
    const double sun_0 = sun_on_probes(time_of_day_s_), sun_1 = sun_on_probes(time_of_day_s_ + x * h);
    for (std::size_t i = 0; i < program().probes; ++i) {
        const Integrator::Span s = integrator_.span(network().probe_node(i), x);
        // The end differs by what is wrong only, which goes one way over a step.
        const auto at = [&](double temp_c, double sun, double share) { return seen_by(i, temp_c, sun, time_of_day_s_ + share * x * h); };
        low[i] = at(s.low, std::min(sun_0, sun_1), 0) - rounding_k;
        high[i] = at(s.high, std::max(sun_0, sun_1), 0) + rounding_k;
        if (plan()) {
            low[i] = std::min(low[i], at(s.low, std::min(sun_0, sun_1), 1) - rounding_k);
            high[i] = std::max(high[i], at(s.high, std::max(sun_0, sun_1), 1) + rounding_k);
        }
    }
    const bool steady = readings_.bound(low, high, std::min(sun_0, sun_1), std::max(sun_0, sun_1), bounds_);
    bounds_.low[supply_channel] = bounds_.high[supply_channel] = inputs_.readings[supply_channel].mk;
    return dead_ || (steady && safe_skip(program(), state_, inputs_, bounds_) >= m);
}

// A sample longer than a step may be: equal pieces, nobody looks in between.
void Simulation::walk_one_sample(double t, const Flows& flows)
{
    const int pieces = static_cast<int>(std::ceil(sample_s_ / steps_.longest_piece_s() - 1e-9));
    const double h = sample_s_ / pieces;
    for (int i = 0; i < pieces; ++i)
        take(integrator_.attempt(temps_, flows, surroundings_at(*day_, t + i * h), surroundings_at(*day_, t + (i + 1) * h), h));
    steps_.begin_anew(2.0);
}

void Simulation::take(const Integrator::Trial& trial)
{
    if (counting_ && !listeners_.all.empty()) {
        const HeatFlows q = integrator_.heat();
        tell([&](Listener& l) { l.heat(*this, q); });
    }
    previous_.swap(temps_);
    temps_ = *trial.next;
}

// The first m of the n samples tried, from the attempt's own cubic; false: it is
// bent too much for that, or reads otherwise than the skip was asked for.
bool Simulation::take_part(std::int64_t m, std::int64_t n)
{
    const Integrator::Part& part = integrator_.part(static_cast<double>(m) / static_cast<double>(n));
    if (part.error_k > part_share * steps_.error_tolerance_k(running_ == 0))
        return false;
    if (counting_ && !listeners_.all.empty()) {
        const HeatFlows q = integrator_.heat_of_part();
        tell([&](Listener& l) { l.heat(*this, q); });
    }
    previous_.swap(temps_);
    temps_ = *part.temps;
    return true;
}

void Simulation::finish_step(std::int64_t k, std::int64_t n, std::int64_t tried, const DrawNow& draw)
{
    const double h = static_cast<double>(n) * sample_s_;
    time_of_day_s_ = static_cast<double>(k + n) * sample_s_;
    tell([&](Listener& l) { l.passed(*this, h, draw); });
    rows_inside(k, n, tried);
    hydraulics_.pass(h, temps_);
    pressure_.pass(temps_, h);
    if (plan())
        follow_faults();
    const bool steam = hydraulics_.steamed(0) || hydraulics_.steamed(1);
    hydraulics_.steam(pressure_.steamed());
    const std::uint32_t before = running_;
    const Acting acted = acting_;
    unit_powered() ? decide(program().walks() || dead_ ? 1 : n) : stand_still();
    const HydraulicState::Stands stood = hydraulics_.stands();
    act();
    const bool switched = before != running_ || !(acted == acting_);
    if (switched || !(stood == water_before_) || steam != (hydraulics_.steamed(0) || hydraulics_.steamed(1)))
        steps_.begin_anew(1.0);
    water_before_ = hydraulics_.stands();
    tell([&](Listener& l) { l.decided(*this, switched); });
    tell_row();
}

void Simulation::tell_row()
{
    tell([&](Listener& l) {
        if (l.wants_rows())
            l.row({now_s(), inputs_, decisions_, surroundings_at(*day_, time_of_day_s_).air_c, plane_at(*day_, time_of_day_s_), pressure_pa(), faults(program(), state_)});
    });
}

// Samples inside a step of n: on the cubic of the attempt of `tried`, which keeps
// within the bounds under which nothing can switch. They are walked where someone
// wants them, and where the unit's state hangs on each. Without power the unit decides nothing,
// and a row of each sample says so.
void Simulation::rows_inside(std::int64_t k, std::int64_t n, std::int64_t tried)
{
    const bool walks = program().walks(), wanted = counting_ && std::any_of(listeners_.all.begin(), listeners_.all.end(), [](const Listener*l) { return l->wants_rows(); });
    if (n < 2 || !(wanted || (walks && !dead_)))
        return;
    Inputs in = inputs_;
    in.pressed = 0;
    EngineState copy = state_;
    EngineState& s = walks ? state_ : copy;
    for (std::int64_t i = 1; i < n; ++i) {
        const double x = static_cast<double>(i) / static_cast<double>(tried), now = static_cast<double>(k + i) * sample_s_;
        Readings::Tips tips{};
        const double sun = sun_on_probes(now);
        for (std::size_t p = 0; p < program().probes; ++p)
            tips[p] = seen_by(p, integrator_.inside(network().probe_node(p), x), sun, now);
        readings_.read(tips, sun, in);
        set_clock(in, now);
        const Decisions d = dead_ ? Decisions{} : step(program(), in, s);
        tell([&](Listener& l) {
            if (l.wants_rows())
                l.row({day_start_s_ + now, in, d, surroundings_at(*day_, now).air_c, plane_at(*day_, now), pressure_pa(), faults(program(), s)});
        });
    }
}

} // namespace vernal
