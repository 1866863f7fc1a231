#include "measured.h"

#include "core/units/constants.h"

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

namespace {

constexpr std::size_t hour_min = 60;

// Straight lines between the hours' middles cut off the curve's crown. Each hour is made
// larger or smaller until its mean is the one given; a minute between two hours takes the
// middle of both, which is why it goes in rounds.
void keep_hours(std::vector<double>& w_m2, const MeasuredSeries& means)
{
    constexpr double most = 3; // of an hour in which the sun is up for minutes only; a choice
    constexpr int rounds = 8;
    const std::vector<double> line = w_m2;
    const std::size_t hours = (line.size() - 1) / hour_min;
    std::vector<double> times(hours, 1.0), mean(hours, NAN);
    for (std::size_t i = 0; i < means.time_s.size(); ++i)
        if (const double h = means.time_s[i] / hour_s; h >= 0 && h < static_cast<double>(hours))
            mean[static_cast<std::size_t>(h)] = std::max(0.0, means.value[i]);
    for (int round = 0; round < rounds; ++round)
        for (std::size_t h = 0; h < hours; ++h) {
            double now = (w_m2[h * hour_min] + w_m2[(h + 1) * hour_min]) / 2;
            for (std::size_t m = 1; m < hour_min; ++m)
                now += w_m2[h * hour_min + m];
            now /= hour_min;
            if (now <= 0 || std::isnan(mean[h]))
                continue;
            times[h] = std::min(most, times[h] * mean[h] / now);
            for (std::size_t m = 0; m <= hour_min; ++m) {
                const std::size_t at = h * hour_min + m;
                const double beside = m == 0 && h > 0 ? times[h - 1] : m == hour_min && h + 1 < hours ? times[h + 1]
                                                                                                      : times[h];
                w_m2[at] = line[at] * (m == 0 || m == hour_min ? (times[h] + beside) / 2 : times[h]);
            }
        }
}

} // namespace

bool hourly_means(const MeasuredSeries& s)
{
    return s.time_s.size() > 2 && std::all_of(s.time_s.begin(), s.time_s.end(), [](double t) { return std::fabs(std::remainder(t - hour_s / 2, hour_s)) < 0.5; });
}

std::vector<double> irradiance_by_minute(const SkyDay& day, const MeasuredSeries& s)
{
    const bool means = hourly_means(s);
    std::vector<double> out(day.sun.size());
    for (std::size_t m = 0; m < out.size(); ++m)
        out[m] = !means || day.sun[m].zenith_deg < 90 ? std::max(0.0, interpolated(s.time_s, s.value, 60.0 * static_cast<double>(m))) : 0.0;
    if (means)
        keep_hours(out, s);
    return out;
}

void override_beam_and_diffuse(SkyDay& day, const MeasuredSeries& beam, const MeasuredSeries& diffuse)
{
    day.beam_normal_w_m2 = irradiance_by_minute(day, beam);
    day.diffuse_horizontal_w_m2 = irradiance_by_minute(day, diffuse);
    for (std::size_t m = 0; m < day.sun.size(); ++m)
        if (day.sun[m].zenith_deg >= 90)
            day.beam_normal_w_m2[m] = day.diffuse_horizontal_w_m2[m] = 0;
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
