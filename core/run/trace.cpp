#include "trace.h"

#include <algorithm>

namespace vernal {

double Trace::interval_s() const
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

} // namespace vernal
