// The one rule engine. Everything that decides (runs, strip, replay, command
// line) calls step(); nothing else states what the rules mean.
#pragma once

#include "program.h"

#include <boost/container/small_vector.hpp>

namespace vernal {

struct Reading {
    MilliKelvin mk = 0; // of the supply: mV
    bool valid = true;
    bool operator==(const Reading&) const = default;
};

inline constexpr std::int32_t no_date = std::numeric_limits<std::int32_t>::min(); // not known

struct Inputs {
    std::array<Reading, max_read> readings{}; // probes, then the supply at supply_channel
    std::array<Mode, max_outputs> modes = all_automatic;
    Millis clock_ms = 43'200'000; // time of day; below 0: the clock is lost
    bool away = false;            // nobody is at home
    std::uint64_t pressed = 0;    // bit per button of the unit
    std::int32_t date = no_date;  // local, days after 1970-01-01
    // The clock so much later, earlier below 0; over midnight with its date. A lost one stays lost.
    void move_clock(Millis by);
};

// A moment of the engine's own time; later than any setting ago.
inline constexpr Millis long_ago = -for_ever;
inline constexpr Millis not_since = std::numeric_limits<Millis>::min();

struct Decision {
    bool on = false;
    Priority priority = Priority::nothing;
    std::int16_t rule = -1;             // −1 for switch, fault of no single rule, and "no demand"
    std::int32_t speed_pm = full_speed; // of an output that is on
    bool operator==(const Decision&) const = default;
};

using Decisions = std::array<Decision, max_outputs>;

struct GuardState {
    enum class Phase : std::uint8_t { idle,
        watching,
        proven,
        waiting,
        locked };
    Phase phase = Phase::idle;
    std::uint8_t failures = 0;
    bool compares = false;    // there was a valid reading since the start
    MilliKelvin start_mk = 0; // the first of them
    Millis since_ms = 0;
    bool operator==(const GuardState&) const = default;
};

// Until when a sample that finds the same latches, switches and clock decides as
// the one before. Follows from the rest of the state and is no part of it.
struct DecisionCache {
    Millis until_ms = long_ago;
    std::array<Mode, max_outputs> modes{};
    bool away = false;
    Millis clock_ms = -1;
    std::int32_t date = no_date;
    Decisions decisions{};
    bool operator==(const DecisionCache&) const { return true; }
};

// Of one program. Times are of now_ms, which counts from power-up. Runs keep thousands
// of them, so what a small unit does not have takes no room.
struct EngineState {
    template <class T, std::size_t Usual>
    using Slots = boost::container::small_vector<T, Usual>;
    Millis now_ms = 0;
    LatchBits latched = 0;
    std::uint32_t running = 0;                  // bit per output
    Bits conditions;                            // of the last sample, latches with them
    ChannelBits trusted = 0;                    // valid for long enough
    LatchBits pending = 0;                      // on their way
    std::array<Millis, max_read> valid_since{}; // not_since: invalid
    std::array<Millis, max_outputs> changed_at{};
    std::array<Millis, max_outputs> stopped_at{}; // for the drain times, which power-up begins
    std::array<Millis, max_outputs> on_since{};   // the switch went to ON; not_since: it is not on ON
    Slots<Millis, 12> since;                      // by timer slot; not_since: not counting
    Slots<std::int64_t, 4> average;               // in 1/1024 of its unit
    std::array<GuardState, max_guards> guards{};
    // Of a speed that seeks a target: what it is, not rounded, and since when it stands.
    std::array<std::int32_t, max_outputs> speed_pm{}; // below 0: begins anew
    std::array<Millis, max_outputs> speed_at{};       // not_since: its clock stands
    DecisionCache cache;
    bool operator==(const EngineState&) const = default;
};

// State of a unit that has just been given power (docs/engine-semantics.md, 8).
EngineState power_up(const Program& program);
// The same where power was lost: `before` as it stood at its last sample, lost_ms before the
// first to come. What a unit counts in days (a disinfection's period) goes on, the time without
// power with it.
EngineState power_up(const Program& program, const EngineState& before, Millis lost_ms);

// n >= 1 samples with constant inputs, of which the clock is the last one's; the
// same as n single steps. The decisions are those of the last sample. Pure:
// depends on nothing else, changes nothing else than `state`.
Decisions step(const Program& program, const Inputs& in, EngineState& state, std::int64_t n = 1);

// Bounds within which the readings stay, inclusive, per channel read. A probe
// stays valid, or stays invalid; then its bounds say nothing.
struct ReadingBounds {
    std::array<MilliKelvin, max_read> low{};
    std::array<MilliKelvin, max_read> high{};
    ChannelBits invalid = 0;
};

// For how many samples after `last` no decision, speed included, can change
// while modes stay, the clock goes on and the readings keep within the bounds.
// 0: the very next sample may decide otherwise, as it may where a probe's being
// valid is not what the last sample found.
std::int64_t safe_skip(const Program& program, const EngineState& state, const Inputs& last, const ReadingBounds& bounds);

// Channels read that count for nothing: invalid, or valid again for too short a time.
ChannelBits faults(const Program& program, const EngineState& state);
bool faulted(const Program& program, const EngineState& state, std::size_t channel);

} // namespace vernal
