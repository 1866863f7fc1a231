#include "rig.h"

#include "bench_pair.h"

#include "core/plant/panel.h"
#include "core/setup/job_setup.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace vernal {
namespace {

// Estimates, all of them: what a hand is like, how fast a cup cools, and how many times slower
// than in stirred water a probe follows in other media.
constexpr double hand_c = 33, cup_cools_s = 1500, air_times = 8, hand_times = 3, block_times = 1.5;
constexpr double wet_ohm = 20e3;         // between the wires of a lead with water in it
constexpr double stuck_pump_times = 1.6; // of its rated power, while it hums

double times_slower(Medium m)
{
    switch (m) {
    case Medium::air: return air_times;
    case Medium::hand: return hand_times;
    case Medium::block: return block_times;
    default: return 1;
    }
}

} // namespace

Result<Rig> Rig::make(const Job& job, const Variant& v, const Day& day, double hour, const OnSite& on_site)
{
    Variant unit = v;
    for (Output& o : unit.unit.outputs)
        o.bypass = false; // here it is a wire past the unit, to be opened by hand
    auto setup = coupled_setup(job, unit, day);
    if (!setup)
        return setup.error();
    Rig rig(unit, std::move(*setup));
    for (std::size_t o = 0; o < rig.outputs(); ++o)
        rig.set_bypass(o, v.unit.outputs[o].bypass);
    for (const Fault& f : day.faults)
        if (f.kind == FaultKind::pump_dead)
            rig.dead_.push_back(f.of);
    rig.job_ = std::make_shared<const Job>(job);
    rig.day_ = day;
    rig.on_site_ = on_site;
    rig.simulation_->spin_up();
    rig.simulation_->advance(std::clamp(hour, 0.0, 23.0) * 3600);
    for (std::size_t p = 0; p < rig.probes(); ++p)
        rig.wires_[p].tip_c = rig.simulation_->tip_c(p);
    return rig;
}

Rig::Rig(const Variant& v, CoupledSetup setup)
    : variant_(v), simulation_(std::move(setup)), wires_(v.probes.size())
{
    sample_s_ = static_cast<double>(simulation_->setup().program.sample_ms) / 1000;
}

void Rig::advance(double seconds)
{
    const double until = since_s_ + seconds, began = simulation_->now_s() - since_s_;
    while (until - since_s_ > sample_s_ / 2) {
        const bool moving = supply_v_s_ > 0 || panel_sun_ || std::any_of(wires_.begin(), wires_.end(), [](const Wire& w) { return w.medium != Medium::loop; });
        const double dt = moving ? sample_s_ : until - since_s_;
        warm(dt);
        simulation_->set_hands(hands_);
        simulation_->advance(began + since_s_ + dt);
        since_s_ = simulation_->now_s() - began;
    }
}

// Media, and the tips in them.
void Rig::warm(double dt)
{
    cup_c_ = air_c_ + (cup_c_ - air_c_) * std::exp(-dt / cup_cools_s);
    const double way = block_to_c_ - block_c_;
    block_c_ = block_k_s_ <= 0 || std::fabs(way) <= block_k_s_ * dt ? block_to_c_ : block_c_ + std::copysign(block_k_s_ * dt, way);
    if (panel_sun_)
        hands_.supply_v = panel_v(*panel_sun_);
    if (supply_v_s_ > 0 && hands_.supply_v) {
        const double to_go = supply_to_v_ - *hands_.supply_v;
        hands_.supply_v = std::fabs(to_go) <= supply_v_s_ * dt ? supply_to_v_ : *hands_.supply_v + std::copysign(supply_v_s_ * dt, to_go);
        supply_v_s_ = *hands_.supply_v == supply_to_v_ ? 0 : supply_v_s_;
    }
    for (std::size_t p = 0; p < wires_.size(); ++p) {
        Wire& w = wires_[p];
        if (w.medium == Medium::loop || !reads_temperature(variant_.probes[p])) {
            w.tip_c = simulation_->tip_c(p);
            hands_.tip_c[p].reset();
            continue;
        }
        if (w.medium == Medium::resistor) {
            if (const double c = temperature_beyond(variant_.probes[p].curve, w.ohm); std::isfinite(c))
                w.tip_c = c;
        } else {
            const double lag_s = std::max(1.0, variant_.probes[p].lag_s) * times_slower(w.medium), to = medium_c(w.medium);
            w.tip_c = to + (w.tip_c - to) * std::exp(-dt / lag_s);
        }
        hands_.tip_c[p] = w.tip_c;
    }
}

void Rig::put(std::size_t probe, Medium medium)
{
    wires_[probe].tip_c = tip_c(probe);
    wires_[probe].medium = medium;
}

void Rig::put_resistor(std::size_t probe, double ohm)
{
    wires_[probe].medium = Medium::resistor;
    wires_[probe].ohm = ohm;
}

void Rig::put_diode(std::size_t probe, double volt)
{
    constexpr double usual_a = 1e-3;
    const InputStage& stage = variant_.input;
    const double left_v = stage.supply_v - volt;
    put_resistor(probe, stage.kind == StageKind::pull_up && left_v > 0 ? volt * stage.pull_up_ohm / left_v : volt / usual_a);
}

void Rig::set_lead(std::size_t probe, LeadState state)
{
    wires_[probe].lead = state;
    rewire();
}

void Rig::open_contact(std::size_t probe, bool open)
{
    wires_[probe].contact_open = open;
    rewire();
}

void Rig::shade(std::size_t probe, bool on)
{
    wires_[probe].shaded = on;
    rewire();
}

// The inputs as they are with these leads, by the same chain as everywhere.
void Rig::rewire()
{
    if (std::all_of(wires_.begin(), wires_.end(), [](const Wire& w) { return w.lead == LeadState::sound && !w.contact_open && !w.shaded; })) {
        hands_.sensors = nullptr;
        return;
    }
    Variant with = variant_;
    for (std::size_t p = 0; p < wires_.size(); ++p) {
        if (Condition& c = with.probes[p].condition; wires_[p].shaded && c.kind == ConditionKind::in_sun)
            c.kind = ConditionKind::sound;
        switch (wires_[p].contact_open ? LeadState::broken : wires_[p].lead) {
        case LeadState::sound: break;
        case LeadState::broken: with.probes[p].condition.kind = ConditionKind::open; break;
        case LeadState::shorted: with.probes[p].condition.kind = ConditionKind::shorted; break;
        case LeadState::wet: with.probes[p].lead.leak_ohm = wet_ohm; break;
        }
    }
    hands_.sensors = std::make_shared<const Sensors>(sensors(with));
}

void Rig::set_block(double c, double k_per_min)
{
    block_to_c_ = c;
    block_k_s_ = k_per_min / 60;
    if (k_per_min <= 0)
        block_c_ = c;
}

void Rig::set_supply(std::optional<double> volt, double v_per_min)
{
    panel_sun_.reset();
    supply_v_s_ = volt ? v_per_min / 60 : 0;
    supply_to_v_ = volt.value_or(0);
    hands_.supply_v = v_per_min > 0 && volt ? hands_.supply_v.value_or(supply_v()) : volt;
}

void Rig::set_panel_sun(std::optional<double> w_m2)
{
    set_supply({});
    panel_sun_ = w_m2;
}

bool Rig::has_panel() const { return arrangement_of(variant_.loop).answers.power == PoweredBy::panel; }

// At the panel's terminals, with the pump on them where it is asked for.
double Rig::panel_v(double sun_w_m2) const
{
    const Loop& l = variant_.loop;
    const std::size_t pump = driven_by(Driver::pump);
    if (pump < outputs() && live(pump))
        return drive(l.panel, l.motor, sun_w_m2, air_c_, true).volt;
    return PanelCurve(l.panel, sun_w_m2, cell_temperature_c(air_c_, sun_w_m2)).open_v();
}

Result<std::monostate> Rig::set_rules(const RuleSet& unit)
{
    Variant with = variant_;
    with.unit = unit;
    auto setup = coupled_setup(*job_, with, day_);
    if (!setup)
        return setup.error();
    variant_ = std::move(with);
    simulation_->set_program(std::make_shared<const Program>(std::move(setup->program)));
    return std::monostate{};
}

void Rig::turn_knob(double mark)
{
    Variant with = variant_;
    LinkedDifference* rule = knob_rule(with);
    if (!rule || rule->mark == mark)
        return;
    rule->mark = mark;
    set_rules(with.unit);
}

void Rig::set_powered(bool on) { hands_.powered = on; }
void Rig::set_mode(std::size_t output, Mode mode) { simulation_->set_mode(output, mode); }

void Rig::set_bypass(std::size_t output, bool on)
{
    const std::uint32_t bit = 1U << output;
    hands_.bypassed = on ? hands_.bypassed | bit : hands_.bypassed & ~bit;
}

void Rig::all_automatic()
{
    for (std::size_t o = 0; o < outputs(); ++o)
        set_mode(o, Mode::automatic);
    hands_.bypassed = 0;
}

double Rig::medium_c(Medium m) const
{
    switch (m) {
    case Medium::air: return air_c_;
    case Medium::hand: return hand_c;
    case Medium::ice_water: return 0;
    case Medium::cup: return cup_c_;
    case Medium::block: return block_c_;
    case Medium::loop:
    case Medium::resistor: break;
    }
    return std::numeric_limits<double>::quiet_NaN();
}

double Rig::tip_c(std::size_t probe) const { return wires_[probe].medium == Medium::loop ? simulation_->tip_c(probe) : wires_[probe].tip_c; }

double Rig::signal(std::size_t probe) const
{
    const Wire& w = wires_[probe];
    if (w.lead == LeadState::broken || w.contact_open)
        return std::numeric_limits<double>::infinity();
    if (w.lead == LeadState::shorted)
        return 0;
    Variant with = variant_;
    if (w.lead == LeadState::wet)
        with.probes[probe].lead.leak_ohm = wet_ohm;
    return ReadingChain(chain_of(with, probe), ReadingChain::For::look).terminal_signal(tip_c(probe));
}

bool Rig::live(std::size_t output) const
{
    const bool dead_pump = std::find(dead_.begin(), dead_.end(), variant_.unit.outputs[output].key) != dead_.end();
    return dead_pump ? decision(output).on || bypassed(output) : turns(output);
}

double Rig::rated_w(std::size_t output) const
{
    const double share = asked_speed(output);
    double rated = 0;
    for (const auto& [driver, pump] : {std::pair(Driver::pump, &variant_.loop.pump), std::pair(Driver::pump_2, &variant_.loop.pump_2), std::pair(Driver::exchanger_pump, &variant_.loop.exchanger_pump)})
        rated += driven_by(driver) == output ? pump->power_w : 0;
    return rated * share * share * share;
}

double Rig::watt(std::size_t output) const
{
    return !live(output) ? 0 : turns(output) ? rated_w(output)
                                             : stuck_pump_times * rated_w(output);
}

} // namespace vernal
