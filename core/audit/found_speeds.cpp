#include "found_speeds.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr double full = 0.99, normal_95 = 1.96;
constexpr std::size_t least_rows = 10, most_steps = 12;

// Speeds that rows stand at, rising, each with how often. Those within a hundredth are one.
std::vector<std::pair<double, std::size_t>> levels(std::vector<double> shares)
{
    constexpr double one_k = 0.01;
    std::sort(shares.begin(), shares.end());
    std::vector<std::pair<double, std::size_t>> out;
    for (const double s : shares)
        if (out.empty() || s - out.back().first > one_k)
            out.emplace_back(s, 1);
        else
            ++out.back().second;
    return out;
}

// Least squares; its uncertainty takes rows that follow each other for as many as they are worth.
std::optional<Estimate> per_k(const std::vector<SpeedRow>& rows, double least)
{
    std::vector<SpeedRow> between;
    for (const SpeedRow& r : rows)
        if (r.share < full && r.share > least + 0.01)
            between.push_back(r);
    if (between.size() <= least_rows)
        return {};
    const auto n = static_cast<double>(between.size());
    double x = 0, y = 0, xx = 0, xy = 0;
    for (const SpeedRow& r : between) {
        x += r.difference_k / n;
        y += r.share / n;
    }
    for (const SpeedRow& r : between) {
        xx += (r.difference_k - x) * (r.difference_k - x);
        xy += (r.difference_k - x) * (r.share - y);
    }
    if (xx <= 0)
        return {};
    const double slope = xy / xx;
    double own = 0, both = 0, last = 0;
    for (std::size_t i = 0; i < between.size(); ++i) {
        const double left = between[i].share - y - slope * (between[i].difference_k - x);
        own += left * left;
        both += i > 0 ? left * last : 0;
        last = left;
    }
    const double alike = own > 0 ? std::clamp(both / own, 0.0, 0.99) : 0.0;
    const double half = normal_95 * std::sqrt(own / (n - 2) / xx * (1 + alike) / (1 - alike));
    return Estimate{slope, slope - half, slope + half, between.size()};
}

} // namespace

std::optional<FoundSettings::Speeds> found_speeds(const std::vector<SpeedRow>& rows)
{
    std::vector<double> shares;
    for (const SpeedRow& r : rows)
        shares.push_back(r.share);
    if (rows.size() < least_rows)
        return {};
    const auto at = levels(shares);
    const double least = at.front().first;
    if (least > full)
        return {};
    double step = 1; // the smallest move tells how finely it is written
    for (std::size_t i = 1; i < at.size(); ++i)
        step = std::min(step, at[i].first - at[i - 1].first);
    const double half = at.size() > most_steps ? step / 2 : 0.005;
    FoundSettings::Speeds out{{least, least - half, least + half, at.front().second}, per_k(rows, least), {}};
    if (at.size() <= most_steps) {
        out.per_k.reset(); // a staircase has no slope of its own
        for (const auto& [share, often] : at)
            out.steps.push_back(share);
    }
    return out;
}

} // namespace vernal
