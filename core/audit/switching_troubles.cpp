// Troubles that show in how outputs switch.
#include "trouble.h"

#include "few_words.h"

#include <algorithm>
#include <cmath>

namespace vernal::troubles {
namespace {

// Whether a rule of the variant may run this output by night.
bool may_run_by_night(const AuditCase& c, std::size_t output)
{
    return std::any_of(c.v.unit.rules.begin(), c.v.unit.rules.end(), [&](const Rule& r) {
        return r.enabled && (r.output.empty() || r.output == c.v.unit.outputs[output].key) && (std::holds_alternative<Freeze>(r.body) || std::holds_alternative<NightCooling>(r.body) || std::holds_alternative<Timer>(r.body) || std::holds_alternative<Exercise>(r.body) || std::holds_alternative<vernal::Look>(r.body));
    });
}

} // namespace

// Runs of a few minutes, one after the other, well into the day.
void short_cycling(const AuditCase& c, std::vector<AuditTrouble>& out)
{
    constexpr double short_s = 300, morning_s = 3600, steady_share = 0.2, good_w_m2 = 200, around_s = 300;
    const TraceColumn* sun = c.log.sun();
    const std::size_t most_usual = sun ? 24 : 40; // without the sun clouds may have done it
    const auto steady = [&](std::size_t from, std::size_t to) {
        if (!sun)
            return true;
        const double began_s = c.log.time_s(from), ended_s = c.log.time_s(to);
        double low = INFINITY, high = 0; // before and after it too: else a gap between clouds made it
        while (from > 0 && began_s - c.log.time_s(from - 1) < around_s)
            --from;
        while (to + 1 < c.log.rows() && c.log.time_s(to + 1) - ended_s < around_s)
            ++to;
        for (std::size_t row = from; row <= to; ++row) {
            low = std::min(low, sun->values[row]);
            high = std::max(high, sun->values[row]);
        }
        return low > good_w_m2 && high - low < steady_share * high;
    };
    for (const FoundSettings& f : c.found) {
        std::vector<TroubleStretch> runs;
        std::size_t slugs = 0, limits = 0, worst = 0, of_day = 0;
        long day = -1;
        double first_s = 0;
        std::size_t began = 0; // row; 0: it is off
        for (const Switching& s : f.switchings) {
            if (c.log.day(s.row) != day) {
                day = c.log.day(s.row);
                first_s = c.log.time_s(s.row);
                of_day = 0;
            }
            if (s.on) {
                began = s.row;
                continue;
            }
            if (began == 0)
                continue;
            const double from = c.log.time_s(began), lasted = c.log.time_s(s.row) - from;
            if (lasted <= short_s && lasted > 20 && from - first_s > morning_s && steady(began, s.row)) {
                runs.push_back({from, c.log.time_s(s.row)});
                slugs += lasted < 150;
                limits += f.on_k && s.difference_k > f.on_k->high + 0.5;
                worst = std::max(worst, ++of_day);
            }
            began = 0;
        }
        if (worst <= most_usual)
            continue;
        const bool by_limit = limits * 2 > runs.size(), by_slug = slugs * 2 > runs.size();
        if (AuditTrouble* t = report(out, "short_cycling", runs, worst > 2 * most_usual ? 0.9 : 0.7, c.v.unit.outputs[f.output].key + " cycles: up to " + std::to_string(worst) + " runs of less than five minutes on a day, an hour after its first start and later.",
                by_limit ? "It stops well above its stop: a limit or a thermostat lets go and takes hold." : by_slug ? "It stops within the time the water needs round the loop: what stood in the pipes reaches the probe."
                                                                                                                     : "It stops in its own time: the stop lies above what this flow leaves of a difference.",
                by_limit ? "Look at the limit's hysteresis." : "Lower the stop or the flow, or set a minimum run time; see what that does on the strip."))
            t->output = c.v.unit.outputs[f.output].key;
    }
}

// On and off and on again within a minute or two.
void chattering(const AuditCase& c, std::vector<AuditTrouble>& out)
{
    for (std::size_t o = 0; o < c.v.unit.outputs.size(); ++o) {
        std::vector<double> at;
        for (std::size_t row = 1; row < c.log.rows(); ++row)
            if (c.log.output(o, row) >= 0 && c.log.output(o, row - 1) >= 0 && c.log.output(o, row) != c.log.output(o, row - 1))
                at.push_back(c.log.time_s(row));
        constexpr std::size_t most = 10;
        const double window_s = std::max(300.0, 11 * c.log.usual_s());
        std::vector<TroubleStretch> found;
        for (std::size_t i = most; i < at.size(); ++i)
            if (at[i] - at[i - most] <= window_s) {
                if (!found.empty() && at[i - most] <= found.back().to_s)
                    found.back().to_s = at[i];
                else
                    found.push_back({at[i - most], at[i]});
            }
        if (AuditTrouble* t = report(out, "chattering", found, 0.9, c.v.unit.outputs[o].key + " switches more than ten times within " + hours_text(window_s) + ".", "A start costs motor and relay; this many come from a relay that does not hold, a loose wire, or a unit without a latch.", "Listen to the relay, and tug at its wires with the power off."))
            t->output = c.v.unit.outputs[o].key;
    }
}

void runs_at_night(const AuditCase& c, std::vector<AuditTrouble>& out)
{
    const std::size_t pump = c.loop_pump();
    if (pump >= c.v.unit.outputs.size() || may_run_by_night(c, pump))
        return;
    const auto stretches = stretches_where(c.log, 600, 300, [&](std::size_t row) { return c.log.output(pump, row) == 1 && c.night(row); });
    if (AuditTrouble* t = report(out, "runs_at_night", stretches, 0.95, c.v.unit.outputs[pump].key + " runs " + hours_text(total_s(stretches)) + " while the sun is down.", "It carries the store's heat to the sky, and no rule of the job asks for it.", "Compare both probes side by side, look for a switch left on, and whether the probes are swapped."))
        t->output = c.v.unit.outputs[pump].key;
}

// On although the array has long been the colder one.
void stuck_on(const AuditCase& c, std::vector<AuditTrouble>& out)
{
    for (const FoundSettings& f : c.found) {
        if (may_run_by_night(c, f.output))
            continue;
        constexpr double well_below_k = -0.5;
        const auto stretches = stretches_where(c.log, 1800, 120, [&](std::size_t row) { return c.log.output(f.output, row) == 1 && c.difference_k(f, row) < well_below_k; });
        if (AuditTrouble* t = report(out, "stuck_on", stretches, 0.9, c.v.unit.outputs[f.output].key + " stays on for " + hours_text(total_s(stretches)) + " while the " + probe_name(c.v, f.source) + " is colder than the " + probe_name(c.v, f.store) + ".", "No difference keeps it on: a hand switch in ON, a welded relay, a bypass, or swapped probes.", "Turn the switch to OFF: if it goes on, the relay is welded or a bypass feeds it."))
            t->output = c.v.unit.outputs[f.output].key;
    }
}

namespace {

// A limit or a cut-out of the job, or one that was found, may hold it: the readings of the log
// need not have reached what the unit saw between two of its rows.
bool may_be_held(const AuditCase& c, const FoundSettings& f, std::size_t row)
{
    constexpr double near_k = 1.5, limit_k = 6, cut_out_k = 20;
    if ((f.limit_c && c.log.reading(f.limit_probe, row) > f.limit_c->low - limit_k) || (f.cut_out_c && c.log.reading(f.source, row) > f.cut_out_c->low - cut_out_k))
        return true;
    const std::string& output = c.v.unit.outputs[f.output].key;
    return std::any_of(c.v.unit.rules.begin(), c.v.unit.rules.end(), [&](const Rule& r) {
        if (!r.enabled || (!r.output.empty() && r.output != output))
            return false;
        const auto reads = [&](const std::string& probe) {
            for (std::size_t p = 0; p < c.v.probes.size(); ++p)
                if (c.v.probes[p].key == probe && c.log.has_probe(p))
                    return c.log.reading(p, row);
            return static_cast<double>(NAN);
        };
        if (const auto* l = std::get_if<StoreLimit>(&r.body))
            return reads(l->probe) > l->limit.in_celsius() - l->allowance.in_kelvin() - l->hysteresis.in_kelvin() - near_k;
        if (const auto* k = std::get_if<CutOut>(&r.body))
            return c.log.reading(f.source, row) > k->limit.in_celsius() - cut_out_k;
        return false;
    });
}

} // namespace

// Off although the difference has long been above the start and nothing holds it.
void stuck_off(const AuditCase& c, std::vector<AuditTrouble>& out)
{
    for (const FoundSettings& f : c.found) {
        const auto stretches = stretches_where(c.log, 1200, 120, [&](std::size_t row) {
            return c.log.output(f.output, row) == 0 && c.above_start_k(f, row) > 4 && !c.rules_rest(f.output, row) && !may_be_held(c, f, row);
        });
        if (AuditTrouble* t = report(out, "stuck_off", stretches, 0.85, c.v.unit.outputs[f.output].key + " stays off for " + hours_text(total_s(stretches)) + " with the " + probe_name(c.v, f.source) + " well above the " + probe_name(c.v, f.store) + ".", "Nothing the job knows of holds it: a hand switch in OFF, a fuse, a relay that does not close, or a limit set far lower.", "Listen to the relay, look at fuse and switch. To measure at live mains terminals is work for a licensed person."))
            t->output = c.v.unit.outputs[f.output].key;
    }
}

void long_gaps(const AuditCase& c, std::vector<AuditTrouble>& out)
{
    constexpr double least_s = 900;
    std::vector<TroubleStretch> gaps;
    for (std::size_t row = 1; row < c.log.rows(); ++row)
        if (const double g = c.log.time_s(row) - c.log.time_s(row - 1); g > least_s && c.log.after_gap(row))
            gaps.push_back({c.log.time_s(row - 1), c.log.time_s(row)});
    report(out, "long_gaps", gaps, 0.99, std::to_string(gaps.size()) + (gaps.size() == 1 ? " gap, " : " gaps, ") + hours_text(total_s(gaps)) + " in all.", "The logger or the unit was without power, or its memory was full.", "Ask what the mains or the battery did then.");
}

} // namespace vernal::troubles
