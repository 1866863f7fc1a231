// How fast a unit drives its pump, and by how much more for each kelvin.
#pragma once

#include "found.h"

namespace vernal {

struct SpeedRow {
    double share = 0, difference_k = 0; // of full speed, above 0
};

// Of the rows in which it ran, in their order. None: fewer than ten, or always at full speed.
std::optional<FoundSettings::Speeds> found_speeds(const std::vector<SpeedRow>& rows);

} // namespace vernal
