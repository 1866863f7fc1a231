#include "target.h"

#include "files/job_file.h"

using namespace vernal;

int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size)
{
    const auto opened = unpack_job(fuzz::text_of(data, size), "fuzzed");
    if (!opened)
        return 0;
    const auto bytes = pack_job(opened->job);
    fuzz::must(static_cast<bool>(bytes), "a container that was accepted cannot be written");
    const auto again = unpack_job(*bytes, "written");
    fuzz::must(static_cast<bool>(again), "a container that was accepted is refused when written");
    fuzz::must(write_job_json(again->job) == write_job_json(opened->job), "a container that was accepted reads back otherwise");
    return 0;
}
