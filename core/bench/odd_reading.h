// Which reading is wrong? All that was read within one hour, balanced against each other.
#pragma once

#include "expect_now.h"

namespace vernal {

// What was read while the pump ran; what was not is left out. SI.
struct HourRead {
    std::optional<double> flow_m3_s;          // by bucket or meter
    std::optional<double> supply_c, return_c; // to and from the array, at its pipes
    std::optional<double> area_m2;            // as measured or told
    std::optional<double> sun_w_m2;           // on the array, by an instrument
    std::optional<double> volt, current_a;    // at the pump
    std::optional<double> gauge_pa;
};

struct OddReading {
    std::string name;          // "flow by bucket"
    double read = 0, fits = 0; // fits: what it would be to agree with all others; in SI as read. NaN: no one figure
    double sure = 0;           // 0…1, that this one and no other is wrong
};
struct Balance {
    bool enough = false; // there is something to balance
    bool agrees = true;  // within what each of them leaves open, 99 times of 100
    bool one = true;     // without the likeliest all others agree; false: more than one is wrong
    double chi2 = 0;
    int left = 0;                // how many more readings than unknowns
    std::vector<OddReading> odd; // most likely first; empty where all agree
};

// Weighted least squares of sun, flow, both temperatures and area over all that is read, stated or
// reckoned, with each left out in turn; sureness as if exactly one is wrong.
Balance balance(const Job& job, const Variant& v, const NowGiven& now, const HourRead& read);

} // namespace vernal
