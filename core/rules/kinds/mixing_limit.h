#pragma once

#include "shared.h"

namespace vernal {

// Of what goes to a slab.
struct MixingLimit {
    std::string probe;
    Temperature limit = Temperature::celsius(45);
    TempDiff hysteresis = TempDiff::kelvin(4);
    bool operator==(const MixingLimit&) const = default;

    static constexpr RuleKind kind{"mixing_limit", "Mixing limit", "Protect", "Keeps water that is too hot from a slab: it cracks, and plastic pipe and floor finish suffer.",
        "Stop {output} when the {probe} reaches {limit_c}; allow again {hysteresis_k} below.", "", Priority::limit};
    std::optional<LimitOf> limit_of() const { return LimitOf{probe, limit, hysteresis}; }
    void compile(RuleCompiler& c) const { compile_upper_limit(c, *this, kind.priority); }
};

template <class V, OneOf<MixingLimit> T>
void fields(V& v, T& r)
{
    limit_fields(v, r, {"limit_c", "Limit", Quantity::temperature, 0, 120, "40 to 50 °C to a slab (estimate); the floor's maker knows"}, ProbeRole::delivered);
}

} // namespace vernal
