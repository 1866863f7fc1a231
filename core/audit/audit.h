// What a real unit did, against what the job's rules would have done on the same readings.
#pragma once

#include "found_heating.h"
#include "seasons.h"
#include "trouble.h"

#include <stop_token>

namespace vernal {

// A stretch in which the unit did otherwise than the rules.
struct CostedDisagreement {
    Disagreement what;
    double length_s = 0;
    double heat_j = 0; // not gained, or carried out of the store; 0: it cannot be said
    double pump_j = 0; // taken by the pump for nothing
    std::string cause; // what is likely
};

struct Audit {
    std::vector<FoundSettings> found;
    std::vector<FoundHeating> heating;
    std::vector<CostedDisagreement> disagreements;
    std::vector<AuditTrouble> troubles;
    Seasons seasons;
    std::shared_ptr<const ReplayResult> replay; // null: see no_replay
    std::string no_replay;                      // why the rules could not be replayed; empty: they were
    bool cancelled = false;
    bool serious() const;
};

// Error: the log has fewer than three rows, or nothing of the job.
Result<Audit> audit(const Job& job, const Variant& v, const Trace& log, std::stop_token stop = {});

// The variant with what was found in place of its own: pairs, limits, cut-out and times where
// it has such rules. Named "as found" or with a number behind it.
Variant with_found(const Job& job, const Variant& v, const std::vector<FoundSettings>& found);

// Likewise of one output, into the variant itself.
void take_found(Variant& v, const FoundSettings& found);

// "Starts at 8.1 K (7.9 to 8.3), from 24 points"
// unit: K, °C or any other; the first two are shown in `u`.
std::string estimate_text(const Estimate& e, const char* unit, const Units& u = Units::metric());

// "runs at 40 % (39 to 41) and more, 4.2 % more for each kelvin (3.9 to 4.5)", "runs at 30, 60 and 100 %"
std::string speeds_text(const FoundSettings::Speeds& speeds);

} // namespace vernal
