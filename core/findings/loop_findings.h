// Findings about the parts of the loop rather than its rules.
#pragma once

#include "findings.h"

namespace vernal {

std::vector<Finding> pump_below_lift(const FindingContext& c);
std::vector<Finding> reservoir_too_small(const FindingContext& c);
std::vector<Finding> pitch_too_small(const FindingContext& c);
std::vector<Finding> restarts_while_draining(const FindingContext& c);
std::vector<Finding> fills_with_steam(const FindingContext& c);
std::vector<Finding> siphon_cannot_stand(const FindingContext& c);
std::vector<Finding> panel_label_impossible(const FindingContext& c);
std::vector<Finding> battery_cut_too_low(const FindingContext& c);
std::vector<Finding> battery_cut_without_band(const FindingContext& c);
std::vector<Finding> battery_trips(const FindingContext& c);
std::vector<Finding> output_missing(const FindingContext& c);

} // namespace vernal
