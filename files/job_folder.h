// A folder of job files as a list of customers: no database, an index beside nothing, kept in the
// person's cache and made anew for what has changed.
#pragma once

#include "core/visit/due.h"

#include <filesystem>
#include <functional>
#include <stop_token>

namespace vernal {

struct JobSummary {
    std::string file;          // within the folder
    std::int64_t modified = 0; // ns of its last change, and
    std::uint64_t size = 0;    // bytes: by these it is told whether it has changed
    std::string title, customer, place;
    std::size_t visits = 0;
    std::string last_visit; // a moment; empty: none
    std::string verdict;    // of the newest variant, "2 serious"; empty: nothing serious
    std::vector<DueNow> due;
    std::string text;  // all that is searched, in small letters: customer, places, notes, parts, findings
    std::string error; // why it cannot be opened; then nothing else is known
};

// Every .vrelay and job.json in it and its folders, three deep; in the order of customer and title.
// progress: how many of how many are done, called from this thread.
struct FolderRead {
    std::vector<JobSummary> jobs;
    std::size_t read = 0; // of them were not in the index, or had changed
    bool cancelled = false;
};
using FolderProgress = std::function<void(std::size_t done, std::size_t of)>;
Result<FolderRead> read_job_folder(const std::filesystem::path& folder, const std::filesystem::path& index, const std::string& today, const FolderProgress& progress = {}, std::stop_token stop = {});

// Those in which each of the words is somewhere.
std::vector<const JobSummary*> found_jobs(const std::vector<JobSummary>& jobs, const std::string& words);

JobSummary summary_of(const Job& job, const std::string& today);

// Where the index of a folder is kept: in the person's cache, by the folder's path.
std::filesystem::path index_path(const std::filesystem::path& folder);

} // namespace vernal
