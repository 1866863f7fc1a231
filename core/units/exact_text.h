// Numbers as files have them.
#pragma once

#include <string>

namespace vernal {

// Shortest text that reads back as the same number, with a point; empty where it is not finite.
std::string exact_text(double v);

} // namespace vernal
