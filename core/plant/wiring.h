// Cable, breaker and the currents of a DC pump.
#pragma once

#include "loop.h"

namespace vernal {

// There and back, at 40 °C (copper +0.393 %/K).
double cable_ohm(const Wiring& wiring);

// What a cable bears without getting too hot, A: two loaded PVC-insulated copper
// wires on a wall, 15.0 S^0.625 with S in mm² (IEC 60364-5-52, annex D; from memory).
double cable_bears_a(double section_m2);

// Share of that left in air of another temperature than 30 °C: √((T − Ta)/(T − 30)), T what the
// insulation bears (the form behind IEC 60364-5-52, table B.52.14; from memory). 0: none is left.
double cable_derating(double around_c, double insulation_c = 70);

// Of a DC pump: at its working point, by its label, and held fast at this voltage.
struct MotorCurrents {
    double working_a = 0;
    double label_a = 0; // 0: not known
    double stalled_a = 0;
    double worst_a() const { return working_a > label_a ? working_a : label_a; }
};
// Of so many side by side, each with such a motor, behind one cable.
MotorCurrents motor_currents(const Loop& loop, std::size_t motors);
std::size_t dc_motors(const Loop& loop);              // that hang on panel or battery; 0: mains
std::size_t dc_motors_on_an_output(const Loop& loop); // of the unit, at most

// Terminal voltage of the resting battery while the motor has not yet turned, V.
double starting_dip_v(const Loop& loop, double rest_v, std::size_t motors = 1);
// About how long that lasts, s; an estimate.
inline constexpr double spin_up_s = 0.5;

// Largest standard rating that protects the weakest of unit and cable and still
// carries a quarter more than the working current, A; 0: there is none.
// around_c: the air at the cable's warmest place.
double breaker_for(const Loop& loop, double around_c = 30);

} // namespace vernal
