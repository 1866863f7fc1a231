// Replay: the rules applied to recorded readings. Decisions and disagreements
// with the recorded output, never heat: the record already contains what the
// old pump did.
#pragma once

#include "core/job/trace.h"
#include "core/rules/engine.h"
#include "figures.h"

#include <cmath>
#include <stop_token>

namespace vernal {

struct ReplaySetup {
    Program program;
    std::array<Mode, max_outputs> modes{Mode::automatic, Mode::automatic, Mode::automatic, Mode::automatic};
    bool away = false;
    double resolution_k = 0.0;
    double low_c = -INFINITY, high_c = INFINITY; // outside of it the unit calls a probe open or shorted
    std::vector<std::string> probe_columns;      // trace column per probe of the program
    std::vector<std::string> output_columns;     // recorded output per output; not in the trace: no disagreements
};

// A stretch in which the rules and the record differ.
struct Disagreement {
    double from_s = 0, to_s = 0; // seconds after the trace's start; to: first row of agreement, or the end
    std::size_t output = 0;
    bool recorded_on = false;              // the rules say the opposite
    Priority priority = Priority::nothing; // what decided at its beginning
    std::int16_t rule = -1;
};

struct ReplayRow {
    double time_s = 0;
    Inputs inputs;
    EngineState state;
    Decisions decisions;
};

struct ReplayResult {
    std::vector<ReplayRow> rows; // one per trace row, and one where a gap made the readings invalid
    std::vector<Disagreement> disagreements;
    std::vector<PumpFigures> by_rules; // per output
    std::vector<PumpFigures> recorded; // per output; empty figures where not recorded
    double disagree_s = 0;
};

// Rows are samples. In a gap the last reading holds for two intervals, then it
// is invalid. `first`: state of the engine before the first row; default power-up.
// Error: a probe used by a rule has no column.
Result<ReplayResult> run_replay(const ReplaySetup& setup, const Trace& trace, const EngineState* first = nullptr, std::stop_token stop = {});

} // namespace vernal
