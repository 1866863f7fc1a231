#include "seasons.h"

#include "core/units/constants.h"

#include "few_words.h"
#include "stated.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace vernal {
namespace {

constexpr std::array<SeasonMeasureInfo, season_measures> table{{{"first_start_h", "First start", "h"}, {"run_h", "Run hours a day", "h"}, {"starts", "Starts a day", ""}, {"rise_k", "Difference while running", "K"}, {"heat_per_sun", "Heat for the sun it had", ""}, {"cold_bar", "Cold pressure", "bar"}}};

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
        sun_ = log.array_sun();
        gauge_ = log.gauge();
        rate_w_k_ = stated_rate_w_k(v);
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
        }
        out.push_back(w);
    }
    return out;
}

} // namespace

const SeasonMeasureInfo& season_measure(SeasonMeasure m) { return table[static_cast<std::size_t>(m)]; }

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
        if (x.size() >= least_trend_points)
            out.trends.push_back({trend_of(x, y), static_cast<SeasonMeasure>(m)});
    }
    return out;
}

} // namespace vernal
