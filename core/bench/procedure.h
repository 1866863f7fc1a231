// A procedure as it is written: what to do, what is awaited, captured and judged. docs/procedures.md
// has its text.
#pragma once

#include "rig.h"

namespace vernal {

// A temperature, a difference, a supply or a number that a line names.
struct Level {
    enum class Of : std::uint8_t { number, // as typed: °C, K, V, W or a bare one
        set_start,                         // K, of the pair; likewise below
        set_stop,
        set_limit,       // °C, at which the store's limit acts
        set_cut_out,     // °C, of the source
        air,             // °C, of the bench
        under_start,     // °C: the store's reading, the start and 4 K less
        over_start,      // °C: the store's reading, the start and 6 K more
        over_limit,      // °C: the limit, the start and 6 K more
        over_cut_out,    // °C: the cut-out and 6 K more
        just_over_start, // °C: the store's reading, the start and 2 K more
        under_stop,      // °C: the store's reading, the stop and 4 K less
        set_freeze,      // °C, threshold of the freeze rule; likewise:
        under_freeze,    // °C: 4 K less
        over_freeze,     // °C: its release and 4 K more
        set_cut,         // V, of the low-voltage rule; likewise:
        set_return,
        under_cut,   // V: 0.4 V less
        over_return, // V: 0.4 V more
        card_step,   // V: a seventh of the way from over return to under cut
        set_flow,    // L/min, as stated for the pumps that are on, at their speed
        set_fill,    // bar, cold, as stated
        set_gas,     // bar, of the vessel, as stated
        set_tap,     // °C, at the tap and 3 K of the valve's own
        set_drain,   // s, within which the array has emptied, and a fifth more
        fill_time,   // s: twice the array's water and its pipe's over the flow at the full lift
        pitch_least, // that leaves no water in a sag
        rated_power, // W, of the pumps on the output
        pumps,       // of the loop, a number
        first_mark,  // of the knob; likewise:
        middle_mark,
        last_mark,
        cool_store, // °C: 30 K less than the next
        warm_store,
        expected_start,
        expected_stop, // K, real: at which the unit sees the pair that is set, with the store as it is now // °C: 50, or 6 K under the limit
        fifth,         // of what it is judged near; likewise:
        third,
        as_computed }; // K or V, of a tolerance: what probes, lags and samples leave open
    Of of = Of::number;
    double number = 0;
    bool operator==(const Level&) const = default;
};

struct ItemChoice { // of probes or outputs
    enum class Of : std::uint8_t { source,
        store,
        both,
        all,
        each,        // the step is done for one after the other
        others,      // all but the one of `each`
        limit,       // the probe that the store's limit looks at
        output,      // of the pair, else the first
        freeze,      // the probe that the freeze rule looks at, the output that it runs
        low_voltage, // the output that low voltage cuts off
        key };       // as the unit's terminals are named
    Of of = Of::source;
    std::string key{};
    bool operator==(const ItemChoice&) const = default;
};

enum class Act : std::uint8_t { put, // `which` in `medium`, of a resistor at `level`
    block,                           // to `level`, at `rate` K a minute
    cup,                             // poured anew at `level`
    lead,                            // of `which` broken, shorted, wet or sound
    turn,                            // the switch of `which`
    supply,                          // `level` V at `rate` V a minute, lower by it, or as it stands
    wait,                            // `within_s`
    await,                           // `what` of `which`, `within_s`
    capture,                         // `name`: `what`
    judge,                           // `name` near `level`, within `tolerance`; or below or above `level`
    read,                            // as capture, by an instrument in a person's hand, who types it
    ask,                             // `fact`, or a question in other words: where the answer is no the step has failed
    knob,                            // to the mark `level`
    shade };                         // a board over the probe, or taken away
inline constexpr std::array act_keys{"put", "block", "cup", "lead", "switch", "supply", "wait", "await", "capture", "judge", "read", "ask", "knob", "shade"};

enum class Pause : std::uint8_t { time,
    minimum_run, // as the unit is set, and a minute
    minimum_rest };
inline constexpr std::array pause_keys{"", "minimum run", "minimum rest"};

enum class Awaited : std::uint8_t { runs,
    rests,
    settled, // readings stand still
    climbs,  // by `level`
    keeps,   // within `level` of where it stood, all the time
    fills,   // the array of a drain-back loop stands full of running water
    drains,  // it has emptied
    hot,     // what is drawn stands 5 K over what is set at the tap
    cool };  // the array is below 60 °C, and there is power for its pump
inline constexpr std::array awaited_keys{"runs", "rests", "settled", "climbs", "keeps", "fills", "drains", "hot", "cool"};
inline bool of_the_loop(Awaited a) { return a >= Awaited::fills; } // not of a probe or an output

enum class Captured : std::uint8_t { difference, // of the readings, K
    media_difference,                            // of what the probes are in, the lag of the warming taken out, K
    reading,                                     // °C
    spread,                                      // of the readings of `which`, K
    rate,                                        // of the source's or store's medium, K a minute
    watt,
    forced,     // switches of `which` that are not on AUTO, and bypasses that are closed
    supply,     // V, at the unit's terminals
    speed,      // of the pump on `which`, %
    turning,    // pumps whose shafts turn
    time,       // s, since the last line that changed something
    bridge,     // V
    flow,       // L/min, that comes round
    bucket,     // likewise, by so many litres and the seconds they took
    rise,       // return over supply pipe, K
    heat,       // flow times rise, kW
    gauge,      // bar
    cold_gauge, // bar, with the loop cold
    gas,        // bar, of the vessel, the loop's side of it empty
    tap,        // °C, at the tap
    pitch };    // fall over length
inline constexpr std::array captured_keys{"difference", "media difference", "reading", "spread", "rate", "watt", "forced", "supply", "speed", "turning", "time", "bridge", "flow", "bucket", "rise", "heat", "gauge", "cold gauge", "gas", "tap", "pitch"};
inline bool has_which(Captured c) { return c == Captured::reading || c == Captured::spread || c == Captured::watt || c == Captured::forced || c == Captured::speed; }

const char* unit_of(Captured c); // "K"; empty: a number

enum class Judged : std::uint8_t { near,
    below,
    above };

struct Line {
    Act verb = Act::wait;
    ItemChoice which{};
    Medium medium = Medium::loop;
    Level level{}, tolerance{};
    double rate_per_min = 0, within_s = 0; // K, of a supply V
    double litres = 0;                     // of a bucket
    Pause pause = Pause::time;             // of a wait
    LeadState lead = LeadState::sound;
    Mode mode = Mode::automatic;
    bool as_it_stands = false, lower = false, taken_away = false; // of a supply, of a shade
    Fact fact = Fact::none;                                       // of an ask; none: as `name` says
    Awaited awaited = Awaited::settled;
    Captured captured = Captured::difference;
    Judged judged = Judged::near;
    std::string name{};
    bool operator==(const Line&) const = default;
};

struct ProcedureStep {
    std::string title, text, caution; // caution: shown before the act
    int passes = 1;                   // how often all but what is judged is done
    std::vector<Line> lines;
    bool operator==(const ProcedureStep&) const = default;
};

// On which loops and units it can be done.
enum class Needs : std::uint8_t { always,
    probes,     // two that read temperature
    pair,       // a rule that switches by a difference
    pair_alone, // and no other does so with its output
    limit,      // of the store, of the same output
    cut_out,    // likewise
    outputs,
    knob,
    freeze, // a freeze recirculation in use
    low_voltage,
    pumps,     // one at least that carries a fluid
    two_pumps, // of one ring each side of an exchanger, or of two arrays
    drain_back,
    dip_pipe, // the pump draws out of an open tank
    closed,   // with an expansion vessel
    scale,    // fresh water runs through collector or exchanger
    tap };    // hot water is drawn at taps
inline constexpr std::array needs_keys{"always", "probes", "pair", "pair alone", "limit", "cut-out", "outputs", "knob", "freeze", "low voltage", "pumps", "two pumps", "drain-back", "dip pipe", "closed", "scale", "tap"};

struct Procedure {
    std::string name, title, text; // name: of its file, in small letters with "-"
    Needs needs = Needs::always;
    std::vector<ProcedureStep> steps;
    bool operator==(const Procedure&) const = default;
};

bool applies(const Procedure& p, const Variant& v);

// Error: which line, what is wrong with it and what is expected.
Result<Procedure> read_procedure(const std::string& text, const std::string& file);
// Reads back equal.
std::string write_procedure(const Procedure& p);

// Those that ship, in the order in which they are done.
const std::vector<Procedure>& shipped_procedures();

} // namespace vernal
