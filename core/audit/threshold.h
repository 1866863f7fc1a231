// A switching point's setting from the rows between which something switched.
#pragma once

#include <cstddef>
#include <optional>
#include <vector>

namespace vernal {

// What rose (or fell) through a setting between two rows of a log.
struct Crossing {
    double before = 0;   // at the last row before it switched
    double width = 0;    // how far it moved from there to the next row, towards the setting; ≥ 0
    double sigma = 0;    // of `before`: noise and rounding, standard deviation
    double rounding = 0; // of the readings it is a difference of, K: what does not average away
    std::size_t row = 0;
    double at = 0; // of what else it may go with, such as the store's temperature
};

struct Estimate {
    double value = 0, low = 0, high = 0; // median and the 95 % interval
    std::size_t points = 0;              // crossings it rests on
};

// rising: it switches on the way up. A crossing stands anywhere between the two rows with the
// same chance; with noise this gives the chance of each setting, taken together by Bayes
// with a flat prior, an unknown share of the crossings being another rule's. None: no crossing.
std::optional<Estimate> setting_from(const std::vector<Crossing>& crossings, bool rising);

// How the setting goes with `at`: slope per unit and its 95 % interval, by least squares
// without what lies far off. None: fewer than eight crossings, or all at one place.
std::optional<Estimate> slope_from(const std::vector<Crossing>& crossings, bool rising);

} // namespace vernal
