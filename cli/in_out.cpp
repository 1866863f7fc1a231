#include "in_out.h"

#include "files/disk.h"
#include "files/job_file.h"
#include "files/job_json.h"

#include <ctime>
#include <istream>
#include <iterator>
#include <ostream>

namespace vernal {

Result<std::string> read_input(const Streams& s, const std::string& file)
{
    if (!is_standard(file))
        return read_file(file);
    if (!s.in)
        return Error{"there is no standard input here", file, "Name a file"};
    return std::string(std::istreambuf_iterator<char>(*s.in), {});
}

Result<std::monostate> write_job(const Streams& s, const Job& job, const std::string& file)
{
    if (!is_standard(file))
        return save_job(job, file);
    if (!job.traces.empty() || !job.attachments.empty())
        return Error{"a job with logs or attachments cannot go to standard output", file, "Name a file that ends in .vrelay"};
    s.out << write_job_json(job);
    return std::monostate{};
}

std::string clock_text_now(const char* format, bool utc)
{
    const std::time_t now = std::time(nullptr);
    std::tm t{};
    utc ? gmtime_r(&now, &t) : localtime_r(&now, &t);
    char b[40];
    std::strftime(b, sizeof b, format, &t);
    return b;
}

} // namespace vernal
