// The rules of one unit in the form the engine runs: integers only.
// The meaning is laid down in docs/engine-semantics.md.
#pragma once

#include <array>
#include <cstdint>
#include <limits>
#include <vector>

namespace vernal {

inline constexpr std::size_t max_probes = 8;
inline constexpr std::size_t max_outputs = 4;
inline constexpr std::size_t max_latches = 16;

using MilliKelvin = std::int32_t; // readings: millikelvin above 0 °C
using Millis = std::int64_t;

// Longer than any timer: "has been so for ever".
inline constexpr Millis for_ever = std::numeric_limits<Millis>::max() / 4;

// Who may overrule whom; smaller wins. The places between are kept for rules
// to come (docs/engine-semantics.md, 6).
enum class Tier : std::uint8_t { off_switch, hold, on_switch, fault, cut_out, freeze, dump, limit, min_off, min_run, collect, heat, nothing };

enum class Mode : std::uint8_t { off, automatic, on };

// A latch over one reading, or over a difference of two. Sets at value >= set,
// clears at value <= clear; clear < set always.
struct Latch {
    std::int8_t plus = -1;  // probe index
    std::int8_t minus = -1; // probe index, −1: none
    MilliKelvin set_mk = 0;
    MilliKelvin clear_mk = 0;
};

// One latch that speaks for one output: blocks switch it off, a dump and what
// collects or heats switch it on.
struct Clause {
    Tier tier = Tier::collect;
    std::uint8_t output = 0;
    std::uint8_t latch = 0;
    std::int16_t rule = -1; // index of the rule in the variant
    bool blocks() const { return tier < Tier::collect && tier != Tier::dump; }
};

struct OutputTimers {
    Millis min_run_ms = 0;
    Millis min_off_ms = 0;
    Millis on_timeout_ms = 0; // 0: ON stays until it is moved
    std::int16_t timer_rule = -1;
    bool safe_on = false; // what it does on a fault of a probe one of its rules uses
};

struct Program {
    Millis sample_ms = 1000;
    Millis fault_return_ms = 10000;
    std::size_t probes = 0;
    std::size_t outputs = 0;
    std::vector<Latch> latches;
    std::vector<Clause> clauses; // by output, then by tier, then by rule
    std::array<OutputTimers, max_outputs> timers{};
    std::array<std::uint32_t, max_outputs> probes_used{}; // bit per probe
};

} // namespace vernal
