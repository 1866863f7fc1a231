#include "target.h"

#include "files/job_json.h"

using namespace vernal;

int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size)
{
    const auto job = read_job_json(fuzz::text_of(data, size), "fuzzed");
    if (!job)
        return 0;
    const auto again = read_job_json(write_job_json(*job), "written");
    fuzz::must(static_cast<bool>(again), "a job that was accepted is refused when written");
    fuzz::must(*again == *job, "a job that was accepted reads back otherwise");
    return 0;
}
