// Runs days in a thread of its own, the newest request first; what a window stands on.
#pragma once

#include "outcome.h"

#include <condition_variable>
#include <functional>
#include <mutex>
#include <thread>

namespace vernal {

class DayRunner {
public:
    // All are called in the runner's thread. Ids rise; of the newest request a settled outcome and
    // its verdict come, of one that was overtaken an outcome may, the verdict does not. begun: a
    // first answer while the stores settle, where there is one.
    struct Told {
        std::function<void(std::shared_ptr<const Outcome>)> begun;
        std::function<void(std::shared_ptr<const Outcome>)> finished;
        std::function<void(std::shared_ptr<const Verdict>)> judged;
    };
    explicit DayRunner(Told told);
    ~DayRunner(); // ends the run under way and waits for it
    DayRunner(const DayRunner&) = delete;
    DayRunner& operator=(const DayRunner&) = delete;

    std::uint64_t request(RunRequest r); // returns at once; the id that its outcome will have
    // Ends a run that was under way before the request `id` and still is.
    void hurry(std::uint64_t id);

private:
    void work(std::stop_token stop);
    bool overtaken(); // a newer request waits
    Told told_;
    std::mutex mutex_;
    std::condition_variable_any wake_;
    std::optional<RunRequest> next_;
    std::stop_source current_;
    std::uint64_t latest_ = 0, running_ = 0;
    bool answered_ = false; // the run under way has told its first answer: a newer request ends it
    std::jthread thread_;   // the last: it ends before what it uses
};

} // namespace vernal
