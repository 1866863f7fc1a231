// What the sums of all subjects say and look up alike. Not for others.
#pragma once

#include "subjects.h"

#include "core/plant/hydraulic_state.h"
#include "core/plant/hydraulics.h"
#include "core/plant/parts.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace vernal::sums {

using X = const std::vector<double>&;
using C = const SumContext&;
using Q = Quantity;

inline constexpr double working_c = 40.0;

// Water that a square metre's sun of a clear day warms, m³: share G / (c ρ ΔT).
inline double warmed_per_m2(double sun_j, double share, double rise_k) { return sun_j * share / (4.18e6 * rise_k); }
inline SumInput sun_on_a_m2()
{
    return {{"sun_j", "Sun on the array that day", Q::irradiation, 1e6, 5e7, "3 to 8 kWh/m² on a clear day, by season and tilt (estimate)"}, [](C) { return 2.2e7; }};
}
inline SumInput share_of_sun()
{
    return {{"share", "Of it reaches the store", Q::ratio, 0.05, 0.9, "30 to 60 % (estimate); the strip shows it for this loop"}, [](C) { return 0.45; }};
}
inline SumInput rise_of_water()
{
    return {{"rise_k", "Warmed by", Q::difference, 1, 90, "From the mains to what the store is to reach"}, [](C c) { return std::max(5.0, 60 - c.job.days.front().mains_c); }};
}

inline std::string show(double v, Q q, C c) { return to_text(v, q, c.units); }

// "a × b = c" from pieces of text and values already shown.
template <class... A>
inline std::string line(A&&... a)
{
    std::string s;
    ((s += a), ...);
    return s;
}

inline bool is_air(const Loop& l) { return arrangement_of(l).carrier == Carrier::air; }
inline Fluid fluid_of(const Loop& l, double t_c) { return is_air(l) ? warm_air() : fluid_at(glycol_share(l), t_c); }
inline double rate_w_k(const Fluid& f, double flow) { return flow * f.density_kg_m3 * f.heat_capacity_j_kgk; }

inline const Pump& pump_at(C c) { return pump_of(c.loop(), c.part); }
inline Pump& pump_at(Loop& l, Part p) { return pump_of(l, p); }
inline const Pipe& pipe_at(C c) { return c.part == Part::back ? c.loop().back : c.part == Part::supply_2 ? c.loop().supply_2
                                                                            : c.part == Part::back_2     ? c.loop().back_2
                                                                                                         : c.loop().supply; }
inline Pipe& pipe_at(Loop& l, Part p) { return p == Part::back ? l.back : p == Part::supply_2 ? l.supply_2
                                                                      : p == Part::back_2     ? l.back_2
                                                                                              : l.supply; }
inline const Collector& collector_at(C c) { return c.part == Part::collector_2 ? c.loop().collector_2 : c.loop().collector; }
inline Collector& collector_at(Loop& l, Part p) { return p == Part::collector_2 ? l.collector_2 : l.collector; }
inline const Tank& tank_at(C c) { return c.part == Part::tank_2 ? c.loop().tank_2 : c.loop().tank; }
inline Tank& tank_at(Loop& l, Part p) { return p == Part::tank_2 ? l.tank_2 : l.tank; }

inline const Route& route_of(C c)
{
    const auto& routes = arrangement_of(c.loop()).routes;
    const Driver turns = c.part == Part::pump_2 ? Driver::pump_2 : c.part == Part::exchanger_pump ? Driver::exchanger_pump
                                                                                                  : Driver::pump;
    for (const Route& r : routes)
        if (r.turns == turns)
            return r;
    return routes.front();
}

inline double section_m2(double bore_m) { return std::numbers::pi / 4 * bore_m * bore_m; }
inline double coldest_c(C c)
{
    double coldest = INFINITY;
    for (const Day& d : c.job.days)
        coldest = std::min(coldest, d.kind == DayKind::generated ? d.sky.air_min_c : INFINITY);
    return std::isfinite(coldest) ? coldest : 0.0;
}
inline double drawn_a_day_m3(C c)
{
    double sum = 0;
    for (const Draw& d : c.job.days.front().draws)
        sum += d.flow_m3_s * d.duration_s;
    return sum;
}
inline double lift_of(C c) { return arrangement_of(c.loop()).drains ? c.loop().drain_back.lift_m : 0.0; }

inline bool no_air(const Arrangement& a) { return a.carrier != Carrier::air; }

} // namespace vernal::sums
