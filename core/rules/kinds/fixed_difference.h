#pragma once

#include "shared.h"

namespace vernal {

// Against a fixed value in place of a store probe.
struct FixedDifference {
    std::string source;
    Temperature reference = Temperature::celsius(22);
    TempDiff on = TempDiff::kelvin(10), off = TempDiff::kelvin(4);
    bool operator==(const FixedDifference&) const = default;

    static constexpr RuleKind kind{"fixed_difference", "Difference to a fixed value", "Collect", "A fixed value stands in for the store probe, as a fixed resistor does in air heating.",
        "Start {output} when the {source} is {on_k} above a fixed {reference_c}; stop at {off_k}.", "", Priority::collect};
    void compile(RuleCompiler& c) const
    {
        const std::uint8_t stands_in = c.fixed(in_milli(reference.in_celsius()));
        const Bits l = c.latch(c.probe(source), stands_in, {in_milli(on.in_kelvin()), in_milli(off.in_kelvin()), "on_k", "off_k", RuleCompiler::no_band});
        c.clause(kind.priority, all_of(l), true);
        c.collects(all_of(l));
    }
};

template <class V, OneOf<FixedDifference> T>
void fields(V& v, T& r)
{
    v.probe(source_field, r.source);
    v.temperature({"reference_c", "Fixed value", Quantity::temperature, -40, 150, "The room's usual temperature, or what the fixed resistor stands for"}, r.reference);
    v.difference(on_field, r.on);
    v.difference(off_field, r.off);
}

} // namespace vernal
