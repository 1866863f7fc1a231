// Files of the command line, where "-" is standard input or standard output.
#pragma once

#include "verb.h"

#include "core/job/job.h"

#include <string>

namespace vernal {

inline bool is_standard(const std::string& file) { return file == "-"; }

// A file's whole content; of "-" all of standard input, which can be read once.
Result<std::string> read_input(const Streams& s, const std::string& file);

// The job as save_job() writes it. To "-" as plain job.json, refused for a job with logs or
// attachments, which have no place there.
Result<std::monostate> write_job(const Streams& s, const Job& job, const std::string& file);

// The clock's time by a format of strftime, local or UTC.
std::string clock_text_now(const char* format, bool utc = false);

// Where what is said for people goes: beside a table on standard output to standard error.
inline std::ostream& words_beside(const Streams& s, const std::string& table) { return is_standard(table) ? s.err : s.out; }

} // namespace vernal
