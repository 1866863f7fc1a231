#include "target.h"

#include "files/csv_trace.h"

using namespace vernal;

int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size)
{
    const auto log = read_trace_csv(fuzz::text_of(data, size), "fuzzed");
    if (!log)
        return 0;
    const std::string written = write_trace_csv(*log);
    const auto again = read_trace_csv(written, "written");
    fuzz::must(static_cast<bool>(again), "a log that was accepted is refused when written");
    fuzz::must(again->time_s.size() == log->time_s.size(), "a log that was accepted loses rows");
    fuzz::must(write_trace_csv(*again) == written, "a log that was accepted reads back otherwise");
    return 0;
}
