// Findings about probes, leads and the unit's input; entries of finding_kinds().
#pragma once

#include "findings.h"

namespace vernal {

std::vector<Finding> probe_not_sound(const FindingContext& c);
std::vector<Finding> swapped_alone(const FindingContext& c);
std::vector<Finding> read_by_other_curve(const FindingContext& c);
std::vector<Finding> band_may_close(const FindingContext& c);
std::vector<Finding> off_may_pass_zero(const FindingContext& c);
std::vector<Finding> probe_rated_too_low(const FindingContext& c);
std::vector<Finding> cable_rated_too_low(const FindingContext& c);
std::vector<Finding> range_too_small(const FindingContext& c);
std::vector<Finding> limit_not_readable(const FindingContext& c);
std::vector<Finding> lead_reads_off(const FindingContext& c);
std::vector<Finding> counts_too_coarse(const FindingContext& c);

} // namespace vernal
