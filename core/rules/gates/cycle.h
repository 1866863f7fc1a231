#pragma once

#include "gate.h"

namespace vernal {

// While its expression holds: rests wait_ms, holds on_ms, and so on; on_first: the
// other way round. Begins anew while its output, if it has one, runs for other reasons.
struct CycleGate {
    static constexpr Gate::Kind kind = Gate::Kind::cycle;

    static bool holds(const Gate& g, GateSample& s)
    {
        Millis& since = s.since(g);
        EngineState& e = s.state;
        const bool elsewise = g.output >= 0 && parts::running(e, static_cast<std::size_t>(g.output)) && !e.conditions.has(g.bit);
        if (!g.when.holds(s.bits) || elsewise) {
            since = not_since;
            return false;
        }
        if (since == not_since)
            since = e.now_ms - (g.on_first ? g.wait_ms : 0);
        while (e.now_ms - since >= g.wait_ms + g.on_ms)
            since += g.wait_ms + g.on_ms;
        return e.now_ms - since >= g.wait_ms;
    }
    template <class At>
    static void events(const Gate& g, const GateView& v, At at)
    {
        const Millis since = v.since(g);
        const bool runs = v.its_output_runs(g);
        // An output that has just come to rest opens the gate at the next sample.
        if (since == not_since && g.when.holds(v.state.conditions) && !runs)
            at(v.next_sample());
        if (since == not_since)
            return;
        if (runs && !v.holds(g))
            at(v.next_sample());
        at(since + g.wait_ms);
        at(since + g.wait_ms + g.on_ms);
    }
    static Unmet unmet(const Gate& g, const GateView& v, bool must_end)
    {
        if (!must_end && !g.when.holds(v.state.conditions))
            return {must_end, not_since, true};
        const Millis since = v.since(g);
        const Millis left = since == not_since ? g.wait_ms : since + g.wait_ms + (must_end ? g.on_ms : 0) - v.state.now_ms;
        return {must_end, g.on_ms >= for_ever && must_end ? not_since : left};
    }
    static std::string words(const Gate&, const Unmet& u, const GateWords& w)
    {
        return u.left_ms == not_since ? w.title + " had ended" : "the wait of " + w.title + " were over (" + w.time(u.left_ms) + ")";
    }
};

} // namespace vernal
