// What keeps a gate from turning, for Why not.
#pragma once

#include "engine.h"

namespace vernal {

// What keeps a gate from holding, or from ceasing to hold where it must end.
struct Unmet {
    bool must_end = false;
    Millis left_ms = not_since; // until it turns by itself; not_since: not by itself
    bool look_inside = false;   // its own expression is what is missing
};

} // namespace vernal
