// Numbers and medians as the audit's sentences need them.
#pragma once

#include <string>
#include <vector>

namespace vernal {

std::string number_text(double x, const char* unit); // "8.1 K"
std::string hours_text(double seconds);              // "64 min", "3.4 h"

// Of the finite ones; NaN: there is none.
double median_of(std::vector<double> values);

} // namespace vernal
