#include "target.h"

#include "files/csv_trace.h"
#include "files/epw.h"

using namespace vernal;

int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size)
{
    const auto weather = read_epw(fuzz::text_of(data, size), "fuzzed");
    if (!weather)
        return 0;
    const auto again = read_trace_csv(write_trace_csv(weather->trace), "written");
    fuzz::must(static_cast<bool>(again), "weather that was accepted is refused as a log");
    fuzz::must(again->time_s == weather->trace.time_s, "weather that was accepted loses hours");
    return 0;
}
