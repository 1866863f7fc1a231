// The rules of one unit in the form the engine runs: integers only.
// The meaning is laid down in docs/engine-semantics.md.
//
// A sample makes a word of conditions, one bit each: latches over readings
// first, then what depends on clock, timers and other conditions. Clauses make requests
// for an output where their conditions hold; priorities decide between them.
#pragma once

#include <array>
#include <cstdint>
#include <limits>
#include <vector>

namespace vernal {

inline constexpr std::size_t max_probes = 8;
inline constexpr std::size_t max_outputs = 4;
inline constexpr std::size_t max_latches = 32;    // conditions 0…31
inline constexpr std::size_t max_conditions = 64; // of all kinds
inline constexpr std::size_t max_timers = 16;
inline constexpr std::size_t max_clauses = 64;
inline constexpr std::size_t max_guards = 2;

// What a latch can look at: the probes, then these, then fixed values and averages.
inline constexpr std::size_t supply_channel = max_probes; // voltage of the unit's supply, mV
inline constexpr std::size_t zero_channel = max_probes + 1;
inline constexpr std::size_t first_spare_channel = max_probes + 2;
inline constexpr std::size_t max_channels = 24;
inline constexpr std::size_t max_read = max_probes + 1; // channels that are read: probes and supply

using MilliKelvin = std::int32_t; // readings: millikelvin above 0 °C; of the supply millivolt
using Millis = std::int64_t;

// Thousandths of a value, nearest; halves away from zero.
MilliKelvin in_milli(double v);

using Bits = std::uint64_t;

// Longer than any timer: "has been so for ever".
inline constexpr Millis for_ever = std::numeric_limits<Millis>::max() / 4;
inline constexpr Millis day_ms = 86'400'000;
inline constexpr std::int32_t full_speed = 1000; // per mille

// Who may overrule whom; smaller wins (docs/engine-semantics.md, 6).
enum class Priority : std::uint8_t { bypass,
    off_switch,
    hold,
    on_switch,
    fault,
    cut_out,
    freeze,
    dump,
    limit,
    min_off,
    min_run,
    collect,
    heat,
    nothing };

enum class Mode : std::uint8_t { off,
    automatic,
    on };

// A latch over channel `plus` less channel `minus`. Sets at value >= set, clears
// at value <= clear; clear < set always. A lower limit has the zero channel for
// `plus`: it looks at the reading with its sign turned.
struct Latch {
    std::uint8_t plus = zero_channel, minus = zero_channel;
    MilliKelvin set_mk = 0;
    MilliKelvin clear_mk = 0;
    std::int16_t rule = -1;
};

// A latch that sets or clears only once its reading has asked for it that long.
struct Delay {
    std::uint8_t latch = 0;
    std::uint8_t timer = 0; // slot
    Millis set_ms = 0, clear_ms = 0;
};

// A channel that follows another with a time constant.
struct Average {
    std::uint8_t from = 0, to = 0;
    Millis over_ms = 0;
};

// Holds where (any = 0 or one of any is set) and all of all, and none of none.
struct Expr {
    Bits any = 0, all = 0, none = 0;
    // Without branches: which way they go cannot be foretold.
    bool holds(Bits bits) const { return (((any == 0) | ((bits & any) != 0)) & (((all & ~bits) | (none & bits)) == 0)) != 0; }
    bool operator==(const Expr&) const = default;
};

// Of the clock: [from, to) of the day; to <= from: over midnight.
struct ClockSpan {
    Millis from_ms = 0, to_ms = 0;
};

// Conditions beyond latches, worked out in their order in the program.
struct Gate {
    enum class Kind : std::uint8_t {
        window,  // the clock lies in one of the spans; never with the clock lost
        season,  // the date lies between two of the year; never with clock or date lost
        away,    // nobody is at home
        term,    // `when` holds
        cycle,   // while `when` holds: rests wait_ms, holds on_ms, and so on
        follow,  // the output's: for wait_ms on, or not yet on_ms off
        run_on,  // the output runs and `when` held less than on_ms ago
        pressed, // from a press of the button until `when` holds
        guard    // the output is held off: it ran wait_ms and the channel had not changed by change_mk
    };
    Kind kind = Kind::term;
    std::uint8_t bit = 0;
    std::uint8_t timer = 0;    // slot, for those that count
    std::int8_t output = -1;   // cycle: begins anew while this output runs for other reasons
    bool on_first = false;     // cycle: begins with on_ms
    std::uint8_t channel = 0;  // guard
    std::uint8_t retries = 0;  // guard
    MilliKelvin change_mk = 0; // guard
    Expr when;
    Millis wait_ms = 0, on_ms = 0;
    Millis before_ms = 0; // cycle: counted as waited already at power-up
    std::array<ClockSpan, 3> spans{};
    std::uint8_t span_count = 0;
    std::int16_t first_day = 1, last_day = 366; // season: of a year of 366
    std::int16_t rule = -1;
};

// Makes a request for one output while its conditions hold.
struct Clause {
    Priority priority = Priority::collect;
    std::uint8_t output = 0;
    bool wants_on = true;
    bool resting_only = false; // says nothing to an output that runs
    Expr when;
    std::int16_t rule = -1; // index of the rule in the variant
};

// Speed of an output that runs by comfort or collecting rules; else it runs full.
struct Speed {
    enum class Kind : std::uint8_t { difference,
        target };
    Kind kind = Kind::difference;
    std::uint8_t output = 0;
    std::uint8_t plus = zero_channel, minus = zero_channel;
    MilliKelvin at_mk = 0;     // difference: where it begins to rise; target: wanted
    MilliKelvin per_mk = 1000; // difference: per step; target: nothing moves within this of the target
    std::int32_t step_pm = 100, floor_pm = 300, top_pm = full_speed, resolution_pm = 10;
    Millis every_ms = 10000; // target: one step so often
    bool bursts = false;
    std::int16_t rule = -1;
};

struct OutputTimers {
    Millis min_run_ms = 0;
    Millis min_off_ms = 0;
    Millis on_timeout_ms = 0; // 0: ON stays until it is moved
    std::int16_t timer_rule = -1;
    Millis drain_ms = 0; // held off for so long after a stop, even against ON
    std::int16_t drain_rule = -1;
    Millis boost_ms = 0; // full or boosted speed after a start
    std::int32_t boost_pm = full_speed;
    bool bypass = false;
    bool auto_after_power = false;             // ON found at power-up is not taken for ON
    std::uint32_t fault_off = 0, fault_on = 0; // bit per channel read: its fault sends the output there
};

struct Program {
    Millis sample_ms = 1000;
    Millis fault_return_ms = 10000;
    Millis power_wait_ms = 0; // after power-up every output is held off for so long
    std::size_t probes = 0;
    std::size_t outputs = 0;
    std::vector<Latch> latches;
    std::vector<Bits> latch_reads; // per latch: channels read, bit each
    std::vector<Delay> delays;
    std::vector<Average> averages;
    std::vector<MilliKelvin> spare; // of the channels from first_spare_channel on: what they begin with
    std::vector<Gate> gates;
    std::vector<Clause> clauses; // by output, then by priority, then by rule
    std::vector<Speed> speeds;
    // Per output, bit per clause: by what they say. Filled by compile().
    struct Groups {
        Bits hold = 0, protect = 0, run_on = 0, collect = 0, resting_only = 0;
    };
    std::array<Groups, max_outputs> groups{};
    std::uint32_t delayed = 0;  // bit per latch that has a delay
    std::uint32_t limiting = 0; // bit per latch of a limit or cut-out that stops what runs
    std::array<OutputTimers, max_outputs> timers{};
    std::uint32_t used = 0; // channels read by any rule
    std::uint8_t timers_used = 0;
    std::size_t channels() const { return first_spare_channel + spare.size(); }
    // Whether its state depends on every single reading, not only on what they cross.
    bool walks() const { return !averages.empty() || guards != 0; }
    std::uint8_t guards = 0;
};

} // namespace vernal
