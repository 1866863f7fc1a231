// Measured points of temperature and resistance, typed, pasted or from a file.
#pragma once

#include "core/probe/curve.h"

namespace vernal {

// More than anyone measures; a larger paste is a log, not a set of points.
inline constexpr std::size_t most_points = 10000;

// One point a line, temperature first: "0, 1000" with commas, semicolons, tabs
// or blanks between. A first line of words names columns and units and may turn
// their order round: "ohm; temp_f". Units may stand behind the numbers instead,
// "212 °F  1.3851 kΩ", then behind all of them. Without either, °C or °F as
// `fahrenheit` says, and ohms. Lines that begin with # are passed over.
// Errors name line and reason.
Result<std::vector<CurvePoint>> read_points(const std::string& text, const std::string& file_name, bool fahrenheit = false);

} // namespace vernal
