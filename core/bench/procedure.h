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
        set_limit,     // °C, at which the store's limit acts
        set_cut_out,   // °C, of the source
        air,           // °C, of the bench
        under_start,   // °C: the store's reading, the start and 4 K less
        over_start,    // °C: the store's reading, the start and 6 K more
        over_limit,    // °C: the limit, the start and 6 K more
        over_cut_out,  // °C: the cut-out and 6 K more
        as_computed }; // K, of a tolerance: what probes, lags and samples leave open
    Of of = Of::number;
    double number = 0;
    bool operator==(const Level&) const = default;
};

struct Which { // of probes or outputs
    enum class Of : std::uint8_t { source,
        store,
        both,
        all,
        each,   // the step is done for one after the other
        others, // all but the one of `each`
        limit,  // the probe that the store's limit looks at
        output, // of the pair
        key };  // as the unit's terminals are named
    Of of = Of::source;
    std::string key{};
    bool operator==(const Which&) const = default;
};

enum class Act : std::uint8_t { put, // `which` in `medium`, of a resistor at `level`
    block,                           // to `level`, at `rate` K a minute
    cup,                             // poured anew at `level`
    lead,                            // of `which` broken, shorted, wet or sound
    turn,                            // the switch of `which`
    supply,                          // `level` V, or as it stands
    wait,                            // `within_s`
    await,                           // `what` of `which`, `within_s`
    capture,                         // `name`: `what`
    judge };                         // `name` near `level`, within `tolerance`; or below or above `level`
inline constexpr std::array act_keys{"put", "block", "cup", "lead", "switch", "supply", "wait", "await", "capture", "judge"};

enum class Pause : std::uint8_t { time,
    minimum_run, // as the unit is set, and a minute
    minimum_rest };
inline constexpr std::array pause_keys{"", "minimum run", "minimum rest"};

enum class Awaited : std::uint8_t { runs,
    rests,
    settled, // readings stand still
    climbs,  // by `level`
    keeps }; // within `level` of where it stood, all the time
inline constexpr std::array awaited_keys{"runs", "rests", "settled", "climbs", "keeps"};

enum class Captured : std::uint8_t { difference, // of the readings, K
    media_difference,                            // of what the probes are in, the lag of the warming taken out, K
    reading,                                     // °C
    spread,                                      // of the readings of `which`, K
    rate,                                        // of the source's medium, K a minute
    watt,
    forced }; // switches of `which` that are not on AUTO, and bypasses that are closed
inline constexpr std::array captured_keys{"difference", "media difference", "reading", "spread", "rate", "watt", "forced"};

const char* unit_of(Captured c); // "K"; empty: a number

enum class Judged : std::uint8_t { near,
    below,
    above };

struct Line {
    Act verb = Act::wait;
    Which which{};
    Medium medium = Medium::loop;
    Level level{}, tolerance{};
    double rate_k_min = 0, within_s = 0;
    Pause pause = Pause::time; // of a wait
    LeadState lead = LeadState::sound;
    Mode mode = Mode::automatic;
    bool as_it_stands = false;
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
    probes,  // two that read temperature
    pair,    // a rule that switches by a difference
    limit,   // of the store, of the same output
    cut_out, // likewise
    outputs };
inline constexpr std::array needs_keys{"always", "probes", "pair", "limit", "cut-out", "outputs"};

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
