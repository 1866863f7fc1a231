#pragma once

#include "gate.h"

namespace vernal {

// Its output has been on for wait_ms; or it is off for less than on_ms, and had been on for wait_ms before.
struct FollowGate {
    static constexpr Gate::Kind kind = Gate::Kind::follow;

    // What held at the last sample tells whether it had begun to follow.
    static bool holds_now(const Gate& g, const EngineState& s)
    {
        const auto leader = static_cast<std::size_t>(g.output);
        const Millis lasts = s.now_ms - s.changed_at[leader];
        return parts::running(s, leader) ? lasts >= g.wait_ms : lasts < g.on_ms && s.conditions.has(g.bit);
    }
    static bool holds(const Gate& g, GateSample& s) { return holds_now(g, s.state); }
    template <class At>
    static void events(const Gate& g, const GateView& v, At at)
    {
        if (v.holds(g) != holds_now(g, v.state))
            at(v.next_sample());
        at(v.state.changed_at[static_cast<std::size_t>(g.output)] + (v.its_output_runs(g) ? g.wait_ms : g.on_ms));
    }
    static Unmet unmet(const Gate&, const GateView&, bool must_end) { return {must_end}; }
    static std::string words(const Gate&, const Unmet& u, const GateWords& w) { return w.output + (u.must_end ? " rested" : " had been on long enough"); }
};

} // namespace vernal
