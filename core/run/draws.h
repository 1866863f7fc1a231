// Hot water drawn from the store.
#pragma once

#include <vector>

namespace vernal {

struct DayForcing;

struct Draw {
    double start_h = 7.0;
    double duration_s = 600.0;
    double flow_m3_s = 1e-4; // at the tap, tempered
    bool operator==(const Draw&) const = default;
    double begins_s() const { return start_h * 3600.0; }
    double ends_s() const { return begins_s() + duration_s; }
};

// Draw at an instant of the day: hot water heat capacity rate taken from the
// tank, W/K, through a tempering valve, and the rate of heat the draw needs, W.
struct DrawNow {
    double rate_w_k = 0, needed_w = 0;
};
DrawNow draw_at(const DayForcing& day, double time_of_day_s, double tank_top_c);

} // namespace vernal
