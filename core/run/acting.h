// From what the unit decides to what acts on the loop.
#pragma once

#include "core/plant/hydraulic_state.h"
#include "core/rules/engine.h"
#include "core/rules/rule_set.h"
#include "setup.h"

namespace vernal {

// The outputs as they act on the water; pumps turn as the decisions say.
Acting acting(const CoupledSetup& setup, const Program& program, std::uint32_t running, const Decisions& decisions);

// Power offered to the element at an instant of the day, W, where no output drives it.
double element_w(const Loop& loop, double time_of_day_s);

} // namespace vernal
