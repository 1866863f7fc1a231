// Hot water drawn from the store.
#pragma once

#include "core/job/draw.h"

#include <vector>

namespace vernal {

struct DayForcing;

// Draw at an instant of the day: hot water heat capacity rate taken from the
// tank, W/K, through a tempering valve, and the rate of heat the draw needs, W.
struct DrawNow {
    double rate_w_k = 0, needed_w = 0;
};
DrawNow draw_at(const DayForcing& day, double time_of_day_s, double tank_top_c);

} // namespace vernal
