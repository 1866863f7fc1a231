// The rules of one unit in the form the engine runs: integers only.
// The meaning is laid down in docs/engine-semantics.md.
//
// A sample makes a word of conditions, one bit each: latches over readings
// first, then what depends on clock, timers and other conditions. Clauses make requests
// for an output where their conditions hold; priorities decide between them.
#pragma once

#include <array>
#include <cstddef>
#include <cstdint>
#include <limits>
#include <vector>

namespace vernal {

// What a unit has room for; capacity_problem() says what does not fit.
inline constexpr std::size_t max_probes = 16;
inline constexpr std::size_t max_outputs = 8;
inline constexpr std::size_t max_rules = 64;
inline constexpr std::size_t max_latches = 64;
inline constexpr std::size_t max_guards = 2;
// Wide enough for whatever so many rules and latches come to.
inline constexpr std::size_t max_conditions = 384; // latches and gates
inline constexpr std::size_t max_timers = 128;
inline constexpr std::size_t max_clauses = 128; // of one output

// What a latch can look at: the probes, then these, then fixed values and averages.
inline constexpr std::size_t supply_channel = max_probes; // voltage of the unit's supply, mV
inline constexpr std::size_t zero_channel = max_probes + 1;
inline constexpr std::size_t first_spare_channel = max_probes + 2;
inline constexpr std::size_t max_channels = max_probes + 2 + 128;
inline constexpr std::size_t max_read = max_probes + 1; // channels that are read: probes and supply

using MilliKelvin = std::int32_t; // readings: millikelvin above 0 °C; of the supply millivolt
using Millis = std::int64_t;

// Thousandths of a value, nearest; halves away from zero.
MilliKelvin in_milli(double v);

using ChannelBits = std::uint32_t; // bit per channel that is read
using LatchBits = std::uint64_t;

// A set of conditions. A small unit lives in its first word.
struct Bits {
    static constexpr std::size_t words = max_conditions / 64;
    std::array<std::uint64_t, words> word{};
    constexpr bool has(std::size_t i) const { return (word[i / 64] >> i % 64 & 1U) != 0; }
    constexpr void put(std::size_t i, bool set = true) { word[i / 64] |= std::uint64_t{set} << i % 64; }
    constexpr bool any() const
    {
        for (std::uint64_t w : word)
            if (w != 0)
                return true;
        return false;
    }
    constexpr Bits& operator|=(const Bits& o)
    {
        for (std::size_t i = 0; i < words; ++i)
            word[i] |= o.word[i];
        return *this;
    }
    friend constexpr Bits operator|(Bits a, const Bits& b) { return a |= b; }
    bool operator==(const Bits&) const = default;
};

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
inline constexpr auto all_automatic = [] {
    std::array<Mode, max_outputs> out{};
    out.fill(Mode::automatic);
    return out;
}();

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

// Holds where (any is empty or one of any is set) and all of all, and none of none.
struct Expr {
    Bits any, all, none;
    std::size_t upto = Bits::words; // words beyond are empty
    // Without branches on what is found: which way they go cannot be foretold.
    bool holds(const Bits& bits) const
    {
        std::uint64_t asked = 0, found = 0, amiss = 0;
        for (std::size_t i = 0; i < upto; ++i) {
            asked |= any.word[i];
            found |= any.word[i] & bits.word[i];
            amiss |= (all.word[i] & ~bits.word[i]) | (none.word[i] & bits.word[i]);
        }
        return (((asked == 0) | (found != 0)) & (amiss == 0)) != 0;
    }
    bool operator==(const Expr&) const = default;
};
// The same of a small unit, whose conditions lie in one word.
struct ShortExpr {
    std::uint64_t any = 0, all = 0, none = 0;
    bool holds(std::uint64_t bits) const { return (((any == 0) | ((bits & any) != 0)) & (((all & ~bits) | (none & bits)) == 0)) != 0; }
};
inline Expr all_of(const Bits& all, const Bits& none = {}) { return {{}, all, none}; }

// Of the clock: [from, to) of the day; to <= from: over midnight.
struct ClockSpan {
    Millis from_ms = 0, to_ms = 0;
};

// Conditions beyond latches, worked out in their order in the program.
struct Gate {
    enum class Kind : std::uint8_t {
        window,    // the clock lies in one of the spans; never with the clock lost
        season,    // the date lies between two of the year; never with clock or date lost
        away,      // nobody is at home
        term,      // `when` holds
        cycle,     // while `when` holds: rests wait_ms, holds on_ms, and so on
        follow,    // the output's: for wait_ms on, or not yet on_ms off
        run_on,    // the output runs and `when` held less than on_ms ago
        drain,     // the output rests, for less than on_ms
        pressed,   // from a press of the button until `when` holds
        guard,     // the output is held off: it ran wait_ms and the channel had not changed by change_mk
        flow_guard // likewise: it ran wait_ms with the channel below change_mk
    };
    Kind kind = Kind::term;
    std::uint16_t bit = 0;
    std::uint8_t timer = 0;    // slot, for those that count
    std::uint8_t button = 0;   // pressed: which, of the unit's
    std::int8_t output = -1;   // cycle: begins anew while this output runs for other reasons
    bool on_first = false;     // cycle: begins with on_ms
    std::uint8_t channel = 0;  // guards
    std::uint8_t retries = 0;  // guards
    MilliKelvin change_mk = 0; // guards
    Expr when;
    Millis wait_ms = 0, on_ms = 0;
    Millis before_ms = 0;        // cycle: counted as waited already at power-up
    bool outlives_power = false; // cycle: the unit keeps what it counts in its record
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
    ChannelBits reads = 0; // with one of them at fault it says nothing
    std::int16_t rule = -1;
};

struct OutputTimers {
    Millis min_run_ms = 0;
    Millis min_off_ms = 0;
    Millis on_timeout_ms = 0; // 0: ON stays until it is moved
    std::int16_t timer_rule = -1;
    Millis boost_ms = 0; // full or boosted speed after a start
    std::int32_t boost_pm = full_speed;
    bool bypass = false;
    bool auto_after_power = false;           // ON found at power-up is not taken for ON
    ChannelBits fault_off = 0, fault_on = 0; // a fault of these sends the output there
};

struct Program {
    Millis sample_ms = 1000;
    Millis fault_return_ms = 10000;
    Millis power_wait_ms = 0; // after power-up every output is held off for so long
    std::size_t probes = 0;
    std::size_t outputs = 0;
    std::vector<Latch> latches;
    std::vector<ChannelBits> latch_reads; // per latch
    std::vector<Delay> delays;
    std::vector<Average> averages;
    std::vector<MilliKelvin> spare; // of the channels from first_spare_channel on: what they begin with
    std::vector<Gate> gates;
    std::vector<Clause> clauses; // by output, then by priority, then by rule
    std::vector<Speed> speeds;
    // Of the clauses of one output, by what they say. Filled by compile().
    struct Groups {
        using Set = std::array<std::uint64_t, max_clauses / 64>; // bit per clause from `first`
        std::size_t first = 0, count = 0, words = 1;
        Set hold{}, protect{}, run_on{}, collect{}, resting_only{};
    };
    std::array<Groups, max_outputs> groups{};
    std::vector<ShortExpr> short_clauses; // by clause, of a small unit; else empty
    LatchBits delayed = 0;                // that have a delay
    LatchBits limiting = 0;               // of a limit or cut-out that stops what runs
    std::array<OutputTimers, max_outputs> timers{};
    ChannelBits used = 0; // channels read by any rule
    std::uint8_t timers_used = 0, buttons = 0;
    std::size_t channels() const { return first_spare_channel + spare.size(); }
    // Whether its state depends on every single reading, not only on what they cross.
    bool walks() const { return !averages.empty() || guards != 0; }
    std::uint8_t guards = 0;
};

} // namespace vernal
