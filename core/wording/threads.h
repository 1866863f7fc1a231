// Where each rule stands to an output at an instant: the knots on the output's thread
// through the rules, from the highest down. What decides is found by requests(); nothing
// is stated anew here.
#pragma once

#include "core/job/job.h"
#include "core/rules/outlook.h"

namespace vernal {

// In order of how much they say: of rules drawn as one, the last holds.
enum class Knot : std::uint8_t {
    none,   // the rule has nothing to do with the output
    out,    // switched off, or out of action
    silent, // asks for nothing now
    asks,   // asks, and a higher one decides
    speed,  // sets the speed
    decides
};

// A knot per rule of the unit. out_of_action: as compile() says.
std::vector<Knot> knots(const RuleSet& unit, const Program& program, const std::vector<OutOfAction>& out_of_action, const Inputs& in, const EngineState& after, const Decision& decision, std::size_t output);

// "silent", "asks, and is overruled" …, for those who hear it.
const char* knot_text(Knot k);

// What rules of one priority are for, as the margin of the rules names it: "limit".
const char* rank_name(Priority p);

} // namespace vernal
