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

} // namespace vernal
