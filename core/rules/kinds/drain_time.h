#pragma once

#include "shared.h"

namespace vernal {

// Even ON does not start the pump while the array drains.
struct DrainTime {
    double drain_s = 180;
    bool operator==(const DrainTime&) const = default;

    static constexpr RuleKind kind{"drain_time", "Drain time", "Protect", "A pump that starts into a draining array meets air. Even ON waits.",
        "After a stop, and after power returns, hold {output} off for {drain_s} while the array drains.", "", Priority::hold};
    void compile(RuleCompiler& c) const
    {
        Gate& drains = c.gate(Gate::Kind::drain);
        drains.output = static_cast<std::int8_t>(c.own());
        drains.on_ms = RuleCompiler::millis(drain_s);
        c.clause(kind.priority, all_of(RuleCompiler::bit_of(drains)), false, true);
    }
};

template <class V, OneOf<DrainTime> T>
void fields(V& v, T& r)
{
    v.number({"drain_s", "Drain time", Quantity::duration, 0, 3600, "1 to 8 min (estimate); watch it once"}, r.drain_s);
}

} // namespace vernal
