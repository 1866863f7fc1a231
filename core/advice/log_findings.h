// What a unit's log shows, beside what the job's own days show.
#pragma once

#include "core/audit/audit.h"
#include "core/findings/findings.h"

namespace vernal {

// Of troubles and of pairs that are not the job's, most serious first. audit: of this variant.
std::vector<Finding> findings_in_log(const Audit& audit, const Job& job, std::size_t variant, const Units& units);

} // namespace vernal
