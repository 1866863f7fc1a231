#include "year.h"

#include "core/run/figure_counter.h"
#include "core/run/simulation.h"
#include "core/setup/possible.h"
#include "core/units/constants.h"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <future>
#include <numbers>
#include <numeric>
#include <optional>

namespace vernal {
namespace {

constexpr int days_of_a_year = 365; // the 31st of December of a leap year is left out
constexpr double least_trace_days = 360;

bool holds_a_year(const Job& job, const Day& d)
{
    const auto it = job.traces.find(d.trace);
    return it != job.traces.end() && !it->second->time_s.empty() && (it->second->find("irradiance") || it->second->find("beam_normal")) && it->second->time_s.back() - it->second->time_s.front() > least_trace_days * day_s;
}

Clouds drawn_sky(std::uint32_t seed, int n)
{
    const std::uint32_t mixed = (seed * 2654435761U) ^ (static_cast<std::uint32_t>(n) * 2246822519U);
    const std::uint32_t hundredth = ((mixed ^ (mixed >> 15)) * 2654435761U >> 8) % 100;
    return hundredth < 34 ? Clouds::clear : hundredth < 60 ? Clouds::racing
                                        : hundredth < 80   ? Clouds::broken
                                                           : Clouds::overcast;
}

// Coldest and warmest of the job's own days stand for mid-January and mid-July, in the south the other way round.
void season(SkySpec& sky, const Job& job, int n)
{
    const SkySpec *cold = nullptr, *warm = nullptr;
    for (const Day& d : job.days)
        if (d.kind == DayKind::generated) {
            cold = !cold || d.sky.air_min_c < cold->air_min_c ? &d.sky : cold;
            warm = !warm || d.sky.air_max_c > warm->air_max_c ? &d.sky : warm;
        }
    if (!cold)
        return;
    constexpr int coldest_day = 15;
    const double swing = std::cos(2 * std::numbers::pi * (n - coldest_day) / days_of_a_year) * (job.site.place.latitude_deg < 0 ? -1 : 1);
    const double winter = (1 + swing) / 2;
    sky.air_min_c = std::lerp(warm->air_min_c, cold->air_min_c, winter);
    sky.air_max_c = std::max(sky.air_min_c, std::lerp(warm->air_max_c, cold->air_max_c, winter));
}

Day nth_day(const Job& job, const Day& like, int n, bool measured)
{
    Day d = like;
    const std::chrono::year_month_day date{std::chrono::sys_days{std::chrono::year{like.sky.year} / 1 / 1} + std::chrono::days{n}};
    d.sky.month = static_cast<int>(static_cast<unsigned>(date.month()));
    d.sky.day = static_cast<int>(static_cast<unsigned>(date.day()));
    d.sky.seed = (like.sky.seed + static_cast<std::uint32_t>(n)) % 1000000;
    d.sky.snow_until_h = 0;
    d.length_days = 1;
    d.away_days = d.guests_days = 0;
    d.outage_h = 0;
    if (measured)
        return d;
    d.trace.clear();
    d.sky.clouds = drawn_sky(like.sky.seed, n);
    season(d.sky, job, n);
    return d;
}

// On the first array, by the minute.
double irradiation_of(const DayForcing& day)
{
    constexpr double minute_s = 60;
    return minute_s * std::accumulate(day.plane_w_m2.begin(), day.plane_w_m2.begin() + minutes_per_day, 0.0);
}

// Figures of each day by a counter of its own.
class DayCounter : public Listener {
public:
    DayCounter(Year& year, const std::vector<YearDay>& dates) : year_(year), dates_(dates) {}
    void begin(const Simulation& s) { now_.emplace(s); }
    void day_began(const Simulation& s) override
    {
        finish(s);
        begin(s);
    }
    void finish(const Simulation& s)
    {
        YearDay d = dates_[year_.days.size()];
        d.figures = now_->finished(s);
        d.figures.days = 1;
        const double midnight = day_s * static_cast<double>(year_.days.size());
        for (double* instant : {&d.figures.first_freeze_s, &d.figures.first_short_s, &d.figures.first_cut_s})
            *instant -= midnight;
        for (PumpFigures& p : d.figures.pumps)
            p.first_start_s -= midnight;
        year_.days.push_back(std::move(d));
    }
    void heat(const Simulation& s, const HeatFlows& q) override { now_->heat(s, q); }
    void passed(const Simulation& s, double h, const DrawNow& draw) override { now_->passed(s, h, draw); }
    void decided(const Simulation& s, bool switched) override { now_->decided(s, switched); }

private:
    Year& year_;
    const std::vector<YearDay>& dates_;
    std::optional<FigureCounter> now_;
};

void add_up(Year& year)
{
    year.whole.month = 0;
    for (const YearDay& d : year.days) {
        if (year.months.empty() || year.months.back().month != d.month)
            year.months.push_back({.month = d.month});
        year.months.back().add(d);
        year.whole.add(d);
    }
}

} // namespace

void YearMonth::add(const YearDay& d)
{
    const Figures& f = d.figures;
    ++days;
    starts += f.starts();
    heat_j += f.heat.to_store;
    frost_j += f.frost_j;
    backup_j += f.heat.backup();
    needed_j += f.needed_j;
    short_j += f.short_j;
    pump_energy_j += f.pump_energy_j;
    hottest_collector_c = std::max(hottest_collector_c, f.highest_collector_c);
    hottest_store_c = std::max(hottest_store_c, f.highest_store_c);
    coldest_air_c = std::min(coldest_air_c, d.coldest_air_c);
    above_limit_s += f.above_limit_s;
    freezing_s += f.freezing_s;
    irradiation_j_m2 += d.irradiation_j_m2;
    possible_j += f.possible_j;
}

Result<Year> run_year(const Job& job, const Variant& variant, const Day& like, const std::function<void(std::size_t, std::size_t)>& progress, std::stop_token stop)
{
    if (like.kind != DayKind::generated)
        return Error{"a year goes by a generated day", like.name, "Choose one: its draws and its cold water are taken"};
    Year year;
    year.measured = holds_a_year(job, like);
    std::vector<YearDay> dates;
    Weather weather;
    for (int n = 0; n < days_of_a_year; ++n) {
        const Day d = nth_day(job, like, n, year.measured);
        weather.days.push_back(weather_of(job, variant, d).days.front());
        dates.push_back({d.sky.year, d.sky.month, d.sky.day, {}, *std::min_element(weather.days.back()->air_c.begin(), weather.days.back()->air_c.end()), irradiation_of(*weather.days.back()), d.sky.clouds});
        if (stop.stop_requested()) {
            year.cancelled = true;
            return year;
        }
    }
    const auto setup = coupled_setup(job, variant, nth_day(job, like, 0, year.measured), &weather);
    if (!setup)
        return setup.error();
    Simulation simulation(*setup);
    simulation.spin_up(stop);
    // What was possible is worked out beside it.
    auto possible = std::async(std::launch::async, [&variant, &setup, begins = simulation.temperatures(), stop] { return possible_heat(variant, *setup, begins, stop); });
    DayCounter counter(year, dates);
    counter.begin(simulation);
    simulation.add(counter);
    for (int n = 1; n <= days_of_a_year && !year.cancelled; ++n) {
        year.cancelled = !simulation.advance(n * day_s, stop);
        if (progress)
            progress(static_cast<std::size_t>(n), days_of_a_year);
    }
    if (!year.cancelled)
        counter.finish(simulation);
    const std::vector<double> by_day_j = possible.get().by_day_j;
    for (std::size_t n = 0; n < year.days.size(); ++n)
        year.days[n].figures.possible_j = n < by_day_j.size() ? by_day_j[n] : NAN;
    add_up(year);
    return year;
}

std::vector<WorthALook> worth_a_look(const Year& year)
{
    std::vector<WorthALook> out;
    const auto most = [&](const char* key, const char* title, auto value, double least) {
        std::size_t best = year.days.size();
        for (std::size_t i = 0; i < year.days.size(); ++i)
            if (const double x = value(year.days[i]); x > least && (best == year.days.size() || x > value(year.days[best])))
                best = i;
        if (best < year.days.size())
            out.push_back({key, title, best});
    };
    most(
        "most_starts", "most starts", [](const YearDay& d) { return d.figures.starts(); }, 1);
    most(
        "hottest_store", "hottest store", [](const YearDay& d) { return d.figures.highest_store_c; }, -INFINITY);
    most(
        "hottest_collector", "hottest collector", [](const YearDay& d) { return d.figures.highest_collector_c; }, -INFINITY);
    most(
        "coldest", "coldest air", [](const YearDay& d) { return -d.coldest_air_c; }, -INFINITY);
    most(
        "most_frost", "longest frost in wet pipe", [](const YearDay& d) { return d.figures.freezing_s; }, 0);
    most(
        "most_missing", "most missing at the tap", [](const YearDay& d) { return d.figures.short_j; }, 0);
    most(
        "least_heat", "least heat", [](const YearDay& d) { return -d.figures.heat.to_store; }, -INFINITY);
    return out;
}

Day day_of_year_run(const Job& job, const Day& like, const Year& year, std::size_t day) { return nth_day(job, like, static_cast<int>(day), year.measured); }

} // namespace vernal
