// Decisions in words.
#pragma once

#include "core/job/job.h"
#include "core/rules/outlook.h"
#include "core/run/replay.h"

namespace vernal {

// Short name of what decided: "Difference", "Store limit", "switch OFF", "no demand".
std::string decider_name(const RuleSet& unit, Priority priority, std::int16_t rule);
// Key for files: "differential", "store_limit", "off_switch", "nothing".
std::string decider_key(const RuleSet& unit, Priority priority, std::int16_t rule);

// Id of the rule that decided; empty: none did.
std::string rule_id(const RuleSet& unit, std::int16_t rule);
// "Difference for P1: it stops at or above the difference at which it starts"
std::string out_of_action_text(const RuleSet& unit, const OutOfAction& rule);
// Sampling period, gaps and held readings of a replay, a line each.
std::vector<std::string> replay_notes(const Variant& variant, const ReplayResult& replay);

struct WhyText {
    std::string headline;               // "P1 runs: Difference holds it."
    std::string margin;                 // "Stops when the collector falls by 9.4 K."; may be empty. Of a fault: whose reading, before that
    std::vector<std::string> overruled; // lower requests, which wanted something else or the same
    std::vector<std::string> why_not;   // of an output that rests: what it would take to run now
};
WhyText why(const Variant& variant, const Program& program, const Inputs& in, const EngineState& after, const Decision& decision, std::size_t output, const Units& units);

} // namespace vernal
