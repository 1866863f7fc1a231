// A loop put together from answers: what collects, what runs through it, how it
// empties and so on. The arrangements are named sets of answers.
#pragma once

#include "core/job/job.h"

#include <map>
#include <vector>

namespace vernal {

struct LoopQuestion {
    struct Answer {
        const char* key;
        const char* text;
    };
    const char* key;  // also the option of the command line
    const char* text; // "What collects?"
    std::vector<Answer> answers;
};
const std::vector<LoopQuestion>& loop_questions();

// Key of a question → key of its answer. Questions left out are open.
using LoopAnswers = std::map<std::string, std::string>;

// Answers to all questions, by the key of an arrangement.
struct LoopPreset {
    const char* arrangement;
    LoopAnswers answers;
};
const std::vector<LoopPreset>& loop_presets();
const LoopPreset* find_preset(const std::string& arrangement); // nullptr: unknown

// Why these answers, as far as they are given, cannot go together; empty: they can.
std::string cannot_combine(const LoopAnswers& given);

// The open questions answered as the first preset has them that holds what was given.
// Error: an unknown question or answer, answers that cannot go together, or that no
// arrangement here joins, with the nearest that does.
Result<LoopPreset> nearest_preset(const LoopAnswers& given);

// A fresh job of it. backup: "element" switches the tank's element on in its window.
Result<Job> new_job_of(const LoopAnswers& given);

} // namespace vernal
