// The subjects of the findings, a table each beside its checks. A new finding is a
// check and its line in the table of its subject; the order here and there is the
// order among findings of one severity.
#pragma once

#include "findings.h"

namespace vernal {

using FindingKinds = std::vector<FindingKind>;
const FindingKinds& settings_findings();   // numbers that cannot be meant, rules that are missing
const FindingKinds& day_findings();        // what the chosen day came to
const FindingKinds& collected_findings();  // sun that was not collected, and what held the pump
const FindingKinds& switching_findings();  // outputs that switch often, and why
const FindingKinds& loop_findings();       // parts of the loop
const FindingKinds& protection_findings(); // cable and breaker, vessel and relief valve, check valve, suction, element
const FindingKinds& probe_findings();      // probes, leads, the unit's input
const FindingKinds& frost_findings();      // freeze and overheat rules in this loop
const FindingKinds& heating_findings();    // heating, disinfection, cooling at night
const FindingKinds& tap_findings();        // heater after the tank, tap circulation, loops without a pump
const FindingKinds& valve_findings();      // hand valves that stand wrong
const FindingKinds& instrument_findings(); // flow meters, pressure and sun sensors, and their rules
const FindingKinds& unit_findings();       // voltage, speed, guards, where probes sit, what stands beside the unit

} // namespace vernal
