#pragma once

#include "speed_range.h"

namespace vernal {

// One step up or down every so often while further than `within` from the rise.
struct SpeedToRise {
    std::string source, store;
    TempDiff rise = TempDiff::kelvin(10), within = TempDiff::kelvin(1);
    double every_s = 15;
    SpeedRange range{};
    bool operator==(const SpeedToRise&) const = default;

    static constexpr RuleKind kind{"speed_to_rise", "Speed to a rise", "Collect", "Holds the rise across the collector by the pump's speed.",
        "Let the speed of {output} hold the {source} {rise_k} above the {store}, within {within_k}.", "A step of {step} every {every_s}, between {floor} and {top} of full speed, rounded to {resolution}, by {drive}.", Priority::collect};
    void compile(RuleCompiler& c) const { compile_seeking(c, range, c.probe(source), c.probe(store), rise.in_kelvin(), within, every_s, "rise_k"); }
    void fresh(const FreshContext& loop, std::string& output) { take_over(loop, output, source, store); }
};

template <class V, OneOf<SpeedToRise> T>
void fields(V& v, T& r)
{
    v.probe(source_field, r.source);
    v.probe(store_field, r.store);
    v.difference({"rise_k", "Rise", Quantity::difference, 0.5, 60, "3 to 20 K (estimate): less asks for more flow"}, r.rise);
    v.difference(within_field, r.within);
    v.number(every_field, r.every_s);
    range_fields(v, r.range);
}

} // namespace vernal
