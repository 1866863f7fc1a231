// How a value went over days and weeks: its trend, or a step, and how sure that is.
#pragma once

#include <cstddef>
#include <optional>
#include <vector>

namespace vernal {

inline constexpr std::size_t least_trend_points = 5;

// With a 95 % interval that is widened by how alike neighbouring points are. Claimed only
// where 0 lies well outside of it.
struct Trend {
    double per_30_days = 0, low = 0, high = 0;
    std::size_t points = 0; // fewer than least_trend_points: nothing is told
    bool claimed = false;
    // A step that tells more than a straight line: before the point at this day it was other
    // than after. None: there is none.
    struct Step {
        long day = 0;
        double before = 0, after = 0;
    };
    std::optional<Step> step{};
};

// How alike neighbours are taken to be where a short series does not tell, 0…1 (estimates):
// weather and draws go on for weeks, from one night to the next the sky changes.
inline constexpr double alike_weeks = 0.5, alike_nights = 0.1;

// x: days, rising.
Trend trend_of(const std::vector<double>& x, const std::vector<double>& y, double usually_alike = alike_weeks);

} // namespace vernal
