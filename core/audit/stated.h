// What the job says of its loop, as the audit compares a log with it.
#pragma once

#include "core/job/job.h"

namespace vernal {

// Two probes whose difference starts an output.
struct DifferencePair {
    std::size_t source = 0, store = 0; // probes
    double on_k = 0, off_k = 0;
};
// Of the rules in use, in their order.
std::vector<DifferencePair> difference_pairs(const Variant& v, std::size_t output);

// Heat that the loop pump's stated flow carries per kelvin, W/K, its fluid at 50 °C; 0: there
// is no pump, no flow is stated, or air runs there.
double stated_rate_w_k(const Variant& v);
// By how much that flow warms at 1000 W/m² without a loss, K; infinite without a rate.
double rise_at_full_sun_k(const Variant& v);

} // namespace vernal
