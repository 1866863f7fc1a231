#include "bench_pair.h"

#include "core/rules/rule_set.h"
#include "core/sums/switching.h"

#include <algorithm>

namespace vernal {

std::optional<BenchPair> bench_pair(const Variant& v)
{
    const auto probe = [&](const std::string& key) { return static_cast<std::size_t>(std::find_if(v.probes.begin(), v.probes.end(), [&](const Probe& p) { return p.key == key; }) - v.probes.begin()); };
    for (std::size_t r = 0; r < v.unit.rules.size(); ++r) {
        const Rule& rule = v.unit.rules[r];
        const auto d = difference_of(v.unit, rule);
        if (!d || !rule.enabled)
            continue;
        BenchPair out{probe(d->source), probe(d->store), 0, d->on.in_kelvin(), d->off.in_kelvin(), {}, 0, {}, 0, 0, 0};
        out.output = static_cast<std::size_t>(std::find_if(v.unit.outputs.begin(), v.unit.outputs.end(), [&](const Output& o) { return o.key == rule.output; }) - v.unit.outputs.begin());
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
        if (another)
            out.limit_c.reset();
        if (const auto points = real_points(v, r, {20, 20})) // on the bench nothing but the medium is around a probe
            out.open_k = points->on.worst_k - points->on.lines[static_cast<std::size_t>(ErrorCause::placement)].worst_k();
        return out;
    }
    return {};
}

} // namespace vernal
