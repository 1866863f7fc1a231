#pragma once

#include "gate.h"

namespace vernal {

// From a press of its button until its expression holds.
struct PressedGate {
    static constexpr Gate::Kind kind = Gate::Kind::pressed;

    static bool holds(const Gate& g, GateSample& s)
    {
        Millis& since = s.since(g);
        if ((s.in.pressed >> g.button & 1U) != 0 && since == not_since)
            since = s.state.now_ms;
        if (g.when.holds(s.bits))
            since = not_since;
        return since != not_since;
    }
    template <class At>
    static void events(const Gate&, const GateView&, At) {}
    static Unmet unmet(const Gate&, const GateView&, bool must_end) { return {must_end}; }
    static std::string words(const Gate&, const Unmet& u, const GateWords& w) { return by_its_rule(u, w); }
};

} // namespace vernal
