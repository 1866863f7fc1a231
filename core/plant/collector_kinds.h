// What a collector of each kind is like where nobody has its test report.
#pragma once

#include "answers.h"
#include "part_values.h"

namespace vernal {

// Of this kind and area, lying as collectors usually do; every number is a beginning, to be
// edited. area_m2: of all collectors together. Where its values come from: collector_origin().
Collector collector_of(Array kind, double area_m2);
const char* collector_origin(Array kind);

// The wind from which a report of ISO 9806:2017 counts, m/s (from memory).
inline constexpr double report_wind_m_s = 3;

// Nothing stands between its absorber and the wind.
inline bool uncovered(Array kind) { return kind == Array::unglazed || kind == Array::hose; }

} // namespace vernal
