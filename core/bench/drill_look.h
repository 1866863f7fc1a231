// What an act of a drill shows. Not for others.
#pragma once

#include "drill.h"

namespace vernal {

// The rig goes on by what the act takes there. written: what the unit should be set to.
Evidence look_with(Rig& rig, const Variant& written, DrillAct act, const Units& units = {});
bool has_act(const Variant& v, DrillAct act); // this loop has what it looks at

} // namespace vernal
