// A PV panel by its label and a DC pump straight on it: the speed follows the sun.
#pragma once

#include "loop.h"

namespace vernal {

// Current of a panel over its voltage, in a sun and at a cell's temperature, from the four
// points of its label and its temperature coefficients: I = Isc (1 − C1 (exp(V/(C2 Voc)) − 1))
// with C1 and C2 such that the curve goes through (Vmp, Imp) and (Voc, 0); Isc in proportion
// to the sun, both shifted by the cell's temperature. A label that cannot be gives nothing.
class PanelCurve {
public:
    PanelCurve() = default; // in the dark
    PanelCurve(const Panel& panel, double sun_w_m2, double cell_c);
    double current_a(double volt) const; // 0 beyond the open circuit
    double power_w() const;              // the most it gives
    double open_v() const;               // above it there is no current

private:
    double isc_a_ = 0, c1_ = 1, scale_v_ = 1; // scale_v: C2 Voc
};
double panel_current_a(const Panel& panel, double sun_w_m2, double cell_c, double volt);

// Open-circuit voltage at a cell temperature in full sun: on a cold bright
// morning the highest that a unit must bear.
double panel_open_v(const Panel& panel, double cell_c);

// Of a panel in free air: air + 0.031 K m²/W × sun (NOCT about 45 °C, IEC 61215).
double cell_temperature_c(double air_c, double sun_w_m2);

// Where panel and pump meet.
struct Drive {
    double speed = 0; // 1: at the motor's stated voltage and current
    double volt = 0, current_a = 0;
};
// On a voltage that holds, and on a panel. turning: it takes less to keep a motor
// turning than to start it; below that, 0.
// line_ohm: of the cable before it; volt is at the motor.
Drive drive_at(const Motor& motor, double volt_v, bool turning, double line_ohm = 0);
Drive drive(const Panel& panel, const Motor& motor, double sun_w_m2, double air_c, bool turning, double line_ohm = 0);

// The most that the panel gives, W.
double panel_power_w(const Panel& panel, double sun_w_m2, double cell_c);

} // namespace vernal
