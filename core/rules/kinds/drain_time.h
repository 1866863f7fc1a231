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
        c.timers().drain_ms = std::max<Millis>(0, RuleCompiler::millis(drain_s));
        c.timers().drain_rule = c.rule();
    }
};

template <class V, OneOf<DrainTime> T>
void fields(V& v, T& r)
{
    v.number({"drain_s", "Drain time", Quantity::duration, 0, 3600, "2 to 5 min (common practice, no source); watch it once"}, r.drain_s);
}

} // namespace vernal
