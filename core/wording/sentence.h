// A rule as a sentence, with its numbers in these units.
#pragma once

#include "core/job/job.h"

namespace vernal {

// "Start P1 when the collector is 8.0 K above the tank bottom; stop at 3.0 K."
std::string sentence(const Variant& variant, const Rule& rule, const Units& units);

// A name within a sentence: it begins small, unless it is a word in capitals.
std::string within_sentence(std::string name);

} // namespace vernal
