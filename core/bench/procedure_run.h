// A procedure under way on the bench: it waits, captures and judges by itself.
#pragma once

#include "bench_pair.h"
#include "procedure.h"

namespace vernal {

struct CapturedValue {
    std::string name;
    Captured what = Captured::difference;
    std::vector<double> passes; // one each
    double mean() const;
    double spread() const; // from the lowest to the highest
};

struct Judgement {
    std::string name;
    Captured what = Captured::difference;
    Judged how = Judged::near;
    double seen = 0, to = 0, within = 0; // seen: NaN: not read
};

struct StepResult {
    std::string title;
    std::string of; // key of the probe or output that the step was done for; empty: of none in particular
    StepVerdict verdict = StepVerdict::open;
    std::string said; // why not
    std::vector<CapturedValue> captured;
    std::vector<Judgement> judged;
    double began_s = 0, ended_s = 0; // of the rig
};

struct ProcedureResult {
    std::string name;
    std::vector<StepResult> steps;
    StepVerdict verdict() const; // failed where one is, open while one is
};

// A captured value with its unit, as a person reads it. NaN: "not read".
std::string captured_text(Captured what, double value, const Units& units);
// The unit in which a person types it, and a typed value in the procedure's own unit. Of a bucket: seconds.
std::string typed_unit(Captured what, const Units& units);
double from_typed(Captured what, double typed, const Units& units);
// What was judged and why it is not possible, in a line.
std::string said_text(const StepResult& step, const Units& units);

// As the job keeps it. when: local, "2026-05-07T14:30"; variant: its id.
BenchRecord record_of(const ProcedureResult& result, const std::string& title, const std::string& when, const std::string& variant);

// The knob's table as it was found by the steps that turned it: three marks at two warmths of
// the store; none: they are not all there. Marks of the scale are those written.
std::optional<Knob> found_knob(const ProcedureResult& result, const Knob& written);

// A unit that is not on the rig, as it was last read: by the variant's probes and outputs. What
// nobody knows is left out.
struct UnitSeen {
    std::vector<double> reads; // °C, NaN: none
    std::vector<std::optional<bool>> on;
    std::vector<std::optional<Mode>> modes;
    std::vector<std::optional<double>> speed, watt; // speed 0…1
    std::optional<double> supply_v;
};

class ProcedureRun {
public:
    // written: the job's variant, which the unit on the rig should be set to. Procedure and rig outlive it.
    ProcedureRun(const Procedure& procedure, const Variant& written, Rig& rig);

    // The rig goes on by this, and what is awaited is looked at each sample. False: it is over.
    bool advance(double seconds);
    void run();                           // to its end, or until it asks a person
    void skip(const std::string& reason); // the step under way is not possible here
    void leave();                         // nothing is awaited; every switch goes back to AUTO, the supply as it stands
    void resume();                        // the step that was left begins anew
    bool left() const { return left_; }
    bool repeat(); // the step before the one under way; false: there is none

    // Someone is there: questions that the rig cannot answer wait. by_hand: a person reads the
    // instruments too, and types; else the rig's own are taken.
    void attended(bool someone, bool by_hand)
    {
        attended_ = someone;
        by_hand_ = someone && by_hand;
    }
    // A real unit is read, and the rig only keeps the time: acts are a person's, who says when they
    // are done, and what the unit does not tell is typed.
    void on_unit(UnitSeen seen);
    bool is_on_unit() const { return seen_.has_value(); }
    bool is_act(const Line& l) const { return l.verb <= Act::supply || l.verb == Act::knob || l.verb == Act::shade; }
    std::string act_text(const Line& l, const Units& units) const; // "Put S1 into the block."

    const Line* asked() const; // the line that waits for an answer; null: none does
    double shown() const;      // what it would be at the rig: as typed; of a bucket the seconds. NaN: it cannot say
    void answer(double typed); // of a bucket the seconds; of a question 1, yes, or 0; NaN: there is no instrument for it

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
    void change(const Line& l);
    bool take_answer(const Line& l);
    void follow_media();
    void capture(const Line& l, double x);
    bool judge(const Line& l);
    double level(const Level& l) const;
    double expected_k(bool start) const;
    double tolerance(const Level& l, double to, const std::string& unit) const;
    double pause_s(const Line& l) const;
    double value(const Line& l) const;
    std::vector<std::size_t> probes(const ItemChoice& w) const;
    std::vector<std::size_t> outputs(const ItemChoice& w) const;
    double reads(std::size_t probe) const; // °C, NaN: none
    std::optional<bool> runs(std::size_t output) const;
    bool told(const Line& l) const; // the unit tells what it captures or awaits
    const Procedure& procedure_;
    Variant written_; // with the knob as it is turned
    Rig& rig_;
    std::optional<BenchPair> pair_;
    std::optional<BenchFreeze> freeze_;
    std::optional<BenchLow> low_;
    std::vector<Place> places_;
    ProcedureResult result_;
    std::size_t at_ = 0, line_ = 0;
    int pass_ = 1;
    double since_s_ = 0;                    // the line under way began
    std::vector<double> from_;              // readings then
    std::vector<std::vector<double>> last_; // readings of the last minute
    std::array<double, 2> last_media_c_{};
    double sample_s_ = 1, media_rate_ = 0; // K/s
    double changed_s_ = 0, v_per_min_ = 0; // when the last line changed something; of the supply
    std::optional<double> answered_;
    std::optional<UnitSeen> seen_;
    bool attended_ = false, by_hand_ = false, left_ = false;
};

} // namespace vernal
