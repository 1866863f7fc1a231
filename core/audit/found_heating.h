// How an element, a heater or another output that warms a store is switched, from a log of
// the store and that output alone.
#pragma once

#include "log_view.h"
#include "threshold.h"

namespace vernal {

struct FoundHeating {
    std::size_t output = 0, probe = 0;
    std::optional<Estimate> on_c, off_c; // of the probe: falling, rising
    // Hours of the clock in which it was on, from–to; those closer than an hour are one. Of
    // days: in how many of them.
    struct Window {
        double from_h = 0, to_h = 0;
        std::size_t days = 0;
    };
    std::vector<Window> windows;
    double run_h_a_day = 0;
    // Longest time for which the coldest probe of the store in the log did not reach 60 °C, days;
    // the log itself may be too short to tell.
    double longest_below_60_days = 0;
    std::size_t coldest_probe = 0;
};

// Of every output that no difference rule drives, that is no pump or valve of the loop, and
// that the log has.
std::vector<FoundHeating> found_heating(const LogView& log, const Variant& v);

} // namespace vernal
