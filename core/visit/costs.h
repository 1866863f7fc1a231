// What a kilowatt-hour of heat costs: the pump's electricity, parts, work.
#pragma once

#include "core/job/job.h"

#include <stop_token>

namespace vernal {

struct HeatCost {
    double heat_kwh_a = NAN, pump_kwh_a = NAN;         // a year
    double electricity_a = 0, parts_a = 0, work_a = 0; // money a year
    double years = 0;                                  // that the parts and the work are spread over
    bool metered = false;                              // heat: by a meter on visits; else run for a year
    double per_kwh() const { return (electricity_a + parts_a + work_a) / heat_kwh_a; }
};
// Of a variant over a year of seeded weather, with the parts and minutes of the logbook over the
// years it covers, one at least. Nothing: it was cancelled, or cannot be run.
std::optional<HeatCost> heat_cost(const Job& job, const Variant& v, std::stop_token stop = {});

// Twelve days, one a month, stand for the year: heat to the store and the pump's energy, J.
struct YearFlows {
    double heat_j = 0, pump_j = 0;
};
std::optional<YearFlows> year_flows(const Job& job, const Variant& v, std::stop_token stop = {});

// "0.031 € a kWh: 0.004 electricity, …"
std::string cost_text(const HeatCost& c, const Costs& costs);

} // namespace vernal
