#include "any_log.h"

#include "csv_trace.h"
#include "import/log_rows.h"
#include "log_cells.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace vernal {
namespace {

// Seconds since 1970, or days of a spreadsheet: its rows would lie closer than any log's.
bool are_other_times(double first, std::optional<double> second)
{
    constexpr double unix_from = 1e8, serial_from = 20000, serial_to = 80000, closest_s = 0.05;
    return first >= unix_from || (first > serial_from && first < serial_to && second && std::fabs(*second - first) < closest_s);
}

} // namespace

bool is_own_log(std::string_view text)
{
    const std::vector<std::string_view> lines = lines_of(text.substr(0, std::min<std::size_t>(text.size(), 1U << 16U))).head;
    if (lines.size() < 2)
        return false;
    for (const char delimiter : {',', ';', '\t'}) {
        const auto header = cells_of(lines[0], delimiter);
        if (header.size() < 2 || trimmed(header[0]) != "time")
            continue;
        if (std::none_of(header.begin() + 1, header.end(), [](const std::string& cell) { return signal_quantity(header_parts(std::string(trimmed(cell))).name).has_value(); }))
            return false;
        std::array<std::optional<double>, 2> times;
        for (std::size_t i = 0; i < times.size() && i + 1 < lines.size(); ++i)
            if (const auto row = cells_of(lines[i + 1], delimiter); !row.empty())
                times[i] = cell_number(trimmed(row[0]), delimiter != ',');
        return !times[0] || !are_other_times(*times[0], times[1]);
    }
    return false;
}

Result<AnyLog> read_any_log(const std::string& content, const std::string& file, const Variant& v, const Place& place, const LogLayout* layout)
{
    bool converted = false;
    const std::string text = as_utf8(content, converted);
    std::optional<Error> of_own;
    if (!layout && is_own_log(text)) {
        if (auto own = read_trace_csv(content, file)) {
            const std::size_t rows = own->time_s.size();
            return AnyLog{std::move(*own), rows, 0};
        } else {
            of_own = own.error();
        }
    }
    const auto targets = log_targets(v);
    const LogLayout shape = layout ? *layout : guess_layout(text, targets);
    auto log = read_log(text, file, shape, targets, place);
    if (!log)
        return of_own ? *of_own : Error{log.error().what, file, log.error().remedy};
    for (std::size_t i = 0; i < log->troubles.size() && i < 5; ++i)
        log->trace.notes.push_back("line " + std::to_string(log->troubles[i].line) + ": " + log->troubles[i].what);
    if (const std::size_t more = log->troubles.size() + log->more_troubles; more > 5)
        log->trace.notes.push_back(std::to_string(more - 5) + " more places could not be read");
    return AnyLog{std::move(log->trace), log->rows, log->dropped};
}

} // namespace vernal
