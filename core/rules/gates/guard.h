#pragma once

#include "gate.h"

#include <cstdlib>

namespace vernal {

// When a guard of either kind moves on by itself.
template <class At>
void guard_events(const Gate& g, const GateView& v, At at)
{
    using Phase = GuardState::Phase;
    const GuardState& guard = v.state.guards[g.timer];
    const bool runs = v.its_output_runs(g);
    if ((guard.phase == Phase::idle && runs) || ((guard.phase == Phase::watching || guard.phase == Phase::proven) && !runs))
        at(v.next_sample());
    if (guard.phase == Phase::watching)
        at(guard.since_ms + g.wait_ms);
    if (guard.phase == Phase::waiting)
        at(guard.since_ms + g.on_ms);
}

// Its output is held off: it ran wait_ms and the channel had not changed by
// change_mk; again after on_ms, after `retries` failures not until OFF or power-up.
// Invalid readings prove nothing; the first valid one is what others are compared with.
struct GuardGate {
    static constexpr Gate::Kind kind = Gate::Kind::guard;
    using Phase = GuardState::Phase;

    static bool holds(const Gate& g, GateSample& s)
    {
        GuardState& guard = s.state.guards[g.timer];
        if (s.in.modes[static_cast<std::size_t>(g.output)] == Mode::off)
            guard = {};
        advance(g, guard, parts::running(s.state, static_cast<std::size_t>(g.output)), {s.values[g.channel], s.in.readings[g.channel].valid}, s.state.now_ms);
        return guard.phase == Phase::waiting || guard.phase == Phase::locked;
    }
    template <class At>
    static void events(const Gate& g, const GateView& v, At at) { guard_events(g, v, at); }
    static Unmet unmet(const Gate&, const GateView&, bool must_end) { return {must_end}; }
    static std::string words(const Gate&, const Unmet& u, const GateWords& w) { return by_its_rule(u, w); }

private:
    static void advance(const Gate& g, GuardState& guard, bool runs, const Reading& now, Millis now_ms)
    {
        const auto enter = [&](Phase phase) {
            guard.phase = phase;
            guard.since_ms = now_ms;
            guard.compares = phase == Phase::watching && now.valid;
            guard.start_mk = guard.compares ? now.mk : 0;
        };
        switch (guard.phase) {
        case Phase::idle:
            if (runs)
                enter(Phase::watching);
            break;
        case Phase::watching:
            if (!runs) {
                enter(Phase::idle);
            } else if (now.valid && guard.compares && std::abs(now.mk - guard.start_mk) >= g.change_mk) {
                enter(Phase::proven);
                guard.failures = 0;
            } else if (now_ms - guard.since_ms >= g.wait_ms) {
                ++guard.failures;
                enter(guard.failures > g.retries ? Phase::locked : Phase::waiting);
            } else if (now.valid && !guard.compares) {
                guard.compares = true;
                guard.start_mk = now.mk;
            }
            break;
        case Phase::proven:
            if (!runs)
                enter(Phase::idle);
            break;
        case Phase::waiting:
            if (now_ms - guard.since_ms >= g.on_ms)
                enter(Phase::idle);
            break;
        case Phase::locked:
            break;
        }
    }
};

} // namespace vernal
