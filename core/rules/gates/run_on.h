#pragma once

#include "gate.h"

namespace vernal {

// Its output runs and its expression held less than on_ms ago. Since long_ago:
// it held at the last sample.
struct RunOnGate {
    static constexpr Gate::Kind kind = Gate::Kind::run_on;

    static bool holds(const Gate& g, GateSample& s)
    {
        Millis& since = s.since(g);
        const bool asked = g.when.holds(s.bits);
        if (!parts::running(s.state, static_cast<std::size_t>(g.output)) && !asked) {
            since = not_since;
            return false;
        }
        if (asked) {
            since = long_ago;
            return false;
        }
        if (since == long_ago)
            since = s.state.now_ms;
        return since != not_since && s.state.now_ms - since < g.on_ms;
    }
    template <class At>
    static void events(const Gate& g, const GateView& v, At at)
    {
        const Millis since = v.since(g);
        if (since == long_ago ? !g.when.holds(v.state.conditions) : since != not_since && !v.its_output_runs(g))
            at(v.next_sample());
        if (since != not_since && since != long_ago)
            at(since + g.on_ms);
    }
    static Unmet unmet(const Gate&, const GateView&, bool must_end) { return {must_end}; }
    static std::string words(const Gate&, const Unmet& u, const GateWords& w) { return by_its_rule(u, w); }
};

} // namespace vernal
