// From the values of a job to what a run needs.
#pragma once

#include "core/job/job.h"
#include "core/run/coupled.h"
#include "core/run/replay.h"

namespace vernal {

// The probes as they sit on the unit's inputs; empty where each reads its tip.
Sensors sensors(const Variant& v);
// One probe's way from its tip to the figure, on its own input.
ChainSpec chain_of(const Variant& v, std::size_t probe);

// The day as it acts on this loop. Of the job it depends on the site and traces
// only, of the loop on its arrangement and its arrays.
std::shared_ptr<const DayForcing> day_forcing(const Job& job, const Loop& loop, const Day& day);

// Setups for the two ways to run. Errors name what is missing or impossible.
// `weather`: what day_forcing() gives for the same job, collector and day, when the caller has kept it.
Result<CoupledSetup> coupled_setup(const Job& job, const Variant& v, const Day& day, std::shared_ptr<const DayForcing> weather = nullptr);
Result<ReplaySetup> replay_setup(const Variant& v);

} // namespace vernal
