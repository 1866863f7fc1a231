// What can be done to a log: each makes a new one, the old is kept.
#pragma once

#include "trace.h"

#include "core/units/result.h"

namespace vernal {

// Rows from the one instant to the other, both with them, seconds of the trace. Error:
// there are none.
Result<Trace> cut(const Trace& trace, double from_s, double to_s);

// Without the rows between; the gap stays. Error: no row is left.
Result<Trace> cut_out(const Trace& trace, double from_s, double to_s);

// One after the other by their dates, columns by their names; where two overlap, the later
// one holds. Logs without dates follow each other as given. Error: a column of two units,
// or some with dates and some without.
Result<Trace> join(const std::vector<Trace>& traces);

// All rows later by so much, the date with them. Without a date no row before 0 is left.
Trace shifted(const Trace& trace, double by_s);

// Of these columns within from…to: value × factor + offset, in their own units. A column
// that is not there is passed over.
struct RowsOf {
    double from_s = 0, to_s = 0;
};
Trace scaled(const Trace& trace, const std::vector<std::string>& columns, RowsOf on, double factor, double offset);

// A row each `every_s`, from the first row's instant on: means of the rows within half of it
// on both sides, straight lines where there is none and the gap is shorter than 3.5 usual
// spacings; switches (0 and 1) by the last row. every_s > 0. Error: more than fifty million rows.
Result<Trace> resampled(const Trace& trace, double every_s);

// Of these columns within from…to: means over half of `over_s` on both sides; empty cells stay.
Trace smoothed(const Trace& trace, const std::vector<std::string>& columns, RowsOf on, double over_s);

} // namespace vernal
