#pragma once

#include "shared.h"

namespace vernal {

// Blocks at the limit, releases a hysteresis below.
struct CutOut {
    std::string probe;
    Temperature limit = Temperature::celsius(125);
    TempDiff hysteresis = TempDiff::kelvin(15);
    bool operator==(const CutOut&) const = default;

    static constexpr RuleKind kind{"cut_out", "Collector cut-out", "Protect", "Keeps the pump off while the collector is so hot that starting would send steam or shock into the loop.",
        "Hold {output} off when the {probe} reaches {limit_c}; allow again {hysteresis_k} below.", "", Priority::cut_out};
    std::optional<LimitOf> limit_of() const { return LimitOf{probe, limit, hysteresis}; }
    void compile(RuleCompiler& c) const { compile_upper_limit(c, *this, kind.priority); }
};

template <class V, OneOf<CutOut> T>
void fields(V& v, T& r)
{
    limit_fields(v, r, {"limit_c", "Limit", Quantity::temperature, -40, 350, "100 to 150 °C (estimate): below what the parts near the collector bear"}, ProbeRole::array);
}

} // namespace vernal
