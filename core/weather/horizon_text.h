// A horizon's line as a person types it: "-90 12, -30 25, 40 8", azimuth and height of each point.
#pragma once

#include "core/units/result.h"
#include "horizon.h"

namespace vernal {

std::string horizon_text(const std::vector<HorizonPoint>& line);

// Points are parted by comma, semicolon or line; azimuth and height by blanks or a colon; "−" and "°"
// are taken. Error: names the point and what is wrong with it.
Result<std::vector<HorizonPoint>> parse_horizon(const std::string& text);

} // namespace vernal
