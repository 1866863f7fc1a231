#pragma once

#include "shared.h"

namespace vernal {

// The pair that the unit's one knob gives at this mark.
struct LinkedDifference {
    std::string source, store;
    double mark = 5;
    InputConditioning conditioning{};
    bool operator==(const LinkedDifference&) const = default;

    static constexpr RuleKind kind{"linked_difference", "Difference by one knob", "Collect", "One knob moves start and stop together; the pair at each mark is stated at the probes.",
        "Start {output} when the {source} is above the {store} by the pair of knob mark {mark}.", "Start only once that has stood for {confirm_s}; average the readings over {average_s}.", Priority::collect};
    std::optional<DifferenceOf> difference(const Knob& knob) const
    {
        const KnobPair pair = knob_pair(knob, mark);
        return DifferenceOf{source, store, TempDiff::kelvin(pair.on_k), TempDiff::kelvin(pair.off_k), conditioning};
    }
    // Takes the mark whose pair comes closest.
    void set_difference(const Knob& knob, TempDiff on, TempDiff off) { mark = knob_setting(knob, {on.in_kelvin(), off.in_kelvin()}).mark; }
    void compile(RuleCompiler& c) const
    {
        const Expr when = c.difference(*difference(c.knob()), "mark", "mark");
        c.clause(kind.priority, when, true);
        c.collects(when);
    }
};

template <class V, OneOf<LinkedDifference> T>
void fields(V& v, T& r)
{
    v.probe(source_field, r.source);
    v.probe(store_field, r.store);
    v.number({"mark", "Knob at mark", Quantity::number, -1000, 1000, "Its pairs are described at the probes"}, r.mark);
    conditioning_fields(v, r.conditioning);
}

} // namespace vernal
