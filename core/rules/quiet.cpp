// When the next timer can expire or the clock reach an edge.
#include "engine_parts.h"

#include <algorithm>

namespace vernal::parts {

std::int64_t quiet_samples(const Program& p, const EngineState& s, const Inputs& last)
{
    if (s.now_ms <= s.cache.until_ms)
        return (s.cache.until_ms - s.now_ms) / p.sample_ms;
    Millis next = for_ever;
    const auto at = [&](Millis when) {
        if (when > s.now_ms)
            next = std::min(next, when);
    };
    for (std::size_t i = 0; i < max_read; ++i)
        if ((p.used & bit32(i)) != 0 && s.valid_since[i] != not_since)
            at(s.valid_since[i] + p.fault_return_ms);
    at(p.power_wait_ms);
    for (std::size_t o = 0; o < p.outputs; ++o) {
        const OutputTimers& t = p.timers[o];
        const bool runs = running(s, o);
        if (s.changed_at[o] == s.now_ms) // what looks at the outputs sees it at the next sample
            at(s.now_ms + p.sample_ms);
        at(s.changed_at[o] + (runs ? t.min_run_ms : t.min_off_ms));
        if (runs)
            at(s.changed_at[o] + t.boost_ms);
        else
            at(s.stopped_at[o] + t.drain_ms);
        if (last.modes[o] == Mode::on && t.on_timeout_ms > 0)
            at(s.on_since[o] == not_since ? s.now_ms + p.sample_ms : s.on_since[o] + t.on_timeout_ms);
    }
    for (const Delay& d : p.delays)
        if (s.since[d.timer] != not_since)
            at(s.since[d.timer] + ((s.latched >> d.latch & 1U) != 0 ? d.clear_ms : d.set_ms));
    for (const Speed& x : p.speeds)
        if (x.kind == Speed::Kind::target && running(s, x.output))
            at(s.speed_at[x.output] + x.every_ms);
    for (const Gate& c : p.gates) {
        const Millis since = c.kind == Gate::Kind::guard ? 0 : s.since[c.timer];
        switch (c.kind) {
        case Gate::Kind::window:
            for (std::size_t i = 0; last.clock_ms >= 0 && i < c.span_count; ++i)
                for (Millis edge : {c.spans[i].from_ms, c.spans[i].to_ms})
                    at(s.now_ms + (edge > last.clock_ms ? edge - last.clock_ms : edge + day_ms - last.clock_ms));
            break;
        case Gate::Kind::cycle: {
            // An output that has just come to rest opens the gate at the next sample.
            const bool opens = since == not_since && c.when.holds(s.conditions) && !(c.output >= 0 && running(s, static_cast<std::size_t>(c.output)));
            if (since != not_since && c.output >= 0 && running(s, static_cast<std::size_t>(c.output)) && (s.conditions & bit(c.bit)) == 0)
                at(s.now_ms + p.sample_ms);
            if (opens)
                at(s.now_ms + p.sample_ms);
            if (since != not_since) {
                at(since + c.wait_ms);
                at(since + c.wait_ms + c.on_ms);
            }
            break;
        }
        case Gate::Kind::follow: {
            const auto leader = static_cast<std::size_t>(c.output);
            const bool now = (s.conditions & bit(c.bit)) != 0, soon = follow_holds(c, s);
            if (now != soon)
                at(s.now_ms + p.sample_ms);
            at(s.changed_at[leader] + (running(s, leader) ? c.wait_ms : c.on_ms));
            break;
        }
        case Gate::Kind::run_on:
            if (since == long_ago ? !c.when.holds(s.conditions) : since != not_since && !running(s, static_cast<std::size_t>(c.output)))
                at(s.now_ms + p.sample_ms);
            if (since != not_since && since != long_ago)
                at(since + c.on_ms);
            break;
        case Gate::Kind::guard: {
            using Phase = GuardState::Phase;
            const GuardState& g = s.guards[c.timer];
            const bool runs = running(s, static_cast<std::size_t>(c.output));
            if ((g.phase == Phase::idle && runs) || ((g.phase == Phase::watching || g.phase == Phase::proven) && !runs))
                at(s.now_ms + p.sample_ms);
            if (g.phase == Phase::watching)
                at(g.since_ms + c.wait_ms);
            if (g.phase == Phase::waiting)
                at(g.since_ms + c.on_ms);
            break;
        }
        case Gate::Kind::away:
        case Gate::Kind::term:
        case Gate::Kind::pressed: break;
        }
    }
    // A count that has not begun begins at the next sample.
    return next == for_ever ? for_ever : std::max<Millis>(1, (next - s.now_ms + p.sample_ms - 1) / p.sample_ms) - 1;
}

} // namespace vernal::parts
