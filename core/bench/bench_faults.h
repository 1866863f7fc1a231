// What can be wrong with a unit on the bench, for trying procedures.
#pragma once

#include "rig.h"

#include <functional>

namespace vernal {

struct BenchFault {
    std::string key, name;
    // Puts it into the unit on the rig; the job's own variant stays as it is written.
    std::function<void(Variant& real, Day& day, OnSite& on_site)> put;
};

// Those a variant can have: what can be painted on a day and shows on a bench, and settings
// other than written.
std::vector<BenchFault> bench_faults(const Variant& v);

} // namespace vernal
