// Stable ids of what a person sees: variants, days, probes, outputs, rules, visits. They
// survive moving and renaming, stand in the file and name things in field paths.
//
// An id is 1 to 32 letters, digits, "-" or "_". Those of variants, days and visits differ
// within the job, the others within their variant; a copy of a variant keeps
// them, so that a comparison pairs its rules with those they came from.
#pragma once

#include "job.h"

namespace vernal {

bool is_id(const std::string& text);

// Where what has no id comes from. Of a file: what is alike in two variants (kind
// and output of a rule, key of a probe or output) is taken for the same and gets
// the same id. Of an edit: it is new, and gets an id that no variant has.
enum class NewFrom : std::uint8_t { file,
    edit };

// Gives an id to all that has none, and to the later of two that share one. The
// same job gets the same ids on every machine.
void give_ids(Job& job, NewFrom from);

} // namespace vernal
