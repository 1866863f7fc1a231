// A recorded or written log: rows of readings over time.
#pragma once

#include "core/units/quantity.h"

#include <limits>
#include <optional>
#include <string>
#include <vector>

namespace vernal {

// In place of a value: the log says that the reading was invalid, which no replay holds over.
// As text: the word.
inline constexpr double stated_invalid = std::numeric_limits<double>::infinity();
inline constexpr const char* invalid_cell = "invalid";

struct TraceColumn {
    std::string name; // as in the header, without the unit: "collector"
    Quantity quantity = Quantity::number;
    std::vector<double> values; // SI, °C; NaN where the cell is empty, stated_invalid
    std::string unit{};         // of a plain number, as written: "bar"; else empty
    bool operator==(const TraceColumn&) const = default;
};

// The usual distance of two rows, seconds: the median, of an even number of distances
// the larger of the middle two. 0 with fewer than two rows.
double usual_spacing_s(const std::vector<double>& time_s);

// Times strictly rise. Columns are as long as time_s.
struct Trace {
    std::vector<double> time_s; // seconds after `start`
    std::string start;          // ISO 8601 local time of time 0, or empty when the file gives seconds
    std::vector<TraceColumn> columns;
    std::vector<std::string> notes; // what was tolerated while reading: duplicates, gaps, empty cells
    const TraceColumn* find(const std::string& name) const
    {
        for (const TraceColumn& c : columns)
            if (c.name == name)
                return &c;
        return nullptr;
    }
    double interval_s() const { return usual_spacing_s(time_s); }
    bool has_date() const { return start.size() >= 19; }
    // Time of day of time 0, seconds; 0 without a date.
    double clock_s() const;
    std::int32_t date() const; // of time 0, days after 1970-01-01; the least of all: no date
};

} // namespace vernal
