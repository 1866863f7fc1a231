// Troubles that show in the readings themselves.
#include "trouble.h"

#include "few_words.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace vernal::troubles {
namespace {

bool has_contact(const AuditCase& c, std::size_t probe)
{
    return std::any_of(c.v.unit.rules.begin(), c.v.unit.rules.end(), [&](const Rule& r) {
        Rule copy = r;
        const auto keys = keys_of(copy);
        return r.enabled && std::holds_alternative<SeriesThermostat>(r.body) && std::any_of(keys.begin(), keys.end(), [&](const KeyOf& k) { return *k.key == c.v.probes[probe].key; });
    });
}

std::vector<std::size_t> temperatures(const AuditCase& c)
{
    std::vector<std::size_t> out;
    for (std::size_t p = 0; p < c.v.probes.size(); ++p)
        if (c.log.has_probe(p) && reads_temperature(c.v.probes[p]))
            out.push_back(p);
    return out;
}

} // namespace

void probe_lost(const AuditCase& c, std::vector<AuditTrouble>& out)
{
    constexpr double lowest_c = -45, highest_c = 280;
    for (const std::size_t p : temperatures(c)) {
        if (has_contact(c, p))
            continue;
        std::size_t there = 0;
        for (std::size_t row = 0; row < c.log.rows(); ++row)
            there += std::isfinite(c.log.reading(p, row));
        if (there * 20 < c.log.rows()) // a column that is hardly used says nothing
            continue;
        const auto stretches = stretches_where(c.log, std::max(300.0, 3 * c.log.usual_s()), 120, [&](std::size_t row) {
            const double r = c.log.reading(p, row);
            return !std::isfinite(r) || r < lowest_c || r > highest_c;
        });
        const bool shorted_or_open = std::any_of(stretches.begin(), stretches.end(), [](const TroubleStretch& s) { return s.to_s > s.from_s; });
        if (AuditTrouble* t = shorted_or_open ? report(out, "probe_lost", stretches, 0.95, "The " + probe_name(c.v, p) + " has no reading, or one no probe can have.", "A lead that is broken or shorted; protections that need this probe are blind meanwhile.", "Measure its ohms at the unit, disconnected, and again at the probe.") : nullptr)
            t->probe = c.v.probes[p].key;
    }
}

// It keeps within its own scatter for hours, which no array does.
void probe_stuck(const AuditCase& c, std::vector<AuditTrouble>& out)
{
    constexpr double least_s = 4 * 3600.0, store_s = 10 * 3600, smooth_k = 0.25;
    for (const std::size_t p : temperatures(c)) {
        const bool outdoors = c.v.probes[p].place == ProbePlace::collector || c.v.probes[p].place == ProbePlace::collector_2;
        // A store may stand still; one whose digits never move does not live.
        const double scatter = std::max(c.log.noise_k(p), c.log.step_k(p)), within = outdoors ? smooth_k + 6 * scatter : 0.0, least = outdoors ? least_s : store_s;
        if (!outdoors && c.log.noise_k(p) < 0.02)
            continue;
        std::vector<TroubleStretch> found;
        std::size_t since = 0;
        double low = INFINITY, high = -INFINITY;
        for (std::size_t row = 0; row <= c.log.rows(); ++row) {
            const double r = row < c.log.rows() ? c.log.reading(p, row) : NAN;
            if (std::isfinite(r) && (row == since || !c.log.after_gap(row)) && std::max(high, r) - std::min(low, r) <= within) {
                low = std::min(low, r);
                high = std::max(high, r);
                continue;
            }
            if (row > since && c.log.time_s(row - 1) - c.log.time_s(since) >= least)
                found.push_back({c.log.time_s(since), c.log.time_s(row - 1)});
            since = row;
            low = high = r;
            if (!std::isfinite(r)) {
                low = INFINITY;
                high = -INFINITY;
            }
        }
        if (AuditTrouble* t = report(out, "probe_stuck", found, 0.9, "The " + probe_name(c.v, p) + " stands still for hours.", "Places that live move; this reading does not.", "Warm the probe by hand: within a minute it must climb."))
            t->probe = c.v.probes[p].key;
    }
}

// By night the array is the cold one, by day it swings more than any store.
void probes_swapped(const AuditCase& c, std::vector<AuditTrouble>& out)
{
    const std::size_t collector = c.probe_at(ProbePlace::collector), store = c.found.empty() ? c.probe_at(ProbePlace::tank_bottom) : c.found.front().store;
    if (collector >= c.v.probes.size() || store >= c.v.probes.size() || !c.log.has_probe(store))
        return;
    constexpr double window_s = 1800, least_k = 4;
    // Steps of half an hour: the array's are the larger ones, and at night the array is below the store.
    std::map<long, std::pair<std::vector<double>, std::vector<double>>> swings; // by day: of either
    std::size_t last = 0;
    std::vector<double> by_night;
    for (std::size_t row = 0; row < c.log.rows(); ++row) {
        const double a = c.log.reading(collector, row), b = c.log.reading(store, row);
        if (!std::isfinite(a) || !std::isfinite(b))
            continue;
        if (c.night(row))
            by_night.push_back(a - b);
        if (c.log.time_s(row) - c.log.time_s(last) >= window_s) {
            swings[c.log.day(row)].first.push_back(std::fabs(a - c.log.reading(collector, last)));
            swings[c.log.day(row)].second.push_back(std::fabs(b - c.log.reading(store, last)));
            last = row;
        }
    }
    std::vector<TroubleStretch> days;
    const double night_k = median_of(by_night);
    double least = INFINITY;
    for (const auto& [day, s] : swings) {
        double a = 0, b = 0;
        for (const double x : s.first)
            a += x;
        for (const double x : s.second)
            b += x;
        if (s.first.size() > 12 && b > 1.5 * a && b > 20)
            least = std::min(least, b / std::max(1.0, a));
    }
    if (!(night_k > least_k) || !std::isfinite(least))
        return;
    days.push_back({c.log.time_s(0), c.log.time_s(c.log.rows() - 1)});
    if (AuditTrouble* t = report(out, "probes_swapped", days, 0.9, "The " + probe_name(c.v, collector) + " and the " + probe_name(c.v, store) + " seem to sit on each other's terminals.", "By night the “" + probe_name(c.v, collector) + "” is " + number_text(night_k, "K") + " the warmer one, and it swings less than the store over the day.", "Warm one of them by hand and see which reading climbs."))
        t->probe = c.v.probes[collector].key;
}

// Before sunrise the array stands near the air; what a probe reads beside that is its own.
void probe_offset(const AuditCase& c, std::vector<AuditTrouble>& out)
{
    const TraceColumn* air = c.log.log().find("air");
    const std::size_t collector = c.probe_at(ProbePlace::collector), pump = c.loop_pump();
    if (!air || collector >= c.v.probes.size() || pump >= c.v.unit.outputs.size())
        return;
    std::map<long, std::vector<double>> nights;
    std::map<long, TroubleStretch> when;
    for (std::size_t row = 0; row < c.log.rows(); ++row) {
        const double h = c.log.of_day_s(row) / 3600, d = c.log.reading(collector, row) - air->values[row];
        if (h < 2 || h > 5 || !c.night(row) || c.log.output(pump, row) != 0 || !std::isfinite(d))
            continue;
        nights[c.log.day(row)].push_back(d);
        auto& w = when.try_emplace(c.log.day(row), TroubleStretch{c.log.time_s(row), 0}).first->second;
        w.to_s = c.log.time_s(row);
    }
    constexpr double above_k = 4, below_k = -12; // a clear night takes an absorber so far below the air, nothing lifts it above
    std::vector<TroubleStretch> found;
    std::vector<double> by;
    for (const auto& [day, d] : nights)
        if (const double m = median_of(d); d.size() >= 10 && (m > above_k || m < below_k)) {
            found.push_back(when[day]);
            by.push_back(m);
        }
    if (AuditTrouble* t = report(out, "probe_offset", found, found.size() * 2 > nights.size() ? 0.75 : 0.6, "The " + probe_name(c.v, collector) + " stands " + number_text(median_of(by), "K") + " from the air before sunrise.", "An array at rest is as cold as the air or a few kelvin colder; warm fluid that creeps up by night looks the same.", "Hold both probes side by side in one cup."))
        t->probe = c.v.probes[collector].key;
}

// A store's probe that jumps with the sun.
void probe_in_sun(const AuditCase& c, std::vector<AuditTrouble>& out)
{
    const TraceColumn* sun = c.sun();
    if (!sun)
        return;
    for (const std::size_t p : temperatures(c)) {
        if (!in_store(c.v.probes[p].place))
            continue;
        constexpr double step_s = 600;
        double sxx = 0, sxy = 0, syy = 0;
        std::size_t n = 0, last = 0;
        std::vector<TroubleStretch> where;
        for (std::size_t row = 1; row < c.log.rows(); ++row) {
            if (c.log.time_s(row) - c.log.time_s(last) < step_s)
                continue;
            bool whole = true;
            for (std::size_t r = last + 1; r <= row; ++r)
                whole = whole && !c.log.after_gap(r);
            const double x = sun->values[row] - sun->values[last], y = c.log.reading(p, row) - c.log.reading(p, last);
            if (whole && std::isfinite(x) && std::isfinite(y) && sun->values[row] > 20) {
                sxx += x * x;
                sxy += x * y;
                syy += y * y;
                ++n;
                if (std::fabs(y) > 1)
                    where.push_back({c.log.time_s(last), c.log.time_s(row)});
            }
            last = row;
        }
        const double r = sxy / std::sqrt(std::max(1e-12, sxx * syy)), per_1000 = 1000 * sxy / std::max(1e-9, sxx);
        if (n < 12 || r < 0.6 || per_1000 < 6)
            continue;
        if (AuditTrouble* t = report(out, "probe_in_sun", where, 0.8, "The " + probe_name(c.v, p) + " jumps with the sun: " + number_text(per_1000, "K") + " at full sun.", "A store warms slowly while the sun shines; it does not follow each cloud.", "Shade the probe and its lead with a hand for a minute."))
            t->probe = c.v.probes[p].key;
    }
}

} // namespace vernal::troubles
