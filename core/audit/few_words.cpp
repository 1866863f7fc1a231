#include "few_words.h"

#include <algorithm>
#include <cmath>
#include <cstdio>

namespace vernal {

std::string number_text(double x, const char* unit)
{
    char b[48];
    std::snprintf(b, sizeof b, "%.1f %s", x, unit);
    return b;
}

std::string hours_text(double seconds)
{
    char b[32];
    seconds < 7200 ? std::snprintf(b, sizeof b, "%.0f min", seconds / 60) : std::snprintf(b, sizeof b, "%.1f h", seconds / 3600);
    return b;
}

double median_of(std::vector<double> v)
{
    v.erase(std::remove_if(v.begin(), v.end(), [](double x) { return !std::isfinite(x); }), v.end());
    if (v.empty())
        return NAN;
    std::sort(v.begin(), v.end());
    return v.size() % 2 == 1 ? v[v.size() / 2] : (v[v.size() / 2 - 1] + v[v.size() / 2]) / 2;
}

} // namespace vernal
