// What a day's sun could have given: the heat that a plain perfect controller gets from the
// same loop on the same day.
#pragma once

#include "job_setup.h"

#include <stop_token>

namespace vernal {

struct PossibleHeat {
    double to_store_j = NAN;      // NaN: the loop has no pump that collects, or it was told to stop
    std::vector<double> by_day_j; // J, of each of the setup's days
    double full_s = 0;            // for how long every store stood at its limit while the sun could have given more
};

// Pumps run while the fluid that leaves the collector is warmer than the store it goes to, and
// stop at the stores' limits (0.3 K of hysteresis, so that a full store takes what it loses). No
// other rule of the collecting outputs counts: no cut-out, minimum times, freeze or dump. The
// other outputs (element, tap circulation, drain-down valve) keep theirs. Of two stores the
// first is loaded while it takes heat, then the second. Switches each two minutes, reads the true temperatures.
// as_run: the setup of the run it is compared with; begins_c: every node when that run's first
// counted day began.
PossibleHeat possible_heat(const Variant& v, const CoupledSetup& as_run, const std::vector<double>& begins_c, std::stop_token stop = {});

// The run, with what was possible among its figures.
CoupledResult run_with_possible(const Variant& v, const CoupledSetup& setup, const CoupledOptions& options = {});

} // namespace vernal
