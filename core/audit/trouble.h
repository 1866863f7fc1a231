// What a log shows to be wrong, with the evidence and how sure that is.
#pragma once

#include "core/run/replay.h"
#include "found.h"
#include "found_heating.h"

#include <stop_token>

namespace vernal {

struct AuditTrouble {
    std::string key;                // "runs_at_night"; see trouble_kinds()
    std::string what, reason, test; // what it is, what shows it, what to do next
    double from_s = 0, to_s = 0;    // from the first of it to the last
    double sure = 0;                // 0…1
    bool serious = false;
    std::vector<TroubleStretch> evidence;
    std::string output, probe; // key of what it is about; may be empty
};

// All a detector looks at.
struct AuditCase {
    const LogView& log;
    const Job& job;
    const Variant& v;
    const std::vector<FoundSettings>& found;
    const std::vector<FoundHeating>& heating;
    const ReplayResult* replay; // of the variant's rules on the log; null: it cannot be replayed
    // Height of the sun at a row, degrees; NaN without a date.
    double sun_height_deg(std::size_t row) const;
    double sun_azimuth_deg(std::size_t row) const;
    bool night(std::size_t row) const; // the sun has been down; without a date from ten to four
    // The probe at this place; the number of probes: none.
    std::size_t probe_at(ProbePlace place) const;
    std::size_t loop_pump() const; // output; the number of outputs: none
    // The largest difference at a row, K, of those that rules start this output by; with its own
    // pair where no rule does. NaN: no reading.
    double difference_k(const FoundSettings& f, std::size_t row) const;
    // Likewise less what it takes to start: above 0 some rule would start it. Minus infinity: no start is known.
    double above_start_k(const FoundSettings& f, std::size_t row) const;
    // The job's own rules let this output rest at a row; false where they cannot be replayed.
    bool rules_rest(std::size_t output, std::size_t row) const;
};

struct TroubleKind {
    const char* key;
    const char* name;
    bool serious;
    const char* looks_like;                                           // keys of others with the same look, a blank between two
    void (*look)(const AuditCase& c, std::vector<AuditTrouble>& out); // null: found beside another kind
};
const std::vector<TroubleKind>& trouble_kinds();
const TroubleKind* find_trouble(const std::string& key); // nullptr: none is called so

// Most serious first. Stopped: those so far.
std::vector<AuditTrouble> find_troubles(const AuditCase& c, std::stop_token stop = {});

// --- for the detectors -----------------------------------------------------------

// Stretches of rows for which something holds, at least so long; those closer than
// `join_s` are one.
std::vector<TroubleStretch> stretches_where(const LogView& log, double least_s, double join_s, const std::function<bool(std::size_t)>& holds);
double total_s(const std::vector<TroubleStretch>& s);
// One trouble of a kind over these stretches; none where they are empty.
AuditTrouble* report(std::vector<AuditTrouble>& out, const char* key, std::vector<TroubleStretch> evidence, double sure, std::string what, std::string reason, std::string test);
std::string probe_name(const Variant& v, std::size_t probe);

// The bounds in the detectors are estimates, set so that runs without a trouble are left
// alone and those with one of a stated size are named (docs/audit.md).
namespace troubles {
using Detector = void(const AuditCase& c, std::vector<AuditTrouble>& out);
Detector short_cycling, chattering, runs_at_night, stuck_on, stuck_off, long_gaps;                      // switching_troubles.cpp
Detector no_rise, low_flow, heat_lost_backwards, limit_reached, pressure_lost, stagnated;               // flow_troubles.cpp
Detector probe_lost, probe_stuck, probes_swapped, probe_bare, probe_drifts, probe_offset, probe_in_sun; // probe_troubles.cpp
Detector not_disinfected, unit_mix_up, clock_wrong, late_start;                                         // setting_troubles.cpp
} // namespace troubles

} // namespace vernal
