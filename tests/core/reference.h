// The same equations integrated by SUNDIALS CVODE (BDF, dense Newton, root
// finding), hybrid: integrate between events, restart at weather and control
// events, roots locate a crossing, the unit acts at its next sample.
#pragma once

#include "core/run/coupled.h"

namespace vernal::reference {

struct Result {
    double heat_to_store_j = 0, run_time_s = 0;
    int starts = 0;
    std::vector<double> switches_s;
};

// One pass over setup.days, no spin-up. Fails the test on a solver error.
Result run(const CoupledSetup& setup);

} // namespace vernal::reference
