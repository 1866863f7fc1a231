// Any bytes as a log from elsewhere: what is taken is written so that it reads back equal.
#include "target.h"

#include "files/csv_trace.h"
#include "files/import/log_reader.h"
#include "files/log_cells.h"

using namespace vernal;

int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size)
{
    static const std::vector<LogTarget> targets = log_targets(new_job("glycol-coil").variants.front());
    bool converted = false;
    const std::string text = as_utf8(fuzz::text_of(data, size), converted);
    const LogLayout layout = guess_layout(text, targets, size % 2 == 0);
    const auto again = read_layout(write_layout(layout));
    fuzz::must(static_cast<bool>(again), "a layout that was guessed is refused when written");
    const auto log = read_log(text, "fuzzed", layout, targets, Place{});
    if (!log)
        return 0;
    const auto back = read_trace_csv(write_trace_csv(log->trace), "written");
    fuzz::must(static_cast<bool>(back), "a log that was taken in is refused when written");
    fuzz::must(back->time_s == log->trace.time_s && back->start == log->trace.start, "a log that was taken in has other times when written");
    fuzz::must(back->columns.size() == log->trace.columns.size(), "a log that was taken in loses columns");
    return 0;
}
