// Rules and outputs as a person sets them, and their translation for the engine.
#pragma once

#include "core/units/temperature.h"
#include "program.h"

#include <optional>
#include <string>
#include <variant>
#include <vector>

namespace vernal {

// Start when source is `on` above store; stop at `off`. off < on.
struct Differential {
    std::string source, store; // probe keys
    TempDiff on = TempDiff::kelvin(8), off = TempDiff::kelvin(4);
    bool operator==(const Differential&) const = default;
};

// Block at limit, release at limit − hysteresis. hysteresis > 0.
// The parameters are the values a new one begins with, °C and K.
template <int LimitC, int HysteresisK>
struct HighLimit {
    std::string probe;
    Temperature limit = Temperature::celsius(LimitC);
    TempDiff hysteresis = TempDiff::kelvin(HysteresisK);
    bool operator==(const HighLimit&) const = default;
};
using StoreLimit = HighLimit<70, 4>;
using CutOut = HighLimit<125, 15>;
// The other way round: switches on at the limit, off below it. A diverting
// valve, an emergency cooler and the pump that must run for it.
using Divert = HighLimit<90, 8>;

// Comfort timers; they never delay a protection. Seconds, 0: none.
struct RunTimes {
    double min_run_s = 0;
    double min_off_s = 0;
    bool operator==(const RunTimes&) const = default;
};

struct Rule {
    std::string output;
    bool enabled = true;
    std::variant<Differential, StoreLimit, CutOut, RunTimes, Divert> body;
    bool operator==(const Rule&) const = default;
};

// The limit a rule sets, whichever kind; none: it is no limit.
struct LimitOf {
    std::string probe;
    Temperature limit;
    TempDiff hysteresis;
};
std::optional<LimitOf> limit_of(const Rule& rule);

// One entry per kind of rule, in the order in which they win.
struct RuleKind {
    const char* key;   // in the job file
    const char* title; // in the window
    const char* group; // Protect, Start, Collect …
    const char* why;   // one sentence
    const char* sentence; // as read in the window; {key} stands for the field of that key
    Tier tier;
};
const std::vector<RuleKind>& rule_kinds(); // index = Rule::body.index()
const RuleKind& kind_of(const Rule& rule);

struct Output {
    std::string key = "P1";
    std::string name = "Loop pump";
    Mode mode = Mode::automatic;
    double on_timeout_s = 0; // 0: ON stays until moved
    bool operator==(const Output&) const = default;
};

// A unit's settings.
struct RuleSet {
    std::vector<Output> outputs;
    std::vector<Rule> rules; // kept in the order in which they win
    double sample_s = 1.0;      // period at which the unit looks, 0.1…60
    double resolution_k = 0.0;  // what it resolves; 0: all of a millikelvin
    double fault_return_s = 10.0;
    bool operator==(const RuleSet&) const = default;
};

struct OutOfAction {
    std::size_t rule;
    std::string reason;
};
struct Compiled {
    Program program;
    std::vector<OutOfAction> out_of_action; // rules that cannot work; the program leaves them out
};
// Probe keys in the order of the readings. Rules switched off are left out without a word.
Compiled compile(const RuleSet& set, const std::vector<std::string>& probe_keys);

// Sorts rules by rank, keeping the order of equals.
void sort_by_rank(std::vector<Rule>& rules);

// A reading as the unit resolves it.
MilliKelvin quantised(double temp_c, double resolution_k);

} // namespace vernal
