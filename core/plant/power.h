// What drives the loop's pumps: the mains, a panel, or a battery that a panel charges; and
// whether what feeds the unit is there. Each further pump has a motor like the first's (an
// assumption) and hangs on the same cable.
#pragma once

#include "battery.h"
#include "panel.h"
#include "wiring.h"

#include <limits>

namespace vernal {

struct PowerFigures {
    int trips = 0;                                             // low-voltage cut-outs
    int start_trips = 0;                                       // of these by the dip of a starting motor
    double cut_s = 0;                                          // asked for and cut off
    double stalled_s = 0;                                      // asked for, not cut off, and it does not turn
    double lowest_v = std::numeric_limits<double>::infinity(); // at the battery's terminals
    double highest_v = -std::numeric_limits<double>::infinity();
    double charge = std::numeric_limits<double>::quiet_NaN(); // at the end, 0…1
    double put_in_j = 0, taken_j = 0;                         // at the battery's terminals
    double offered_j = 0, used_j = 0;                         // the most the panel could give, and what it gave
};

// What a centrifugal pump still moves when it turns backwards; an estimate.
inline constexpr double backwards_share = 0.3;

class Power {
public:
    enum class Source { mains,
        panel,
        battery };
    Power(const Loop& loop, Source source);

    // Sun on the panel and air of the minute that begins; `on`: the pump is asked for.
    void minute(double sun_w_m2, double air_c, bool on);
    void switched(bool on);
    // So many pumps are asked for; before switched().
    void motors(std::size_t running);
    // What the pump takes, as a share of what it takes at its set speed.
    void load(double share) { load_ = share; }
    void pass(double seconds, bool on);
    // 0: stands still; 1: as stated for the pump.
    double speed(bool on) const { return source_ == Source::mains || !on ? 1.0 : cut_ ? 0.0
                                                                                      : drive_.speed * (loop_.motor.swapped ? backwards_share : 1.0); }
    // What pumps and cable take.
    double pump_power_w() const;
    bool changes_with_sun() const { return source_ != Source::mains; }
    double volt() const { return volt_; }     // V, at the motor on a panel, else at the battery's terminals
    double charge() const { return charge_; } // 0…1; without a battery as at the start
    bool cut() const { return cut_; }
    // Of the battery now, A; positive: it is charged.
    double battery_a() const { return battery_a_; }
    // Whether what feeds the unit is there; mains: they are.
    bool feeds_unit(bool mains) const;
    PowerFigures figures() const;
    void forget_figures() { figures_ = {}; }
    void recharge();

private:
    struct Terminals {
        double volt = 0, battery_a = 0, panel_w = 0;
        Drive drive;
    };
    void settle(bool on);
    void cut_off();
    double panel_a(double volt) const;
    // With the pump on the terminals, or off them.
    Terminals at_terminals(const BatteryTerminals& battery, bool pump, bool turning) const;
    const Loop& loop_;
    Motor motor_; // of all that are asked for, side by side
    std::size_t motors_ = 1;
    Source source_;
    double sun_w_m2_ = 0, air_c_ = 15, charge_, volt_ = 0, battery_a_ = 0, panel_w_ = 0, most_w_ = 0, line_ohm_, low_s_ = 0, load_ = 1;
    bool cut_ = false;
    PanelCurve curve_;
    Drive drive_;
    PowerFigures figures_;
};

} // namespace vernal
