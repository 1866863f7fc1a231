#include "monotone.h"

#include "core/units/root.h"

#include <algorithm>
#include <cmath>

namespace vernal {

MonotoneCubic::MonotoneCubic(std::vector<double> x, std::vector<double> y) : x_(std::move(x)), y_(std::move(y)), slope_(x_.size(), 0.0)
{
    const std::size_t n = x_.size();
    std::vector<double> chord(n - 1);
    for (std::size_t i = 0; i + 1 < n; ++i)
        chord[i] = (y_[i + 1] - y_[i]) / (x_[i + 1] - x_[i]);
    slope_.front() = chord.front();
    slope_.back() = chord.back();
    for (std::size_t i = 1; i + 1 < n; ++i)
        slope_[i] = chord[i - 1] * chord[i] > 0 ? 0.5 * (chord[i - 1] + chord[i]) : 0.0;
    for (std::size_t i = 0; i + 1 < n; ++i) {
        if (chord[i] == 0) {
            slope_[i] = slope_[i + 1] = 0;
            continue;
        }
        const double a = slope_[i] / chord[i], b = slope_[i + 1] / chord[i];
        const double r = std::hypot(a, b);
        if (r > 3) {
            slope_[i] = 3 * a / r * chord[i];
            slope_[i + 1] = 3 * b / r * chord[i];
        }
    }
}

double MonotoneCubic::at(double x) const
{
    if (x <= x_.front())
        return y_.front();
    if (x >= x_.back())
        return y_.back();
    const auto it = std::upper_bound(x_.begin(), x_.end(), x);
    const std::size_t i = static_cast<std::size_t>(it - x_.begin()) - 1;
    const double h = x_[i + 1] - x_[i], s = (x - x_[i]) / h;
    const double h00 = (1 + 2 * s) * (1 - s) * (1 - s), h10 = s * (1 - s) * (1 - s);
    const double h01 = s * s * (3 - 2 * s), h11 = s * s * (s - 1);
    return h00 * y_[i] + h10 * h * slope_[i] + h01 * y_[i + 1] + h11 * h * slope_[i + 1];
}

std::optional<double> MonotoneCubic::find(double y) const
{
    const bool rising = y_.back() > y_.front();
    if (y < std::min(y_.front(), y_.back()) || y > std::max(y_.front(), y_.back()))
        return std::nullopt;
    const auto beyond = [&](double v) { return rising ? v >= y : v <= y; };
    std::size_t i = 1; // the stretch that ends at or beyond y
    while (i + 1 < y_.size() && !beyond(y_[i]))
        ++i;
    return falling_zero(x_[i - 1], x_[i], [&](double x) { return rising ? y - at(x) : at(x) - y; });
}

} // namespace vernal
