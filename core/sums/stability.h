// Whether a start undoes itself at once: the published quasi-steady criterion.
#pragma once

#include "core/job/job.h"

namespace vernal {

// ΔT_on / ΔT_off ≥ ε (ṁ c_p)_min / (A F_R U_L), Duffie & Beckman, Solar
// Engineering of Thermal Processes, section on collector controls. F_R U_L of the
// loop's flow from the collector's a1 = F′ U_L:
//   A F_R U_L = ṁ c_p (1 − exp(−A a1 / (ṁ c_p))).
// It ignores the cold slug in the pipes: information beside what a simulation finds.
struct StartStop {
    double gained_w_k = 0; // ε (ṁ c_p)_min
    double lost_w_k = 0;   // A F_R U_L
    double ratio() const { return gained_w_k / lost_w_k; }
    // In the form that is defined at off = 0.
    bool stays(double on_k, double off_k) const { return off_k * gained_w_k <= on_k * lost_w_k; }
};
StartStop start_stop(const Loop& loop);

// "Duffie & Beckman's criterion asks for 20 : 1 here; this pair has 2 : 1 …"
std::string stability_text(const Loop& loop, double on_k, double off_k);

} // namespace vernal
