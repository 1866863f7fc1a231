#pragma once

#include "shared.h"

namespace vernal {

struct Timer {
    std::array<ClockWindow, 3> windows{ClockWindow{6, 8}, {}, {}};
    bool operator==(const Timer&) const = default;

    static constexpr RuleKind kind{"timer", "Timer", "Heat", "Any output by the clock.",
        "Switch {output} on from {from_1_h} to {to_1_h}.", "Also from {from_2_h} to {to_2_h} and from {from_3_h} to {to_3_h}.", Priority::heat};
    void compile(RuleCompiler& c) const { c.clause(kind.priority, {0, c.windows(windows), 0}, true); }
};

template <class V, OneOf<Timer> T>
void fields(V& v, T& r)
{
    window_fields(v, r.windows);
}

} // namespace vernal
