#include "audit.h"

#include "stated.h"

#include "core/job/job_check.h"
#include "core/setup/job_setup.h"

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <numbers>

namespace vernal {
namespace {

const FoundSettings* found_of(const std::vector<FoundSettings>& found, std::size_t output)
{
    for (const FoundSettings& f : found)
        if (f.output == output)
            return &f;
    return nullptr;
}

// On the array: as the log has it, else of a bright sky at that height of the sun.
double sun_w_m2(const AuditCase& c, std::size_t row)
{
    if (const TraceColumn* sun = c.log.sun())
        return std::isfinite(sun->values[row]) ? std::max(0.0, sun->values[row]) : 0.0;
    const double height = c.sun_height_deg(row);
    return std::isfinite(height) ? 1000 * std::max(0.0, std::sin(height * std::numbers::pi / 180)) : 500;
}

// Heat that the stated flow carries at the mean difference, J; 0 where the job has no flow.
double heat_of(const AuditCase& c, const FoundSettings& f, const Disagreement& d)
{
    const Variant& v = c.v;
    const LogView& log = c.log;
    const double rate = stated_rate_w_k(v), full_k = rise_at_full_sun_k(v);
    if (rate <= 0 || arrangement_of(v.loop).output_of(Driver::pump) != static_cast<int>(d.output))
        return 0;
    double sum = 0;
    const auto& t = log.log().time_s;
    for (auto row = static_cast<std::size_t>(std::lower_bound(t.begin(), t.end(), d.from_s) - t.begin()); row + 1 < t.size() && t[row] < d.to_s; ++row) {
        const double k = log.reading(f.source, row) - log.reading(f.store, row);
        // What stands hot in a resting array comes once; beyond it there is what the sun gives.
        const double most_k = full_k * sun_w_m2(c, row) / 1000;
        if (std::isfinite(k) && !log.after_gap(row + 1))
            sum += rate * std::clamp(k, -full_k, most_k) * (t[row + 1] - t[row]);
    }
    return sum;
}

std::string cause_of(const Variant& v, const ReplayResult& r, const FoundSettings* f, const Disagreement& d)
{
    if (d.from_before)
        return "what the unit remembered from before the log is not in it";
    if (d.priority == Priority::fault)
        return "a probe without a valid reading";
    if (f && f->on_k)
        for (const DifferencePair& p : difference_pairs(v, d.output)) {
            const bool smaller = p.on_k > f->on_k->high || (f->off_k && p.off_k > f->off_k->high), larger = p.on_k < f->on_k->low || (f->off_k && p.off_k < f->off_k->low);
            if (d.recorded_on ? smaller : larger)
                return d.recorded_on ? "the unit starts or stops at a smaller difference than the job says" : "the unit starts or stops at a larger difference than the job says";
        }
    if (d.to_s - d.from_s <= 2.5 * r.interval_s)
        return "between two rows of the log";
    return d.recorded_on ? "a hand switch, a bypass or a rule the job lacks" : "a hand switch, a limit or a protection the job lacks";
}

} // namespace

bool Audit::serious() const
{
    return std::any_of(troubles.begin(), troubles.end(), [](const AuditTrouble& t) { return t.serious; });
}

Result<Audit> audit(const Job& job, const Variant& v, const Trace& log, std::stop_token stop)
{
    if (log.time_s.size() < 3)
        return Error{"the log has fewer than three rows", "", "Take a longer one"};
    const LogView view(log, v);
    bool any = false;
    for (std::size_t p = 0; p < v.probes.size(); ++p)
        any = any || view.has_probe(p);
    if (!any)
        return Error{"the log has no column of the job's probes", "", "Import it with its columns named as the probes' places"};
    Audit out;
    out.found = found_settings(view, v);
    out.heating = found_heating(view, v);
    if (auto setup = replay_setup(v); !setup) {
        out.no_replay = setup.error().text();
    } else if (auto replay = run_replay(*setup, log, nullptr, stop); !replay) {
        out.no_replay = replay.error().text();
    } else {
        out.replay = std::make_shared<const ReplayResult>(std::move(*replay));
    }
    out.cancelled = stop.stop_requested();
    if (out.cancelled)
        return out;
    const AuditCase all{view, job, v, out.found, out.heating, out.replay.get()};
    if (out.replay)
        for (const Disagreement& d : out.replay->disagreements) {
            const FoundSettings* f = found_of(out.found, d.output);
            CostedDisagreement c{d, d.to_s - d.from_s, 0, 0, cause_of(v, *out.replay, f, d)};
            if (f)
                c.heat_j = heat_of(all, *f, d);
            if (d.recorded_on && arrangement_of(v.loop).output_of(Driver::pump) == static_cast<int>(d.output))
                c.pump_j = v.loop.pump.power_w * c.length_s;
            out.disagreements.push_back(std::move(c));
        }
    out.troubles = find_troubles(all, stop);
    out.seasons = seasons(view, v);
    out.cancelled = stop.stop_requested();
    return out;
}

void take_found(Variant& v, const FoundSettings& f)
{
    for (Rule& r : v.unit.rules) {
        const bool own = r.output == v.unit.outputs[f.output].key;
        if (const auto d = difference_of(v.unit, r); d && own && d->source == v.probes[f.source].key && d->store == v.probes[f.store].key) {
            const double on = f.on_k ? std::round(f.on_k->value * 10) / 10 : d->on.in_kelvin(), off = f.off_k ? std::round(f.off_k->value * 10) / 10 : d->off.in_kelvin();
            if (on > 0)
                set_difference(v.unit, r, TempDiff::kelvin(on), TempDiff::kelvin(std::min(off, on)));
        }
        if (auto* l = std::get_if<StoreLimit>(&r.body); l && own && f.limit_c && l->probe == v.probes[f.limit_probe].key)
            l->limit = Temperature::celsius(std::round(f.limit_c->value * 2) / 2 + l->allowance.in_kelvin());
        if (auto* c = std::get_if<CutOut>(&r.body); c && own && f.cut_out_c)
            c->limit = Temperature::celsius(std::round(f.cut_out_c->value));
    }
}

Variant with_found(const Job& job, const Variant& v, const std::vector<FoundSettings>& found)
{
    Variant out = v;
    out.id.clear();
    out.name = free_name(job.variants, "as found");
    for (const FoundSettings& f : found)
        take_found(out, f);
    return out;
}

std::string estimate_text(const Estimate& e, const char* unit, const Units& u)
{
    const std::string_view of = unit;
    const auto shown = [&](double x) { return of == "K" ? to_display(x, Quantity::difference, u) : of == "°C" ? to_display(x, Quantity::temperature, u)
                                                                                                              : x; };
    const std::string name = of == "K" ? unit_name(Quantity::difference, u) : of == "°C" ? unit_name(Quantity::temperature, u)
                                                                                         : unit;
    char b[120];
    std::snprintf(b, sizeof b, "%.1f %s (%.1f to %.1f), from %zu point%s", shown(e.value), name.c_str(), shown(e.low), shown(e.high), e.points, e.points == 1 ? "" : "s");
    return b;
}

std::string speeds_text(const FoundSettings::Speeds& speeds)
{
    char b[120];
    std::string out = "runs at ";
    for (std::size_t i = 0; i < speeds.steps.size(); ++i) {
        std::snprintf(b, sizeof b, "%s%.0f", i == 0 ? "" : i + 1 == speeds.steps.size() ? " and "
                                                                                        : ", ",
            100 * speeds.steps[i]);
        out += b;
    }
    if (!speeds.steps.empty())
        return out + " %";
    const Estimate& e = speeds.least_share;
    std::snprintf(b, sizeof b, "%.0f %% (%.0f to %.0f) and more", 100 * e.value, 100 * e.low, 100 * e.high);
    out += b;
    if (speeds.per_k) {
        std::snprintf(b, sizeof b, ", %.1f %% more for each kelvin (%.1f to %.1f)", 100 * speeds.per_k->value, 100 * speeds.per_k->low, 100 * speeds.per_k->high);
        out += b;
    }
    return out;
}

} // namespace vernal
