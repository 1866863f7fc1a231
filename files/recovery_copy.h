// Copies of unsaved work, written in a thread of their own. A copy is a container
// of the job's values; attachments and logs, which never change, lie beside it, a
// file each, written once. What belongs together has one base: BASE.vrelay,
// BASE.path (of the job's own file), BASE.attachments/, BASE.logs/.
#pragma once

#include "job_file.h"

#include <condition_variable>
#include <mutex>
#include <optional>
#include <thread>

namespace vernal {

class RecoveryCopy {
public:
    explicit RecoveryCopy(std::filesystem::path base);
    ~RecoveryCopy(); // a proper end removes the copy
    RecoveryCopy(const RecoveryCopy&) = delete;
    RecoveryCopy& operator=(const RecoveryCopy&) = delete;

    // Returns at once; a newer copy overtakes one that is not begun.
    void write(Job job, std::string original_path);
    void wait();   // until what was asked for stands
    void remove(); // and what was asked for is not written any more
    // Why the last copy asked for does not stand.
    std::optional<Error> failure();

    static Result<OpenedJob> open(const std::filesystem::path& base);
    static void discard(const std::filesystem::path& base);

private:
    struct Wanted {
        Job job;
        std::string original_path;
    };
    void work(std::stop_token stop);
    std::optional<Error> written_or_why(const Wanted& wanted);
    Result<std::monostate> write_now(const Wanted& wanted);
    Result<std::monostate> write_logs(const Job& job, std::map<std::string, std::string>& beside);
    const std::filesystem::path base_;
    std::vector<std::shared_ptr<const Trace>> logs_; // written, each in a file by its number here; of the thread that writes
    std::mutex mutex_, writing_;                     // where both are held, writing_ is taken first
    std::condition_variable_any changed_;
    std::optional<Wanted> next_;
    std::optional<Error> failure_;
    bool busy_ = false;
    std::jthread thread_; // the last: it ends before what it uses
};

} // namespace vernal
