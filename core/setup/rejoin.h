// Another answer to a question about a loop that is already described.
#pragma once

#include "core/job/job.h"

namespace vernal {

// The answers that hold this one and differ in the fewest from those of now. question,
// answer: places in loop_questions(). Some set holds every answer.
LoopAnswers answered_otherwise(const LoopAnswers& now, std::size_t question, std::size_t answer);

// The variant with its loop put together from these answers. What still applies stays:
// numbers that somebody set, probes at places that are still there, outputs that drive
// what is still there, rules whose probes and outputs remain. What nobody touched is as
// in a fresh loop of these answers, and what that needs is added.
Variant rejoined(const Variant& v, const LoopAnswers& answers);

} // namespace vernal
