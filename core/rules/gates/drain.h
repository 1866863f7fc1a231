#pragma once

#include "gate.h"

namespace vernal {

// Its output rests, for less than on_ms; power-up counts as a stop.
struct DrainGate {
    static constexpr Gate::Kind kind = Gate::Kind::drain;
    static bool holds(const Gate& g, GateSample& s)
    {
        const auto o = static_cast<std::size_t>(g.output);
        return !parts::running(s.state, o) && s.state.now_ms - s.state.stopped_at[o] < g.on_ms;
    }
    template <class At>
    static void events(const Gate& g, const GateView& v, At at)
    {
        if (!v.its_output_runs(g))
            at(v.state.stopped_at[static_cast<std::size_t>(g.output)] + g.on_ms);
    }
    static Unmet unmet(const Gate& g, const GateView& v, bool must_end) { return {must_end, v.state.stopped_at[static_cast<std::size_t>(g.output)] + g.on_ms - v.state.now_ms}; }
    static std::string words(const Gate&, const Unmet& u, const GateWords& w) { return "it had drained (" + w.time(u.left_ms) + ")"; }
};

} // namespace vernal
