// Troubles of what flows, or does not.
#include "trouble.h"

#include "core/units/constants.h"

#include "few_words.h"
#include "stated.h"

#include "core/setup/job_setup.h"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <map>

namespace vernal::troubles {
namespace {

// Of a row, how long its output has been on without a break, s.
std::vector<double> on_since_s(const AuditCase& c, std::size_t output)
{
    std::vector<double> out(c.log.rows(), 0);
    for (std::size_t row = 1; row < c.log.rows(); ++row)
        if (c.log.output(output, row) == 1 && c.log.output(output, row - 1) == 1 && !c.log.after_gap(row))
            out[row] = out[row - 1] + c.log.time_s(row) - c.log.time_s(row - 1);
    return out;
}

} // namespace

// It runs, and the array goes on warming as if it stood, or the meter stands at nothing.
void no_rise(const AuditCase& c, std::vector<AuditTrouble>& out)
{
    const std::size_t pump = c.loop_pump();
    if (pump >= c.v.unit.outputs.size() || c.found.empty())
        return;
    const FoundSettings& f = c.found.front();
    const auto on_s = on_since_s(c, pump);
    const TraceColumn* flow = c.log.flow();
    double usual_flow = 0;
    if (flow) {
        std::vector<double> running;
        for (std::size_t row = 0; row < c.log.rows(); ++row)
            if (on_s[row] > 120 && std::isfinite(flow->values[row]))
                running.push_back(flow->values[row]);
        std::sort(running.begin(), running.end());
        usual_flow = running.empty() ? 0 : running[running.size() * 9 / 10];
    }
    const double rise = rise_at_full_sun_k(c.v), much_k = std::max({c.v.loop.answers.power == PoweredBy::panel ? 60.0 : 35.0, std::isfinite(rise) ? 2.5 * rise : 0.0, f.on_k ? f.on_k->value + 20 : 0.0});
    const auto stretches = stretches_where(c.log, 300, 120, [&](std::size_t row) {
        if (on_s[row] < 300)
            return false;
        const double d = c.log.reading(f.source, row) - c.log.reading(f.store, row);
        return d > much_k || (usual_flow > 0 && std::isfinite(flow->values[row]) && flow->values[row] < 0.05 * usual_flow);
    });
    if (AuditTrouble* t = report(out, "no_rise", stretches, 0.9, c.v.unit.outputs[pump].key + " is on for " + hours_text(total_s(stretches)) + " and the " + probe_name(c.v, f.source) + " runs away from the " + probe_name(c.v, f.store) + ".", "Flow would hold them together: the pump does not turn, turns in air, or a line is shut.", "Never open a hot loop. Cover the array, let it cool, then look at the pump's shaft, the gauge and the valves."))
        t->output = c.v.unit.outputs[pump].key;
}

namespace {

constexpr double good_w_m2 = 450, settled_s = 900;
constexpr std::size_t least_rows = 20;

// Difference over the sun of the job's own loop while it runs, on a clear day of that date, K per
// kW/m²; NaN: it does not run in good sun.
double stated_per_sun(const AuditCase& c, const FoundSettings& f)
{
    Day day;
    const std::chrono::year_month_day date{std::chrono::sys_days{std::chrono::days{c.log.day(0)}}};
    if (c.log.log().has_date()) {
        day.sky.year = static_cast<int>(date.year());
        day.sky.month = static_cast<int>(static_cast<unsigned>(date.month()));
        day.sky.day = static_cast<int>(static_cast<unsigned>(date.day()));
    }
    auto setup = coupled_setup(c.job, c.v, day);
    if (!setup)
        return NAN;
    std::vector<double> ratios;
    double since = NAN;
    CoupledOptions options;
    options.keep_records = false;
    double next = 0;
    options.each_sample = [&](const SampleRow& row) {
        if (!row.decisions[f.output].on)
            since = NAN;
        else if (std::isnan(since))
            since = row.time_s;
        if (row.time_s < next)
            return;
        next = row.time_s + 60;
        const Reading &a = row.inputs.readings[f.source], &b = row.inputs.readings[f.store];
        if (a.valid && b.valid && row.time_s - since > settled_s && row.plane_w_m2 > good_w_m2)
            ratios.push_back((a.mk - b.mk) / row.plane_w_m2); // mK per W/m²
    };
    run_coupled(*setup, options);
    return ratios.size() < least_rows ? NAN : median_of(ratios);
}

} // namespace

// While it runs in good sun the difference is far more than the stated loop would leave.
void low_flow(const AuditCase& c, std::vector<AuditTrouble>& out)
{
    const std::size_t pump = c.loop_pump();
    const TraceColumn* sun = c.log.sun();
    if (pump >= c.v.unit.outputs.size() || c.found.empty() || !sun || std::any_of(out.begin(), out.end(), [](const AuditTrouble& t) { return t.key == "no_rise"; }))
        return;
    for (const Rule& r : c.v.unit.rules) // a pump that slows for a rise of its own says nothing
        if (r.enabled && (std::holds_alternative<SpeedToRise>(r.body) || std::holds_alternative<SpeedByDifference>(r.body) || std::holds_alternative<SpeedToTemperature>(r.body)))
            return;
    const FoundSettings& f = c.found.front();
    const auto on_s = on_since_s(c, pump);
    std::vector<std::pair<std::size_t, double>> seen;
    const auto steady = [&](std::size_t row) { // what the collector shows is of this sun
        double low = INFINITY, high = 0;
        for (std::size_t r = row + 1; r-- > 0 && c.log.time_s(row) - c.log.time_s(r) <= 600;) {
            low = std::min(low, sun->values[r]);
            high = std::max(high, sun->values[r]);
        }
        return high - low < 0.15 * high;
    };
    for (std::size_t row = 0; row < c.log.rows(); ++row) {
        const double k = c.log.reading(f.source, row) - c.log.reading(f.store, row);
        if (on_s[row] > settled_s && sun->values[row] > good_w_m2 && std::isfinite(k) && steady(row))
            seen.emplace_back(row, 1000 * k / sun->values[row]);
    }
    if (seen.size() < least_rows)
        return;
    const double stated = stated_per_sun(c, f);
    if (!(stated > 0))
        return;
    constexpr double times = 2, least_k = 4, least_share = 0.25, least_s = 3600; // more than weather and store make of it
    const double much = std::max(times * stated, stated + least_k);
    std::vector<char> high(c.log.rows(), 0);
    std::vector<double> ratios;
    for (const auto& [row, ratio] : seen)
        if (ratio > much) {
            high[row] = 1;
            ratios.push_back(ratio);
        }
    if (ratios.size() < least_rows || static_cast<double>(ratios.size()) < least_share * static_cast<double>(seen.size()) || static_cast<double>(ratios.size()) * c.log.usual_s() < least_s)
        return;
    const double found = median_of(ratios);
    const auto stretches = stretches_where(c.log, 600, 600, [&](std::size_t row) { return high[row] != 0; });
    if (AuditTrouble* t = report(out, "low_flow", stretches, 0.7, "The " + probe_name(c.v, f.source) + " stays " + number_text(found, "K") + " per kW/m² of sun above the " + probe_name(c.v, f.store) + " while it runs.", "The job's loop leaves " + number_text(stated, "K") + ": less flows than it says.", "Measure the flow with a bucket or the meter; look at the strainer, the air vent and the pump's speed."))
        t->output = c.v.unit.outputs[pump].key;
}

// Hours after sunset an array at rest is as cold as the air.
void heat_lost_backwards(const AuditCase& c, std::vector<AuditTrouble>& out)
{
    const TraceColumn* air = c.log.log().find("air");
    const std::size_t collector = c.probe_at(ProbePlace::collector), pump = c.loop_pump();
    if (!air || collector >= c.v.probes.size() || pump >= c.v.unit.outputs.size() || c.found.empty())
        return;
    const std::size_t store = c.found.front().store;
    const auto stretches = stretches_where(c.log, 3600, 600, [&](std::size_t row) {
        const double h = c.log.of_day_s(row) / 3600, a = air->values[row], r = c.log.reading(collector, row);
        return c.night(row) && (h < 5 || h > 23) && c.log.output(pump, row) == 0 && r - a > 4 && c.log.reading(store, row) - a > 8;
    });
    if (AuditTrouble* t = report(out, "heat_lost_backwards", stretches, 0.7, "The array stays warm at night, " + hours_text(total_s(stretches)) + " in all, while the pump rests.", "Warm fluid rises from the store through a check valve that does not close; a probe with an offset looks the same.", "Feel the return by night: warm near the array means the valve leaks."))
        t->output = c.v.unit.outputs[pump].key;
}

void limit_reached(const AuditCase& c, std::vector<AuditTrouble>& out)
{
    for (const FoundSettings& f : c.found) {
        if (!f.limit_c)
            continue;
        std::vector<TroubleStretch> at;
        for (const Switching& s : f.switchings)
            if (!s.on && c.log.reading(f.limit_probe, s.row - 1) > f.limit_c->low - 1.0)
                at.push_back({c.log.time_s(s.row - 1), c.log.time_s(s.row)});
        if (AuditTrouble* t = report(out, "limit_reached", at, 0.9, "The " + probe_name(c.v, f.limit_probe) + " reached " + number_text(f.limit_c->value, "°C") + " and stopped " + c.v.unit.outputs[f.output].key + " " + std::to_string(at.size()) + " times.", "The store is full; what the array gives then is lost, and it stagnates.", "Is that often? A larger store, fewer square metres in summer, or a cooler."))
            t->output = c.v.unit.outputs[f.output].key;
    }
}

namespace {

std::vector<TroubleStretch> hot_stretches(const AuditCase& c)
{
    const std::size_t collector = c.probe_at(ProbePlace::collector);
    if (collector >= c.v.probes.size() || arrangement_of(c.v.loop).carrier == Carrier::air)
        return {};
    constexpr double hot_c = 120, no_probe_c = 280;
    return stretches_where(c.log, 300, 1800, [&](std::size_t row) { return c.log.reading(collector, row) > hot_c && c.log.reading(collector, row) < no_probe_c; });
}

} // namespace

void stagnated(const AuditCase& c, std::vector<AuditTrouble>& out)
{
    const auto stretches = hot_stretches(c);
    if (stretches.empty())
        return;
    const std::size_t collector = c.probe_at(ProbePlace::collector);
    report(out, "stagnated", stretches, 0.95, "The " + probe_name(c.v, collector) + " stood above 120 °C for " + hours_text(total_s(stretches)) + ".", "Fluid ages, pressure rises, steam may stand in the array.", "Never fill or open a hot loop; look at the gauge when all is cold.");
}

// The gauge by night, when all is cool, before and after.
void pressure_lost(const AuditCase& c, std::vector<AuditTrouble>& out)
{
    const TraceColumn* gauge = c.log.gauge();
    if (!gauge)
        return;
    const auto per = readings_per(Reads::pressure, gauge->quantity, gauge->unit);
    if (!per)
        return;
    constexpr double share = 0.25;
    std::vector<double> times, hourly;
    std::vector<double> now;
    double hour = -1;
    for (std::size_t row = 0; row < c.log.rows(); ++row) {
        if (const double h = std::floor(c.log.time_s(row) / hour_s); h != hour) {
            if (!now.empty()) {
                times.push_back(hour * hour_s);
                hourly.push_back(median_of(now));
            }
            now.clear();
            hour = h;
        }
        if (std::isfinite(gauge->values[row]))
            now.push_back(gauge->values[row] * *per);
    }
    if (hourly.size() < 6)
        return;
    double highest = 0;
    std::vector<TroubleStretch> low;
    for (std::size_t i = 0; i < hourly.size(); ++i) {
        highest = std::max(highest, i < 3 ? hourly[i] : std::min({hourly[i], hourly[i - 1], hourly[i - 2]}));
        if (hourly[i] < (1 - share) * std::min(highest, hourly[0] * 1.05) && highest > 0.4) {
            if (!low.empty() && times[i] - low.back().to_s < 2 * hour_s)
                low.back().to_s = times[i] + hour_s;
            else
                low.push_back({times[i], times[i] + hour_s});
        }
    }
    if (low.empty())
        return;
    const std::string fell = "The gauge fell from " + number_text(hourly[0], "bar") + " to " + number_text(*std::min_element(hourly.begin(), hourly.end()), "bar");
    const std::string look = "When all is cold: look under the relief valve, at joints and the vessel's precharge. Never cap a relief valve.";
    constexpr double soon_s = 12 * hour_s; // what a hot afternoon drives out is missed by the next morning
    const auto hot = hot_stretches(c);
    const auto before = std::find_if(hot.rbegin(), hot.rend(), [&](const TroubleStretch& h) { return h.from_s <= low.front().from_s && low.front().from_s - h.to_s < soon_s; });
    if (before == hot.rend()) {
        report(out, "pressure_lost", low, 0.85, fell + ".", "Fluid has gone: through the relief valve or a leak.", look);
        return;
    }
    low.insert(low.begin(), *before);
    report(out, "lost_after_stagnation", low, 0.9, fell + ", after the array had stood above 120 °C.", "What steam drove out of the array was more than the vessel took: the relief valve lifted.", look + " If it lifts each summer the vessel is too small, or has lost its precharge.");
}

} // namespace vernal::troubles
