// Plain numbers that many rooms need.
#pragma once

#include <numbers>

namespace vernal {

inline constexpr double day_s = 86400.0; // of a day, s
inline constexpr double hour_s = 3600.0;
inline constexpr double degree_rad = std::numbers::pi / 180.0; // an angle of 1°
inline constexpr double zero_c_k = 273.15;                     // 0 °C, K

} // namespace vernal
