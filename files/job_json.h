// The job file's text: job.json, format "vrelay-job", version 1. docs/job-file.md.
#pragma once

#include "core/job/job.h"

namespace vernal {

// Error names the place in the file ("variants[0].loop.collector.area_m2"), what
// is wrong and what to do. Traces are not part of the text: they come beside it.
Result<Job> read_job_json(const std::string& text, const std::string& file_name);
std::string write_job_json(const Job& job);

// JSON Schema (draft 7) of the same, generated from the same field list.
std::string job_schema();

} // namespace vernal
