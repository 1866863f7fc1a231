#include "seasons.h"

#include "few_words.h"

#include "core/plant/fluid.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace vernal {
namespace {

constexpr double hour_s = 3600, month_days = 30;
constexpr std::size_t least_weeks = 5, least_of_a_side = 2;

constexpr std::array<SeasonMeasureInfo, season_measures> table{{{"first_start_h", "First start", "h"}, {"run_h", "Run hours a day", "h"}, {"starts", "Starts a day", ""}, {"rise_k", "Difference while running", "K"}, {"heat_per_sun", "Heat for the sun it had", ""}, {"cold_bar", "Cold pressure", "bar"}}};

// Student's t for a two-sided 95 %, by degrees of freedom (Abramowitz & Stegun 26.7.5, its first terms).
double student_95(double freedom)
{
    constexpr double z = 1.959964;
    const double f = std::max(1.0, freedom);
    if (f < 2)
        return 12.706;
    if (f < 3)
        return 4.303;
    return z + (z * z * z + z) / (4 * f) + (5 * std::pow(z, 5) + 16 * z * z * z + 3 * z) / (96 * f * f) + (3 * std::pow(z, 7) + 19 * std::pow(z, 5) + 17 * z * z * z - 15 * z) / (384 * f * f * f);
}

struct Line {
    double a = 0, b = 0, squares = 0; // left over
    double at(double x) const { return a + b * x; }
};
Line line_of(const std::vector<double>& x, const std::vector<double>& y)
{
    const auto n = static_cast<double>(x.size());
    double mx = 0, my = 0, xx = 0, xy = 0;
    for (std::size_t i = 0; i < x.size(); ++i) {
        mx += x[i] / n;
        my += y[i] / n;
    }
    for (std::size_t i = 0; i < x.size(); ++i) {
        xx += (x[i] - mx) * (x[i] - mx);
        xy += (x[i] - mx) * (y[i] - my);
    }
    Line l;
    l.b = xx > 0 ? xy / xx : 0;
    l.a = my - l.b * mx;
    for (std::size_t i = 0; i < x.size(); ++i)
        l.squares += std::pow(y[i] - l.at(x[i]), 2);
    return l;
}

// How alike neighbours are, 0…0.9: what is left over of them, corrected for so few (Kendall 1954: a
// short series shows too little of it).
double alike(const std::vector<double>& x, const std::vector<double>& y, const Line& l)
{
    double both = 0, own = 0;
    for (std::size_t i = 0; i < x.size(); ++i) {
        const double r = y[i] - l.at(x[i]);
        own += r * r;
        if (i > 0)
            both += r * (y[i - 1] - l.at(x[i - 1]));
    }
    if (own <= 0)
        return 0;
    const auto n = static_cast<double>(x.size());
    constexpr double usual = 0.5, worth = 14; // what a short series is taken for: weather and draws go on for weeks (estimate)
    const double r = both / own, corrected = r + (1 + 4 * std::max(0.0, r)) / n;
    return std::clamp(std::max(corrected, (n * corrected + worth * usual) / (n + worth)), 0.0, 0.9);
}

// The step that leaves least over, where it leaves clearly less than the line.
std::optional<SeasonTrend::Step> step_of(const std::vector<double>& x, const std::vector<double>& y, const Line& line)
{
    constexpr double clearly = 0.55, sigmas = 4.5;
    double best = INFINITY;
    std::size_t at = 0;
    double before = 0, after = 0;
    for (std::size_t k = least_of_a_side; k + least_of_a_side <= x.size(); ++k) {
        double a = 0, b = 0, squares = 0;
        for (std::size_t i = 0; i < x.size(); ++i)
            (i < k ? a : b) += y[i];
        a /= static_cast<double>(k);
        b /= static_cast<double>(x.size() - k);
        for (std::size_t i = 0; i < x.size(); ++i)
            squares += std::pow(y[i] - (i < k ? a : b), 2);
        if (squares < best) {
            best = squares;
            at = k;
            before = a;
            after = b;
        }
    }
    const auto n = static_cast<double>(x.size());
    const double scatter = std::sqrt(best / std::max(1.0, n - 3)), error = scatter * std::sqrt(1 / static_cast<double>(at) + 1 / (n - static_cast<double>(at)));
    if (at == 0 || best > clearly * line.squares || std::fabs(after - before) < sigmas * error * std::sqrt((1 + alike(x, y, line)) / (1 - alike(x, y, line))))
        return {};
    return SeasonTrend::Step{static_cast<long>(std::lround(x[at])), before, after};
}

class Measurer {
public:
    Measurer(const LogView& log, const Variant& v) : log_(log), v_(v)
    {
        const Arrangement& a = arrangement_of(v.loop);
        const int pump = a.output_of(Driver::pump);
        if (pump < 0 || static_cast<std::size_t>(pump) >= v.unit.outputs.size() || !log.has_output(static_cast<std::size_t>(pump)))
            return;
        output_ = static_cast<std::size_t>(pump);
        known_ = true;
        source_ = probe(a.places.empty() ? ProbePlace::collector : a.places[0]);
        store_ = probe(a.places.size() > 1 ? a.places[1] : ProbePlace::tank_bottom);
        for (const char* name : {"irradiance_plane", "sun_sensor"})
            if (!sun_)
                sun_ = log.log().find(name);
        for (const char* name : {"pressure_sensor", "pressure"})
            if (!gauge_)
                gauge_ = log.log().find(name);
        if (a.pumped() && a.carrier != Carrier::air) {
            const Fluid f = fluid_at(glycol_share(v.loop), 50);
            rate_w_k_ = v.loop.pump.flow_m3_s * v.loop.pump.speed * f.density_kg_m3 * f.heat_capacity_j_kgk;
        }
    }

    std::vector<SeasonDay> days()
    {
        std::vector<SeasonDay> out;
        for (std::size_t row = 0; known_ && row < log_.rows();) {
            std::size_t end = row;
            while (end < log_.rows() && log_.day(end) == log_.day(row))
                ++end;
            constexpr double least_h = 18; // of a day that counts
            if (log_.time_s(end - 1) - log_.time_s(row) > least_h * hour_s)
                out.push_back(of_day(row, end));
            row = end;
        }
        return out;
    }

private:
    std::size_t probe(ProbePlace place) const
    {
        for (std::size_t i = 0; i < v_.probes.size(); ++i)
            if (v_.probes[i].place == place && log_.has_probe(i))
                return i;
        return v_.probes.size();
    }

    SeasonDay of_day(std::size_t first, std::size_t end) const
    {
        SeasonDay d;
        d.day = log_.day(first);
        d.value.fill(NAN);
        const auto put = [&](SeasonMeasure m, double x) { d.value[static_cast<std::size_t>(m)] = x; };
        double run_s = 0, starts = 0, on_s = 0, heat_j = 0, sun_j_m2 = 0, first_h = NAN;
        std::vector<double> rises, cold;
        const auto per = gauge_ ? readings_per(Reads::pressure, gauge_->quantity, gauge_->unit) : std::nullopt;
        for (std::size_t row = first; row < end; ++row) {
            const double dt = row + 1 < end && !log_.after_gap(row + 1) ? log_.time_s(row + 1) - log_.time_s(row) : 0;
            const int on = log_.output(output_, row);
            const double k = source_ < v_.probes.size() && store_ < v_.probes.size() ? log_.reading(source_, row) - log_.reading(store_, row) : NAN;
            if (on == 1) {
                if (on_s == 0) {
                    ++starts;
                    if (std::isnan(first_h))
                        first_h = log_.of_day_s(row) / hour_s;
                }
                on_s += std::max(dt, 1e-9);
                run_s += dt;
                if (on_s > 600 && std::isfinite(k))
                    rises.push_back(k);
                if (std::isfinite(k))
                    heat_j += rate_w_k_ * k * dt;
            } else if (on == 0) {
                on_s = 0;
            }
            if (sun_ && std::isfinite(sun_->values[row]))
                sun_j_m2 += sun_->values[row] * dt;
            if (const double h = log_.of_day_s(row) / hour_s; per && h >= 2 && h < 5 && std::isfinite(gauge_->values[row]))
                cold.push_back(gauge_->values[row] * *per);
        }
        put(SeasonMeasure::first_start_h, first_h);
        put(SeasonMeasure::run_h, run_s / hour_s);
        put(SeasonMeasure::starts, starts);
        put(SeasonMeasure::rise_k, rises.size() >= 10 ? median_of(rises) : NAN);
        constexpr double least_sun_j_m2 = 5e6; // a dull day says little of a loop
        if (sun_j_m2 > least_sun_j_m2 && rate_w_k_ > 0)
            put(SeasonMeasure::heat_per_sun, heat_j / (sun_j_m2 * v_.loop.collector.area_m2));
        put(SeasonMeasure::cold_bar, cold.size() >= 5 ? median_of(cold) : NAN);
        return d;
    }

    const LogView& log_;
    const Variant& v_;
    bool known_ = false;
    std::size_t output_ = 0, source_ = 0, store_ = 0;
    const TraceColumn *sun_ = nullptr, *gauge_ = nullptr;
    double rate_w_k_ = 0;
};

std::vector<SeasonWeek> weeks_of(const std::vector<SeasonDay>& days)
{
    std::map<long, std::vector<const SeasonDay*>> by;
    for (const SeasonDay& d : days)
        by[(d.day - days.front().day) / 7].push_back(&d);
    std::vector<SeasonWeek> out;
    for (const auto& [week, of] : by) {
        SeasonWeek w;
        w.first_day = days.front().day + 7 * week;
        for (std::size_t m = 0; m < season_measures; ++m) {
            std::vector<double> values;
            for (const SeasonDay* d : of)
                values.push_back(d->value[m]);
            w.value[m] = median_of(values);
            w.days[m] = static_cast<std::size_t>(std::count_if(values.begin(), values.end(), [](double x) { return std::isfinite(x); }));
        }
        out.push_back(w);
    }
    return out;
}

} // namespace

const SeasonMeasureInfo& season_measure(SeasonMeasure m) { return table[static_cast<std::size_t>(m)]; }

SeasonTrend trend_of(SeasonMeasure measure, const std::vector<double>& x, const std::vector<double>& y)
{
    SeasonTrend out;
    out.measure = measure;
    out.weeks = x.size();
    if (x.size() < least_weeks)
        return out;
    const Line l = line_of(x, y);
    const auto n = static_cast<double>(x.size());
    double mean = 0, xx = 0;
    for (const double v : x)
        mean += v / n;
    for (const double v : x)
        xx += (v - mean) * (v - mean);
    const double r = alike(x, y, l), free = std::max(1.0, n * (1 - r) / (1 + r) - 2);
    const double error = std::sqrt(l.squares / (n - 2) / xx * (1 + r) / (1 - r)), half = student_95(free) * error;
    out.per_30_days = l.b * month_days;
    out.low = (l.b - half) * month_days;
    out.high = (l.b + half) * month_days;
    constexpr double beyond = 1.3; // of the half interval: so that, with steps, five in a hundred series of noise are claimed at most
    out.claimed = std::fabs(l.b) > beyond * half;
    out.step = step_of(x, y, l);
    return out;
}

Seasons seasons(const LogView& log, const Variant& v)
{
    Seasons out;
    out.days = Measurer(log, v).days();
    if (out.days.empty())
        return out;
    out.weeks = weeks_of(out.days);
    for (std::size_t m = 0; m < season_measures; ++m) {
        std::vector<double> x, y;
        for (const SeasonWeek& w : out.weeks)
            if (std::isfinite(w.value[m])) {
                x.push_back(static_cast<double>(w.first_day));
                y.push_back(w.value[m]);
            }
        if (x.size() >= least_weeks)
            out.trends.push_back(trend_of(static_cast<SeasonMeasure>(m), x, y));
    }
    return out;
}

} // namespace vernal
