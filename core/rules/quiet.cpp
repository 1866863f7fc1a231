// When the next timer can expire or the clock reach an edge.
#include "engine_parts.h"
#include "gates/all.h"

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
        if (last.modes[o] == Mode::on && t.on_timeout_ms > 0)
            at(s.on_since[o] == not_since ? s.now_ms + p.sample_ms : s.on_since[o] + t.on_timeout_ms);
    }
    for (const Delay& d : p.delays)
        if (s.since[d.timer] != not_since)
            at(s.since[d.timer] + ((s.latched >> d.latch & 1U) != 0 ? d.clear_ms : d.set_ms));
    for (const Speed& x : p.speeds)
        if (x.kind == Speed::Kind::target && running(s, x.output) && s.speed_at[x.output] != not_since)
            at(s.speed_at[x.output] + x.every_ms);
    const GateView view{p, s, last};
    for (const Gate& g : p.gates)
        with_kind(g.kind, [&](auto kind) { kind.events(g, view, at); });
    // A count that has not begun begins at the next sample.
    return next == for_ever ? for_ever : std::max<Millis>(1, (next - s.now_ms + p.sample_ms - 1) / p.sample_ms) - 1;
}

} // namespace vernal::parts
