// The one rule engine. Everything that decides (runs, strip, replay, command
// line) calls step(); nothing else states what the rules mean.
#pragma once

#include "program.h"

namespace vernal {

struct Reading {
    MilliKelvin mk = 0;
    bool valid = true;
};

struct Inputs {
    std::array<Reading, max_probes> readings{};
    std::array<Mode, max_outputs> modes{Mode::automatic, Mode::automatic, Mode::automatic, Mode::automatic};
};

struct EngineState {
    std::uint32_t latched = 0;                       // bit per latch
    std::uint32_t running = 0;                       // bit per output
    std::array<Millis, max_probes> valid_ms{};       // since readings came back, −1: invalid; below the return time: faulted
    std::array<Millis, max_outputs> since_change_ms{};
    std::array<Millis, max_outputs> on_switch_ms{};  // since the switch went to ON; −1: it is not on ON
    bool operator==(const EngineState&) const = default;
};

// What would have to change for the output to change, all else frozen.
enum class MarginUnit : std::uint8_t { none, millikelvin, milliseconds };
struct Margin {
    MarginUnit unit = MarginUnit::none;
    std::int64_t amount = 0; // > 0: still to go; none: no reading or timer would do it alone
    std::int16_t rule = -1;  // whose condition it is
    bool operator==(const Margin&) const = default;
};

struct Decision {
    bool on = false;
    Tier tier = Tier::nothing;
    std::int16_t rule = -1; // −1 for switch, fault of no single rule, and "nothing asks"
    Margin margin;
    bool operator==(const Decision&) const = default;
};

using Decisions = std::array<Decision, max_outputs>;

// State of a unit that has just been given power (docs/engine-semantics.md, 8).
EngineState power_up(const Program& program);

// Margins are for showing; a run that shows nothing goes without (unit: none).
enum class Margins { with, without };

// n >= 1 samples with constant inputs; the same as n single steps. The decisions
// are those of the last sample. Pure: depends on nothing else, changes nothing else
// than `state`.
Decisions step(const Program& program, const Inputs& in, EngineState& state, std::int64_t n = 1, Margins margins = Margins::with);

// Bounds within which the readings stay, inclusive, per probe. A probe stays
// valid, or stays invalid; then its bounds say nothing.
struct ReadingBounds {
    std::array<MilliKelvin, max_probes> low{};
    std::array<MilliKelvin, max_probes> high{};
    std::uint32_t invalid = 0; // bit per probe
};

// For how many further samples no decision can change while modes stay and the
// readings keep within the bounds. 0: the very next sample may decide otherwise,
// as it may where a probe's being valid is not what the last sample found.
std::int64_t safe_skip(const Program& program, const EngineState& state, const std::array<Mode, max_outputs>& modes, const ReadingBounds& bounds);

// Everything that had something to say about one output, in order of rank; the
// first one decided. For Why; not for hot loops.
struct Voice {
    Tier tier = Tier::nothing;
    std::int16_t rule = -1;
    bool wants_on = false;
    bool operator==(const Voice&) const = default;
};
std::vector<Voice> voices(const Program& program, const Inputs& in, const EngineState& after, std::size_t output);

// True where the state says that a reading of this probe is still distrusted.
bool faulted(const Program& program, const EngineState& state, std::size_t probe);

} // namespace vernal
