#include "rule_set.h"

#include <algorithm>
#include <cmath>

namespace vernal {

namespace {

struct Limits {
    std::optional<LimitOf> operator()(const StoreLimit& l) const { return LimitOf{l.probe, l.limit - l.allowance, l.hysteresis}; }
    template <int L, int H>
    std::optional<LimitOf> operator()(const HighLimit<L, H>& l) const { return LimitOf{l.probe, l.limit, l.hysteresis}; }
    std::optional<LimitOf> operator()(const CollectorMinimum& l) const { return LimitOf{l.probe, l.limit, l.hysteresis, true}; }
    std::optional<LimitOf> operator()(const Freeze& l) const { return LimitOf{l.probe, l.limit, l.hysteresis, true}; }
    std::optional<LimitOf> operator()(const DrainDown& l) const { return LimitOf{l.probe, l.limit, l.hysteresis, true}; }
    std::optional<LimitOf> operator()(const Fill& l) const { return l.probe.empty() ? std::nullopt : std::optional(LimitOf{l.probe, l.lockout, l.hysteresis}); }
    template <class Other>
    std::optional<LimitOf> operator()(const Other&) const { return std::nullopt; }
};

const char* rank_text(Priority t)
{
    switch (t) {
    case Priority::hold: return "a hold that even ON does not defeat";
    case Priority::cut_out: return "a cut-out";
    case Priority::freeze: return "a freeze protection";
    case Priority::dump: return "an overheat protection";
    case Priority::limit: return "a limit";
    case Priority::min_off:
    case Priority::min_run: return "a comfort timer";
    case Priority::collect: return "what collects";
    default: return "what heats and what goes by the clock";
    }
}

} // namespace

std::optional<LimitOf> limit_of(const Rule& rule) { return std::visit(Limits{}, rule.body); }

std::optional<Differential> difference_of(const RuleSet& set, const Rule& rule)
{
    if (const auto* d = std::get_if<Differential>(&rule.body))
        return *d;
    if (const auto* s = std::get_if<SecondStore>(&rule.body))
        return Differential{s->source, s->store, s->on, s->off, {}};
    if (const auto* l = std::get_if<LinkedDifference>(&rule.body)) {
        const KnobPair pair = knob_pair(set.knob, l->mark);
        return Differential{l->source, l->store, TempDiff::kelvin(pair.on_k), TempDiff::kelvin(pair.off_k), l->conditioning};
    }
    return {};
}

void set_difference(const RuleSet& set, Rule& rule, TempDiff on, TempDiff off)
{
    if (auto* d = std::get_if<Differential>(&rule.body)) {
        d->on = on;
        d->off = off;
    } else if (auto* s = std::get_if<SecondStore>(&rule.body)) {
        s->on = on;
        s->off = off;
    } else if (auto* l = std::get_if<LinkedDifference>(&rule.body)) {
        l->mark = knob_setting(set.knob, {on.in_kelvin(), off.in_kelvin()}).mark;
    }
}

std::optional<std::string> move_rule(std::vector<Rule>& rules, std::size_t from, std::size_t to)
{
    if (from >= rules.size() || to >= rules.size() || from == to)
        return {};
    const RuleKind &moved = kind_of(rules[from]), &there = kind_of(rules[to]);
    if (moved.priority != there.priority)
        return std::string(moved.title) + " is " + rank_text(moved.priority) + ", " + there.title + " is " + rank_text(there.priority) +
               ". Ranks are fixed, so that no order of rules can put comfort above a protection; within its rank a rule can be moved.";
    const auto at = [&](std::size_t i) { return rules.begin() + static_cast<std::ptrdiff_t>(i); };
    from < to ? std::rotate(at(from), at(from + 1), at(to + 1)) : std::rotate(at(to), at(from), at(from + 1));
    return {};
}

std::vector<KeyOf> keys_of(Rule& rule)
{
    using Of = KeyOf::Of;
    std::vector<KeyOf> out{{Of::output, "output", &rule.output, false}};
    std::visit(
        [&](auto& b) {
            using Body = std::remove_reference_t<decltype(b)>;
            constexpr bool spare_store = std::is_same_v<Body, Freeze>;
            if constexpr (requires { b.source; })
                out.push_back({Of::probe, "source", &b.source, false});
            if constexpr (requires { b.probe; })
                out.push_back({Of::probe, "probe", &b.probe, std::is_same_v<Body, Fill>});
            if constexpr (requires { b.store; })
                out.push_back({Of::probe, "store", &b.store, spare_store});
            if constexpr (requires { b.second; })
                out.push_back({Of::probe, "second", &b.second, true});
            if constexpr (requires { b.only_store; })
                out.push_back({Of::probe, "only_store", &b.only_store, true});
            if constexpr (requires { b.valve; })
                out.push_back({Of::output, "valve", &b.valve, false});
            if constexpr (requires { b.pump; })
                out.push_back({Of::output, "pump", &b.pump, true});
            if constexpr (requires { b.unless; })
                out.push_back({Of::output, "unless", &b.unless, true});
            if constexpr (requires { b.leader; })
                out.push_back({Of::output, "leader", &b.leader, false});
        },
        rule.body);
    return out;
}

void sort_by_rank(std::vector<Rule>& rules)
{
    std::stable_sort(rules.begin(), rules.end(), [](const Rule& a, const Rule& b) { return kind_of(a).priority < kind_of(b).priority; });
}

// Nearest, halves away from zero; as std::lround, which is a call in a hot loop.
MilliKelvin in_milli(double v)
{
    const double x = std::clamp(v, -1e6, 1e6) * 1000.0;
    return static_cast<MilliKelvin>(x + std::copysign(0.5, x));
}

MilliKelvin quantised(double temp_c, double resolution_k)
{
    const MilliKelvin mk = in_milli(temp_c);
    if (resolution_k <= 0)
        return mk;
    const MilliKelvin unit = in_milli(resolution_k);
    if (unit <= 1)
        return mk;
    return static_cast<MilliKelvin>(std::lround(static_cast<double>(mk) / unit)) * unit;
}

} // namespace vernal
