#include "any_log.h"

#include "csv_trace.h"
#include "log_cells.h"

namespace vernal {

Result<Trace> read_any_log(const std::string& content, const std::string& file, const Variant& v, const Place& place, const LogLayout* layout)
{
    if (!layout)
        if (auto own = read_trace_csv(content, file))
            return own;
    bool converted = false;
    const std::string text = as_utf8(content, converted);
    const auto targets = log_targets(v);
    const LogLayout shape = layout ? *layout : guess_layout(text, targets);
    auto log = read_log(text, file, shape, targets, place);
    if (!log)
        return Error{log.error().what, file, log.error().remedy};
    for (std::size_t i = 0; i < log->troubles.size() && i < 5; ++i)
        log->trace.notes.push_back("line " + std::to_string(log->troubles[i].line) + ": " + log->troubles[i].what);
    if (const std::size_t more = log->troubles.size() + log->more_troubles; more > 5)
        log->trace.notes.push_back(std::to_string(more - 5) + " more places could not be read");
    return std::move(log->trace);
}

} // namespace vernal
