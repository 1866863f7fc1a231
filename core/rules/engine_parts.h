// Parts of a sample that the engine and its outlook share.
#pragma once

#include "engine.h"
#include "outlook.h"

#include <bit>

namespace vernal::parts {

constexpr Bits bit(std::size_t i) { return Bits{1} << i; }
constexpr std::uint32_t bit32(std::size_t i) { return std::uint32_t{1} << i; }

using Values = std::array<MilliKelvin, max_channels>;

// Channel values at a sample; averages as the state has them.
void channel_values(const Program& p, const Inputs& in, const EngineState& s, Values& out);
std::uint32_t fault_bits(const Program& p, const EngineState& s); // per channel read

// Works out the conditions beyond the latches and moves their timers on.
Bits conditions(const Program& p, const Inputs& in, const Values& v, EngineState& s);

struct Ask {
    const Program& p;
    const Inputs& in;
    const EngineState& s; // conditions worked out, `running` of the moment asked about
    std::uint32_t faults;
    Bits requesting; // bit per clause whose conditions hold
};

// Clauses whose conditions hold.
inline Bits requesting(const Program& p, Bits conditions)
{
    Bits out = 0, one = 1;
    for (const Clause& c : p.clauses) {
        out |= c.when.holds(conditions) ? one : 0;
        one <<= 1;
    }
    return out;
}

inline bool running(const EngineState& s, std::size_t output) { return (s.running >> output & 1U) != 0; }

inline bool on_switch_holds(const OutputTimers& t, const EngineState& s, std::size_t o)
{
    return s.on_since[o] != long_ago && (t.on_timeout_ms == 0 || s.now_ms - s.on_since[o] < t.on_timeout_ms);
}

// Asked from the highest priority to the lowest. `visit` gets each request and says
// whether to go on. Comfort timers make requests only where they change something:
// minimum off against a collecting rule, minimum run against silence.
template <class Visit>
[[gnu::always_inline]] inline void ask_all(const Ask& a, std::size_t o, Visit visit)
{
    const OutputTimers& t = a.p.timers[o];
    const Program::Groups& group = a.p.groups[o];
    const EngineState& s = a.s;
    const bool runs = running(s, o);
    const Bits requested = runs ? a.requesting & ~group.resting_only : a.requesting;
    const Mode mode = a.in.modes[o];
    // True: somebody has heard enough.
    const auto all_of = [&](Bits clauses) {
        for (; clauses != 0; clauses &= clauses - 1) {
            const Clause& c = a.p.clauses[static_cast<std::size_t>(std::countr_zero(clauses))];
            if (!visit(Request{c.priority, c.rule, c.wants_on}))
                return true;
        }
        return false;
    };
    if (t.bypass && !visit(Request{Priority::bypass, -1, true}))
        return;
    if (mode == Mode::off && !visit(Request{Priority::off_switch, -1, false}))
        return;
    if (s.now_ms < a.p.power_wait_ms && !visit(Request{Priority::hold, -1, false}))
        return;
    if (!runs && s.now_ms - s.stopped_at[o] < t.drain_ms && !visit(Request{Priority::hold, t.drain_rule, false}))
        return;
    if (all_of(requested & group.hold))
        return;
    if (mode == Mode::on && on_switch_holds(t, s, o) && !visit(Request{Priority::on_switch, -1, true}))
        return;
    if ((a.faults & t.fault_off) != 0 && !visit(Request{Priority::fault, -1, false}))
        return;
    if ((a.faults & t.fault_on) != 0 && !visit(Request{Priority::fault, -1, true}))
        return;
    if (all_of(requested & group.protect))
        return;
    const Bits asking = requested & group.collect;
    if (!runs && asking != 0 && s.now_ms - s.changed_at[o] < t.min_off_ms && !visit(Request{Priority::min_off, t.timer_rule, false}))
        return;
    if (runs && asking == 0 && s.now_ms - s.changed_at[o] < t.min_run_ms && !visit(Request{Priority::min_run, t.timer_rule, true}))
        return;
    if (all_of(requested & group.run_on) || all_of(asking))
        return;
    visit(Request{Priority::nothing, -1, false});
}

[[gnu::always_inline]] inline Request decide(const Ask& a, std::size_t o)
{
    Request first;
    ask_all(a, o, [&](const Request& v) {
        first = v;
        return false;
    });
    return first;
}

// Samples that pass before any timer can expire or the clock reach an edge: the
// next such event less one.
std::int64_t quiet_samples(const Program& p, const EngineState& s, const Inputs& last);

} // namespace vernal::parts
