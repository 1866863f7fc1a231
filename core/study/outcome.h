// What a variant does on a day, and what is said of it.
#pragma once

#include "core/findings/findings.h"
#include "core/setup/job_setup.h"

#include <cstdint>
#include <memory>
#include <optional>

namespace vernal {

struct RunRequest {
    Job job;
    std::size_t variant = 0, day = 0, baseline = 0;
    Units units;
    std::uint64_t id = 0;
    RunRequest();
    RunRequest(const RunRequest&);
    RunRequest(RunRequest&&) noexcept;
    RunRequest& operator=(const RunRequest&);
    RunRequest& operator=(RunRequest&&) noexcept;
    ~RunRequest();
    bool operator==(const RunRequest&) const;
};

// What one variant did on one day; immutable once made.
struct Outcome {
    std::uint64_t id = 0;
    bool settled = true; // false: begun with the stores of the run before, see begun_outcome()
    Variant variant;
    Day day;
    std::optional<CoupledSetup> setup;      // of a coupled run
    Program program;                        // as it ran
    CoupledResult coupled;                  // coupled runs
    std::optional<ReplayResult> replay;     // replays
    std::shared_ptr<const Trace> trace;     // of a replay
    std::vector<OutOfAction> out_of_action; // rules of the variant that could not work
    std::optional<Error> error;             // why there is no result

    bool is_replay() const { return replay.has_value(); }
    // Common view of both ways: instants in order.
    std::size_t size() const { return is_replay() ? replay->size() : coupled.records.size(); }
    double time_s(std::size_t i) const { return is_replay() ? replay->time_s(i) : coupled.records[i].time_s; }
    Inputs inputs(std::size_t i) const { return is_replay() ? replay->inputs(i) : coupled.records[i].inputs; }
    EngineState state(std::size_t i) const { return is_replay() ? replay->state(i) : coupled.records[i].state; }
    Decisions decisions(std::size_t i) const { return is_replay() ? replay->decisions(i) : coupled.records[i].decisions; }
    double reading(std::size_t i, std::size_t probe) const; // °C, L/min, bar or W/m²; NaN: invalid
    double start_s() const;                                 // clock time of second 0 of a replay
    double faults_begin_s() const;                          // from where painted faults count, on the axis of time_s
    std::size_t at(double time_s) const;                    // last instant not after
    // The next instant at which an output switches, or the one before; none: it stays.
    std::optional<double> next_switch_s(double after_s) const;
    std::optional<double> last_switch_s(double before_s) const;
    bool switches_at(std::size_t i) const; // against the instant before
    const Figures* figures() const { return is_replay() || error ? nullptr : &coupled.figures; }
    Outcome();
    Outcome(const Outcome&);
    Outcome(Outcome&&) noexcept;
    Outcome& operator=(const Outcome&);
    Outcome& operator=(Outcome&&) noexcept;
    ~Outcome();
};

// What is said of an outcome once it is there.
struct Verdict {
    std::uint64_t id = 0;      // of the outcome
    std::string baseline_name; // of the variant compared with; empty: none
    std::optional<Figures> baseline_figures;
    double possible_j = NAN; // of the outcome, see Figures::possible_j
    std::vector<Finding> findings;
    Verdict();
    Verdict(const Verdict&);
    Verdict(Verdict&&) noexcept;
    Verdict& operator=(const Verdict&);
    Verdict& operator=(Verdict&&) noexcept;
    ~Verdict();
};

// What one run can take over from the last while what it depends on stays the same.
struct CachedWeather {
    LoopAnswers answers;
    Collector collector, collector_2;
    Panel panel;
    bool pipes_in_sun;
    Day day;
    Site site;
    Traces traces;
    std::vector<HorizonPoint> horizon;
    Weather weather;
};
// Where the last settled run began. While loop, day and place stay, another setting moves
// that little: a first answer may begin there, so that the strip is there at once.
struct Beginning {
    LoopAnswers answers;
    std::vector<ProbePlace> places;
    Day day;
    Site site;
    Traces traces;
    double start_tank_c; // of a store that begins as stated
    std::vector<double> temps_c;
};
struct BaselineRun { // the comparison run
    Variant variant;
    Day day;
    Site site;
    Traces traces;
    Figures figures;
};

struct RunCache {
    std::optional<CachedWeather> weather;
    std::optional<BaselineRun> run;
    std::optional<Beginning> begins;
};

// A day begun where the last settled run of the same loop, day and place began; nothing: none
// was. What follows is make_outcome()'s.
std::optional<Outcome> begun_outcome(const RunRequest& request, std::stop_token stop, RunCache& cache);
// Cancelled: what was reached so far.
Outcome make_outcome(const RunRequest& request, std::stop_token stop, RunCache& cache);
Verdict make_verdict(const RunRequest& request, const Outcome& outcome, std::stop_token stop, RunCache& cache);

} // namespace vernal
