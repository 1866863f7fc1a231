// Rules and outputs as a person sets them, and their translation for the engine.
#pragma once

#include "knob.h"
#include "program.h"
#include "rules.h"

#include <optional>
#include <string>
#include <variant>
#include <vector>

namespace vernal {

using RuleBody = std::variant<Differential, StoreLimit, CutOut, RunTimes, Divert, LinkedDifference, FixedDifference, SecondStore, SpeedByDifference, SpeedToRise, SpeedToTemperature, MixingLimit, SeriesThermostat, CollectorMinimum, Freeze,
    DrainDown, NightCooling, DrainTime, Fill, DryRun, LowVoltage, Look, Heating, HeatOnce, Disinfection, Thermostat, Timer, Exercise, Follow>;

struct Rule {
    std::string output;
    bool enabled = true;
    RuleBody body;
    bool operator==(const Rule&) const = default;
};

// The limit a rule sets, whichever kind; none: it is no limit.
struct LimitOf {
    std::string probe;
    Temperature limit; // of the reading: a store limit's less its allowance
    TempDiff hysteresis;
    bool lower = false; // acts at and below, releases above
};
std::optional<LimitOf> limit_of(const Rule& rule);

// One entry per kind of rule, in the order in which they win.
struct RuleKind {
    const char* key;      // in the job file
    const char* title;    // in the window
    const char* group;    // Protect, Start, Collect …
    const char* why;      // one sentence
    const char* sentence; // as read in the window; {key} stands for the field of that key
    const char* details;  // what most leave alone, likewise; may be empty
    Priority priority;            // its rank
};
const std::vector<RuleKind>& rule_kinds(); // index = Rule::body.index()
const RuleKind& kind_of(const Rule& rule);

// What an output drives: by its place in the list what the arrangement says
// (loop pump, second pump, valve), or another thing.
enum class Drives : std::uint8_t { loop,
    element,
    drain_valve,
    check_valve,
    other };

enum class OnFault : std::uint8_t { off,
    on,
    carry_on };

// What an output does while a probe that one of its rules reads is at fault;
// carry_on: only the rules that read it are out.
struct FaultChoice {
    std::string probe;
    OnFault does = OnFault::off;
    bool operator==(const FaultChoice&) const = default;
};

struct Output {
    std::string key = "P1";
    std::string name = "Loop pump";
    Mode mode = Mode::automatic;
    double on_timeout_s = 0; // 0: ON stays until moved
    Drives drives = Drives::loop;
    bool bypass = false;               // the service bypass feeds it around the unit
    bool auto_after_power = false;     // after power returns ON counts as AUTO until the switch is moved
    std::vector<FaultChoice> faults{}; // probes not named: off
    bool operator==(const Output&) const = default;
};

// A unit's settings.
struct RuleSet {
    std::vector<Output> outputs;
    std::vector<Rule> rules;   // kept in the order in which they win
    double sample_s = 1.0;     // period at which the unit looks, 0.1…60
    double resolution_k = 0.0; // what it resolves; 0: all of a millikelvin
    double fault_return_s = 10.0;
    double power_wait_s = 0.0; // after power returns every output is held off so long
    bool away = false;         // nobody is at home
    Knob knob;                 // of a unit with one knob for both differences
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

// A difference rule of any kind with its pair; none: it is no difference of two probes.
std::optional<Differential> difference_of(const RuleSet& set, const Rule& rule);

// Puts the pair where the rule keeps it; a linked one takes the mark that comes closest.
void set_difference(const RuleSet& set, Rule& rule, TempDiff on, TempDiff off);

// Moves the rule at `from` to `to`. Refused, with the reason, where it would
// leave its rank; then nothing moves.
std::optional<std::string> move_rule(std::vector<Rule>& rules, std::size_t from, std::size_t to);

// Every probe or output key of a rule; empty ones with them. For renaming, choosing, checking.
struct KeyOf {
    enum class Of : std::uint8_t { probe,
        output } of;
    const char* field;
    std::string* key;
    bool may_be_empty;
};
std::vector<KeyOf> keys_of(Rule& rule);

// Sorts rules by rank, keeping the order of equals.
void sort_by_rank(std::vector<Rule>& rules);

// Thousandths of a value, nearest; halves away from zero.
MilliKelvin in_milli(double v);

// A reading as the unit resolves it.
MilliKelvin quantised(double temp_c, double resolution_k);

} // namespace vernal
