// A procedure under way on the bench: it waits, captures and judges by itself.
#pragma once

#include "bench_pair.h"
#include "procedure.h"

namespace vernal {

enum class StepVerdict : std::uint8_t { open, // not yet
    passed,
    failed,
    not_possible };
inline constexpr std::array verdict_keys{"open", "passed", "failed", "not_possible"};

struct CapturedValue {
    std::string name;
    Captured what = Captured::difference;
    std::vector<double> passes; // one each
    double mean() const;
    double spread() const; // from the lowest to the highest
};

struct StepResult {
    std::string title;
    std::string of; // key of the probe or output that the step was done for; empty: of none in particular
    StepVerdict verdict = StepVerdict::open;
    std::string said; // what was found, or why not
    std::vector<CapturedValue> captured;
    double began_s = 0, ended_s = 0; // of the rig
};

struct ProcedureResult {
    std::string name;
    std::vector<StepResult> steps;
    StepVerdict verdict() const; // failed where one is, open while one is
};

class ProcedureRun {
public:
    // written: the job's variant, which the unit on the rig should be set to. Both outlive it.
    ProcedureRun(const Procedure& procedure, const Variant& written, Rig& rig);

    // The rig goes on by this, and what is awaited is looked at each sample. False: it is over.
    bool advance(double seconds);
    void run();                           // to its end
    void skip(const std::string& reason); // the step under way is not possible here

    const ProcedureResult& result() const { return result_; }
    std::size_t step() const { return at_; } // under way; the number of steps: over
    const ProcedureStep* step_under_way() const { return at_ < places_.size() ? &procedure_.steps[places_[at_].step] : nullptr; }
    // Of the line under way, in words: "until P1 runs, for at most 20 min".
    std::string waits_for() const;

private:
    struct Place { // a step, done for one probe or output
        std::size_t step = 0;
        std::optional<std::size_t> each;
    };
    void begin_step();
    void end_step(StepVerdict v, std::string said);
    bool do_line(); // false: it waits
    bool look(const Line& l);
    void begin_wait(const Line& l);
    void capture(const Line& l);
    bool judge(const Line& l);
    double level(const Level& l) const;
    double tolerance_k() const;
    double pause_s(const Line& l) const;
    double value(const Line& l) const;
    std::vector<std::size_t> probes(const Which& w) const;
    std::vector<std::size_t> outputs(const Which& w) const;
    const Procedure& procedure_;
    const Variant& written_;
    Rig& rig_;
    std::optional<BenchPair> pair_;
    std::vector<Place> places_;
    ProcedureResult result_;
    std::size_t at_ = 0, line_ = 0;
    int pass_ = 1;
    double since_s_ = 0;                                      // the line under way began
    std::vector<double> from_;                                // readings then
    std::vector<std::vector<double>> last_;                   // readings of the last minute
    double sample_s_ = 1, last_media_c_ = 0, media_rate_ = 0; // K/s
};

} // namespace vernal
