// Replay: the rules applied to recorded readings. Decisions and disagreements
// with the recorded output, never heat: the record already contains what the
// old pump did.
#pragma once

#include "core/job/trace.h"
#include "core/rules/engine.h"
#include "core/rules/rule_compiler.h"
#include "core/units/reads.h"
#include "figures.h"

#include <algorithm>
#include <cmath>
#include <stop_token>

namespace vernal {

struct ReplaySetup {
    Program program;
    std::vector<OutOfAction> out_of_action; // rules that the program leaves out
    std::array<Mode, max_outputs> modes = all_automatic;
    bool away = false;
    double resolution_k = 0.0;
    double low_c = -INFINITY, high_c = INFINITY; // outside of it the unit calls a probe open or shorted
    std::vector<std::string> probe_columns;      // trace column per probe of the program
    std::vector<Reads> reads;                    // per probe; those not named a temperature
    std::vector<std::string> output_columns;     // recorded output per output; not in the trace: no disagreements
    struct Clock {                               // for a while the unit's clock is ahead of the log's
        double from_s, to_s, ahead_s;
    };
    std::vector<Clock> clocks;
};

// A stretch in which the rules and the record differ.
struct Disagreement {
    double from_s = 0, to_s = 0; // seconds after the trace's start; to: first row of agreement, or the end
    std::size_t output = 0;
    bool recorded_on = false;              // the rules say the opposite
    Priority priority = Priority::nothing; // what decided at its beginning
    std::int16_t rule = -1;
    // It began with the log's first row: what the unit remembered by then (latches between
    // their two points, timers that ran) stands in no log, the rules began as after power-up.
    bool from_before = false;
};

// A pause that lacks samples (docs/engine-semantics.md, 20).
struct LogGap {
    static constexpr std::int64_t most_held = 2; // samples for which a reading stands while it is lacking
    double from_s = 0, to_s = 0;                 // the rows before and after it
    std::int64_t lacking = 0;                    // samples; up to two of them held, the others invalid
    std::int64_t held() const { return std::min(lacking, most_held); }
    std::ptrdiff_t made_up = -1; // the row of a replay that stands for the invalid ones; −1: none
};

// What the log's columns of the probes came to.
struct ProbeColumnUse {
    std::size_t held = 0;    // rows in which an empty cell held the last reading
    std::size_t invalid = 0; // rows without one to hold, or beyond the detection limits
};

// One row per row of the trace, and one made up where a gap made the readings
// invalid. Kept by columns: a log may have a million rows. The state of the engine
// at a row is worked out anew, from the nearest one that is kept.
class ReplayResult {
public:
    std::size_t size() const { return time_s_.size(); }
    double time_s(std::size_t row) const { return time_s_[row]; }
    double start_s() const { return time_s_.front(); }
    bool made_up(std::size_t row) const;
    Inputs inputs(std::size_t row) const;
    double reading(std::size_t row, std::size_t probe) const; // °C, L/min, bar or W/m²; NaN: invalid
    Decisions decisions(std::size_t row) const;               // of the program's outputs; others rest
    const Decision& decision(std::size_t row, std::size_t output) const { return decisions_[row * program.outputs + output]; }
    EngineState state(std::size_t row) const; // after the row
    // Channels whose readings count for nothing: invalid, or valid again for too short a time.
    ChannelBits faults(std::size_t row) const { return faults_[row]; }

    Program program;       // as it ran: its sampling period is the log's usual spacing
    double interval_s = 0; // that spacing; 0: a single row
    std::vector<LogGap> gaps;
    std::vector<ProbeColumnUse> columns; // per probe
    std::vector<Disagreement> disagreements;
    std::vector<PumpFigures> by_rules; // per output
    std::vector<PumpFigures> recorded; // per output; empty figures where not recorded
    double disagree_s = 0;

private:
    friend class Replayer;
    // The samples from the row before up to this one, which is there already but for its decisions.
    Decisions advance(std::size_t row, EngineState& state) const;
    void set_clock(Inputs& in, double time_s) const;
    std::int64_t intervals(double pause_s) const;

    std::vector<double> time_s_;
    std::vector<MilliKelvin> readings_; // row × (probes and supply)
    std::vector<Decision> decisions_;   // row × outputs
    std::vector<ChannelBits> faults_;   // per row
    std::vector<std::size_t> made_up_;  // rows, rising
    std::vector<EngineState> kept_;     // after every kept_every-th row
    EngineState first_;
    double clock_s_ = 0;
    std::vector<ReplaySetup::Clock> clocks_;
    std::int32_t date_ = no_date;
    std::array<Mode, max_outputs> modes_ = all_automatic;
    bool away_ = false;
};

// `first`: state of the engine before the first row; default power-up. Rows that a
// column “made_up” marks are none of the log's and passed over. Cancelled: what was
// reached. Error: a probe used by a rule has no column.
Result<ReplayResult> run_replay(const ReplaySetup& setup, const Trace& trace, const EngineState* first = nullptr, std::stop_token stop = {});

} // namespace vernal
