// Troubles of settings, clock and shade.
#include "trouble.h"

#include "few_words.h"
#include "stated.h"

#include "core/weather/sun.h"

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <map>
#include <numbers>

namespace vernal::troubles {

constexpr double degree = std::numbers::pi / 180;
// Warm water that no day makes hot enough.
void not_disinfected(const AuditCase& c, std::vector<AuditTrouble>& out)
{
    constexpr double most_days = 7; // the safer of the periods in use; local codes may ask for every day
    const bool tank = std::any_of(c.v.probes.begin(), c.v.probes.end(), [](const Probe& p) { return p.place == ProbePlace::tank_bottom || p.place == ProbePlace::tank_middle || p.place == ProbePlace::tank_top; });
    for (const FoundHeating& h : c.heating)
        if (tank && h.longest_below_60_days > most_days) {
            if (AuditTrouble* t = report(out, "not_disinfected", {c.log.whole()}, 0.8, "The " + probe_name(c.v, h.coldest_probe) + " did not reach 60 °C for " + number_text(h.longest_below_60_days, "days") + ".", "Legionella grows in warm water that is not heated through.", "Heat it at the coldest stored point as often and as long as local codes ask, with tempered taps."))
                t->output = c.v.unit.outputs[h.output].key;
            return;
        }
}

namespace {

constexpr double kelvin_per_f = 5.0 / 9;

// The limit's number read as °F; it acts its allowance sooner, whichever scale it is in.
void limit_mix_up(const AuditCase& c, const FoundSettings& f, const StoreLimit& l, std::vector<AuditTrouble>& out)
{
    constexpr double near_c = 1.6;
    const double stated = l.limit.in_celsius(), acts = f.limit_c->value + l.allowance.in_kelvin(), read_as_f = (stated - 32) * kelvin_per_f;
    if (std::fabs(acts - read_as_f) < near_c && std::fabs(acts - stated) > 3 * near_c)
        report(out, "unit_mix_up", {c.log.whole()}, 0.9, "The limit acts at " + number_text(acts, "°C") + ": that is " + number_text(stated, "°F") + ".", "The job says " + number_text(stated, "°C") + ". The number was typed on a unit that shows °F.", "Set the unit's scale first, then every number anew.");
}

void pair_mix_up(const AuditCase& c, const FoundSettings& f, const DifferencePair& p, std::vector<AuditTrouble>& out)
{
    constexpr double share = 0.06, least_k = 4, sharp_k = 1.2;
    const auto near = [&](double x) { return f.on_k->low <= x * (1 + share) && f.on_k->high >= x * (1 - share) && std::fabs(f.on_k->value - x) < share * x + 0.3; };
    const bool as_f = near(p.on_k * kelvin_per_f), as_c = near(p.on_k / kelvin_per_f), sharp = f.on_k->points >= 5 || f.on_k->high - f.on_k->low < sharp_k;
    const double off_k = as_f ? p.off_k * kelvin_per_f : p.off_k / kelvin_per_f;
    // Starts above the set one may have been held by something else: then the stop has to say so too.
    const bool off_too = f.off_k ? std::fabs(f.off_k->value - off_k) < 0.6 + share * p.off_k : as_f;
    if ((as_f || as_c) && off_too && sharp && p.on_k > least_k)
        report(out, "unit_mix_up", {c.log.whole()}, 0.7, "It starts at " + number_text(f.on_k->value, "K") + " where the job says " + number_text(p.on_k, "K") + (as_f ? ": five ninths of it." : ": nine fifths of it."), "The same digits in the other scale.", "Look which scale the unit is set to, and read its differences again.");
}

} // namespace

// A number of the job, typed on a unit that is set to the other scale.
void unit_mix_up(const AuditCase& c, std::vector<AuditTrouble>& out)
{
    for (const FoundSettings& f : c.found) {
        for (const Rule& r : c.v.unit.rules)
            if (const auto* l = std::get_if<StoreLimit>(&r.body); l && r.enabled && f.limit_c && c.v.probes[f.limit_probe].key == l->probe)
                limit_mix_up(c, f, *l, out);
        for (const DifferencePair& p : difference_pairs(c.v, f.output))
            if (f.on_k && p.source == f.source && p.store == f.store) {
                pair_mix_up(c, f, p, out);
                break;
            }
    }
}

// The sun's day in the log stands elsewhere than the sun does.
void clock_wrong(const AuditCase& c, std::vector<AuditTrouble>& out)
{
    const TraceColumn* sun = c.log.open_sun();
    if (!sun || !c.log.log().has_date())
        return;
    // Its centre of gravity against that of the clear sky in the same plane.
    struct Sums {
        double seen = 0, seen_t = 0, clear = 0, clear_t = 0, from = 0, to = 0;
    };
    const bool level = sun->name == "irradiance";
    std::map<long, Sums> days;
    for (std::size_t row = 0; row < c.log.rows(); ++row) {
        const double g = sun->values[row], h = c.log.of_day_s(row), height = c.sun_height_deg(row);
        if (!std::isfinite(g))
            continue;
        Sums& s = days[c.log.day(row)];
        s.seen += std::max(0.0, g);
        s.seen_t += std::max(0.0, g) * h;
        double clear = height > 0 ? 1000 * std::pow(std::sin(height * degree), 1.2) : 0;
        if (!level && height > 0) {
            const Collector& k = c.v.loop.collector;
            const double cosine = std::max(0.0, std::cos(incidence_deg({90 - height, c.sun_azimuth_deg(row)}, k.tilt_deg, k.azimuth_deg) * degree));
            const double up = std::sin(height * degree);
            clear = 850 * cosine * std::pow(std::max(0.02, up), 0.3) + 110 * std::sqrt(up); // the sky's own light turns with no plane
        }
        s.clear += clear;
        s.clear_t += clear * h;
        s.to = c.log.time_s(row);
        if (s.from == 0)
            s.from = c.log.time_s(row);
    }
    std::vector<double> off;
    std::vector<TroubleStretch> where;
    for (const auto& [day, s] : days)
        if (s.seen > 0.6 * s.clear && s.clear > 0 && s.to - s.from > 20 * 3600.0) { // a fair day, all of it
            off.push_back(s.seen_t / s.seen - s.clear_t / s.clear);
            where.push_back({s.from, s.to});
        }
    if (off.empty())
        return;
    const double least_s = off.size() > 1 ? 2100 : 2700;
    const double by = median_of(off);
    if (std::fabs(by) < least_s)
        return;
    report(out, "clock_wrong", where, off.size() > 1 ? 0.85 : 0.65, "The log's sun stands " + number_text(std::fabs(by) / 60, "min") + (by > 0 ? " late" : " early") + " against the sky of the place.", "Its clock, or the zone it was read with, is off; summer time is an hour. A shadow over half the day looks alike.", "Set the unit's clock, or import the log with another clock.");
}

// On days that the log itself shows to be clear, long after the sun stood well on the array.
void late_start(const AuditCase& c, std::vector<AuditTrouble>& out)
{
    const TraceColumn* sun = c.log.open_sun();
    const std::size_t pump = c.loop_pump();
    if (!sun || pump >= c.v.unit.outputs.size() || c.found.empty() || !c.log.log().has_date())
        return;
    const FoundSettings& f = c.found.front();
    constexpr double good_w_m2 = 450, late_s = 3600;
    std::map<long, double> well, first; // seconds of good sun before the first start
    std::map<long, std::size_t> row_of;
    for (std::size_t row = 1; row < c.log.rows(); ++row) {
        const long day = c.log.day(row);
        if (first.count(day) == 0 && c.log.output(pump, row) == 1) {
            first[day] = c.log.time_s(row);
            row_of[day] = row;
        }
        if (first.count(day) == 0 && sun->values[row] > good_w_m2 && !c.log.after_gap(row))
            well[day] += c.log.time_s(row) - c.log.time_s(row - 1);
    }
    std::vector<TroubleStretch> late;
    std::vector<double> azimuths;
    for (const auto& [day, t] : first)
        if (well.count(day) != 0 && well[day] > late_s) {
            // The array stood cold beside the good sun: shade on it, and not a hot store or a limit.
            const double d = c.log.reading(f.source, row_of[day] - 1) - c.log.reading(f.store, row_of[day] - 1);
            if (d > (f.on_k ? f.on_k->value + 3 : 20.0))
                continue;
            late.push_back({t - well[day], t});
            azimuths.push_back(c.sun_azimuth_deg(row_of[day]));
        }
    if (late.empty())
        return;
    char az[64];
    const double azimuth = median_of(azimuths);
    std::snprintf(az, sizeof az, "%.0f° %s of south", std::fabs(azimuth), azimuth < 0 ? "east" : "west");
    if (AuditTrouble* t = report(out, "late_start", late, late.size() > 1 ? 0.7 : 0.5, "It starts more than an hour after the sun is good, at " + std::to_string(late.size()) + (late.size() == 1 ? " day." : " days."), std::string("Something shades the array until the sun stands ") + az + ", or a probe reads too low.", "Stand at the array then, and draw the horizon at Days."))
        t->output = c.v.unit.outputs[pump].key;
}

} // namespace vernal::troubles
