#include "missed_sun.h"

#include "core/plant/passing.h"
#include "core/units/constants.h"
#include "simulation.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace vernal {
namespace {

constexpr double worth_a_start_k = 0.5, worth_filling_k = 1.5; // estimates: each fill of an array that drains costs some of its heat

bool of_second_tank(ProbePlace p) { return p == ProbePlace::tank_2_bottom || p == ProbePlace::tank_2_top; }

double temp_at(const Simulation& s, ProbePlace p) { return s.temperatures()[s.network().node_of(p)]; }

// Of the stores that still take heat the cold ends' temperature; NaN: it is full, or there is none.
std::array<double, 2> takes_at_c(const Simulation& s)
{
    const bool two = s.network().arrangement().answers.store == Store::two_tanks;
    std::array<double, 2> out{s.temperatures()[cold_store_node(s)], two ? temp_at(s, ProbePlace::tank_2_bottom) : NAN};
    for (const CoupledSetup::BornBy& b : s.setup().store_limits)
        if (temp_at(s, b.place) >= b.limit_c)
            out[two && of_second_tank(b.place) ? 1 : 0] = NAN;
    return out;
}

} // namespace

std::size_t cold_store_node(const Simulation& s) { return s.network().node_of(s.network().arrangement().places[1]); }

double could_collect_w(const Simulation& s, std::size_t array, double store_c)
{
    const Loop& l = s.setup().loop;
    const Collector c = in_still_air(array == 0 ? l.collector : l.collector_2);
    const Surroundings now = surroundings_at(s.day(), s.time_of_day_s());
    if (now.sun_w_m2[array] <= 0)
        return 0;
    const double flow = array == 0 ? l.pump.flow_m3_s : l.pump_2.flow_m3_s;
    Collector as_met = c; // what the sun brings holds the incidence already
    as_met.a1_w_m2k += c.wind_loss_j_m3k * s.day().wind_m_s;
    const double sky_seen = (1 + std::cos(c.tilt_deg * degree_rad)) / 2;
    const double met = now.sun_w_m2[array] - c.sky_exchange * sky_seen * now.net_sky_w_m2 / c.eta0;
    const double rise = settled_rise_k(l, as_met, flow, met, store_c, now.air_c);
    return rise < (arrangement_of(l).drains ? worth_filling_k : worth_a_start_k) ? 0 : rise * carried_w_k(l, flow);
}

void MissedSun::passed(const Simulation& s, double h, Figures& f) const
{
    const Arrangement& a = s.network().arrangement();
    if (!a.pumped())
        return;
    const std::array<double, 2> stores_c = takes_at_c(s);
    for (const std::size_t array : {std::size_t{0}, std::size_t{1}}) {
        if (array == 1 && !a.has(Part::collector_2))
            break;
        const std::size_t output = a.driven_by(array == 0 ? Driver::pump : Driver::pump_2);
        if ((s.running() >> output & 1U) != 0)
            continue;
        double w = 0;
        for (const double store_c : stores_c)
            w = std::isnan(store_c) ? w : std::max(w, could_collect_w(s, array, store_c));
        if (w <= 0)
            continue;
        const Decision& d = s.decisions()[output];
        const auto it = std::find_if(f.missed.begin(), f.missed.end(), [&](const MissedHeat& m) { return m.output == output && m.rule == d.rule && m.held_by == d.priority; });
        MissedHeat& m = it == f.missed.end() ? f.missed.emplace_back(MissedHeat{output, d.rule, d.priority, 0, 0}) : *it;
        m.time_s += h;
        m.heat_j += w * h;
    }
}

} // namespace vernal
