#include "disagreement.h"

#include "why.h"

#include <algorithm>

namespace vernal {
namespace {

std::size_t row_at(const ReplayResult& r, double time_s)
{
    std::size_t lo = 0, hi = r.size();
    while (lo + 1 < hi) {
        const std::size_t mid = (lo + hi) / 2;
        (r.time_s(mid) <= time_s ? lo : hi) = mid;
    }
    return lo;
}

// The difference that switches an output: the rule that decided where it is one.
std::optional<DifferenceOf> difference_at(const RuleSet& unit, const Disagreement& d)
{
    if (d.rule >= 0 && static_cast<std::size_t>(d.rule) < unit.rules.size())
        if (const auto own = difference_of(unit, unit.rules[static_cast<std::size_t>(d.rule)]))
            return own;
    for (const Rule& r : unit.rules)
        if (r.enabled && r.output == unit.outputs[d.output].key)
            if (const auto found = difference_of(unit, r))
                return found;
    return std::nullopt;
}

double reading(const Variant& v, const ReplayResult& r, std::size_t row, const std::string& key)
{
    for (std::size_t p = 0; p < v.probes.size(); ++p)
        if (v.probes[p].key == key)
            return r.reading(row, p);
    return NAN;
}

std::string by_difference(const Variant& v, const ReplayResult& r, const Disagreement& d, const Units& u)
{
    const auto pair = difference_at(v.unit, d);
    if (!pair)
        return "";
    const std::size_t row = row_at(r, d.from_s);
    const double gap = reading(v, r, row, pair->source) - reading(v, r, row, pair->store), on = pair->on.in_kelvin(), off = pair->off.in_kelvin();
    const auto k = [&](double x) { return to_text(x, Quantity::difference, u); };
    if (std::isnan(gap))
        return "no valid reading";
    if (d.recorded_on)
        return gap < on ? k(on - gap) + " short of the start" : "";
    return gap >= on ? k(gap - on) + " past the start" : gap >= off ? k(gap - off) + " above the stop"
                                                                    : "";
}

} // namespace

std::string disagreement_text(const Variant& v, const ReplayResult& r, const Disagreement& d, const Units& u)
{
    const std::string key = v.unit.outputs[d.output].key;
    const bool demand = d.priority == Priority::nothing || d.priority == Priority::collect;
    std::string reason = demand ? by_difference(v, r, d, u) : "";
    if (reason.empty())
        reason = decider_name(v.unit, d.priority, d.rule) + (d.priority == Priority::nothing ? "" : d.recorded_on ? " holds it off"
                                                                                                                  : " holds it on");
    return "The log's " + key + (d.recorded_on ? " ran, the rules say rest: " : " rested, the rules say run: ") + reason + "." + (d.from_before ? " The log begins here: what the unit still remembered from before is not in it." : "");
}

} // namespace vernal
