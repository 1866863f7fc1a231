#include "exact_text.h"

#include <charconv>
#include <cmath>

namespace vernal {

std::string exact_text(double v)
{
    char b[40];
    return std::isfinite(v) ? std::string(b, std::to_chars(b, b + sizeof b, v == 0 ? 0.0 : v).ptr) : std::string();
}

} // namespace vernal
