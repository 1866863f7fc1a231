// From the faults painted on a day to what a run feels of them.
#pragma once

#include "core/job/job.h"
#include "core/run/fault_plan.h"
#include "core/run/weather_at.h"

namespace vernal {

// Of a generated day.
FaultPlan fault_plan(const Variant& v, const Day& day);

// Snow painted on the nth of its days, from 0.
void cover_with_snow(DayForcing& forcing, const Day& day, int n);

// A log as it would have been with the day's faults in probes, outputs and clock. A probe
// in the sun follows the column of the sun where there is one, else the hour; one that is
// bare follows the column of the air, and stays as it is without one.
Trace with_faults(const Trace& trace, const Variant& v, const Day& day);

} // namespace vernal
