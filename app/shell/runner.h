// Runs the chosen day in the background, never blocking the window: first the
// chosen variant, then what is said of it (the comparison, the findings). The
// latest edit wins; an older run gets a tenth of a second to finish, so that the
// strip moves while a line is dragged, and is cancelled then; its verdict is dropped.
#pragma once

#include "core/findings/findings.h"
#include "core/setup/job_setup.h"

#include <QObject>

#include <condition_variable>
#include <memory>
#include <mutex>
#include <optional>
#include <thread>

namespace vernal {

struct RunRequest {
    Job job;
    std::size_t variant = 0, day = 0, baseline = 0;
    Units units;
    quint64 id = 0;
    bool operator==(const RunRequest&) const = default;
};

// What one variant did on one day; immutable once made.
struct Outcome {
    quint64 id = 0;
    Variant variant;
    Day day;
    std::optional<CoupledSetup> setup;  // of a coupled run
    Program program;                    // as it ran
    CoupledResult coupled;              // coupled runs
    std::optional<ReplayResult> replay; // replays
    std::shared_ptr<const Trace> trace; // of a replay
    std::optional<Error> error;         // why there is no result

    bool is_replay() const { return replay.has_value(); }
    // Common view of both ways: instants in order.
    std::size_t size() const { return is_replay() ? replay->rows.size() : coupled.records.size(); }
    double time_s(std::size_t i) const { return is_replay() ? replay->rows[i].time_s : coupled.records[i].time_s; }
    const Inputs& inputs(std::size_t i) const { return is_replay() ? replay->rows[i].inputs : coupled.records[i].inputs; }
    const EngineState& state(std::size_t i) const { return is_replay() ? replay->rows[i].state : coupled.records[i].state; }
    const Decisions& decisions(std::size_t i) const { return is_replay() ? replay->rows[i].decisions : coupled.records[i].decisions; }
    double reading_c(std::size_t i, std::size_t probe) const;
    double start_s() const;              // clock time of second 0 of a replay
    std::size_t at(double time_s) const; // last instant not after
    const Figures* figures() const { return is_replay() || error ? nullptr : &coupled.figures; }
};

// What is said of an outcome once it is there.
struct Verdict {
    quint64 id = 0;            // of the outcome
    std::string baseline_name; // of the variant compared with; empty: none
    std::optional<Figures> baseline_figures;
    std::vector<Finding> findings;
};

// What one run can take over from the last while what it depends on stays the same.
struct CachedWeather {
    std::string arrangement;
    Collector collector, collector_2;
    Panel panel;
    Day day;
    Site site;
    Traces traces;
    std::shared_ptr<const DayForcing> forcing;
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
};

Outcome make_outcome(const RunRequest& request, std::stop_token stop, RunCache& cache);
Verdict make_verdict(const RunRequest& request, const Outcome& outcome, std::stop_token stop, RunCache& cache);

class Runner : public QObject {
    Q_OBJECT
public:
    explicit Runner(QObject* parent = nullptr);
    ~Runner() override;
    quint64 request(RunRequest r); // returns at once; the id that its outcome will have

signals:
    // In the window's thread; ids rise. Of the newest request both come.
    void finished(std::shared_ptr<const vernal::Outcome> outcome);
    void judged(std::shared_ptr<const vernal::Verdict> verdict);

private:
    void work(std::stop_token stop);
    void deliver(std::shared_ptr<const Outcome> outcome);
    bool overtaken(); // a newer request waits
    std::mutex mutex_;
    std::condition_variable_any wake_;
    std::optional<RunRequest> next_;
    std::stop_source current_;
    quint64 latest_ = 0, running_ = 0, delivered_ = 0;
    std::jthread thread_;
};

} // namespace vernal
