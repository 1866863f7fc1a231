#include "power.h"

#include "core/units/root.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr double tracking_yield = 0.95;   // of a charge controller that keeps the panel at its most power; an estimate
constexpr double panel_wakes_w_m2 = 30.0; // of sun on it, for a unit that it feeds; an estimate
constexpr double unit_lives_above = 0.7;  // of a full battery's rest voltage; an estimate
constexpr double most_above_limit = 1.5;  // of the charge limit: where a controller that feeds through ends up at most
constexpr double usual_change_v = 0.02;   // from step to step: where its voltage is looked for first

} // namespace

Power::Power(const Loop& loop, Source source) : loop_(loop), motor_(loop.motor), source_(source), charge_(loop.battery.start_charge), line_ohm_(cable_ohm(loop.wiring))
{
    settle(false); // in the dark, before anybody has looked
    figures_ = {};
}

void Power::minute(double sun_w_m2, double air_c, bool on)
{
    sun_w_m2_ = sun_w_m2;
    air_c_ = air_c;
    if (source_ != Source::mains) {
        curve_ = PanelCurve(loop_.panel, sun_w_m2, cell_temperature_c(air_c, sun_w_m2));
        most_w_ = curve_.power_w();
    }
    settle(on);
}

void Power::motors(std::size_t running)
{
    motors_ = std::max<std::size_t>(1, running);
    const auto n = static_cast<double>(motors_);
    motor_ = loop_.motor;
    motor_.current_a *= n;
    motor_.start_a *= n;
    motor_.resistance_ohm /= n;
}

void Power::switched(bool on)
{
    if (!changes_with_sun())
        return;
    settle(on);
    // The motor stands still for a moment and draws all it can.
    if (source_ != Source::battery || !on || cut_ || loop_.battery.cut_delay_s >= spin_up_s || starting_dip_v(loop_, rest_voltage_v(loop_.battery, charge_), motors_) >= loop_.battery.cut_v)
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

bool Power::feeds_unit(bool mains) const
{
    const bool sun = sun_w_m2_ >= panel_wakes_w_m2, battery = source_ == Source::battery && volt_ >= unit_lives_above * loop_.battery.full_v;
    switch (source_ == Source::mains ? UnitFeed::mains : loop_.wiring.unit_feed) {
    case UnitFeed::mains: return mains;
    case UnitFeed::panel: return sun;
    case UnitFeed::battery: return battery;
    case UnitFeed::load_output: return battery && !cut_;
    case UnitFeed::panel_and_mains: return sun || mains;
    }
    return mains;
}

double Power::panel_a(double volt) const
{
    const Battery& b = loop_.battery;
    if (b.fault == ControllerFault::no_charge)
        return 0;
    return b.charging == Charging::tracking ? tracking_yield * most_w_ / std::max(volt, 1.0) : curve_.current_a(volt);
}

// Where what comes and goes meets what the battery makes of it: all falls with the
// voltage, so there is one such place.
Power::Terminals Power::at_terminals(const BatteryTerminals& battery, bool pump, bool turning) const
{
    const Battery& b = loop_.battery;
    // The unit and what else hangs on it, as a resistance: it takes less when the voltage collapses.
    const double other_s = b.other_load_w / (b.full_v * b.full_v);
    Terminals out;
    const auto taken_a = [&](double volt) {
        out.drive = pump ? drive_at(motor_, volt, turning, line_ohm_) : Drive{};
        return other_s * volt + out.drive.current_a * load_;
    };
    const double limit = b.fault == ControllerFault::feeds_through ? most_above_limit * b.charge_limit_v : b.charge_limit_v;
    out.volt = falling_zero_near(volt_, usual_change_v, 0.0, limit, [&](double volt) { return battery.volt(panel_a(volt) - taken_a(volt)) - volt; });
    const double taken = taken_a(out.volt), offered = panel_a(out.volt);
    // At the limit the controller lets only so much through as the battery then takes.
    out.battery_a = out.volt < limit ? offered - taken : std::min(offered - taken, battery.current_a(limit, 0, std::max(0.0, offered - taken)));
    out.battery_a = battery.possible_a(out.volt, out.battery_a);
    out.panel_w = out.volt * (out.battery_a + taken);
    return out;
}

// Terminal voltage, currents and the cut-out for the charge as it stands.
void Power::settle(bool on)
{
    if (source_ == Source::mains)
        return;
    const bool turning = on && drive_.speed > 0;
    if (source_ == Source::panel) {
        drive_ = drive(loop_.panel, motor_, sun_w_m2_, air_c_, turning, line_ohm_);
        volt_ = drive_.volt;
        panel_w_ = on ? (drive_.volt + line_ohm_ * drive_.current_a) * drive_.current_a : 0.0;
        return;
    }
    const Battery& b = loop_.battery;
    const BatteryTerminals battery(b, charge_, loop_.tank.room_c);
    if (cut_ && at_terminals(battery, false, false).volt >= b.reconnect_v)
        cut_ = false;
    Terminals now = at_terminals(battery, on && !cut_, turning);
    const bool low = on && !cut_ && now.volt < b.cut_v;
    low_s_ = low ? low_s_ : 0.0;
    if (low && low_s_ >= b.cut_delay_s) {
        cut_off();
        now = at_terminals(battery, false, false);
    }
    drive_ = now.drive;
    volt_ = now.volt;
    battery_a_ = now.battery_a;
    panel_w_ = now.panel_w;
    figures_.lowest_v = std::min(figures_.lowest_v, volt_);
    figures_.highest_v = std::max(figures_.highest_v, volt_);
}

void Power::pass(double seconds, bool on)
{
    if (source_ == Source::mains)
        return;
    figures_.offered_j += most_w_ * seconds;
    figures_.used_j += panel_w_ * seconds;
    figures_.stalled_s += on && !cut_ && drive_.speed <= 0 ? seconds : 0.0;
    if (source_ != Source::battery)
        return;
    figures_.cut_s += on && cut_ ? seconds : 0.0;
    (battery_a_ > 0 ? figures_.put_in_j : figures_.taken_j) += std::fabs(battery_a_) * volt_ * seconds;
    low_s_ += seconds;
    const double in = battery_a_ > 0 ? battery_a_ * charged_share(loop_.battery, charge_, battery_a_) : battery_a_;
    charge_ = std::clamp(charge_ + in * seconds / (loop_.battery.capacity_ah * 3600.0), 0.0, 1.0);
    settle(on);
}

void Power::recharge()
{
    charge_ = loop_.battery.start_charge;
    cut_ = false;
    low_s_ = 0;
    settle(false);
}

PowerFigures Power::figures() const
{
    PowerFigures f = figures_;
    if (source_ == Source::battery)
        f.charge = charge_;
    return f;
}

} // namespace vernal
