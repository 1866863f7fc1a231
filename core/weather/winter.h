// How cold a place gets, where nobody has its records.
#pragma once

#include "sun.h"

namespace vernal {

// Coldest air of a usual winter, °C, by latitude and altitude alone: a first guess, wide of the mark by
// the sea. Estimate.
double coldest_winter_c(const Place& place);

} // namespace vernal
