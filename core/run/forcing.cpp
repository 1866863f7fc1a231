#include "coupled.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr double stefan_boltzmann = 5.670374419e-8; // CODATA 2018

double fourth(double c) { return std::pow(c + 273.15, 4); }

} // namespace

DayForcing forcing(const SkyDay& sky, const Loop& loop)
{
    const Arrangement& arrangement = *find_arrangement(loop.arrangement);
    DayForcing f;
    const auto plane = [&](const Collector& c) { return on_collector(sky, c.tilt_deg, c.azimuth_deg, c.iam_b0, c.iam_diffuse); };
    PlaneDay first = plane(loop.collector);
    f.sun_w_m2[0] = std::move(first.effective_w_m2);
    f.plane_w_m2 = std::move(first.plane_w_m2);
    f.air_c = sky.air_c;
    if (arrangement.has(Part::collector_2))
        f.sun_w_m2[1] = plane(loop.collector_2).effective_w_m2;
    if (arrangement.has(Part::pool))
        f.sun_w_m2[2] = on_collector(sky, 0, 0, 0, 1).effective_w_m2;
    if (arrangement.has(Part::panel))
        f.sun_w_m2[3] = on_collector(sky, loop.panel.tilt_deg, loop.panel.azimuth_deg, 0, 1).plane_w_m2;
    for (std::size_t m = 0; m < sky.air_c.size(); ++m)
        f.net_sky_w_m2.push_back(stefan_boltzmann * (fourth(sky.air_c[m]) - fourth(sky.sky_c[m])));
    return f;
}

Surroundings surroundings_at(const DayForcing& day, double time_of_day_s)
{
    const double at = std::clamp(time_of_day_s / 60.0, 0.0, static_cast<double>(minutes_per_day));
    const auto i = std::min<std::size_t>(static_cast<std::size_t>(at), minutes_per_day - 1);
    const double f = at - static_cast<double>(i);
    const auto between = [&](const std::vector<double>& v) { return v[i] + f * (v[i + 1] - v[i]); };
    Surroundings s{between(day.air_c), {}, between(day.net_sky_w_m2)};
    for (std::size_t p = 0; p < sun_planes; ++p)
        if (!day.sun_w_m2[p].empty())
            s.sun_w_m2[p] = between(day.sun_w_m2[p]);
    return s;
}

Acting acting(const Program& program, const std::array<Drives, max_outputs>& drives, std::uint32_t running, const Decisions& decisions)
{
    Acting out;
    out.running = running;
    for (std::size_t o = 0; o < program.outputs; ++o) {
        const bool on = (running >> o & 1U) != 0;
        if (drives[o] != Drives::loop)
            out.running &= ~(1U << o); // no pump or valve of the arrangement
        if (drives[o] == Drives::check_valve)
            out.shut = !on;
        if (drives[o] == Drives::drain_valve)
            out.emptied = !on;
        if (drives[o] != Drives::loop || o >= out.pumps.size() || !on)
            continue;
        out.pumps[o].share = decisions[o].speed_pm / static_cast<double>(full_speed);
        for (const Speed& s : program.speeds)
            out.pumps[o].bursts = out.pumps[o].bursts || (s.output == o && s.bursts);
    }
    return out;
}

double element_w(const Loop& loop, double time_of_day_s)
{
    const Element& e = loop.element;
    if (e.mode == ElementMode::off || !find_arrangement(loop.arrangement)->has(Part::element))
        return 0;
    const double h = time_of_day_s / 3600.0;
    const auto open = [h](const HeatingWindow& w) { return w.start_h <= w.end_h ? h >= w.start_h && h < w.end_h : h >= w.start_h || h < w.end_h; };
    return e.mode == ElementMode::always || std::any_of(e.windows.begin(), e.windows.end(), open) ? e.power_w : 0.0;
}

DrawNow draw_at(const DayForcing& day, double t, double top_c)
{
    static const Fluid water = glycol_water(0);
    DrawNow now;
    for (const Draw& d : day.draws)
        if (t >= d.start_h * 3600.0 && t < d.start_h * 3600.0 + d.duration_s)
            now.rate_w_k += d.flow_m3_s * water.density_kg_m3 * water.heat_capacity_j_kgk;
    now.needed_w = now.rate_w_k * (day.target_c - day.mains_c);
    if (top_c > day.target_c) // the tempering valve adds cold water
        now.rate_w_k *= (day.target_c - day.mains_c) / (top_c - day.mains_c);
    return now;
}

} // namespace vernal
