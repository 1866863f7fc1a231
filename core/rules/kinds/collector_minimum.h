#pragma once

#include "shared.h"

namespace vernal {

// Blocks at the limit and below, releases a hysteresis above.
struct CollectorMinimum {
    std::string probe;
    Temperature limit = Temperature::celsius(25);
    TempDiff hysteresis = TempDiff::kelvin(3);
    bool operator==(const CollectorMinimum&) const = default;

    static constexpr RuleKind kind{"collector_minimum", "Collector minimum", "Comfort", "No run for lukewarm water.",
        "Hold {output} off while the {probe} is at {limit_c} or below; allow again {hysteresis_k} above that.", "", Priority::limit};
    std::optional<LimitOf> limit_of() const { return LimitOf{probe, limit, hysteresis, true}; }
    void compile(RuleCompiler& c) const { c.clause(kind.priority, all_of(c.low(probe, limit, limit + hysteresis, {})), false); }
};

template <class V, OneOf<CollectorMinimum> T>
void fields(V& v, T& r)
{
    limit_fields(v, r, {"limit_c", "Minimum", Quantity::temperature, -40, 120, "20 to 35 °C (estimate)"}, ProbeRole::array);
}

} // namespace vernal
