#pragma once

#include <string>

namespace vernal {

// An instant of a run by its clock, seconds after the first midnight: "14:05", from the second day on
// "day 2, 14:05". NaN: a dash. first: the first day is named too.
std::string instant_text(double seconds, bool first = false);

} // namespace vernal
