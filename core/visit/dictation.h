// A visit said line by line, as one types it with one hand: "S1 1106 ohm", "bucket 8 L 61 s",
// "done: sight glass cleaned | 20 min". What is understood is written so that it reads back equal.
#pragma once

#include "core/job/job.h"

namespace vernal {

// Takes a line into the visit and says what was understood. v: the loop and unit it is about.
// Error: what is wrong, and what it could be.
Result<std::string> dictate(Visit& visit, const std::string& line, const Variant& v, const Units& units);

// The lines that say this visit again, in their order; without settings, photos, amendments and
// what was foretold, which are not dictated.
std::vector<std::string> dictated(const Visit& visit);

// What a line can begin with, for help.
std::vector<std::string> dictation_help(const Variant& v);

} // namespace vernal
