#include "first_day.h"

#include "core/study/figures_only.h"
#include "core/units/calendar.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr std::array sky_names{"clear", "racing", "broken", "overcast", "thin", "fog", "thunder"};
constexpr double store_open_share = 0.25, store_open_k = 4.0; // of the foretold rise, what sky and draws leave open; estimates
constexpr double starts_open = 0.6;                           // likewise of the starts, and three

std::string per_day(double starts) { return std::to_string(std::lround(starts)); }

} // namespace

Result<FirstDay> foretell(const Job& job, const Variant& v, const std::string& date, Clouds sky, double air_min_c, double air_max_c, double begin_c)
{
    const auto at = date_of(date);
    if (!at)
        return Error{"“" + date + "” is no date", "", "2026-05-12"};
    const std::chrono::year_month_day d(*at);
    Day day = job.days.front();
    day.kind = DayKind::generated;
    day.trace.clear();
    day.faults.clear();
    day.length_days = 1;
    day.away_days = day.guests_days = 0;
    day.begins = Begins::cold;
    day.sky.year = static_cast<int>(d.year());
    day.sky.month = static_cast<int>(static_cast<unsigned>(d.month()));
    day.sky.day = static_cast<int>(static_cast<unsigned>(d.day()));
    day.sky.clouds = sky;
    day.sky.air_min_c = air_min_c;
    day.sky.air_max_c = air_max_c;
    day.mains_c = begin_c; // filled this morning: with water of this temperature
    const auto f = figures_only(job, v, day);
    if (!f || f->pumps.empty())
        return Error{"this day cannot be run", "", "Look at what Run says"};
    FirstDay out;
    out.date = date.substr(0, 10);
    out.store_c = f->highest_store_c;
    out.heat_j = f->heat.to_store;
    out.starts = f->pumps.front().starts;
    out.run_s = f->pumps.front().run_time_s;
    out.begin_c = begin_c;
    out.sky = sky_names[static_cast<std::size_t>(sky)];
    return out;
}

std::vector<FirstDayRow> first_day_rows(const Job& job, const Visit& visit, const Units& units)
{
    std::vector<FirstDayRow> out;
    const FirstDay& d = visit.first_day;
    const auto date = date_of(d.date);
    if (!date)
        return out;
    double store = NAN, starts = NAN;
    for (const Visit& v : job.logbook.visits) {
        const auto when = date_of(v.when);
        if (!when || *when < *date || *when > *date + std::chrono::days(1))
            continue;
        const auto readings = valid_readings(v);
        if (const VisitReading* r = reading_of(readings, "store"))
            store = r->value;
        if (const VisitReading* r = reading_of(readings, "starts_a_day"))
            starts = r->value;
    }
    FirstDayRow warm{"store, at its top", to_text(d.store_c, Quantity::temperature, units), std::isfinite(store) ? to_text(store, Quantity::temperature, units) : "", "not read yet", Tone::plain};
    if (std::isfinite(store)) {
        const double open = std::max(store_open_k, store_open_share * std::max(0.0, d.store_c - d.begin_c)), off = store - d.store_c;
        warm.says = std::fabs(off) <= open ? "as foretold, within what sky and draws leave open (" + to_text(open, Quantity::difference, units) + ")" : off < 0 ? "less than foretold: flow, probes, a shadow?"
                                                                                                                                                                : "more than foretold";
        warm.tone = off < -open ? Tone::caution : std::fabs(off) <= open ? Tone::good
                                                                         : Tone::plain;
    }
    FirstDayRow often{"starts", per_day(d.starts), std::isfinite(starts) ? per_day(starts) : "", "not read yet", Tone::plain};
    if (std::isfinite(starts)) {
        const double open = 3 + starts_open * d.starts;
        often.says = std::fabs(starts - d.starts) <= open ? "as foretold" : starts > d.starts ? "more often than foretold: clouds, or start and stop too near"
                                                                                              : "fewer than foretold";
        often.tone = starts > d.starts + open ? Tone::caution : Tone::good;
    }
    out.push_back(std::move(warm));
    out.push_back({"heat to the store", to_text(d.heat_j, Quantity::energy, units), "", "", Tone::plain});
    out.push_back(std::move(often));
    return out;
}

} // namespace vernal
