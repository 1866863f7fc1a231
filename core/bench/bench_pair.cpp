#include "bench_pair.h"

#include "core/rules/rule_set.h"
#include "core/sums/switching.h"

#include <algorithm>

namespace vernal {

namespace {

std::size_t probe_at(const Variant& v, const std::string& key)
{
    return static_cast<std::size_t>(std::find_if(v.probes.begin(), v.probes.end(), [&](const Probe& p) { return p.key == key; }) - v.probes.begin());
}

std::size_t output_at(const Variant& v, const std::string& key)
{
    return static_cast<std::size_t>(std::find_if(v.unit.outputs.begin(), v.unit.outputs.end(), [&](const Output& o) { return o.key == key; }) - v.unit.outputs.begin());
}

} // namespace

std::optional<BenchFreeze> bench_freeze(const Variant& v)
{
    for (const Rule& r : v.unit.rules)
        if (const auto* f = std::get_if<Freeze>(&r.body); f && r.enabled) {
            const BenchFreeze out{probe_at(v, f->probe), output_at(v, r.output), f->limit.in_celsius(), f->limit.in_celsius() + f->hysteresis.in_kelvin()};
            if (out.probe < v.probes.size() && out.output < v.unit.outputs.size())
                return out;
        }
    return {};
}

std::optional<BenchLow> bench_low(const Variant& v)
{
    for (const Rule& r : v.unit.rules)
        if (const auto* l = std::get_if<LowVoltage>(&r.body); l && r.enabled)
            if (const std::size_t o = output_at(v, r.output); o < v.unit.outputs.size())
                return BenchLow{o, l->cut_v, l->reconnect_v, l->delay_s, l->reconnect_s};
    return {};
}

LinkedDifference* knob_rule(Variant& v)
{
    for (Rule& r : v.unit.rules)
        if (auto* linked = std::get_if<LinkedDifference>(&r.body); linked && r.enabled)
            return linked;
    return nullptr;
}

std::optional<BenchPair> bench_pair(const Variant& v)
{
    const auto probe = [&](const std::string& key) { return probe_at(v, key); };
    for (std::size_t r = 0; r < v.unit.rules.size(); ++r) {
        const Rule& rule = v.unit.rules[r];
        const auto d = difference_of(v.unit, rule);
        if (!d || !rule.enabled)
            continue;
        BenchPair out{probe(d->source), probe(d->store), 0, d->on.in_kelvin(), d->off.in_kelvin(), {}, 0, {}, 0, 0, true, 0};
        out.output = output_at(v, rule.output);
        if (out.source >= v.probes.size() || out.store >= v.probes.size() || out.output >= v.unit.outputs.size())
            continue;
        bool another = false;
        for (const Rule& other : v.unit.rules) {
            if (!other.enabled || (other.output != rule.output && !other.output.empty()))
                continue;
            if (const auto* l = std::get_if<StoreLimit>(&other.body)) {
                out.limit_c = l->limit.in_celsius() - l->allowance.in_kelvin();
                out.limit_probe = probe(l->probe);
            }
            if (const auto* c = std::get_if<CutOut>(&other.body))
                out.cut_out_c = c->limit.in_celsius();
            if (const auto* t = std::get_if<RunTimes>(&other.body)) {
                out.min_run_s = t->min_run_s;
                out.min_rest_s = t->min_off_s;
            }
            // Another store takes what the first no longer may: its limit does not stop the output.
            another = another || (&other != &rule && other.output == rule.output && difference_of(v.unit, other));
        }
        out.alone = !another;
        if (another)
            out.limit_c.reset();
        if (const auto points = real_points(v, r, {20, 20})) // on the bench nothing but the medium is around a probe
            out.open_k = points->on.worst_k - points->on.lines[static_cast<std::size_t>(ErrorCause::placement)].worst_k();
        return out;
    }
    return {};
}

} // namespace vernal
