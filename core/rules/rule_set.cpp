#include "rule_set.h"

#include <algorithm>
#include <cmath>

namespace vernal {

Rule::Rule() = default;
Rule::Rule(std::string its_output, bool is_enabled, RuleBody its_body, std::string its_id)
    : output(std::move(its_output)), enabled(is_enabled), body(std::move(its_body)), id(std::move(its_id)) {}
Rule::Rule(const Rule&) = default;
Rule::Rule(Rule&&) noexcept = default;
Rule& Rule::operator=(const Rule&) = default;
Rule& Rule::operator=(Rule&&) noexcept = default;
Rule::~Rule() = default;
bool Rule::operator==(const Rule&) const = default;

RuleSet::RuleSet() = default;
RuleSet::RuleSet(const RuleSet&) = default;
RuleSet::RuleSet(RuleSet&&) noexcept = default;
RuleSet& RuleSet::operator=(const RuleSet&) = default;
RuleSet& RuleSet::operator=(RuleSet&&) noexcept = default;
RuleSet::~RuleSet() = default;
bool RuleSet::operator==(const RuleSet&) const = default;

namespace {

const char* priority_text(Priority t)
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

std::optional<LimitOf> limit_of(const Rule& rule)
{
    return std::visit(
        [](const auto& body) -> std::optional<LimitOf> {
            if constexpr (requires { body.limit_of(); })
                return body.limit_of();
            return {};
        },
        rule.body);
}

std::optional<std::string> capacity_problem(const RuleSet& set, const std::vector<std::string>& probe_keys, const std::vector<Reads>& reads)
{
    const auto beyond = [](std::size_t n, std::size_t most, const char* what) -> std::optional<std::string> {
        if (n <= most)
            return {};
        return "a unit has room for " + std::to_string(most) + " " + what + "; these are " + std::to_string(n);
    };
    if (auto problem = beyond(set.outputs.size(), max_outputs, "outputs"))
        return problem;
    if (auto problem = beyond(probe_keys.size(), max_probes, "probes"))
        return problem;
    if (auto problem = beyond(set.rules.size(), max_rules, "rules"))
        return problem;
    for (const OutOfAction& o : compile(set, probe_keys, reads).out_of_action)
        if (o.no_room)
            return o.reason + "; " + kind_of(set.rules[o.rule]).title + " would need more";
    return {};
}

std::optional<DifferenceOf> difference_of(const RuleSet& set, const Rule& rule)
{
    return std::visit(
        [&](const auto& body) -> std::optional<DifferenceOf> {
            if constexpr (requires { body.difference(set.knob); })
                return body.difference(set.knob);
            return {};
        },
        rule.body);
}

void set_difference(const RuleSet& set, Rule& rule, TempDiff on, TempDiff off)
{
    std::visit(
        [&](auto& body) {
            if constexpr (requires { body.set_difference(set.knob, on, off); })
                body.set_difference(set.knob, on, off);
        },
        rule.body);
}

std::optional<std::string> move_rule(std::vector<Rule>& rules, std::size_t from, std::size_t to)
{
    if (from >= rules.size() || to >= rules.size() || from == to)
        return {};
    const RuleKind &moved = kind_of(rules[from]), &there = kind_of(rules[to]);
    if (moved.priority != there.priority)
        return std::string(moved.title) + " is " + priority_text(moved.priority) + ", " + there.title + " is " + priority_text(there.priority) +
               ". Priorities are fixed, so that no order of rules can put comfort above a protection; among rules of one priority it can be moved.";
    const auto at = [&](std::size_t i) { return rules.begin() + static_cast<std::ptrdiff_t>(i); };
    from < to ? std::rotate(at(from), at(from + 1), at(to + 1)) : std::rotate(at(to), at(from), at(from + 1));
    return {};
}

namespace {

struct Keys : FieldVisitor {
    std::vector<KeyOf> found;
    void probe(const ProbeField& f, std::string& key) { found.push_back({KeyOf::Of::probe, f.key, &key, f.may_be_empty, f.role, f.nothing}); }
    void output(const OutputField& f, std::string& key) { found.push_back({KeyOf::Of::output, f.key, &key, f.may_be_empty, ProbeRole::left_open, f.nothing}); }
};

} // namespace

std::vector<KeyOf> keys_of(Rule& rule)
{
    Keys keys;
    keys.output({"output", "Output"}, rule.output);
    std::visit([&](auto& body) { fields(keys, body); }, rule.body);
    return keys.found;
}

namespace {

template <class... K>
std::vector<RuleKind> kinds_in(const std::variant<K...>*) { return {K::kind...}; }

} // namespace

const std::vector<RuleKind>& rule_kinds()
{
    static const std::vector<RuleKind> table = kinds_in(static_cast<const RuleBody*>(nullptr));
    return table;
}

const RuleKind& kind_of(const Rule& rule) { return rule_kinds()[rule.body.index()]; }

void sort_by_priority(std::vector<Rule>& rules)
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
