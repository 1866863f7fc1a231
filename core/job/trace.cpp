#include "trace.h"

#include "core/rules/engine.h"

#include <chrono>

#include <algorithm>

namespace vernal {

double usual_spacing_s(const std::vector<double>& time_s)
{
    std::vector<double> gaps;
    for (std::size_t i = 1; i < time_s.size(); ++i)
        gaps.push_back(time_s[i] - time_s[i - 1]);
    if (gaps.empty())
        return 0;
    const auto mid = gaps.begin() + static_cast<std::ptrdiff_t>(gaps.size() / 2);
    std::nth_element(gaps.begin(), mid, gaps.end());
    return *mid;
}

double Trace::clock_s() const
{
    if (!has_date())
        return 0;
    const auto two = [&](std::size_t at) { return (start[at] - '0') * 10 + (start[at + 1] - '0'); };
    return two(11) * 3600.0 + two(14) * 60.0 + two(17);
}

std::int32_t Trace::date() const
{
    if (!has_date())
        return no_date;
    const auto two = [&](std::size_t at) { return static_cast<unsigned>((start[at] - '0') * 10 + (start[at + 1] - '0')); };
    const std::chrono::sys_days day{std::chrono::year{static_cast<int>(two(0) * 100 + two(2))} / std::chrono::month{two(5)} / std::chrono::day{two(8)}};
    return static_cast<std::int32_t>(day.time_since_epoch().count());
}

} // namespace vernal
