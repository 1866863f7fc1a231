// Job files on disk: a .vrelay container (ZIP of job.json and traces/*.csv), or
// a plain job.json with its traces in a folder "traces" beside it.
#pragma once

#include "core/job/job.h"

#include <filesystem>

namespace vernal {

Result<Job> open_job(const std::filesystem::path& path);

// By the name's ending: .json writes the plain form (job.json and traces/ beside
// it), everything else the container. Atomic per file.
Result<std::monostate> save_job(const Job& job, const std::filesystem::path& path);

// Container bytes and back, for recovery copies and tests.
Result<std::string> pack_job(const Job& job);
Result<Job> unpack_job(const std::string& bytes, const std::string& file_name);

} // namespace vernal
