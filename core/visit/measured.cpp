#include "measured.h"

#include "core/plant/fluid.h"
#include "expectation.h"
#include "reading_kind.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr double flow_alike = 0.1, rise_alike_k = 1.0, gauge_alike_pa = 0.15e5, agree_k = 0.5, slower_share = 0.15; // what instruments leave open; estimates
constexpr double usual_store_c = 45.0, usual_air_c = 15.0;                                                          // where nobody read them
constexpr double much_of_clear = 0.7, little_of_clear = 0.4;

struct Words {
    std::string says;
    Tone tone = Tone::plain;
};

std::string percent(double share) { return std::to_string(std::lround(100 * share)) + " %"; }

Words against(double now, double last, double alike_share, const char* less, const char* more)
{
    if (last == 0)
        return {};
    const double by = now / last - 1;
    if (std::fabs(by) <= alike_share)
        return {"as it was", Tone::good};
    return {percent(std::fabs(by)) + " " + (by < 0 ? less : more), std::fabs(by) > 2 * alike_share ? Tone::caution : Tone::plain};
}

struct OfVisit {
    const Job& job;
    const Visit& visit;
    const Variant& variant;
    std::vector<VisitReading> readings;
    const Units& units;
};

Words ohm_words(const OfVisit& s, const VisitReading& r)
{
    const auto p = std::find_if(s.variant.probes.begin(), s.variant.probes.end(), [&](const Probe& x) { return x.key == r.of; });
    if (p == s.variant.probes.end())
        return {};
    const auto t = temperature_at(p->curve, r.value);
    if (!t)
        return {"outside of its curve", Tone::caution};
    const double by_curve = t->in_celsius();
    std::string says = to_text(by_curve, Quantity::temperature, s.units) + " by its curve";
    const VisitReading* unit = reading_of(s.readings, "reading", r.of);
    if (!unit)
        return {says};
    const double off = unit->value - by_curve;
    return {says + "; the unit shows " + (std::fabs(off) < 0.05 ? "the same" : to_text(std::fabs(off), Quantity::difference, s.units) + (off > 0 ? " more" : " less")), std::fabs(off) > 1 ? Tone::caution : Tone::good};
}

// The first gauge that was read cold with its temperature: what it was filled with.
const VisitReading* filled(const Job& job, const Visit& before, std::vector<VisitReading>& keep)
{
    for (const Visit& v : job.logbook.visits) {
        keep = valid_readings(v);
        if (const VisitReading* r = reading_of(keep, "pressure"); r && r->with_temperature)
            return v.when < before.when ? r : nullptr;
    }
    return nullptr;
}

Words pressure_words(const OfVisit& s, const VisitReading& r, const VisitReading* last)
{
    if (!r.with_temperature)
        return last ? against(r.value, last->value, flow_alike, "less; read its temperature too", "more; read its temperature too") : Words{"read its temperature too"};
    const double expected = last && last->with_temperature ? cold_gauge_pa(s.job, s.variant.loop, r.at_c, last->at_c, last->value) : cold_gauge_pa(s.job, s.variant.loop, r.at_c, usual_fill_c);
    if (!std::isfinite(expected))
        return {};
    const std::string at = to_text(expected, Quantity::pressure, s.units) + " expected at " + to_text(r.at_c, Quantity::temperature, s.units);
    std::vector<VisitReading> keep;
    if (const VisitReading* first = filled(s.job, s.visit, keep)) {
        constexpr double much_pa = 0.3e5; // beyond gauges and temperatures; an estimate
        const double under = cold_gauge_pa(s.job, s.variant.loop, r.at_c, first->at_c, first->value) - r.value;
        if (under > much_pa)
            return {to_text(under, Quantity::pressure, s.units) + " under its first filling" + (r.value < expected - gauge_alike_pa ? ", and fallen since last time" : ", little since last time") + ": fluid goes", Tone::caution};
    }
    if (std::fabs(r.value - expected) <= gauge_alike_pa)
        return {at + ": holds", Tone::good};
    return {at + (r.value < expected ? ": fluid has gone" : ": more than that"), Tone::caution};
}

Words flow_words(const OfVisit& s, const VisitReading& r, const VisitReading* last)
{
    if (last)
        return against(r.value, last->value, flow_alike, "less", "more");
    const double stated = s.variant.loop.pump.flow_m3_s;
    return stated > 0 ? Words{percent(r.value / stated) + " of what is stated for the pump", std::fabs(r.value / stated - 1) > 3 * flow_alike ? Tone::caution : Tone::plain} : Words{};
}

Words slower(const VisitReading& r, const VisitReading* last, double allowed_s, const char* why)
{
    if (allowed_s > 0 && r.value > allowed_s)
        return {std::string("slower than set: ") + why, Tone::caution};
    if (!last)
        return {};
    return r.value > last->value * (1 + slower_share) ? Words{std::string("slower: ") + why, Tone::caution} : Words{"as it was", Tone::good};
}

Words words_for(const OfVisit& s, const VisitReading& r, const VisitReading* last)
{
    if (r.kind == "ohm")
        return ohm_words(s, r);
    if (r.kind == "apart")
        return std::fabs(r.value) <= agree_k ? Words{"agree", Tone::good} : Words{"apart: a correction, or a probe that drifts", Tone::caution};
    if (r.kind == "flow")
        return flow_words(s, r, last);
    if (r.kind == "rise")
        return !last ? Words{} : std::fabs(r.value - last->value) <= rise_alike_k ? Words{"as it was", Tone::good}
                                                                                  : Words{to_text(std::fabs(r.value - last->value), Quantity::difference, s.units) + (r.value < last->value ? " less" : " more")};
    if (r.kind == "pressure")
        return pressure_words(s, r, last);
    if (r.kind == "gas")
        return std::fabs(r.value - s.variant.loop.vessel.precharge_pa) <= gauge_alike_pa ? Words{"as stated", Tone::good} : Words{"stated: " + to_text(s.variant.loop.vessel.precharge_pa, Quantity::pressure, s.units), Tone::caution};
    if (r.kind == "freezes") {
        const double due = fluid_at(glycol_share(s.variant.loop), 20.0).freezing_c;
        return r.value > due + 2 ? Words{"thinner than stated: " + to_text(due, Quantity::temperature, s.units), Tone::caution} : Words{"as stated", Tone::good};
    }
    if (r.kind == "drains")
        return slower(r, last, s.variant.loop.drain_back.drain_s, "pitch?");
    if (r.kind == "fills")
        return slower(r, last, 0, "prime, strainer?");
    if (r.kind == "circulation")
        return r.value < 50 ? Words{"lukewarm: a matter of legionella", Tone::caution} : Words{"warm", Tone::good}; // 50 °C: WHO, from memory
    if (r.kind == "tap")
        return r.value > 49 + 1 ? Words{"too hot: scald", Tone::caution} : Words{"tempered", Tone::good}; // 49 °C: US CPSC, from memory
    if (r.kind == "hours" || r.kind == "starts")
        return last && r.value >= last->value ? Words{std::to_string(std::lround(r.value - last->value)) + (r.kind == "hours" ? "\u202fh since" : " starts since")} : Words{};
    return {};
}

const VisitReading* last_of(const std::vector<std::pair<std::string, std::vector<VisitReading>>>& before, const VisitReading& r)
{
    for (const auto& [when, readings] : before)
        if (const VisitReading* x = reading_of(readings, r.kind, r.of))
            return x;
    return nullptr;
}

} // namespace

std::vector<VisitReading> valid_readings(const Visit& visit)
{
    std::vector<VisitReading> out = visit.readings;
    for (const Amendment& a : visit.amendments)
        for (const VisitReading& r : a.readings) {
            const auto it = std::find_if(out.begin(), out.end(), [&](const VisitReading& x) { return x.kind == r.kind && x.of == r.of && (r.time.empty() || x.time == r.time); });
            if (it != out.end())
                *it = r;
            else
                out.push_back(r);
        }
    return out;
}

const VisitReading* reading_of(const std::vector<VisitReading>& all, const std::string& kind, const std::string& of)
{
    const auto it = std::find_if(all.rbegin(), all.rend(), [&](const VisitReading& r) { return r.kind == kind && r.of == of; });
    return it == all.rend() ? nullptr : &*it;
}

const Variant& variant_of(const Job& job, const Visit& visit)
{
    if (!visit.left.empty())
        return visit.left.front();
    if (!visit.found.empty())
        return visit.found.front();
    const auto it = std::find_if(job.variants.begin(), job.variants.end(), [&](const Variant& v) { return v.id == visit.variant; });
    return it == job.variants.end() ? job.variants.front() : *it;
}

namespace {

double fluid_c(const std::vector<VisitReading>& readings, double rise_k)
{
    const VisitReading* store = reading_of(readings, "store");
    return (store ? store->value : usual_store_c) + rise_k / 2;
}

} // namespace

double heat_now_w(const Job& job, const Visit& visit)
{
    const auto readings = valid_readings(visit);
    const VisitReading *flow = reading_of(readings, "flow"), *rise = reading_of(readings, "rise");
    return flow && rise ? carried_w(variant_of(job, visit).loop, flow->value, rise->value, fluid_c(readings, rise->value)) : NAN;
}

double share_of_clear(const Job& job, const Visit& visit)
{
    const auto readings = valid_readings(visit);
    const VisitReading *rise = reading_of(readings, "rise"), *air = reading_of(readings, "air");
    const double heat = heat_now_w(job, visit);
    if (std::isnan(heat))
        return NAN;
    const std::string when = rise->time.empty() ? visit.when : visit.when.substr(0, 11) + rise->time;
    return heat / clear_sky_heat_w(job, variant_of(job, visit), when, fluid_c(readings, rise->value), air ? air->value : usual_air_c);
}

std::vector<std::string> doubts_of(const Job& job, const Visit& visit, const Units& units)
{
    // Edges of clouds throw a fifth more than a clear sky onto an array for a minute (an estimate); beyond it
    // an instrument, a unit or the hour is wrong.
    constexpr double beyond_any_sky = 1.25, least_sun_w_m2 = 50;
    std::vector<std::string> out;
    const auto readings = valid_readings(visit);
    if (const double share = share_of_clear(job, visit); share > beyond_any_sky)
        out.push_back("flow and rise carry " + to_text(heat_now_w(job, visit), Quantity::heat_rate, units) + ", " + percent(share) + " of what a clear sky gives at that hour: read both once more, in one minute, and look at the visit's date and time");
    const VisitReading* sun = reading_of(readings, "sun");
    if (!sun)
        return out;
    const std::string when = sun->time.empty() ? visit.when : visit.when.substr(0, 11) + sun->time;
    if (const double clear = clear_sky_sun_w_m2(job, variant_of(job, visit), when); std::isfinite(clear) && sun->value > std::max(least_sun_w_m2, beyond_any_sky * clear))
        out.push_back("the sun on the array is " + to_text(sun->value, Quantity::irradiance, units) + ", " + (clear > least_sun_w_m2 ? percent(sun->value / clear) + " of a clear sky's at that hour" : std::string("at an hour without sun")) + ": look at the meter, its unit and the visit's date and time");
    return out;
}

std::vector<MeasuredRow> measured_rows(const Job& job, const Visit& visit, const Units& units)
{
    std::vector<std::pair<std::string, std::vector<VisitReading>>> before; // latest first
    const Visit* last_visit = nullptr;
    for (const Visit& v : job.logbook.visits)
        if (v.when < visit.when && v.id != visit.id) {
            before.insert(before.begin(), {v.when, valid_readings(v)});
            if (!std::isnan(heat_now_w(job, v)))
                last_visit = &v;
        }
    std::stable_sort(before.begin(), before.end(), [](const auto& a, const auto& b) { return a.first > b.first; });
    const OfVisit seen{job, visit, variant_of(job, visit), valid_readings(visit), units};
    std::vector<MeasuredRow> out;
    for (const VisitReading& r : seen.readings) {
        const ReadingKind* k = find_reading_kind(r.kind);
        const VisitReading* last = last_of(before, r);
        const Words words = words_for(seen, r, last);
        // Ohms and what the unit shows of one probe are one row.
        const VisitReading* shown = r.kind == "ohm" ? reading_of(seen.readings, "reading", r.of) : nullptr;
        if (r.kind == "reading" && reading_of(seen.readings, "ohm", r.of))
            continue;
        std::string label = k ? reading_label(*k, r.of, &seen.variant) : r.kind;
        if (shown)
            label = label.substr(0, label.rfind(", "));
        out.push_back({std::move(label), r.how + (r.time.empty() ? "" : (r.how.empty() ? "at " : " at ") + r.time), reading_text(r, units) + (shown ? ", " + reading_text(*shown, units) : ""), last ? reading_text(*last, units) : "", words.says, words.tone, r.kind, r.of});
    }
    // What carries the heat first, probes last.
    const auto rank = [](const MeasuredRow& m) { return m.kind == "flow" ? 0 : m.kind == "rise"                     ? 1
                                                                           : m.kind == "ohm" || m.kind == "reading" ? 4
                                                                           : m.kind == "apart"                      ? 3
                                                                                                                    : 2; };
    std::stable_sort(out.begin(), out.end(), [&](const MeasuredRow& a, const MeasuredRow& b) { return rank(a) < rank(b); });
    if (const double heat = heat_now_w(job, visit); !std::isnan(heat)) {
        const double share = share_of_clear(job, visit);
        MeasuredRow row{"heat", "flow × rise", to_text(heat, Quantity::heat_rate, units), last_visit ? to_text(heat_now_w(job, *last_visit), Quantity::heat_rate, units) : "", "", Tone::plain, "heat now", ""};
        if (std::isfinite(share)) {
            row.says = percent(share) + " of a clear sky";
            row.tone = share >= much_of_clear ? Tone::good : share < little_of_clear && visit.sky == "clear" ? Tone::caution
                                                                                                             : Tone::plain;
        }
        const auto after = std::find_if(out.begin(), out.end(), [](const MeasuredRow& r) { return r.kind == "rise"; });
        out.insert(after == out.end() ? after : after + 1, std::move(row));
    }
    return out;
}

} // namespace vernal
