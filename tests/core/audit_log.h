// Logs of units whose settings and troubles are known, for the audit's tests.
#pragma once

#include "core/audit/audit.h"

#include <random>

namespace vernal {

// How the logger beside the unit writes.
struct Logger {
    double every_s = 30, noise_k = 0.1, step_k = 0.1; // a row each; standard deviation; what it rounds to
    unsigned seed = 1;
    bool by_relay = true; // outputs as current at the terminals shows them; else as the unit decides
    bool speeds = false;  // a column each of what the outputs run at, percent
};

// What the unit reads on this day through that logger, with air, sun and pressure beside it.
Trace logged(const Job& job, const Variant& v, const Day& day, const Logger& logger);

// A job of a preset on days of one kind.
struct TruthCase {
    Job job;
    Day day;
};
TruthCase truth_case(const std::string& preset, unsigned seed, int days);
TruthCase truth_case(const LoopAnswers& answers, unsigned seed, int days);

// The presets' answers and some composed ones.
const std::vector<LoopAnswers>& audited_loops();

} // namespace vernal
