// How long a drain-back array takes to fill.
#pragma once

#include "core/plant/hydraulic_state.h"
#include "core/plant/hydraulics.h"

#include <algorithm>

namespace vernal {

// Water of the array and of the pipe in the open over the flow at the full lift,
// s. A pump that does not reach the top is taken at 1 mL/s: finite, and long.
inline double fill_time_s(const Loop& loop, double altitude_m)
{
    constexpr double least_m3_s = 1e-6;
    const Draining d = draining(loop, altitude_m);
    return (d.array_m3 + d.pipe_m3) / std::max(least_m3_s, flow_against(loop.pump, loop.drain_back.lift_m));
}

} // namespace vernal
