// A day as a log: what the unit read and decided, or a recorded log with its faults.
#pragma once

#include "core/job/job.h"

#include "core/units/result.h"

#include <stop_token>

namespace vernal {

// Of a generated day a row each `every_s`, as a logger beside the unit would have written
// them; of a recorded one its own rows. Reads back by read_trace_csv(). Error: the day cannot
// be run, or it was stopped.
Result<std::string> day_csv(const Job& job, const Variant& v, const Day& day, double every_s, std::stop_token stop = {});

// A generated day as the log that would have been recorded on it, with its date. Words of
// why are left out.
Result<Trace> day_log(const Job& job, const Variant& v, const Day& day, double every_s, std::stop_token stop = {});

} // namespace vernal
