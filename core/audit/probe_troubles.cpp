// Troubles that show in the readings themselves.
#include "trouble.h"

#include "few_words.h"
#include "trend.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace vernal::troubles {
namespace {

// A contact in series with its lead: what opens there is the contact.
bool has_contact(const AuditCase& c, std::size_t probe)
{
    return std::any_of(c.v.unit.rules.begin(), c.v.unit.rules.end(), [&](const Rule& r) {
        const auto* contact = std::get_if<SeriesThermostat>(&r.body);
        return r.enabled && contact && contact->probe == c.v.probes[probe].key;
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
        if (AuditTrouble* t = report(out, "probe_lost", stretches, 0.95, "The " + probe_name(c.v, p) + " has no reading, or one no probe can have.", "A lead that is broken or shorted; protections that need this probe are blind meanwhile.", "Measure its ohms at the unit, disconnected, and again at the probe."))
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
    const double night_k = median_of(by_night);
    bool swings_more = false;
    for (const auto& [day, s] : swings) {
        double a = 0, b = 0;
        for (const double x : s.first)
            a += x;
        for (const double x : s.second)
            b += x;
        if (s.first.size() > 12 && b > 1.5 * a && b > 20)
            swings_more = true;
    }
    if (!(night_k > least_k) || !swings_more)
        return;
    if (AuditTrouble* t = report(out, "probes_swapped", {c.log.whole()}, 0.9, "The " + probe_name(c.v, collector) + " and the " + probe_name(c.v, store) + " seem to sit on each other's terminals.", "By night the “" + probe_name(c.v, collector) + "” is " + number_text(night_k, "K") + " the warmer one, and it swings less than the store over the day.", "Warm one of them by hand and see which reading climbs."))
        t->probe = c.v.probes[collector].key;
}

namespace {

// What the array's probe reads beside the air in the small hours, when the array is as cold as
// the air or a few kelvin colder.
struct SmallHours {
    long day = 0;
    double above_air_k = 0; // median
    TroubleStretch when;
};

std::vector<SmallHours> small_hours(const AuditCase& c)
{
    constexpr std::size_t least_rows = 10;
    const TraceColumn* air = c.log.log().find("air");
    const std::size_t collector = c.probe_at(ProbePlace::collector), pump = c.loop_pump();
    std::vector<SmallHours> out;
    if (!air || collector >= c.v.probes.size() || pump >= c.v.unit.outputs.size())
        return out;
    std::map<long, std::pair<std::vector<double>, TroubleStretch>> nights;
    for (std::size_t row = 0; row < c.log.rows(); ++row) {
        const double h = c.log.of_day_s(row) / 3600, d = c.log.reading(collector, row) - air->values[row];
        if (h < 2 || h > 5 || !c.night(row) || c.log.output(pump, row) != 0 || !std::isfinite(d))
            continue;
        auto& [readings, when] = nights.try_emplace(c.log.day(row), std::vector<double>(), TroubleStretch{c.log.time_s(row), 0}).first->second;
        readings.push_back(d);
        when.to_s = c.log.time_s(row);
    }
    for (const auto& [day, night] : nights)
        if (night.first.size() >= least_rows)
            out.push_back({day, median_of(night.first), night.second});
    return out;
}

} // namespace

void probe_offset(const AuditCase& c, std::vector<AuditTrouble>& out)
{
    constexpr double above_k = 4, below_k = -12; // a clear night takes an absorber so far below the air, nothing lifts it above
    const auto nights = small_hours(c);
    std::vector<TroubleStretch> found;
    std::vector<double> by;
    for (const SmallHours& n : nights)
        if (n.above_air_k > above_k || n.above_air_k < below_k) {
            found.push_back(n.when);
            by.push_back(n.above_air_k);
        }
    const std::size_t collector = c.probe_at(ProbePlace::collector);
    if (found.empty() || std::any_of(out.begin(), out.end(), [&](const AuditTrouble& t) { return t.key == "probe_drifts" && t.probe == c.v.probes[collector].key; }))
        return;
    if (AuditTrouble* t = report(out, "probe_offset", found, found.size() * 2 > nights.size() ? 0.75 : 0.6, "The " + probe_name(c.v, collector) + " stands " + number_text(median_of(by), "K") + " from the air before sunrise.", "An array at rest is as cold as the air or a few kelvin colder; warm fluid that creeps up by night looks the same.", "Hold both probes side by side in one cup."))
        t->probe = c.v.probes[collector].key;
}

namespace {

// At rest in steady sun an array warms to what its own equation says; kept below where it boils.
double warms_by_k(const Collector& report, double sun_w_m2)
{
    const Collector k = in_still_air(report);
    constexpr double most_k = 90;
    const double gain = k.eta0 * sun_w_m2, root = std::sqrt(k.a1_w_m2k * k.a1_w_m2k + 4 * k.a2_w_m2k2 * gain);
    return std::min(most_k, k.a2_w_m2k2 > 0 ? (root - k.a1_w_m2k) / (2 * k.a2_w_m2k2) : gain / std::max(0.1, k.a1_w_m2k));
}

// The array's probe stays far below that: it feels the air.
void bare_at_the_array(const AuditCase& c, std::vector<AuditTrouble>& out)
{
    constexpr double rested_s = 2400, good_w_m2 = 450, steady_share = 0.25, low_share = 0.75, least_s = 1800;
    const TraceColumn *air = c.log.log().find("air"), *sun = c.log.array_sun();
    const std::size_t collector = c.probe_at(ProbePlace::collector), pump = c.loop_pump();
    if (!air || !sun || collector >= c.v.probes.size() || pump >= c.v.unit.outputs.size())
        return;
    std::vector<double> shares(c.log.rows(), NAN), seen;
    double rest_s = 0;
    for (std::size_t row = 1; row < c.log.rows(); ++row) {
        const bool rests = c.log.output(pump, row) == 0 && c.log.output(pump, row - 1) == 0 && !c.log.after_gap(row);
        rest_s = rests ? rest_s + c.log.time_s(row) - c.log.time_s(row - 1) : 0;
        if (rest_s < rested_s || !(sun->values[row] > good_w_m2))
            continue;
        double low = INFINITY, high = 0;
        for (std::size_t r = row; r > 0 && c.log.time_s(row) - c.log.time_s(r) < rested_s; --r) {
            low = std::min(low, sun->values[r]);
            high = std::max(high, sun->values[r]);
        }
        const double share = (c.log.reading(collector, row) - air->values[row]) / warms_by_k(c.v.loop.collector, sun->values[row]);
        if (!std::isfinite(share) || low < good_w_m2 || high - low > steady_share * high)
            continue;
        shares[row] = share;
        seen.push_back(share);
    }
    if (seen.size() < 20 || static_cast<double>(seen.size()) * c.log.usual_s() < least_s)
        return;
    std::nth_element(seen.begin(), seen.begin() + static_cast<std::ptrdiff_t>(seen.size() / 20), seen.end());
    const double lowest = seen[seen.size() / 20];
    if (lowest >= low_share)
        return;
    const auto stretches = stretches_where(c.log, 300, 600, [&](std::size_t row) { return shares[row] < low_share; });
    if (AuditTrouble* t = report(out, "probe_bare", stretches, 0.75, "The " + probe_name(c.v, collector) + " warms to " + number_text(100 * lowest, "%") + " of what its array comes to at rest in such sun.", "A probe that is not pressed to the absorber's outlet, or left without insulation, feels the air as well.", "See that its tip lies in the well or under the insulation, strapped tight, and its lead with it. Not in the sun: an array at rest burns."))
        t->probe = c.v.probes[collector].key;
}

} // namespace

// By night what a running pump brings to the array comes out of the store: it can be no warmer
// than the store, unless the store's probe is not where the store is.
void probe_bare(const AuditCase& c, std::vector<AuditTrouble>& out)
{
    constexpr double settled_s = 1200, above_k = 2, right_k = 4;
    const std::size_t collector = c.probe_at(ProbePlace::collector), pump = c.loop_pump();
    bare_at_the_array(c, out);
    const auto nights = small_hours(c);
    if (nights.empty() || c.found.empty() || pump >= c.v.unit.outputs.size() || collector >= c.v.probes.size())
        return;
    std::vector<double> at_rest;
    for (const SmallHours& n : nights)
        at_rest.push_back(n.above_air_k);
    if (std::fabs(median_of(at_rest)) > right_k) // then it is the array's that is wrong
        return;
    const std::size_t store = c.found.front().store;
    const TraceColumn* air = c.log.log().find("air"); // there is one: else nobody knows the nights
    double on_s = 0;
    std::vector<double> above;
    const auto stretches = stretches_where(c.log, settled_s, 600, [&](std::size_t row) {
        on_s = row > 0 && c.log.output(pump, row) == 1 && c.log.output(pump, row - 1) == 1 && !c.log.after_gap(row) ? on_s + c.log.time_s(row) - c.log.time_s(row - 1) : 0;
        const double k = c.log.reading(collector, row) - c.log.reading(store, row);
        const bool air_warms = !(air->values[row] < c.log.reading(collector, row) - above_k); // a mild night over a cold store
        if (on_s < settled_s || !c.night(row) || !(k > above_k) || air_warms)
            return false;
        above.push_back(k);
        return true;
    });
    if (AuditTrouble* t = report(out, "probe_bare", stretches, 0.8, "The " + probe_name(c.v, store) + " reads " + number_text(median_of(above), "K") + " less than what its own pump brings to the array at night.", "Nothing but the store warms the array then; a probe that hangs in the air, or out of its well, reads too little.", "See that its tip lies in the well or under the insulation, strapped tight, and its lead with it."))
        t->probe = c.v.probes[store].key;
}

// From night to night it goes one way, beyond what clear and cloudy nights make of it.
void probe_drifts(const AuditCase& c, std::vector<AuditTrouble>& out)
{
    constexpr double least_k = 4;
    constexpr std::size_t least_nights = 7;
    const auto nights = small_hours(c);
    if (nights.size() < least_nights)
        return;
    std::vector<double> x, y;
    for (const SmallHours& n : nights) {
        x.push_back(static_cast<double>(n.day));
        y.push_back(n.above_air_k);
    }
    const Trend trend = trend_of(x, y, alike_nights);
    const double by_k = trend.per_30_days / 30 * (x.back() - x.front());
    if ((trend.low < 0 && trend.high > 0) || std::fabs(by_k) < least_k)
        return;
    const std::size_t collector = c.probe_at(ProbePlace::collector);
    if (AuditTrouble* t = report(out, "probe_drifts", {nights.front().when, nights.back().when}, 0.75, "The " + probe_name(c.v, collector) + " drifts: " + number_text(by_k, "K") + " against the air before sunrise within " + number_text(x.back() - x.front(), "days") + ".", "Water in the probe or at a joint of its lead changes its ohms little by little.", "Hold both probes side by side in one cup; look at the joints of the lead for water."))
        t->probe = c.v.probes[collector].key;
}

// A store's probe that jumps with the sun.
void probe_in_sun(const AuditCase& c, std::vector<AuditTrouble>& out)
{
    const TraceColumn* sun = c.log.sun();
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
