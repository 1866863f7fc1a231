// Findings about what the rules come to in this loop: freeze, overheat, heating,
// voltage, speed, and what stands beside the unit.
#pragma once

#include "findings.h"

namespace vernal {

std::vector<Finding> bypass_closed(const FindingContext& c);
std::vector<Finding> difference_converted(const FindingContext& c);
std::vector<Finding> freeze_on_wrong_loop(const FindingContext& c);
std::vector<Finding> freeze_needs_power(const FindingContext& c);
std::vector<Finding> freeze_too_late(const FindingContext& c);
std::vector<Finding> freeze_without_floor(const FindingContext& c);
std::vector<Finding> freeze_waits(const FindingContext& c);
std::vector<Finding> dump_throws_away(const FindingContext& c);
std::vector<Finding> limit_below_window(const FindingContext& c);
std::vector<Finding> heating_by_day(const FindingContext& c);
std::vector<Finding> heating_without_window(const FindingContext& c);
std::vector<Finding> disinfection_weak(const FindingContext& c);
std::vector<Finding> disinfection_at_the_top(const FindingContext& c);
std::vector<Finding> night_cooling_never(const FindingContext& c);
std::vector<Finding> heats_while_away(const FindingContext& c);
std::vector<Finding> voltage_cut_too_low(const FindingContext& c);
std::vector<Finding> voltage_cut_at_once(const FindingContext& c);
std::vector<Finding> speed_below_lift(const FindingContext& c);
std::vector<Finding> guard_too_quick(const FindingContext& c);
std::vector<Finding> guard_at_collector(const FindingContext& c);
std::vector<Finding> slow_to_start(const FindingContext& c);
std::vector<Finding> runs_on_fault(const FindingContext& c);
std::vector<Finding> store_probe_high(const FindingContext& c);
std::vector<Finding> store_probe_heated(const FindingContext& c);
std::vector<Finding> collector_probe_astray(const FindingContext& c);
std::vector<Finding> pipe_bears_too_little(const FindingContext& c);
std::vector<Finding> unit_on_a_plug(const FindingContext& c);
std::vector<Finding> dip_pipe_in_wrong_port(const FindingContext& c);

} // namespace vernal
