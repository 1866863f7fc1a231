#include "target.h"

#include "files/job_json.h"
#include "files/points_csv.h"

using namespace vernal;

// Points that are accepted are such as a job keeps.
int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size)
{
    static Job job = new_job("glycol-coil");
    const auto points = read_points(fuzz::text_of(data, size), "fuzzed");
    if (!points)
        return 0;
    job.variants[0].probes[0].points = *points;
    const auto again = read_job_json(write_job_json(job), "written");
    fuzz::must(static_cast<bool>(again), "points that were accepted are refused in a job");
    fuzz::must(again->variants[0].probes[0].points == *points, "points that were accepted read back otherwise");
    return 0;
}
