#pragma once

#include "gate.h"

namespace vernal {

// The clock lies in one of the spans; never with the clock lost.
struct WindowGate {
    static constexpr Gate::Kind kind = Gate::Kind::window;

    static bool in_span(const ClockSpan& w, Millis clock)
    {
        return w.from_ms < w.to_ms ? clock >= w.from_ms && clock < w.to_ms : clock >= w.from_ms || clock < w.to_ms;
    }
    static bool holds(const Gate& g, GateSample& s)
    {
        for (std::size_t i = 0; i < g.span_count; ++i)
            if (s.in.clock_ms >= 0 && in_span(g.spans[i], s.in.clock_ms))
                return true;
        return false;
    }
    static Millis until(Millis edge, Millis clock) { return edge > clock ? edge - clock : edge + day_ms - clock; }
    template <class At>
    static void events(const Gate& g, const GateView& v, At at)
    {
        for (std::size_t i = 0; v.last.clock_ms >= 0 && i < g.span_count; ++i)
            for (Millis edge : {g.spans[i].from_ms, g.spans[i].to_ms})
                at(v.state.now_ms + until(edge, v.last.clock_ms));
    }
    static Unmet unmet(const Gate& g, const GateView& v, bool must_end)
    {
        Millis next = not_since;
        for (std::size_t i = 0; v.last.clock_ms >= 0 && i < g.span_count; ++i)
            for (Millis edge : {g.spans[i].from_ms, g.spans[i].to_ms})
                if (const Millis left = until(edge, v.last.clock_ms); next == not_since || left < next)
                    next = left;
        return {must_end, next};
    }
    static std::string words(const Gate&, const Unmet& u, const GateWords& w)
    {
        return u.left_ms == not_since ? std::string("the clock were set") : "its window " + std::string(u.must_end ? "were over" : "had begun") + " (in " + w.time(u.left_ms) + ")";
    }
};

} // namespace vernal
