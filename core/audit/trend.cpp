#include "trend.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr double month_days = 30;
constexpr std::size_t least_of_a_side = 2;

// Student's t for a two-sided 95 %, by degrees of freedom (Abramowitz & Stegun 26.7.5, its first terms).
double student_95(double freedom)
{
    constexpr double z = 1.959964;
    const double f = std::max(1.0, freedom);
    if (f < 2)
        return 12.706;
    if (f < 3)
        return 4.303;
    return z + (z * z * z + z) / (4 * f) + (5 * std::pow(z, 5) + 16 * z * z * z + 3 * z) / (96 * f * f) + (3 * std::pow(z, 7) + 19 * std::pow(z, 5) + 17 * z * z * z - 15 * z) / (384 * f * f * f);
}

struct Line {
    double a = 0, b = 0, squares = 0; // left over
    double at(double x) const { return a + b * x; }
};
Line line_of(const std::vector<double>& x, const std::vector<double>& y)
{
    const auto n = static_cast<double>(x.size());
    double mx = 0, my = 0, xx = 0, xy = 0;
    for (std::size_t i = 0; i < x.size(); ++i) {
        mx += x[i] / n;
        my += y[i] / n;
    }
    for (std::size_t i = 0; i < x.size(); ++i) {
        xx += (x[i] - mx) * (x[i] - mx);
        xy += (x[i] - mx) * (y[i] - my);
    }
    Line l;
    l.b = xx > 0 ? xy / xx : 0;
    l.a = my - l.b * mx;
    for (std::size_t i = 0; i < x.size(); ++i)
        l.squares += std::pow(y[i] - l.at(x[i]), 2);
    return l;
}

// How alike neighbours are, 0…0.9: what is left over of them, corrected for so few (Kendall 1954: a
// short series shows too little of it).
double alike(const std::vector<double>& x, const std::vector<double>& y, const Line& l, double usual)
{
    double both = 0, own = 0;
    for (std::size_t i = 0; i < x.size(); ++i) {
        const double r = y[i] - l.at(x[i]);
        own += r * r;
        if (i > 0)
            both += r * (y[i - 1] - l.at(x[i - 1]));
    }
    if (own <= 0)
        return 0;
    const auto n = static_cast<double>(x.size());
    constexpr double worth = 14; // points that what is usual counts for (estimate)
    const double r = both / own, corrected = r + (1 + 4 * std::max(0.0, r)) / n;
    return std::clamp(std::max(corrected, (n * corrected + worth * usual) / (n + worth)), 0.0, 0.9);
}

// The step that leaves least over, where it leaves clearly less than the line.
std::optional<Trend::Step> step_of(const std::vector<double>& x, const std::vector<double>& y, const Line& line, double usual)
{
    constexpr double clearly = 0.55, sigmas = 4.5;
    double best = INFINITY;
    std::size_t at = 0;
    double before = 0, after = 0;
    for (std::size_t k = least_of_a_side; k + least_of_a_side <= x.size(); ++k) {
        double a = 0, b = 0, squares = 0;
        for (std::size_t i = 0; i < x.size(); ++i)
            (i < k ? a : b) += y[i];
        a /= static_cast<double>(k);
        b /= static_cast<double>(x.size() - k);
        for (std::size_t i = 0; i < x.size(); ++i)
            squares += std::pow(y[i] - (i < k ? a : b), 2);
        if (squares < best) {
            best = squares;
            at = k;
            before = a;
            after = b;
        }
    }
    const auto n = static_cast<double>(x.size());
    const double scatter = std::sqrt(best / std::max(1.0, n - 3)), error = scatter * std::sqrt(1 / static_cast<double>(at) + 1 / (n - static_cast<double>(at)));
    if (at == 0 || best > clearly * line.squares || std::fabs(after - before) < sigmas * error * std::sqrt((1 + alike(x, y, line, usual)) / (1 - alike(x, y, line, usual))))
        return {};
    return Trend::Step{static_cast<long>(std::lround(x[at])), before, after};
}

} // namespace

Trend trend_of(const std::vector<double>& x, const std::vector<double>& y, double usually_alike)
{
    Trend out;
    out.points = x.size();
    if (x.size() < least_trend_points)
        return out;
    const Line l = line_of(x, y);
    const auto n = static_cast<double>(x.size());
    double mean = 0, xx = 0;
    for (const double v : x)
        mean += v / n;
    for (const double v : x)
        xx += (v - mean) * (v - mean);
    const double r = alike(x, y, l, usually_alike), free = std::max(1.0, n * (1 - r) / (1 + r) - 2);
    const double error = std::sqrt(l.squares / (n - 2) / xx * (1 + r) / (1 - r)), half = student_95(free) * error;
    out.per_30_days = l.b * month_days;
    out.low = (l.b - half) * month_days;
    out.high = (l.b + half) * month_days;
    constexpr double beyond = 1.3; // of the half interval: so that, with steps, five in a hundred series of noise are claimed at most
    out.claimed = std::fabs(l.b) > beyond * half;
    out.step = step_of(x, y, l, usually_alike);
    return out;
}

} // namespace vernal
