#include "costs.h"

#include "core/study/figures_only.h"
#include "core/units/calendar.h"
#include "measured.h"

#include <algorithm>
#include <cmath>
#include <cstdio>

namespace vernal {
namespace {

constexpr double j_per_kwh = 3.6e6;

// Of each month a middling day of the job's first: its draws and air, clear, broken and dull in turn.
Day day_of_month(const Job& job, int month)
{
    Day d = job.days.front();
    d.kind = DayKind::generated;
    d.trace.clear();
    d.faults.clear();
    d.length_days = 1;
    d.away_days = d.guests_days = 0;
    d.begins = Begins::settled;
    d.sky.month = month;
    d.sky.day = 15;
    d.sky.clouds = month % 3 == 0 ? Clouds::clear : month % 3 == 1 ? Clouds::broken
                                                                   : Clouds::thin;
    // By the season at this latitude: what the job's own day says, moved by half of ten kelvin each way (estimate).
    constexpr double swing_k = 9;
    const double north = job.site.place.latitude_deg >= 0 ? 1 : -1;
    const auto season = [&](int m) { return -north * swing_k * std::cos(2 * 3.14159265358979 * (m - 1) / 12.0); };
    const double by = season(month) - season(job.days.front().sky.month);
    d.sky.air_min_c = std::clamp(d.sky.air_min_c + by, -50.0, 45.0);
    d.sky.air_max_c = std::clamp(d.sky.air_max_c + by, -50.0, 55.0);
    return d;
}

} // namespace

std::optional<YearFlows> year_flows(const Job& job, const Variant& v, std::stop_token stop)
{
    YearFlows out;
    constexpr double days_a_month = days_a_year / 12;
    for (int month = 1; month <= 12; ++month) {
        const auto f = figures_only(job, v, day_of_month(job, month), stop);
        if (!f)
            return {};
        out.heat_j += days_a_month * f->heat.to_store / f->days;
        out.pump_j += days_a_month * f->pump_energy_j / f->days;
    }
    return out;
}

std::optional<HeatCost> heat_cost(const Job& job, const Variant& v, std::stop_token stop)
{
    HeatCost out;
    const auto flows = year_flows(job, v, stop);
    if (!flows)
        return {};
    out.heat_kwh_a = flows->heat_j / j_per_kwh;
    out.pump_kwh_a = flows->pump_j / j_per_kwh;
    // Where a heat meter was read twice, it goes before the model.
    std::vector<std::pair<Day1970, double>> meter;
    double minutes = 0;
    std::optional<Day1970> first, last;
    for (const Visit& visit : job.logbook.visits) {
        const auto day = date_of(visit.when);
        if (!day)
            continue;
        first = first ? std::min(*first, *day) : *day;
        last = last ? std::max(*last, *day) : *day;
        const auto readings = valid_readings(visit);
        if (const VisitReading* r = reading_of(readings, "heat"))
            meter.emplace_back(*day, r->value);
        if (visit.purpose == Purpose::commissioning || visit.purpose == Purpose::survey)
            continue; // what was built is not what it costs to run
        for (const VisitWork& w : visit.work) {
            minutes += w.minutes_s / 60;
            out.parts_a += w.cost;
        }
    }
    if (meter.size() >= 2 && meter.back().first > meter.front().first) {
        double sum = 0;
        for (std::size_t i = 1; i < meter.size(); ++i)
            sum += meter[i].second;
        out.heat_kwh_a = sum / j_per_kwh * days_a_year / static_cast<double>((meter.back().first - meter.front().first).count());
        out.metered = true;
    }
    out.years = first ? std::max(1.0, static_cast<double>((*last - *first).count()) / days_a_year) : 1;
    out.parts_a /= out.years;
    out.work_a = minutes / 60 * job.logbook.costs.work_h / out.years;
    const bool mains = arrangement_of(v.loop).answers.power == PoweredBy::mains;
    out.electricity_a = mains ? out.pump_kwh_a * job.logbook.costs.energy_kwh : 0;
    return out;
}

std::string cost_text(const HeatCost& c, const Costs& costs)
{
    char b[256];
    const std::string money = costs.money.empty() ? "" : " " + costs.money;
    std::snprintf(b, sizeof b, "%.3f%s a kWh of heat: %.2f electricity, %.2f parts, %.2f work a year, over %.0f kWh%s", c.per_kwh(), money.c_str(), c.electricity_a, c.parts_a, c.work_a, c.heat_kwh_a, c.metered ? " by the meter" : " as computed");
    return b;
}

} // namespace vernal
