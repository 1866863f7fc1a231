#include "measured.h"

#include <algorithm>
#include <cmath>

namespace vernal {

double interpolated(const std::vector<double>& x, const std::vector<double>& y, double at)
{
    const auto it = std::upper_bound(x.begin(), x.end(), at);
    if (it == x.begin())
        return y.front();
    if (it == x.end())
        return y.back();
    const auto i = static_cast<std::size_t>(it - x.begin());
    return std::lerp(y[i - 1], y[i], (at - x[i - 1]) / (x[i] - x[i - 1]));
}

void override_beam_and_diffuse(SkyDay& day, const MeasuredSeries& beam, const MeasuredSeries& diffuse)
{
    for (std::size_t m = 0; m < day.sun.size(); ++m) {
        const double at = 60.0 * static_cast<double>(m);
        const bool up = day.sun[m].zenith_deg < 90;
        day.beam_normal_w_m2[m] = up ? std::max(0.0, interpolated(beam.time_s, beam.value, at)) : 0.0;
        day.diffuse_horizontal_w_m2[m] = up ? std::max(0.0, interpolated(diffuse.time_s, diffuse.value, at)) : 0.0;
    }
}

void override_sky(SkyDay& day, const MeasuredSeries& sky_c)
{
    for (std::size_t m = 0; m < day.sky_c.size(); ++m)
        day.sky_c[m] = std::min(day.air_c[m], interpolated(sky_c.time_s, sky_c.value, 60.0 * static_cast<double>(m)));
}

void override_wind(SkyDay& day, const MeasuredSeries& wind_m_s)
{
    double sum = 0;
    for (int m = 0; m < minutes_per_day; ++m)
        sum += interpolated(wind_m_s.time_s, wind_m_s.value, 60.0 * m);
    day.wind_m_s = sum / minutes_per_day;
}

} // namespace vernal
