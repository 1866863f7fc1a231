// Job files on disk: a .vrelay container (ZIP of job.json, traces/*.csv and
// attachments by their hash), or a plain job.json with folders "traces" and
// "attachments" beside it.
#pragma once

#include "job_json.h"

#include <filesystem>

namespace vernal {

Result<OpenedJob> open_job_file(const std::filesystem::path& path);
Result<Job> open_job(const std::filesystem::path& path); // the same without its notices

// By the name's ending: .json writes the plain form, everything else the
// container. Atomic per file.
Result<std::monostate> save_job(const Job& job, const std::filesystem::path& path);

// Container bytes and back.
Result<std::string> pack_job(const Job& job);
// A recovery copy is made every other second: it leaves out the content of
// attachments and logs, which never change and are written beside it once.
// logs_beside: the file of each log that is left out, by the log's name.
Result<std::string> pack_recovery(const Job& job, const std::map<std::string, std::string>& logs_beside);
Result<OpenedJob> unpack_job(const std::string& bytes, const std::string& file_name);

// One file an attachment, named by its hash; those that are there already stay.
Result<std::monostate> save_attachments(const Job& job, const std::filesystem::path& folder);

} // namespace vernal
