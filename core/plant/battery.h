// A lead-acid battery at its terminals: Copetti, Lorenzo & Chenlo, Progress in
// Photovoltaics 1 (1993) 283 (constants from memory), normalised to its capacity and laid
// around the rest voltages that are stated for it.
#pragma once

#include "loop.h"

namespace vernal {

// At rest, straight between empty and full. charge 0…1.
double rest_voltage_v(const Battery& battery, double charge);

// Energy that stands in it, J: the integral of the rest voltage over the charge, from empty.
double stored_j(const Battery& battery, double charge);

// Of the current that flows in, the share that becomes charge; the rest makes gas. current_a > 0.
double charged_share(const Battery& battery, double charge, double current_a);

// Terminal voltage for a charge and a temperature; current in A, positive while it is
// charged. It rises with the current and has no jump at none. Never below 0: an empty
// battery gives way under any load.
class BatteryTerminals {
public:
    BatteryTerminals(const Battery& battery, double charge, double battery_c);
    double volt(double current_a) const;
    // What goes in or out at this voltage: nothing into it below its rest voltage, nothing out of an empty one.
    double possible_a(double volt, double current_a) const;
    // Where it stands at this voltage, A, between the two currents.
    double current_a(double volt, double low_a, double high_a) const;

private:
    const Battery& b_;
    double charge_, rest_v_, cells_, jump_v_, charging_v_, discharging_v_, charging_share_, discharging_share_;
};

} // namespace vernal
