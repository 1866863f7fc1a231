// Fields of the unit: outputs, rules, and what the unit is like.
#pragma once

#include "core/rules/rule_set.h"

namespace vernal {

template <class V, OneOf<FaultChoice> T>
void fields(V& v, T& f)
{
    v.text("probe", f.probe);
    static constexpr std::array does{"off", "on", "carry on"};
    v.choice("does", does, f.does);
}

template <class V, OneOf<Output> T>
void fields(V& v, T& o)
{
    v.id("id", o.id);
    v.text("key", o.key);
    v.text("name", o.name);
    static constexpr std::array modes{"OFF", "AUTO", "ON"};
    v.choice("mode", modes, o.mode);
    v.number({"on_timeout_s", "ON returns to AUTO after", Quantity::minutes, 0, 86400, "So that a forgotten switch does no harm", "never"}, o.on_timeout_s);
    static constexpr std::array drives{"loop", "element", "drain valve", "check valve", "other"};
    v.choice("drives", drives, o.drives);
    v.boolean({"bypass", "Service bypass closed", "It feeds the output around the unit and defeats every protection"}, o.bypass);
    v.boolean({"auto_after_power", "AUTO when power returns", "ON counts as AUTO then, until the switch is moved"}, o.auto_after_power);
    v.spare_list("faults", o.faults);
}

template <class V, OneOf<Rule> T>
void fields(V& v, T& r)
{
    v.id("id", r.id);
    v.output({"output", "Output"}, r.output);
    v.boolean({"enabled", "In use"}, r.enabled);
    std::vector<const char*> keys;
    for (const RuleKind& k : rule_kinds())
        keys.push_back(k.key);
    v.alternatives("kind", keys, r.body);
}

template <class V, OneOf<RuleSet> T>
void fields(V& v, T& s)
{
    v.list("outputs", s.outputs);
    v.list("rules", s.rules);
    v.number({"sample_s", "Sampling period", Quantity::duration, 0.1, 60, "1 s"}, s.sample_s);
    v.number({"resolution_k", "Resolution", Quantity::difference, 0, 5, "0.1 K; 0 is everything"}, s.resolution_k);
    v.number({"fault_return_s", "Trusts a probe again after", Quantity::duration, 0, 3600, "10 s"}, s.fault_return_s);
    v.number({"power_wait_s", "Waits after power returns", Quantity::duration, 0, 3600, "0; some minutes for a supply that comes and goes"}, s.power_wait_s);
    v.boolean({"away", "Nobody is at home", "Night cooling that waits for it may run"}, s.away);
}

} // namespace vernal
