#include "winter.h"

#include <algorithm>
#include <cmath>

namespace vernal {

double coldest_winter_c(const Place& place)
{
    constexpr double mild_c = 10, from_deg = 25, per_deg = 0.85, per_m = 0.005; // estimates
    return mild_c - per_deg * std::max(0.0, std::fabs(place.latitude_deg) - from_deg) - per_m * std::max(0.0, place.altitude_m);
}

} // namespace vernal
