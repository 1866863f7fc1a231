#include "weather_at.h"

#include "core/plant/pane.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr double bend_w_m2 = 0.1;
constexpr int longest_stretch_min = 10;

double fourth(double c) { return std::pow(c + 273.15, 4); }

} // namespace

DayForcing forcing(const SkyDay& sky, const Loop& loop)
{
    const Arrangement& arrangement = arrangement_of(loop);
    DayForcing f;
    const auto plane = [&](const Collector& c) { return on_collector(sky, c.tilt_deg, c.azimuth_deg, c.iam_b0, c.iam_diffuse); };
    PlaneDay first = plane(loop.collector);
    // ISO 9806: of an absorber without a pane wind takes a part of the gain itself.
    const auto in_wind = [&](std::vector<double>& effective, const Collector& c) {
        const double left = std::max(0.0, 1 - c.wind_gain_s_m * sky.wind_m_s / in_still_air(c).eta0);
        if (left < 1)
            for (double& w : effective)
                w *= left;
    };
    const auto in_snow = [&](std::vector<double>& w) {
        for (std::size_t m = 0; sky.snow_until_h > 0 && m < w.size(); ++m)
            w[m] *= through_snow(sky.snow_until_h, static_cast<double>(m) / 60.0);
    };
    in_wind(first.effective_w_m2, loop.collector);
    in_snow(first.effective_w_m2);
    f.wind_m_s = sky.wind_m_s;
    f.sun_w_m2[0] = std::move(first.effective_w_m2);
    f.plane_w_m2 = std::move(first.plane_w_m2);
    f.air_c = sky.air_c;
    if (arrangement.has(Part::collector_2)) {
        f.sun_w_m2[1] = plane(loop.collector_2).effective_w_m2;
        in_wind(f.sun_w_m2[1], loop.collector_2);
        in_snow(f.sun_w_m2[1]);
    }
    if (arrangement.has(Part::pool))
        f.sun_w_m2[2] = on_collector(sky, 0, 0, 0, 1).effective_w_m2;
    if (arrangement.has(Part::panel)) {
        f.sun_w_m2[3] = on_collector(sky, loop.panel.tilt_deg, loop.panel.azimuth_deg, 0, 1).plane_w_m2;
        in_snow(f.sun_w_m2[3]);
    }
    if (pipes_in_sun(loop) && f.sun_w_m2[2].empty())
        f.sun_w_m2[2] = on_collector(sky, 0, 0, 0, 1).effective_w_m2;
    for (std::size_t m = 0; m < sky.air_c.size(); ++m)
        f.net_sky_w_m2.push_back(stefan_boltzmann * (fourth(sky.air_c[m]) - fourth(sky.sky_c[m])));
    for (std::size_t m = 0; m < sky.air_c.size(); ++m)
        f.pane_k.push_back(pane_below_air_k(f.net_sky_w_m2[m], sky.wind_m_s, f.plane_w_m2[m]));
    return f;
}

bool pipes_in_sun(const Loop& l)
{
    return l.supply.sunlit > 0 || l.back.sunlit > 0 || (arrangement_of(l).has(Part::collector_2) && (l.supply_2.sunlit > 0 || l.back_2.sunlit > 0));
}

Surroundings surroundings_at(const DayForcing& day, double time_of_day_s)
{
    const double at = std::clamp(time_of_day_s / 60.0, 0.0, static_cast<double>(minutes_per_day));
    const auto i = std::min<std::size_t>(static_cast<std::size_t>(at), minutes_per_day - 1);
    const double f = at - static_cast<double>(i);
    const auto between = [&](const std::vector<double>& v) { return v[i] + f * (v[i + 1] - v[i]); };
    Surroundings s{between(day.air_c), {}, between(day.net_sky_w_m2), between(day.pane_k)};
    for (std::size_t p = 0; p < sun_planes; ++p)
        if (!day.sun_w_m2[p].empty())
            s.sun_w_m2[p] = between(day.sun_w_m2[p]);
    return s;
}

double plane_at(const DayForcing& day, double time_of_day_s)
{
    const double at = std::min(time_of_day_s / 60.0, static_cast<double>(minutes_per_day));
    const auto i = std::min<std::size_t>(static_cast<std::size_t>(at), minutes_per_day - 1);
    return std::lerp(day.plane_w_m2[i], day.plane_w_m2[i + 1], at - static_cast<double>(i));
}

std::vector<double> straight_until(const DayForcing& d)
{
    const auto straight = [&](std::size_t m) {
        return std::all_of(d.sun_w_m2.begin(), d.sun_w_m2.end(), [m](const auto& g) { return g.empty() || std::fabs(g[m + 2] - 2 * g[m + 1] + g[m]) < bend_w_m2; });
    };
    std::vector<double> until(minutes_per_day);
    for (std::size_t m = minutes_per_day; m-- > 0;) {
        const bool goes_on = m + 2 <= minutes_per_day && (m + 1) % longest_stretch_min != 0 && straight(m);
        until[m] = goes_on ? until[m + 1] : 60.0 * static_cast<double>(m + 1);
    }
    return until;
}

} // namespace vernal
