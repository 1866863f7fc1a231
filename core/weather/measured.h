// A day's sky as somebody measured it, or a typical-weather file has it: straight lines between the
// given seconds of the day (rising), held at the ends.
#pragma once

#include "day.h"

namespace vernal {

struct MeasuredSeries {
    std::vector<double> time_s, value;
    bool empty() const { return value.empty(); }
};

double interpolated(const std::vector<double>& x, const std::vector<double>& y, double at);

// Beam in its own direction and diffuse on level ground, W/m², of which none comes while the sun is down.
void override_beam_and_diffuse(SkyDay& day, const MeasuredSeries& beam, const MeasuredSeries& diffuse);

// The sky's own temperature, °C, after override_air().
void override_sky(SkyDay& day, const MeasuredSeries& sky_c);

// Mean over the day, m/s: the wind of a day is one.
void override_wind(SkyDay& day, const MeasuredSeries& wind_m_s);

} // namespace vernal
