#pragma once

#include "shared.h"

namespace vernal {

// Switches on at the limit, off below it: a diverting valve, an emergency cooler and the pump that must run for it.
struct Divert {
    std::string probe;
    Temperature limit = Temperature::celsius(95);
    TempDiff hysteresis = TempDiff::kelvin(8);
    bool operator==(const Divert&) const = default;

    static constexpr RuleKind kind{"divert", "Divert", "Protect", "Sends the heat elsewhere, to a second store, a cooler or the house, before it can do harm.",
        "Switch {output} on when the {probe} reaches {limit_c}; off {hysteresis_k} below.", "", Priority::dump};
    std::optional<LimitOf> limit_of() const { return LimitOf{probe, limit, hysteresis}; }
    void compile(RuleCompiler& c) const { c.clause(kind.priority, all_of(c.high(probe, limit, limit - hysteresis, {})), true); }
};

template <class V, OneOf<Divert> T>
void fields(V& v, T& r)
{
    limit_fields(v, r, {"limit_c", "Limit", Quantity::temperature, -40, 350, "70 to 120 °C (estimate): above what the store still takes, below what fluid and pipe bear"}, ProbeRole::array);
}

} // namespace vernal
