#pragma once

#include "speed_range.h"

namespace vernal {

// One step faster for every `per` that the difference is above `above`.
struct SpeedByDifference {
    std::string source, store;
    TempDiff above = TempDiff::kelvin(8), per = TempDiff::kelvin(2);
    SpeedRange range{};
    bool operator==(const SpeedByDifference&) const = default;

    static constexpr RuleKind kind{"speed_by_difference", "Speed by difference", "Collect", "Runs faster the more the collector has to give.",
        "Run {output} one step of {step} faster for each {per_k} that the {source} is more than {above_k} above the {store}.", "Between {floor} and {top} of full speed, rounded to {resolution}, by {drive}.", Priority::collect};
    void compile(RuleCompiler& c) const
    {
        Speed x = speed_in(range, Speed::Kind::difference);
        x.plus = c.probe(source);
        x.minus = c.probe(store);
        x.at_mk = in_milli(above.in_kelvin());
        x.per_mk = std::max(1, in_milli(per.in_kelvin()));
        c.speed(x);
    }
    // Faster from where the difference starts.
    void fresh(const FreshContext& loop, std::string& output)
    {
        if (take_over(loop, output, source, store))
            above = loop.difference->on;
    }
};

template <class V, OneOf<SpeedByDifference> T>
void fields(V& v, T& r)
{
    v.probe(source_field, r.source);
    v.probe(store_field, r.store);
    v.difference({"above_k", "Faster above", Quantity::difference, -20, 60, "The start difference"}, r.above);
    v.difference({"per_k", "for each", Quantity::difference, 0.1, 30, "0.5 to 6 K (estimate): full speed where the rise at full sun is reached"}, r.per);
    range_fields(v, r.range);
}

} // namespace vernal
