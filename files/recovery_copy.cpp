#include "recovery_copy.h"

#include "attachment.h"
#include "csv_trace.h"
#include "disk.h"

#include <algorithm>

namespace vernal {
namespace {

std::filesystem::path beside(const std::filesystem::path& base, const char* ending) { return base.string() + ending; }

} // namespace

RecoveryCopy::RecoveryCopy(std::filesystem::path base) : base_(std::move(base)), thread_([this](std::stop_token s) { work(s); }) {}

RecoveryCopy::~RecoveryCopy()
{
    thread_.request_stop();
    changed_.notify_all();
    thread_.join();
    remove();
}

void RecoveryCopy::write(Job job, std::string original_path)
{
    const std::lock_guard lock(mutex_);
    next_ = Wanted{std::move(job), std::move(original_path)};
    changed_.notify_all();
}

void RecoveryCopy::wait()
{
    std::unique_lock lock(mutex_);
    changed_.wait(lock, [&] { return !next_ && !busy_; });
}

std::optional<Error> RecoveryCopy::failure()
{
    const std::lock_guard lock(mutex_);
    return failure_;
}

void RecoveryCopy::remove()
{
    {
        const std::lock_guard lock(mutex_);
        next_.reset();
        changed_.notify_all();
    }
    const std::lock_guard written(writing_);
    logs_.clear();
    discard(base_);
}

void RecoveryCopy::work(std::stop_token stop)
{
    while (!stop.stop_requested()) {
        {
            std::unique_lock lock(mutex_);
            if (!changed_.wait(lock, stop, [&] { return next_.has_value(); }))
                return;
            busy_ = true;
        }
        std::optional<Error> failed;
        {
            const std::lock_guard writing(writing_);
            std::optional<Wanted> wanted;
            {
                const std::lock_guard lock(mutex_); // it may have been taken back meanwhile
                wanted.swap(next_);
            }
            if (wanted)
                failed = written_or_why(*wanted);
        }
        const std::lock_guard lock(mutex_);
        failure_ = failed;
        busy_ = false;
        changed_.notify_all();
    }
}

std::optional<Error> RecoveryCopy::written_or_why(const Wanted& wanted)
try {
    if (const auto done = write_now(wanted); !done)
        return done.error();
    return {};
} catch (const std::exception& e) { // nothing may leave a thread
    return Error{std::string("the recovery copy cannot be made: ") + e.what(), base_.string(), "Save the job now"};
}

Result<std::monostate> RecoveryCopy::write_now(const Wanted& wanted)
{
    std::error_code ec;
    std::filesystem::create_directories(base_.parent_path(), ec);
    if (auto done = save_attachments(wanted.job, beside(base_, ".attachments")); !done)
        return done;
    std::map<std::string, std::string> logs;
    if (auto done = write_logs(wanted.job, logs); !done)
        return done;
    const auto bytes = pack_recovery(wanted.job, logs);
    if (!bytes)
        return bytes.error();
    if (auto done = write_file_atomically(beside(base_, ".path"), wanted.original_path); !done)
        return done;
    return write_file_atomically(beside(base_, ".vrelay"), *bytes);
}

// A log is never changed, only replaced by another.
Result<std::monostate> RecoveryCopy::write_logs(const Job& job, std::map<std::string, std::string>& files)
{
    const std::filesystem::path folder = beside(base_, ".logs");
    std::error_code ec;
    for (const auto& [name, log] : job.traces) {
        const auto at = std::find(logs_.begin(), logs_.end(), log);
        const std::string file = std::to_string(at - logs_.begin()) + ".csv";
        if (at == logs_.end()) {
            std::filesystem::create_directories(folder, ec);
            if (auto done = write_file_atomically(folder / file, write_trace_csv(*log)); !done)
                return done;
            logs_.push_back(log);
        }
        files[name] = file;
    }
    return std::monostate{};
}

Result<OpenedJob> RecoveryCopy::open(const std::filesystem::path& base)
{
    auto opened = open_job_file(beside(base, ".vrelay"));
    if (!opened)
        return opened;
    opened->notices = fill_attachments(opened->job, [&](const std::string& sha256) -> std::optional<std::string> {
        const auto content = read_file(beside(base, ".attachments") / sha256);
        return content ? std::optional(*content) : std::nullopt;
    });
    for (const auto& [name, file] : opened->logs_beside) {
        const auto csv = read_file(beside(base, ".logs") / std::filesystem::path(file).filename());
        auto log = csv ? read_trace_csv(*csv, name) : Result<Trace>(csv.error());
        if (log)
            opened->job.traces[name] = std::make_shared<const Trace>(std::move(*log));
        else
            opened->notices.push_back("the log “" + name + "” is lost: " + log.error().text());
    }
    return opened;
}

void RecoveryCopy::discard(const std::filesystem::path& base)
{
    std::error_code ec;
    for (const char* ending : {".vrelay", ".path"})
        std::filesystem::remove(beside(base, ending), ec);
    for (const char* ending : {".attachments", ".logs"})
        std::filesystem::remove_all(beside(base, ending), ec);
}

} // namespace vernal
