// Parts of a sample that the engine and its outlook share.
#pragma once

#include "engine.h"
#include "outlook.h"

#include <bit>

namespace vernal::parts {

constexpr LatchBits bit64(std::size_t i) { return LatchBits{1} << i; }
constexpr std::uint32_t bit32(std::size_t i) { return std::uint32_t{1} << i; }

using Values = std::array<MilliKelvin, max_channels>;

// Channel values at a sample; averages as the state has them.
void channel_values(const Program& p, const Inputs& in, const EngineState& s, Values& out);
ChannelBits fault_bits(const Program& p, const EngineState& s);

// Works out the conditions beyond the latches and moves their timers on.
Bits conditions(const Program& p, const Inputs& in, const Values& v, EngineState& s);

struct Ask {
    const Program& p;
    const Inputs& in;
    const EngineState& s; // conditions worked out, `running` of the moment asked about
    ChannelBits faults;
};

// Clauses of a group whose conditions hold, those for a resting output only where it rests.
// Words: of the group's sets that are in use.
template <std::size_t Words>
inline std::array<std::uint64_t, Words> requesting(const Program& p, const Program::Groups& group, const Bits& conditions, bool runs)
{
    std::array<std::uint64_t, Words> out{};
    if (Words == 1 && !p.short_clauses.empty()) {
        const ShortExpr* clause = p.short_clauses.data() + group.first;
        for (std::size_t i = 0; i < group.count; ++i)
            out[0] |= std::uint64_t{clause[i].holds(conditions.word[0])} << i;
    } else {
        for (std::size_t i = 0; i < group.count; ++i)
            out[i / 64] |= std::uint64_t{p.clauses[group.first + i].when.holds(conditions)} << i % 64;
    }
    for (std::size_t w = 0; runs && w < Words; ++w)
        out[w] &= ~group.resting_only[w];
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
template <std::size_t Words, class Visit>
[[gnu::always_inline]] inline void ask_words(const Ask& a, std::size_t o, Visit visit)
{
    const OutputTimers& t = a.p.timers[o];
    const Program::Groups& group = a.p.groups[o];
    const EngineState& s = a.s;
    const bool runs = running(s, o);
    const auto requested = requesting<Words>(a.p, group, s.conditions, runs);
    const Mode mode = a.in.modes[o];
    // True: somebody has heard enough.
    const auto all_of = [&](const Program::Groups::Set& which) {
        for (std::size_t w = 0; w < Words; ++w)
            for (std::uint64_t left = requested[w] & which[w]; left != 0; left &= left - 1) {
                const Clause& c = a.p.clauses[group.first + w * 64 + static_cast<std::size_t>(std::countr_zero(left))];
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
    if (all_of(group.hold))
        return;
    if (mode == Mode::on && on_switch_holds(t, s, o) && !visit(Request{Priority::on_switch, -1, true}))
        return;
    if ((a.faults & t.fault_off) != 0 && !visit(Request{Priority::fault, -1, false}))
        return;
    if ((a.faults & t.fault_on) != 0 && !visit(Request{Priority::fault, -1, true}))
        return;
    if (all_of(group.protect))
        return;
    std::uint64_t asking = 0;
    for (std::size_t w = 0; w < Words; ++w)
        asking |= requested[w] & group.collect[w];
    if (!runs && asking != 0 && s.now_ms - s.changed_at[o] < t.min_off_ms && !visit(Request{Priority::min_off, t.timer_rule, false}))
        return;
    if (runs && asking == 0 && s.now_ms - s.changed_at[o] < t.min_run_ms && !visit(Request{Priority::min_run, t.timer_rule, true}))
        return;
    if (all_of(group.run_on) || all_of(group.collect))
        return;
    visit(Request{Priority::nothing, -1, false});
}

template <class Visit>
[[gnu::always_inline]] inline void ask_all(const Ask& a, std::size_t o, Visit visit)
{
    if (a.p.groups[o].words <= 1)
        return ask_words<1>(a, o, visit);
    ask_words<max_clauses / 64>(a, o, visit);
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
