// Where a probe belongs, what goes wrong there, and the caution for the place.
#pragma once

#include "core/plant/loop.h"

#include <string>
#include <vector>

namespace vernal {

struct PlacingGuide {
    std::string where;
    std::string mistake;
    std::string caution;
};

// For a place in an arrangement; what is special about the loop is said first.
PlacingGuide placing_guide(const Arrangement& arrangement, ProbePlace place);

// Wiring, from the clamp to the unit, one sentence each.
const std::vector<const char*>& wiring_guide();

} // namespace vernal
