// Answers to some of the questions about a loop, and the loop they lead to.
#pragma once

#include "core/job/job.h"

#include <map>

namespace vernal {

// Key of a question → key of its answer. Questions left out are open.
using GivenAnswers = std::map<std::string, std::string>;

// The open questions answered as the presets have them: of all sets that can go together
// and hold what was given, the one that differs in the fewest answers from a preset, from
// this one where one is named. Error: an unknown preset, question or answer, or answers
// that cannot go together, with the reason.
Result<LoopAnswers> complete(const GivenAnswers& given, const std::string& preset = "");

// A fresh job of it.
// probes: of the unit, 2 or 3 besides those of a second array or tank; 1, or 2, where
// the water circulates by itself, which 1 alone implies; 0: the usual number.
Result<Job> new_job_of(GivenAnswers given, const std::string& preset = "", int probes = 0);

} // namespace vernal
