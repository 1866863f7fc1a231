// Findings about what protects a loop: cable and breaker, vessel and relief
// valve, check valve, suction, element.
#pragma once

#include "findings.h"

namespace vernal {

std::vector<Finding> check_valve_in_return(const FindingContext& c);
std::vector<Finding> ports_swapped(const FindingContext& c);
std::vector<Finding> prime_lost(const FindingContext& c);
std::vector<Finding> draws_steam(const FindingContext& c);
std::vector<Finding> water_lost_by_vent(const FindingContext& c);
std::vector<Finding> line_shut(const FindingContext& c);
std::vector<Finding> curve_not_known(const FindingContext& c);
std::vector<Finding> open_voltage_too_high(const FindingContext& c);
std::vector<Finding> cable_drop(const FindingContext& c);
std::vector<Finding> breaker_too_large(const FindingContext& c);
std::vector<Finding> current_over_output(const FindingContext& c);
std::vector<Finding> starting_dip(const FindingContext& c);
std::vector<Finding> leads_swapped(const FindingContext& c);
std::vector<Finding> vessel_too_small(const FindingContext& c);
std::vector<Finding> vessel_precharge(const FindingContext& c);
std::vector<Finding> relief_discharged(const FindingContext& c);
std::vector<Finding> check_valve_leaks(const FindingContext& c);
std::vector<Finding> element_windows_empty(const FindingContext& c);
std::vector<Finding> element_by_day(const FindingContext& c);

} // namespace vernal
