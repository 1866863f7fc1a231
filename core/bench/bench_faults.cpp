#include "bench_faults.h"

#include "core/job/fault.h"
#include "core/rules/rule_set.h"

#include <algorithm>

namespace vernal {
namespace {

constexpr double all_the_time_h = 24.0 * 60;
constexpr double other_scale = 5.0 / 9, higher_k = 3, limit_higher_k = 12, offset_k = 5; // sizes that matter and are met (estimates)

void change_pair(Variant& v, const std::function<void(RuleSet&, Rule&, const DifferenceOf&)>& how)
{
    for (Rule& r : v.unit.rules)
        if (const auto d = difference_of(v.unit, r); d && r.enabled)
            return how(v.unit, r, *d);
}

} // namespace

std::vector<BenchFault> bench_faults(const Variant& v)
{
    constexpr std::array shown{FaultKind::probe_open, FaultKind::probe_shorted, FaultKind::probe_stuck, FaultKind::probes_swapped, FaultKind::relay_stuck_on, FaultKind::relay_stuck_off, FaultKind::pump_dead};
    std::vector<BenchFault> out;
    for (const FaultKind kind : shown)
        if (can_have(kind, v, Day{}))
            out.push_back({fault_keys[static_cast<std::size_t>(kind)], fault_info(kind).name, [kind](Variant& real, Day& day) { day.faults.push_back(fresh_fault(kind, real, 0, all_the_time_h)); }});
    const bool pair = std::any_of(v.unit.rules.begin(), v.unit.rules.end(), [&](const Rule& r) { return r.enabled && difference_of(v.unit, r); });
    if (pair) {
        out.push_back({"probe_offset", "the source's probe reads high", [](Variant& real, Day&) {
                           change_pair(real, [&](RuleSet&, Rule&, const DifferenceOf& d) {
                               for (Probe& p : real.probes)
                                   if (p.key == d.source)
                                       p.correction = TempDiff::kelvin(p.correction.in_kelvin() + offset_k);
                           });
                       }});
        out.push_back({"other_scale", "differences typed in the other scale", [](Variant& real, Day&) { change_pair(real, [](RuleSet& unit, Rule& r, const DifferenceOf& d) { set_difference(unit, r, d.on * other_scale, d.off * other_scale); }); }});
        out.push_back({"start_high", "the start set too high", [](Variant& real, Day&) { change_pair(real, [](RuleSet& unit, Rule& r, const DifferenceOf& d) { set_difference(unit, r, TempDiff::kelvin(d.on.in_kelvin() + higher_k), d.off); }); }});
    }
    if (!v.unit.outputs.empty()) {
        out.push_back({"switch_left_on", "a switch left on ON", [](Variant& real, Day&) { real.unit.outputs.front().mode = Mode::on; }});
        out.push_back({"bypass_left_closed", "the service bypass left closed", [](Variant& real, Day&) { real.unit.outputs.front().bypass = true; }});
    }
    if (std::any_of(v.unit.rules.begin(), v.unit.rules.end(), [](const Rule& r) { return r.enabled && std::holds_alternative<CutOut>(r.body); }))
        out.push_back({"cut_out_high", "the cut-out set too high", [](Variant& real, Day&) {
                           for (Rule& r : real.unit.rules)
                               if (auto* c = std::get_if<CutOut>(&r.body))
                                   c->limit = Temperature::celsius(c->limit.in_celsius() + limit_higher_k);
                       }});
    if (std::any_of(v.unit.rules.begin(), v.unit.rules.end(), [](const Rule& r) { return r.enabled && std::holds_alternative<StoreLimit>(r.body); }))
        out.push_back({"limit_high", "the store's limit set too high", [](Variant& real, Day&) {
                           for (Rule& r : real.unit.rules)
                               if (auto* l = std::get_if<StoreLimit>(&r.body))
                                   l->limit = Temperature::celsius(l->limit.in_celsius() + limit_higher_k);
                       }});
    return out;
}

} // namespace vernal
