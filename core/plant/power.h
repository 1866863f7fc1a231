// What drives the loop pump: the mains, a panel, or a battery that a panel charges.
#pragma once

#include "panel.h"
#include "wiring.h"

#include <limits>

namespace vernal {

struct PowerFigures {
    int trips = 0;                                             // low-voltage cut-outs
    int start_trips = 0;                                       // of these by the dip of a starting motor
    double cut_s = 0;                                          // asked for and cut off
    double lowest_v = std::numeric_limits<double>::infinity(); // at the battery's terminals
    double charge = std::numeric_limits<double>::quiet_NaN();  // at the end, 0…1
};

// Rest voltage of a lead-acid battery, straight between empty and full.
double rest_voltage_v(const Battery& battery, double charge);

// What a centrifugal pump still moves when it turns backwards; an estimate.
inline constexpr double backwards_share = 0.3;

class Power {
public:
    enum class Source { mains,
        panel,
        battery };
    Power(const Loop& loop, Source source) : loop_(loop), source_(source), charge_(loop.battery.start_charge), line_ohm_(cable_ohm(loop.wiring)) {}

    // Sun on the panel and air of the minute that begins; `on`: the pump is asked for.
    void minute(double sun_w_m2, double air_c, bool on);
    void switched(bool on);
    // What the pump takes, as a share of what it takes at its set speed.
    void load(double share) { load_ = share; }
    void pass(double seconds, bool on);
    // 0: stands still; 1: as stated for the pump.
    double speed(bool on) const { return source_ == Source::mains || !on ? 1.0 : cut_ ? 0.0
                                                                                      : drive_.speed * (loop_.motor.swapped ? backwards_share : 1.0); }
    // What pump and cable take.
    double pump_power_w() const;
    bool changes_with_sun() const { return source_ != Source::mains; }
    double volt() const { return volt_; }     // V, at the motor on a panel, else at the battery's terminals
    double charge() const { return charge_; } // 0…1; without a battery as at the start
    bool cut() const { return cut_; }
    PowerFigures figures() const;
    void forget_figures() { figures_ = {}; }

private:
    void settle(bool on);
    void cut_off();
    const Loop& loop_;
    Source source_;
    double sun_w_m2_ = 0, air_c_ = 15, charge_, volt_ = 0, net_a_ = 0, line_ohm_, low_s_ = 0, load_ = 1;
    bool cut_ = false;
    Drive drive_;
    PowerFigures figures_;
};

} // namespace vernal
