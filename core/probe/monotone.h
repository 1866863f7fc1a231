// Monotone cubic interpolation (Fritsch & Carlson, SIAM J. Numer. Anal. 17 (1980) 238).
#pragma once

#include <optional>
#include <vector>

namespace vernal {

class MonotoneCubic {
public:
    // x strictly rising, same length as y, at least two.
    MonotoneCubic(std::vector<double> x, std::vector<double> y);
    // Value inside the points' span; held at the ends outside it.
    double at(double x) const;
    // The x at which the curve has this y; nothing where y is outside the span.
    // y strictly monotone.
    std::optional<double> find(double y) const;

private:
    std::vector<double> x_, y_, slope_;
};

} // namespace vernal
