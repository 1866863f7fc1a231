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

// The days of a day as they act on this loop. Of the job they depend on the site and traces
// only, of the variant on its horizon and its loop's arrangement and arrays.
struct Weather {
    std::vector<std::shared_ptr<const DayForcing>> days;
    std::shared_ptr<const DayForcing> before; // where nothing or more is drawn on the first day: as without that
};
Weather weather_of(const Job& job, const Variant& v, const Day& day);

// Setups for the two ways to run. Errors name what is missing or impossible.
// `weather`: what weather_of() gives for the same job, variant and day, when the caller has kept it.
Result<CoupledSetup> coupled_setup(const Job& job, const Variant& v, const Day& day, const Weather* weather = nullptr);
// day: whose clock faults are felt; null: none.
Result<ReplaySetup> replay_setup(const Variant& v, const Day* day = nullptr);
// The log of a recorded day with the faults painted on it; null: the job has none of that name.
std::shared_ptr<const Trace> trace_of(const Job& job, const Variant& v, const Day& day);

} // namespace vernal
