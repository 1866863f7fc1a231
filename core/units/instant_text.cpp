#include "instant_text.h"

#include "quantity.h"

#include <cmath>

namespace vernal {

std::string instant_text(double seconds, bool first)
{
    constexpr double day_s = 86400.0;
    if (!(first || seconds >= day_s))
        return clock_text(seconds);
    return "day " + std::to_string(std::lround(std::floor(seconds / day_s)) + 1) + ", " + clock_text(seconds);
}

} // namespace vernal
