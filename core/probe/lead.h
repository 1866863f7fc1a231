// The wires between a probe and its unit, and what gets into them.
#pragma once

#include "core/units/copper.h"
#include "curve.h"

namespace vernal {

struct Lead {
    double length_m = 0;        // one way, 0…2000; 0: none, or not stated
    double section_m2 = 0.5e-6; // of one conductor
    Strands strands = Strands::drawn;
    bool three_wire = false; // the unit measures the third wire and takes it off
    double temp_c = 20;      // of the copper
    double leak_ohm = 0;     // between the wires, by moisture; 0: dry
    double cable_c = 0;      // highest temperature the cable bears; 0: not stated
    bool operator==(const Lead&) const = default;
};

// Conductors are equal within this share of one: what a three-wire lead leaves (estimate).
inline constexpr double three_wire_left = 0.01;

// Ohms in series with the probe: there and back, or nothing with three wires.
double lead_ohm(const Lead& lead);

// What the unit's terminals see of a probe of this resistance.
double seen_ohm(const Lead& lead, double probe_ohm);

// Reading less true temperature, K: of lead and moisture together. NaN where
// the curve gives none. Signals in mA or V are not touched by a lead.
double lead_error_k(const ProbeCurve& curve, const Lead& lead, double temp_c);

// Longest two-wire lead, one way, m, that keeps the error at this temperature
// within ±wanted_k. wanted_k > 0. Infinite for three wires and straight signals.
double longest_lead_m(const ProbeCurve& curve, const Lead& lead, double temp_c, double wanted_k);

} // namespace vernal
