#include "threshold.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace vernal {
namespace {

constexpr std::size_t most_crossings = 150, grid_points = 400;
constexpr double held_range_k = 40; // within which what is held back may lie
constexpr std::array held_shares{0.01, 0.05, 0.15, 0.35, 0.6};
constexpr std::array width_factors{0.5, 0.71, 1.0, 1.41, 2.0}; // the course between two rows is only guessed at
constexpr double least_sigma = 0.01;
constexpr double course_k = 0.015, course_share = 0.07, course_per_k = 0.06, rounding_share = 0.2, rounding_width_k = 1; // set by runs whose settings are known, see docs/audit.md

double normal_below(double x) { return 0.5 * std::erfc(-x / 1.4142135623730951); }

// Of `before`, given the setting, on the way up: evenly within `width` below it, blurred.
double chance(const Crossing& c, double setting, double width_factor = 1)
{
    const double s = std::max(c.sigma, least_sigma), w = std::max(c.width * width_factor, 1e-3);
    return (normal_below((setting - c.before) / s) - normal_below((setting - w - c.before) / s)) / w;
}

std::vector<Crossing> some_of(const std::vector<Crossing>& all, bool rising)
{
    std::vector<Crossing> out;
    const std::size_t every = std::max<std::size_t>(1, (all.size() + most_crossings - 1) / most_crossings);
    for (std::size_t i = 0; i < all.size(); i += every) {
        out.push_back(all[i]);
        if (!rising)
            out.back().before = -out.back().before;
    }
    return out;
}

struct Posterior {
    std::vector<double> at, mass; // mass sums to 1
    double quantile(double share) const
    {
        double sum = 0;
        for (std::size_t i = 0; i < at.size(); ++i) {
            if (sum + mass[i] >= share)
                return at[i] + (at.size() > 1 ? (at[1] - at[0]) * ((share - sum) / std::max(1e-300, mass[i]) - 0.5) : 0.0);
            sum += mass[i];
        }
        return at.back();
    }
};

Posterior posterior_of(const std::vector<Crossing>& some, double low, double high)
{
    Posterior out;
    std::vector<double> log_mass;
    for (std::size_t i = 0; i < grid_points; ++i) {
        const double setting = low + (high - low) * static_cast<double>(i) / (grid_points - 1);
        std::array<double, held_shares.size() * width_factors.size()> sum{};
        for (const Crossing& c : some)
            for (std::size_t w = 0; w < width_factors.size(); ++w) {
                const double f = chance(c, setting, width_factors[w]);
                for (std::size_t k = 0; k < held_shares.size(); ++k)
                    sum[w * held_shares.size() + k] += std::log((1 - held_shares[k]) * f + held_shares[k] / held_range_k);
            }
        const double top = *std::max_element(sum.begin(), sum.end());
        double all = 0;
        for (const double x : sum)
            all += std::exp(x - top);
        out.at.push_back(setting);
        log_mass.push_back(top + std::log(all));
    }
    const double top = *std::max_element(log_mass.begin(), log_mass.end());
    double sum = 0;
    for (const double l : log_mass)
        out.mass.push_back(std::exp(l - top));
    for (const double m : out.mass)
        sum += m;
    for (double& m : out.mass)
        m /= sum;
    return out;
}

} // namespace

std::optional<Estimate> setting_from(const std::vector<Crossing>& crossings, bool rising)
{
    if (crossings.empty())
        return {};
    const std::vector<Crossing> some = some_of(crossings, rising);
    double low = INFINITY, high = -INFINITY;
    for (const Crossing& c : some) {
        low = std::min(low, c.before - 6 * c.sigma - 0.2);
        high = std::max(high, c.before + c.width + 6 * c.sigma + 0.2);
    }
    Posterior p = posterior_of(some, low, high);
    for (int finer = 0; finer < 2; ++finer) { // where the mass is
        const double from = p.quantile(0.0002), to = p.quantile(0.9998), more = 0.15 * (to - from) + 0.02;
        if (to - from > 0.5 * (p.at.back() - p.at.front()))
            break;
        p = posterior_of(some, from - more, to + more);
    }
    Estimate out{p.quantile(0.5), p.quantile(0.025), p.quantile(0.975), 0};
    for (const Crossing& c : some)
        out.points += chance(c, out.value) * held_range_k > 0.5;
    out.points = out.points * crossings.size() / some.size();
    // What the picture of an even course leaves out does not average away.
    std::vector<double> widths;
    for (const Crossing& c : some)
        widths.push_back(c.width);
    std::nth_element(widths.begin(), widths.begin() + static_cast<std::ptrdiff_t>(widths.size() / 2), widths.end());
    const double width = widths[widths.size() / 2], left_out = std::hypot(course_k + (course_share + course_per_k * width) * width, rounding_share * some.front().rounding * (1 + width / rounding_width_k));
    out.low = out.value - std::hypot(out.value - out.low, left_out);
    out.high = out.value + std::hypot(out.high - out.value, left_out);
    if (!rising) {
        out.value = -out.value;
        std::swap(out.low, out.high);
        out.low = -out.low;
        out.high = -out.high;
    }
    return out;
}

std::optional<Estimate> slope_from(const std::vector<Crossing>& crossings, bool rising)
{
    constexpr std::size_t least_points = 8;
    constexpr double least_spread = 4, far_sigmas = 4;
    struct Point {
        double x, y, weight;
    };
    std::vector<Point> points;
    for (const Crossing& c : crossings)
        if (std::isfinite(c.at))
            points.push_back({c.at, c.before + (rising ? 0.5 : -0.5) * c.width, 1 / (c.width * c.width / 12 + c.sigma * c.sigma + 1e-4)});
    double a = 0, b = 0, var = 0;
    for (int pass = 0; pass < 4; ++pass) {
        if (points.size() < least_points)
            return {};
        double w = 0, x = 0, y = 0;
        for (const Point& p : points) {
            w += p.weight;
            x += p.weight * p.x;
            y += p.weight * p.y;
        }
        x /= w;
        y /= w;
        double xx = 0, xy = 0, ss = 0;
        for (const Point& p : points) {
            xx += p.weight * (p.x - x) * (p.x - x);
            xy += p.weight * (p.x - x) * (p.y - y);
        }
        if (xx / w < least_spread * least_spread / 4)
            return {};
        b = xy / xx;
        a = y - b * x;
        for (const Point& p : points)
            ss += p.weight * std::pow(p.y - a - b * p.x, 2);
        const double scatter = std::max(1.0, ss / static_cast<double>(points.size() - 2));
        var = scatter / xx;
        const std::size_t before = points.size();
        points.erase(std::remove_if(points.begin(), points.end(), [&](const Point& p) { return std::fabs(p.y - a - b * p.x) * std::sqrt(p.weight / scatter) > far_sigmas; }), points.end());
        if (points.size() == before)
            break;
    }
    constexpr double normal_95 = 1.96;
    const double half = normal_95 * std::sqrt(var) * (1 + 2.0 / static_cast<double>(points.size() - 2));
    return Estimate{b, b - half, b + half, points.size()};
}

} // namespace vernal
