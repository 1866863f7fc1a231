// Parts, probes, outputs and rules of a fresh loop, as its answers bring them.
#pragma once

#include "job.h"

namespace vernal {

// v: of no loop yet. top_probe: a tank has one at its top.
void fill_fresh(Variant& v, const LoopAnswers& answers, bool top_probe);

// Water stands in the open and warm water sent round does not keep it from freezing: a
// pump on a panel rests at night, a cooler's branch is passed by, and what has no glass
// loses to the clear sky all that a store gives.
bool no_frost(const LoopAnswers& answers);

} // namespace vernal
