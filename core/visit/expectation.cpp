#include "expectation.h"

#include "core/plant/fluid.h"
#include "core/plant/hydraulics.h"
#include "core/plant/vessel.h"

#include <algorithm>
#include <cmath>

namespace vernal {
ClearDay::ClearDay(const Job& job, const Variant& v, Day1970 date)
{
    const std::chrono::year_month_day d(date);
    SkySpec spec;
    spec.year = static_cast<int>(d.year());
    spec.month = static_cast<int>(static_cast<unsigned>(d.month()));
    spec.day = static_cast<int>(static_cast<unsigned>(d.day()));
    spec.haze = job.days.front().sky.haze;
    const SkyDay sky = generate(spec, job.site.place);
    const auto add = [&](const Collector& c) { arrays_.push_back({in_still_air(c), on_collector(sky, c.tilt_deg, c.azimuth_deg, c.iam_b0, c.iam_diffuse).effective_w_m2}); };
    add(v.loop.collector);
    plane_w_m2_ = on_collector(sky, v.loop.collector.tilt_deg, v.loop.collector.azimuth_deg, 0, 1).plane_w_m2; // as a pyranometer has it
    if (arrangement_of(v.loop).has(Part::collector_2))
        add(v.loop.collector_2);
}

double ClearDay::heat_w(std::size_t minute, double fluid_c, double air_c) const
{
    const double over_k = fluid_c - air_c;
    double sum = 0;
    for (const auto& [c, sun] : arrays_) {
        // An array that would lose stands still, beside one that gains.
        const double w = c.area_m2 * (sun[minute] * c.eta0 - c.a1_w_m2k * over_k - c.a2_w_m2k2 * over_k * std::fabs(over_k));
        sum += arrays_.size() > 1 ? std::max(0.0, w) : w;
    }
    return sum;
}

double ClearDay::sun_w_m2(std::size_t minute) const { return plane_w_m2_[minute]; }

namespace {

std::size_t minute_of(const std::string& when) { return static_cast<std::size_t>(std::stoi(when.substr(11, 2)) * 60 + std::stoi(when.substr(14, 2))); }

} // namespace

double clear_sky_sun_w_m2(const Job& job, const Variant& v, const std::string& when)
{
    const auto date = date_of(when);
    return date && is_moment(when) ? ClearDay(job, v, *date).sun_w_m2(minute_of(when)) : NAN;
}

double clear_sky_heat_w(const Job& job, const Variant& v, const std::string& when, double fluid_c, double air_c)
{
    const auto date = date_of(when);
    if (!date || !is_moment(when))
        return NAN;
    const double w = ClearDay(job, v, *date).heat_w(minute_of(when), fluid_c, air_c);
    return w > 0 ? w : NAN;
}

double carried_w(const Loop& loop, double flow_m3_s, double rise_k, double fluid_c)
{
    const Fluid f = arrangement_of(loop).carrier == Carrier::air ? warm_air() : fluid_at(glycol_share(loop), fluid_c);
    return flow_m3_s * f.density_kg_m3 * f.heat_capacity_j_kgk * rise_k;
}

double cold_gauge_pa(const Job& job, const Loop& loop, double at_c, double filled_c, double fill_pa)
{
    if (!arrangement_of(loop).has(Part::vessel))
        return NAN;
    const double air = atmosphere_pa(job.site.place.altitude_m), fill = std::isnan(fill_pa) ? loop.vessel.fill_pa : fill_pa;
    const double gas_m3 = loop.vessel.volume_m3 * (loop.vessel.precharge_pa + air) / (fill + air); // with the loop as filled
    const double more_m3 = ring_content_m3(loop) * expansion(glycol_share(loop), filled_c, at_c);
    return more_m3 < gas_m3 ? (fill + air) * gas_m3 / (gas_m3 - more_m3) - air : INFINITY;
}

} // namespace vernal
