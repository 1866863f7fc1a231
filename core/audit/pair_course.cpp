#include "pair_course.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

// These bounds and those below are estimates, set by runs whose settings are known (docs/audit.md).
constexpr double slope_s = 120; // before a switching, for the way it went: so long, four rows at least, twelve at most
constexpr double above_k = 1.5, clear_sigmas = 4;

} // namespace

PairCourse::PairCourse(const LogView& log, std::size_t output, std::size_t source, std::size_t store)
    : log_(log), output_(output), source_(source), store_(store), sigma_k_(std::hypot(log.scatter_k(source), log.scatter_k(store)))
{
}

double PairCourse::rounding_k() const { return std::max(log_.step_k(source_), log_.step_k(store_)); }

// Per row, over the last rows in one state, by least squares.
double PairCourse::slope(std::size_t last, const std::function<double(std::size_t)>& value) const
{
    double sx = 0, sy = 0, sxx = 0, sxy = 0;
    std::size_t n = 0;
    const auto most = static_cast<std::size_t>(std::clamp(std::ceil(slope_s / std::max(1.0, log_.usual_s())), 4.0, 12.0));
    for (std::size_t k = 0; k < most && k <= last; ++k) {
        const std::size_t row = last - k;
        const double y = value(row);
        if (!std::isfinite(y) || log_.output(output_, row) != log_.output(output_, last) || (k > 0 && log_.after_gap(row + 1)))
            break;
        const double x = -static_cast<double>(k);
        sx += x;
        sy += y;
        sxx += x * x;
        sxy += x * y;
        ++n;
    }
    const double m = static_cast<double>(n), d = m * sxx - sx * sx;
    return n < 2 || d <= 0 ? 0.0 : (m * sxy - sx * sy) / d;
}

Crossing PairCourse::crossing(std::size_t row, bool up, double sigma, double rounding_k, const std::function<double(std::size_t)>& value) const
{
    const double before = value(row - 1), after = value(row), way = slope(row - 1, value) * (up ? 1 : -1), moved = (after - before) * (up ? 1 : -1);
    const double seen = std::isfinite(moved) ? std::max(moved, 0.0) : 0.0;
    const double step = row >= 2 && log_.output(output_, row - 2) == log_.output(output_, row - 1) ? (before - value(row - 2)) * (up ? 1 : -1) : 0.0;
    // The course before it foretells how far it got. A fall goes on below a stop, where the
    // resting array would warm; a start may make the outlet jump, so that less of a rise counts.
    const double foretold = std::max(way, step > clear_sigmas * sigma ? step : 0.0), width = std::max({foretold, up ? std::min(seen, 3 * foretold) : seen, 0.0});
    Crossing c{before, width, sigma, rounding_k, row, 0};
    c.at = log_.reading(store_, row - 1);
    return c;
}

bool PairCourse::on_its_way(std::size_t row, bool on) const
{
    constexpr double window_s = 1200, clear_errors = 2, clear_step = 3;
    constexpr std::size_t most_rows = 40, least_rows = 4;
    const double way = on ? 1 : -1;
    if (way * (difference(row) - difference(row - 1)) > clear_step * sigma_k_)
        return true;
    double x = 0, y = 0, xx = 0, xy = 0, yy = 0, n = 0;
    for (std::size_t r = row; r-- > 0 && n < most_rows && log_.time_s(row - 1) - log_.time_s(r) <= std::max(window_s, least_rows * log_.usual_s());) {
        const double d = difference(r), t = -n;
        if (!std::isfinite(d) || log_.output(output_, r) != log_.output(output_, row - 1) || (r + 1 < row && log_.after_gap(r + 1)))
            break;
        ++n;
        x += t;
        y += d;
        xx += t * t;
        xy += t * d;
        yy += d * d;
    }
    if (n < least_rows)
        return true;
    const double sxx = xx - x * x / n, slope = (xy - x * y / n) / sxx;
    const double scatter = std::sqrt(std::max(0.0, yy - y * y / n - slope * slope * sxx) / (n - 2)), error = std::max(scatter, sigma_k_) / std::sqrt(sxx);
    return way * slope > clear_errors * error;
}

bool PairCourse::had_been_past(std::size_t row, bool on, double from_s) const
{
    constexpr double farther_k = 0.8, settled_s = 120, fresh_approach_k = 3;
    const double way = on ? 1 : -1, before = way * difference(row - 1);
    double farthest = -INFINITY;
    for (std::size_t r = row - 1; r > 1 && log_.time_s(r - 2) > from_s + settled_s && log_.output(output_, r - 2) == log_.output(output_, row - 1); --r) {
        const double here = way * two_rows(r - 1);
        if (on && here < before - fresh_approach_k) // what held it before may have let go meanwhile
            break;
        farthest = std::max(farthest, here);
    }
    return farthest > before + farther_k + clear_sigmas * sigma_k_;
}

bool PairCourse::held_after(std::size_t row, double on_k, double until_s) const
{
    for (std::size_t r = row + 2; r < log_.rows() && log_.output(output_, r) == 0 && !log_.after_gap(r); ++r)
        if (log_.time_s(r - 1) > until_s + log_.usual_s() && std::min(difference(r), difference(r - 1)) > on_k + above_k + clear_sigmas * sigma_k_)
            return true;
    return false;
}

bool PairCourse::held_above(std::size_t row, double on_k) const
{
    return row >= 3 && std::min(difference(row - 2), difference(row - 3)) > on_k + above_k + clear_sigmas * sigma_k_ && log_.output(output_, row - 3) == 0;
}

} // namespace vernal
