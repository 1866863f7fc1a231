// A day as it acts on a loop, and the weather at an instant of it.
#pragma once

#include "core/plant/network.h"
#include "core/rules/engine.h"
#include "core/weather/day.h"
#include "draws.h"

#include <array>
#include <vector>

namespace vernal {

// Points a minute, 1441 of them.
struct DayForcing {
    std::vector<double> air_c, net_sky_w_m2, pane_k, plane_w_m2; // plane_w_m2: on the first array, for showing
    std::array<std::vector<double>, sun_planes> sun_w_m2;        // empty: not met by any part
    std::vector<Draw> draws;
    double mains_c = 10.0;
    double wind_m_s = 0;                         // over the arrays
    double target_c = 45.0;                      // of the tapped water
    double outage_start_s = 0, outage_end_s = 0; // of the mains; equal: none
    std::int32_t date = no_date;                 // local, days after 1970-01-01
    bool powered(double time_of_day_s) const { return !(time_of_day_s >= outage_start_s && time_of_day_s < outage_end_s); }
};

// Of the pipes some lies in the sun: the day needs what level ground gets.
bool pipes_in_sun(const Loop& loop);

DayForcing forcing(const SkyDay& sky, const Loop& loop);

// Between two points everything is a straight line.
Surroundings surroundings_at(const DayForcing& day, double time_of_day_s);
// Irradiance on the first array, W/m².
double plane_at(const DayForcing& day, double time_of_day_s);

// By minute: until which second of the day the weather is as good as one straight
// line; a bend below a tenth of a W/m² per minute and minute shifts ten minutes by
// a watt or so. At most ten minutes on.
std::vector<double> straight_until(const DayForcing& day);

} // namespace vernal
