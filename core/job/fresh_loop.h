// Parts, probes, outputs and rules of a fresh loop, as its answers bring them.
#pragma once

#include "job.h"

namespace vernal {

// v: of no loop yet. probes: 1 to 3, as for new_job().
void fill_fresh(Variant& v, const LoopAnswers& answers, int probes);

// Water stands in the open and warm water sent round does not keep it from freezing: a pump on a panel
// rests at night and no pump at all sends nothing, and what has no glass loses to the clear sky all that
// a store gives. Such a loop is drained by hand before the first frost.
bool no_frost(const LoopAnswers& answers);

} // namespace vernal
