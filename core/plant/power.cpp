#include "power.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

// Of the charge that flows in, what a lead-acid battery gives back (field
// manuals: 80 to 90 %, from memory).
constexpr double charged_share = 0.85;

} // namespace

double rest_voltage_v(const Battery& b, double charge) { return b.empty_v + (b.full_v - b.empty_v) * std::clamp(charge, 0.0, 1.0); }

void Power::minute(double sun_w_m2, double air_c, bool on)
{
    sun_w_m2_ = sun_w_m2;
    air_c_ = air_c;
    settle(on);
}

void Power::switched(bool on)
{
    if (!changes_with_sun())
        return;
    settle(on);
    // The motor stands still for a moment and draws all it can.
    if (source_ != Source::battery || !on || cut_ || loop_.battery.cut_delay_s >= spin_up_s || starting_dip_v(loop_, rest_voltage_v(loop_.battery, charge_)) >= loop_.battery.cut_v)
        return;
    cut_off();
    ++figures_.start_trips;
    settle(on);
}

void Power::cut_off()
{
    cut_ = true;
    ++figures_.trips;
}

double Power::pump_power_w() const
{
    if (source_ == Source::mains)
        return loop_.pump.power_w * std::pow(loop_.pump.speed, 3) * load_;
    return cut_ ? 0.0 : (drive_.volt + line_ohm_ * drive_.current_a) * drive_.current_a * load_;
}

// Terminal voltage, currents and the cut-out for the charge as it stands.
void Power::settle(bool on)
{
    const bool turning = on && drive_.speed > 0;
    if (source_ == Source::panel) {
        drive_ = drive(loop_.panel, loop_.motor, sun_w_m2_, air_c_, turning, line_ohm_);
        volt_ = drive_.volt;
        return;
    }
    const Battery& b = loop_.battery;
    const double rest = rest_voltage_v(b, charge_);
    const double panel_a = panel_current_a(loop_.panel, sun_w_m2_, cell_temperature_c(air_c_, sun_w_m2_), rest);
    const double other_a = b.other_load_w / rest;
    // Once round is enough: the drop over the battery's own resistance is small against its voltage.
    const auto at_terminals = [&](double pump_a) { return std::min(b.charge_limit_v, rest + (panel_a - other_a - pump_a) * b.resistance_ohm); };
    const double resting = at_terminals(0);
    if (cut_ && resting >= b.reconnect_v)
        cut_ = false;
    drive_ = on ? drive_at(loop_.motor, at_terminals(loop_.motor.current_a), turning, line_ohm_) : Drive{};
    volt_ = at_terminals(on && !cut_ ? drive_.current_a * load_ : 0);
    low_s_ = on && !cut_ && volt_ < b.cut_v ? low_s_ : 0.0;
    if (on && !cut_ && volt_ < b.cut_v && low_s_ >= b.cut_delay_s) {
        cut_off();
        volt_ = resting;
    }
    // At the limit the charge controller lets only so much through.
    net_a_ = (volt_ - rest) / b.resistance_ohm;
    figures_.lowest_v = std::min(figures_.lowest_v, volt_);
}

void Power::pass(double seconds, bool on)
{
    if (source_ != Source::battery)
        return;
    figures_.cut_s += on && cut_ ? seconds : 0.0;
    low_s_ += seconds;
    const double in = net_a_ > 0 ? net_a_ * charged_share : net_a_;
    charge_ = std::clamp(charge_ + in * seconds / (loop_.battery.capacity_ah * 3600.0), 0.0, 1.0);
    settle(on);
}

PowerFigures Power::figures() const
{
    PowerFigures f = figures_;
    if (source_ == Source::battery)
        f.charge = charge_;
    return f;
}

} // namespace vernal
