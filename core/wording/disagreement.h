// A stretch in which a log and the rules differ, in words.
#pragma once

#include "core/job/job.h"
#include "core/run/replay.h"

namespace vernal {

// "The log's P1 ran, the rules say rest: 4.1 K short of the start."
std::string disagreement_text(const Variant& v, const ReplayResult& r, const Disagreement& d, const Units& units);

} // namespace vernal
