// The job file's text: job.json, format "vrelay-job", docs/job-file.md.
#pragma once

#include "core/job/job.h"
#include "job_migration.h"

namespace vernal {

// A job as a file gave it.
struct OpenedJob {
    Job job;
    int version = job_format_version;
    std::vector<std::string> notices;                           // for the person: what is missing, what a newer program knows
    std::map<std::string, std::string> logs_beside;             // of a recovery copy: files with the logs that it leaves out, by the logs' names
    bool newer() const { return version > job_format_version; } // then the file must not be written over
};

// Error names the place in the file ("variants[0].loop.collector.area_m2"), what
// is wrong and what to do. Traces are not part of the text: they come beside it.
// Older versions are migrated; of newer ones what is known is read.
Result<OpenedJob> read_job_text(const std::string& text, const std::string& file_name);
Result<Job> read_job_json(const std::string& text, const std::string& file_name);
std::string write_job_json(const Job& job);

// JSON Schema (draft 7) of the same, generated from the same field list.
std::string job_schema();

} // namespace vernal
