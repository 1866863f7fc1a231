#pragma once

#include "shared.h"

namespace vernal {

// Start when source is `on` above store; stop at `off`. off < on.
struct Differential {
    std::string source, store;
    TempDiff on = TempDiff::kelvin(8), off = TempDiff::kelvin(4);
    InputConditioning conditioning{};
    bool operator==(const Differential&) const = default;

    static constexpr RuleKind kind{"differential", "Difference", "Collect", "Runs the pump while the collector can give heat to the store.",
        "Start {output} when the {source} is {on_k} above the {store}; stop at {off_k}.", "Start only once that has stood for {confirm_s}; average the readings over {average_s}.", Priority::collect};
    std::optional<DifferenceOf> difference(const Knob&) const { return DifferenceOf{source, store, on, off, conditioning}; }
    void set_difference(const Knob&, TempDiff to_on, TempDiff to_off)
    {
        on = to_on;
        off = to_off;
    }
    void compile(RuleCompiler& c) const
    {
        const Expr when = c.difference({source, store, on, off, conditioning});
        c.clause(kind.priority, when, true);
        c.collects(when);
    }
};

template <class V, OneOf<Differential> T>
void fields(V& v, T& r)
{
    v.probe(source_field, r.source);
    v.probe(store_field, r.store);
    v.difference(on_field, r.on);
    v.difference(off_field, r.off);
    conditioning_fields(v, r.conditioning);
}

} // namespace vernal
