// A day's sky as somebody measured it, or a typical-weather file has it: straight lines between the
// given seconds of the day (rising), held at the ends.
#pragma once

#include "day.h"

namespace vernal {

struct MeasuredSeries {
    std::vector<double> time_s, value;
    bool empty() const { return value.empty(); }
};

// Rows at half past each hour are means of that hour, as a typical-weather file has them;
// others are what was measured at their second.
bool hourly_means(const MeasuredSeries& series);

// Irradiance by the minute of the day, none below 0. Of hourly means none comes while the
// sun is down, and each hour keeps its energy.
std::vector<double> irradiance_by_minute(const SkyDay& day, const MeasuredSeries& w_m2);

double interpolated(const std::vector<double>& x, const std::vector<double>& y, double at);

// Beam in its own direction and diffuse on level ground, W/m², of which none comes while the sun is down.
void override_beam_and_diffuse(SkyDay& day, const MeasuredSeries& beam, const MeasuredSeries& diffuse);

// The sky's own temperature, °C, after override_air().
void override_sky(SkyDay& day, const MeasuredSeries& sky_c);

// Mean over the day, m/s: the wind of a day is one.
void override_wind(SkyDay& day, const MeasuredSeries& wind_m_s);

} // namespace vernal
