#include "over_the_seasons.h"

#include "core/audit/seasons.h"
#include "core/sums/switching.h"
#include "core/units/calendar.h"
#include "core/weather/zone.h"
#include "expectation.h"
#include "reading_kind.h"

#include <algorithm>
#include <cmath>
#include <cstdio>

namespace vernal {
namespace {

constexpr double compared_at_c = 20.0;
constexpr double a_year_per_30_days = days_a_year / 30;
constexpr double mild_air_c = 15.0, morning_store_c = 40.0, usual_start_k = 8.0; // estimates, alike for all days: only the change counts

std::string number(double x, int decimals)
{
    char b[32];
    std::snprintf(b, sizeof b, "%.*f", decimals, x);
    return b;
}

struct Course {
    const char* key;
    std::string title, unit;
    double scale; // of a value into what is shown
    int decimals;
    const char* falls;  // what a fall may be
    const char* climbs; // what a climb may be
    const char* step;   // what a step may be
    bool fall_is_bad, climb_is_bad;
};

std::string signed_text(double x, int decimals) { return (x >= 0 ? "+" : "−") + number(std::fabs(x), decimals); }

void read(SeasonCourse& c, const Course& k)
{
    std::vector<double> x, y;
    for (const SeasonPoint& p : c.points) {
        x.push_back(p.day);
        y.push_back(p.value * k.scale);
    }
    c.trend = trend_of(x, y);
    const Trend& t = c.trend;
    if (y.empty())
        return;
    if (y.size() < least_trend_points) {
        const double by = y.back() - y.front();
        c.says = signed_text(by, k.decimals) + (k.unit.empty() ? "" : " " + k.unit) + " since the first; too few readings (" + std::to_string(y.size()) + " of " + std::to_string(least_trend_points) + ") to call it a course.";
        return;
    }
    const std::string unit = k.unit.empty() ? "" : " " + k.unit;
    if (t.step) {
        const double by = t.step->after - t.step->before;
        const bool bad = by < 0 ? k.fall_is_bad : k.climb_is_bad;
        c.says = signed_text(by, k.decimals) + unit + " at once by " + date_words(date_text(Day1970{std::chrono::days(t.step->day)})) + ", before and after it stands: " + k.step + ".";
        c.tone = bad ? Tone::caution : Tone::plain;
    } else if (t.claimed) {
        const double a_year = t.per_30_days * a_year_per_30_days;
        c.says = signed_text(a_year, k.decimals) + unit + " a year (" + signed_text(t.low * a_year_per_30_days, k.decimals) + " to " + signed_text(t.high * a_year_per_30_days, k.decimals) + "): " + (a_year < 0 ? k.falls : k.climbs) + ".";
        c.tone = (a_year < 0 ? k.fall_is_bad : k.climb_is_bad) ? Tone::caution : Tone::plain;
    } else {
        c.says = "As it was: no course beyond its scatter.";
        c.tone = Tone::good;
    }
    const std::size_t first = std::max<std::size_t>(2, y.size() / 3);
    c.usual_low = *std::min_element(y.begin(), y.begin() + static_cast<std::ptrdiff_t>(first));
    c.usual_high = *std::max_element(y.begin(), y.begin() + static_cast<std::ptrdiff_t>(first));
}

double day_of(const Visit& v) { return static_cast<double>(date_of(v.when)->time_since_epoch().count()); }

// What shades the first start: between where the sun should have started it and where it did.
void name_shadow(SeasonCourse& c, const Job& job, const Units&)
{
    if (c.tone != Tone::caution || c.points.empty())
        return;
    const Visit* last = nullptr;
    for (const Visit& v : job.logbook.visits)
        if (v.id == c.points.back().from)
            last = &v;
    if (!last)
        return;
    const auto readings = valid_readings(*last);
    const VisitReading* start = reading_of(readings, "first_start");
    const double clear = clear_start_h(job, variant_of(job, *last), last->when.substr(0, 10));
    if (!start || std::isnan(clear))
        return;
    const SunPosition from = sun_at(job.site.place, last->when, clear), to = sun_at(job.site.place, last->when, start->value);
    c.says += " The sun came from " + number(from.azimuth_deg, 0) + "° to " + number(to.azimuth_deg, 0) + "° (south 0, east less), up to " + number(90 - to.zenith_deg, 0) + "° high: what stands there now?";
}

// more: points of logs.
template <class F>
SeasonCourse course(const Job& job, const Course& k, F value, std::vector<SeasonPoint> more = {})
{
    SeasonCourse c{k.key, k.title, k.unit, std::move(more), {}, "", Tone::plain};
    for (const Visit& v : job.logbook.visits)
        if (const double x = value(v); std::isfinite(x) && date_of(v.when))
            c.points.push_back({day_of(v), x, v.id});
    std::stable_sort(c.points.begin(), c.points.end(), [](const SeasonPoint& a, const SeasonPoint& b) { return a.day < b.day; });
    read(c, k);
    for (SeasonPoint& p : c.points)
        p.value *= k.scale;
    return c;
}

double read_value(const Visit& v, const std::string& kind, const std::string& of = "")
{
    const auto readings = valid_readings(v);
    const VisitReading* r = reading_of(readings, kind, of);
    return r ? r->value : NAN;
}

double pressure_at_20(const Job& job, const Visit& v)
{
    const auto readings = valid_readings(v);
    const VisitReading* r = reading_of(readings, "pressure");
    return r && r->with_temperature ? gauge_at_20_pa(job, variant_of(job, v).loop, r->value, r->at_c) : NAN;
}

double late_min(const Job& job, const Visit& v)
{
    const double start = read_value(v, "first_start");
    return v.sky == "clear" && std::isfinite(start) ? 60 * (start - clear_start_h(job, variant_of(job, v), v.when.substr(0, 10))) : NAN;
}

// Of a counter the mean a day since the visit before that read it.
struct ADay {
    const Job& job;
    std::string kind, of;
    double operator()(const Visit& v) const
    {
        const double now = read_value(v, kind, of);
        double then = NAN, day = 0;
        for (const Visit& b : job.logbook.visits)
            if (b.when < v.when)
                if (const double x = read_value(b, kind, of); std::isfinite(x)) {
                    then = x;
                    day = day_of(b);
                }
        return now >= then && day_of(v) > day ? (now - then) / (day_of(v) - day) : NAN;
    }
};

// Weeks of the logs in the job; a log without dates counts from its own first day and is left out.
std::vector<SeasonPoint> log_weeks(const Job& job, SeasonMeasure m)
{
    std::vector<SeasonPoint> out;
    const Variant& v = job.variants.front();
    constexpr long dated = 3650;          // days since 1970
    constexpr std::size_t least_days = 5; // of a log: fewer are no week
    for (const auto& [name, trace] : job.traces)
        if (const auto s = trace && trace->time_s.size() > 2 ? seasons(LogView(*trace, v), v) : Seasons(); s.days.size() >= least_days)
            for (const SeasonWeek& w : s.weeks)
                if (const double x = w.value[static_cast<std::size_t>(m)]; std::isfinite(x) && w.first_day > dated)
                    out.push_back({static_cast<double>(w.first_day), x, ""});
    std::stable_sort(out.begin(), out.end(), [](const SeasonPoint& a, const SeasonPoint& b) { return a.day < b.day; });
    return out;
}

// Their first starts as minutes after the clear sky's.
std::vector<SeasonPoint> late_weeks(const Job& job)
{
    std::vector<SeasonPoint> out;
    for (SeasonPoint p : log_weeks(job, SeasonMeasure::first_start_h)) {
        p.value = 60 * (p.value - clear_start_h(job, job.variants.front(), date_text(Day1970{std::chrono::days(std::lround(p.day))})));
        if (std::isfinite(p.value))
            out.push_back(p);
    }
    return out;
}

} // namespace

std::vector<std::string> life_lines(const Job& job)
{
    std::vector<std::string> out;
    if (job.logbook.visits.empty())
        return out;
    for (const Output& o : variant_of(job, job.logbook.visits.back()).unit.outputs) {
        double hours = NAN, starts = NAN;
        std::string lived;
        for (const Visit& v : job.logbook.visits) {
            if (const double h = read_value(v, "hours", o.key); std::isfinite(h))
                hours = h;
            if (const double n = read_value(v, "starts", o.key); std::isfinite(n))
                starts = n;
            for (const VisitWork& w : v.work)
                if ((w.of == o.key || w.part.find(o.key) != std::string::npos) && (w.after_h > 0 || w.after_starts > 0))
                    lived = " The one before lived " + number(w.after_h, 0) + " h and " + number(w.after_starts, 0) + " starts.";
        }
        if (std::isfinite(hours) || std::isfinite(starts))
            out.push_back(o.key + " " + o.name + ": " + (std::isfinite(hours) ? number(hours, 0) + " h" : "") + (std::isfinite(hours) && std::isfinite(starts) ? ", " : "") + (std::isfinite(starts) ? number(starts, 0) + " starts" : "") + "." + lived);
    }
    return out;
}

double gauge_at_20_pa(const Job& job, const Loop& loop, double pa, double at_c) { return cold_gauge_pa(job, loop, compared_at_c, at_c, pa); }

SunPosition sun_at(const Place& place, const std::string& when, double hour)
{
    const std::chrono::year_month_day d(date_of(when).value_or(Day1970{}));
    const int y = static_cast<int>(d.year()), m = static_cast<int>(static_cast<unsigned>(d.month())), day = static_cast<int>(static_cast<unsigned>(d.day()));
    return sun_position(place, days_since_j2000(y, m, day, hour - clock_ahead_h(place, y, m, day)));
}

double clear_start_h(const Job& job, const Variant& v, const std::string& date)
{
    const auto pair = first_difference(v);
    const double over_k = pair ? pair->on.in_kelvin() : usual_start_k;
    const auto at = date_of(date);
    if (!at)
        return NAN;
    const ClearDay day(job, v, *at);
    const Collector& c = v.loop.collector;
    const double capacity_j_k = std::max(1.0, c.capacity_j_m2k * c.area_m2);
    double warm_k = 0; // of the array over the air
    for (std::size_t minute = 0; minute < minutes_per_day; ++minute) {
        warm_k = std::max(0.0, warm_k + 60 * day.heat_w(minute, mild_air_c + warm_k, mild_air_c) / capacity_j_k);
        if (mild_air_c + warm_k >= morning_store_c + over_k)
            return static_cast<double>(minute) / 60;
    }
    return NAN;
}

std::vector<SeasonCourse> over_the_seasons(const Job& job, const Units& units)
{
    std::vector<SeasonCourse> out;
    const auto add = [&](SeasonCourse c) {
        if (c.points.size() >= 2)
            out.push_back(std::move(c));
    };
    const std::string bar = unit_name(Quantity::pressure, units), kelvin = unit_name(Quantity::difference, units), volt = "V";
    const double to_bar = to_display(1, Quantity::pressure, units), to_k = to_display(1, Quantity::difference, units);
    add(course(job, {"pressure", "Cold pressure, as at " + to_text(compared_at_c, Quantity::temperature, units), bar, to_bar, 2, "a slow leak, or a vessel that loses its gas", "topped up, or a vessel that loses its gas", "fluid went out at the relief valve after a stagnation, or was drawn off", true, false}, [&](const Visit& v) { return pressure_at_20(job, v); }));
    SeasonCourse late = course(
        job, {"first_start", "First start on clear days, after the clear sky's", "min", 1, 0, "earlier than it was", "later each season: what grows before the array?", "since then something stands before the array, or another start was set", false, true}, [&](const Visit& v) { return late_min(job, v); }, late_weeks(job));
    name_shadow(late, job, units);
    add(std::move(late));
    add(course(job, {"heat", "Heat under a clear sky, against the model", "%", 100, 0, "an exchanger that scales, glass that dulls, less flow: compare the rise", "more than it was", "look at what was changed then", true, false}, [&](const Visit& v) { return v.sky == "clear" ? share_of_clear(job, v) : NAN; }));
    add(course(job, {"rise", "Rise over the array under a clear sky", kelvin, to_k, 1, "more flow, or less heat taken up", "less flow: strainer, air, pump", "look at what was changed then", false, true}, [](const Visit& v) { return v.sky == "clear" ? read_value(v, "rise") : NAN; }));
    add(course(job, {"flow", "Flow", unit_name(Quantity::flow, units), to_display(1, Quantity::flow, units), 1, "strainer, scale, air, a pump that wears", "more than it was", "look at what was changed then", true, false}, [](const Visit& v) { return read_value(v, "flow"); }));
    add(course(job, {"battery", "Battery", volt, 1, 2, "a battery that ages, or too little charge", "more charge than before", "look at what was changed then", true, false}, [](const Visit& v) { return read_value(v, "battery"); }));
    add(course(job, {"freezes", "Fluid freezes at", unit_name(Quantity::temperature, units), 1, 1, "more glycol than before: topped up with mix", "thinner: topped up with water, or it ages; compare with the coldest night there", "topped up or changed then", false, true}, [&](const Visit& v) { return to_display(read_value(v, "freezes"), Quantity::temperature, units); }));
    add(course(job, {"acidity", "Fluid's pH", "", 1, 1, "its inhibitor is used up: stagnation ages it; change it before it turns acid and eats copper", "fresh fluid, or another one", "topped up or changed then", true, false}, [](const Visit& v) { return read_value(v, "acidity"); }));
    const Variant& v = job.logbook.visits.empty() ? job.variants.front() : variant_of(job, job.logbook.visits.back());
    for (const AskedReading& a : asked_readings(v)) {
        if (std::string(a.kind->key) == "apart")
            add(course(job, {"apart", reading_label(*a.kind, a.of, &v) + ", side by side", kelvin, to_k, 2, "a probe that drifts", "a probe that drifts", "one of them was changed or moved", true, true}, [&](const Visit& x) { return read_value(x, "apart", a.of); }));
        if (std::string(a.kind->key) == "starts")
            add(course(job, {"starts", a.of + ", starts a day", "", 1, 1, "fewer than they were", "more often: start and stop too near, a slug, a drain time", "look at what was set then", false, true}, ADay{job, "starts", a.of}, a.of == v.unit.outputs.front().key ? log_weeks(job, SeasonMeasure::starts) : std::vector<SeasonPoint>()));
        if (std::string(a.kind->key) == "hours")
            add(course(job, {"hours", a.of + ", hours a day", "h", 1, 1, "runs less than it did", "runs longer than it did: at night, or by hand?", "look at what was set then", false, true}, ADay{job, "hours", a.of}));
    }
    if (auto weeks = log_weeks(job, SeasonMeasure::heat_per_sun); weeks.size() >= 2) {
        SeasonCourse c{"heat_per_sun", "Heat over sun, weeks of the logs", "%", std::move(weeks), {}, "", Tone::plain};
        read(c, {"heat_per_sun", "", "%", 100, 0, "an exchanger that scales, less flow", "more than it was", "look at what was changed then", true, false});
        for (SeasonPoint& p : c.points)
            p.value *= 100;
        out.push_back(std::move(c));
    }
    return out;
}

} // namespace vernal
