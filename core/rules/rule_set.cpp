#include "rule_set.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

// Nearest, halves away from zero; as std::lround, which is a call in a hot loop.
MilliKelvin milli(double v)
{
    const double x = std::clamp(v, -1e6, 1e6) * 1000.0;
    return static_cast<MilliKelvin>(x + std::copysign(0.5, x));
}
Millis millis(double s) { return static_cast<Millis>(std::llround(s * 1000.0)); }

struct Build {
    const RuleSet& set;
    const std::vector<std::string>& probes;
    Compiled out;

    int probe(const std::string& key) const
    {
        const auto it = std::find(probes.begin(), probes.end(), key);
        return it == probes.end() ? -1 : static_cast<int>(it - probes.begin());
    }
    int output(const std::string& key) const
    {
        for (std::size_t i = 0; i < set.outputs.size() && i < max_outputs; ++i)
            if (set.outputs[i].key == key)
                return static_cast<int>(i);
        return -1;
    }
    void refuse(std::size_t rule, std::string why) { out.out_of_action.push_back({rule, std::move(why)}); }

    void latch(std::size_t index, int o, const std::string& plus, const std::string& minus, double set_k, double clear_k)
    {
        const int a = probe(plus), b = minus.empty() ? -1 : probe(minus);
        if (a < 0 || (b < 0 && !minus.empty()))
            return refuse(index, "there is no probe “" + (a < 0 ? plus : minus) + "”");
        if (milli(clear_k) >= milli(set_k))
            return refuse(index, minus.empty() ? "the hysteresis is not above zero" : "it stops at or above the difference at which it starts");
        Program& p = out.program;
        if (p.latches.size() == max_latches)
            return refuse(index, "there are more rules than a unit can hold");
        p.clauses.push_back({kind_of(set.rules[index]).tier, static_cast<std::uint8_t>(o), static_cast<std::uint8_t>(p.latches.size()), static_cast<std::int16_t>(index)});
        p.latches.push_back({static_cast<std::int8_t>(a), static_cast<std::int8_t>(b), milli(set_k), milli(clear_k)});
        p.probes_used[static_cast<std::size_t>(o)] |= std::uint32_t{1} << a;
        if (b >= 0)
            p.probes_used[static_cast<std::size_t>(o)] |= std::uint32_t{1} << b;
    }

    void add(std::size_t i, int o, const Differential& d) { latch(i, o, d.source, d.store, d.on.in_kelvin(), d.off.in_kelvin()); }
    template <int L, int H>
    void add(std::size_t i, int o, const HighLimit<L, H>& l) { latch(i, o, l.probe, "", l.limit.in_celsius(), (l.limit - l.hysteresis).in_celsius()); }
    void add(std::size_t i, int o, const RunTimes& r)
    {
        OutputTimers& t = out.program.timers[static_cast<std::size_t>(o)];
        t.min_run_ms = std::max<Millis>(0, millis(r.min_run_s));
        t.min_off_ms = std::max<Millis>(0, millis(r.min_off_s));
        t.timer_rule = static_cast<std::int16_t>(i);
    }
};

} // namespace

std::optional<LimitOf> limit_of(const Rule& rule)
{
    if (const auto* s = std::get_if<StoreLimit>(&rule.body))
        return LimitOf{s->probe, s->limit, s->hysteresis};
    if (const auto* c = std::get_if<CutOut>(&rule.body))
        return LimitOf{c->probe, c->limit, c->hysteresis};
    if (const auto* d = std::get_if<Divert>(&rule.body))
        return LimitOf{d->probe, d->limit, d->hysteresis};
    return std::nullopt;
}

const std::vector<RuleKind>& rule_kinds()
{
    static const std::vector<RuleKind> table{
        {"differential", "Difference", "Collect", "Runs the pump while the collector can give heat to the store.",
         "Start {output} when the {source} is {on_k} above the {store}; stop at {off_k}.", Tier::collect},
        {"store_limit", "Store limit", "Protect", "Keeps the store below what its lining, its relief valve and the people drawing from it bear.",
         "Stop {output} when the {probe} reaches {limit_c}; allow again {hysteresis_k} below that.", Tier::limit},
        {"cut_out", "Collector cut-out", "Protect", "Keeps the pump off while the collector is so hot that starting would send steam or shock into the loop.",
         "Hold {output} off when the {probe} reaches {limit_c}; allow again {hysteresis_k} below that.", Tier::cut_out},
        {"run_times", "Run and rest times", "Comfort", "Spares the pump short runs; it never delays a protection.",
         "Once started keep {output} on for {min_run_s}; once stopped keep it off for {min_off_s}.", Tier::min_off},
        {"divert", "Divert", "Protect", "Sends the heat elsewhere, to a second store or a cooler, before it can do harm.",
         "Switch {output} on when the {probe} reaches {limit_c}; off {hysteresis_k} below that.", Tier::dump},
    };
    return table;
}

const RuleKind& kind_of(const Rule& rule) { return rule_kinds()[rule.body.index()]; }

Compiled compile(const RuleSet& set, const std::vector<std::string>& probe_keys)
{
    Build b{set, probe_keys, {}};
    Program& p = b.out.program;
    p.sample_ms = std::max<Millis>(1, millis(set.sample_s));
    p.fault_return_ms = std::max<Millis>(0, millis(set.fault_return_s));
    p.probes = std::min(probe_keys.size(), max_probes);
    p.outputs = std::min(set.outputs.size(), max_outputs);
    for (std::size_t o = 0; o < p.outputs; ++o)
        p.timers[o].on_timeout_ms = std::max<Millis>(0, millis(set.outputs[o].on_timeout_s));
    for (std::size_t i = 0; i < set.rules.size(); ++i) {
        const Rule& rule = set.rules[i];
        const int o = b.output(rule.output);
        if (!rule.enabled)
            continue;
        if (o < 0)
            b.refuse(i, "there is no output “" + rule.output + "”");
        else
            std::visit([&](const auto& body) { b.add(i, o, body); }, rule.body);
    }
    std::stable_sort(p.clauses.begin(), p.clauses.end(), [](const Clause& x, const Clause& y) { return std::pair(x.output, x.tier) < std::pair(y.output, y.tier); });
    return std::move(b.out);
}

void sort_by_rank(std::vector<Rule>& rules)
{
    std::stable_sort(rules.begin(), rules.end(), [](const Rule& a, const Rule& b) { return kind_of(a).tier < kind_of(b).tier; });
}

MilliKelvin quantised(double temp_c, double resolution_k)
{
    const MilliKelvin mk = milli(temp_c);
    if (resolution_k <= 0)
        return mk;
    const MilliKelvin unit = milli(resolution_k);
    if (unit <= 1)
        return mk;
    return static_cast<MilliKelvin>(std::lround(static_cast<double>(mk) / unit)) * unit;
}

} // namespace vernal
