// Rules and outputs as a person sets them, and their translation for the engine.
#pragma once

#include "kinds/all.h"

#include <optional>
#include <string>
#include <vector>

namespace vernal {

struct Rule {
    std::string output;
    bool enabled = true;
    RuleBody body;
    std::string id{}; // stable; given by core/job/ids.h
    Rule();
    Rule(std::string its_output, bool is_enabled, RuleBody its_body, std::string its_id = {});
    Rule(const Rule&);
    Rule(Rule&&) noexcept;
    Rule& operator=(const Rule&);
    Rule& operator=(Rule&&) noexcept;
    ~Rule();
    bool operator==(const Rule&) const;
};

// The limit a rule sets, whichever kind; none: it is no limit.
std::optional<LimitOf> limit_of(const Rule& rule);

const std::vector<RuleKind>& rule_kinds(); // index = Rule::body.index()
const RuleKind& kind_of(const Rule& rule);

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
    std::string id{};
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
    RuleSet();
    RuleSet(const RuleSet&);
    RuleSet(RuleSet&&) noexcept;
    RuleSet& operator=(const RuleSet&);
    RuleSet& operator=(RuleSet&&) noexcept;
    ~RuleSet();
    bool operator==(const RuleSet&) const;
};

// Probe keys in the order of the readings, and what each reads; those not named a
// temperature. Rules switched off are left out without a word.
Compiled compile(const RuleSet& set, const std::vector<std::string>& probe_keys, const std::vector<Reads>& reads = {});

// Why a unit has no room for all of these, with the number that fits; none: it has.
std::optional<std::string> capacity_problem(const RuleSet& set, const std::vector<std::string>& probe_keys, const std::vector<Reads>& reads = {});

// A difference rule of any kind with its pair; none: it is no difference of two probes.
std::optional<DifferenceOf> difference_of(const RuleSet& set, const Rule& rule);

// Puts the pair where the rule keeps it; a linked one takes the mark that comes closest.
void set_difference(const RuleSet& set, Rule& rule, TempDiff on, TempDiff off);

// Moves the rule at `from` to `to`. Refused, with the reason, where it would
// leave its priority; then nothing moves.
std::optional<std::string> move_rule(std::vector<Rule>& rules, std::size_t from, std::size_t to);

// Every probe or output key of a rule; empty ones with them. For renaming, choosing, checking.
struct KeyOf {
    enum class Of : std::uint8_t { probe,
        output } of;
    const char* field;
    std::string* key;
    bool may_be_empty;
    ProbeRole role = ProbeRole::left_open;
    const char* nothing = "";
};
std::vector<KeyOf> keys_of(Rule& rule);

// Sorts rules by priority, keeping the order of equals.
void sort_by_priority(std::vector<Rule>& rules);

// A reading as the unit resolves it.
MilliKelvin quantised(double temp_c, double resolution_k);

} // namespace vernal
