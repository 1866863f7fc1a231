#include "day_runner.h"

#include <exception>

namespace vernal {

namespace {

// Nothing may leave a thread: what cannot be worked out is told as an outcome's error.
Outcome outcome_or_why(const RunRequest& request, const std::stop_token& stop, RunCache& cache)
try {
    return make_outcome(request, stop, cache);
} catch (const std::exception& e) {
    cache = {};
    Outcome out;
    out.id = request.id;
    out.variant = request.job.variants[request.variant];
    out.day = request.job.days[request.day];
    out.error = Error{std::string("this day cannot be worked out: ") + e.what(), out.day.name, "Undo the last change, or try another day"};
    return out;
}

Verdict verdict_or_none(const RunRequest& request, const Outcome& outcome, const std::stop_token& stop, RunCache& cache)
try {
    return make_verdict(request, outcome, stop, cache);
} catch (const std::exception&) {
    cache = {};
    Verdict out;
    out.id = outcome.id;
    return out;
}

std::shared_ptr<const Outcome> begun_or_none(const RunRequest& request, const std::stop_token& stop, RunCache& cache)
try {
    if (auto begun = begun_outcome(request, stop, cache))
        return std::make_shared<const Outcome>(std::move(*begun));
    return nullptr;
} catch (const std::exception&) { // told by the outcome
    return nullptr;
}

} // namespace

DayRunner::DayRunner(Told told) : told_(std::move(told)), thread_([this](std::stop_token s) { work(s); }) {}

DayRunner::~DayRunner()
{
    thread_.request_stop();
    {
        const std::lock_guard lock(mutex_);
        current_.request_stop();
    }
    wake_.notify_all();
}

std::uint64_t DayRunner::request(RunRequest r)
{
    const std::lock_guard lock(mutex_);
    r.id = ++latest_;
    next_ = std::move(r);
    if (answered_)
        current_.request_stop();
    wake_.notify_all();
    return latest_;
}

void DayRunner::hurry(std::uint64_t id)
{
    const std::lock_guard lock(mutex_);
    if (running_ < id)
        current_.request_stop();
}

bool DayRunner::overtaken()
{
    const std::lock_guard lock(mutex_);
    return next_.has_value();
}

void DayRunner::work(std::stop_token stop)
{
    RunCache cache;
    for (;;) {
        RunRequest request;
        std::stop_token token;
        {
            std::unique_lock lock(mutex_);
            wake_.wait(lock, stop, [&] { return next_.has_value(); });
            if (stop.stop_requested())
                return;
            request = std::move(*next_);
            next_.reset();
            running_ = request.id;
            current_ = std::stop_source();
            answered_ = false;
            token = current_.get_token();
        }
        if (const auto begun = told_.begun ? begun_or_none(request, token, cache) : nullptr; begun && !token.stop_requested()) {
            told_.begun(begun);
            const std::lock_guard lock(mutex_);
            if (next_)
                continue;
            answered_ = true;
        }
        const auto outcome = std::make_shared<const Outcome>(outcome_or_why(request, token, cache));
        if (token.stop_requested())
            continue;
        told_.finished(outcome);
        if (overtaken())
            continue;
        const auto verdict = std::make_shared<const Verdict>(verdict_or_none(request, *outcome, token, cache));
        if (!token.stop_requested())
            told_.judged(verdict);
    }
}

} // namespace vernal
