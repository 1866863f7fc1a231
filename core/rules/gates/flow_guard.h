#pragma once

#include "guard.h"

namespace vernal {

// Its output is held off: it ran wait_ms with the channel below change_mk; again after
// on_ms, after `retries` failures not until OFF or power-up. An invalid reading is below.
struct FlowGuardGate {
    static constexpr Gate::Kind kind = Gate::Kind::flow_guard;
    using Phase = GuardState::Phase;

    static bool holds(const Gate& g, GateSample& s)
    {
        GuardState& guard = s.state.guards[g.timer];
        if (s.in.modes[static_cast<std::size_t>(g.output)] == Mode::off)
            guard = {};
        const bool flows = s.in.readings[g.channel].valid && s.values[g.channel] >= g.change_mk;
        advance(g, guard, parts::running(s.state, static_cast<std::size_t>(g.output)), flows, s.state.now_ms);
        return guard.phase == Phase::waiting || guard.phase == Phase::locked;
    }
    template <class At>
    static void events(const Gate& g, const GateView& v, At at) { guard_events(g, v, at); }
    static Unmet unmet(const Gate&, const GateView&, bool must_end) { return {must_end}; }
    static std::string words(const Gate&, const Unmet& u, const GateWords& w) { return by_its_rule(u, w); }

private:
    static void advance(const Gate& g, GuardState& guard, bool runs, bool flows, Millis now_ms)
    {
        const auto enter = [&](Phase phase) {
            guard.since_ms = guard.phase == phase ? guard.since_ms : now_ms;
            guard.phase = phase;
        };
        switch (guard.phase) {
        case Phase::idle:
        case Phase::proven:
        case Phase::watching:
            if (!runs) {
                enter(Phase::idle);
            } else if (flows) {
                enter(Phase::proven);
                guard.failures = 0;
            } else if (guard.phase != Phase::watching) {
                enter(Phase::watching);
            } else if (now_ms - guard.since_ms >= g.wait_ms) {
                ++guard.failures;
                enter(guard.failures > g.retries ? Phase::locked : Phase::waiting);
            }
            break;
        case Phase::waiting:
            if (now_ms - guard.since_ms >= g.on_ms)
                enter(Phase::idle);
            break;
        case Phase::locked: break;
        }
    }
};

} // namespace vernal
