// What a first day should bring, kept beforehand, and what it brought.
#pragma once

#include "measured.h"

namespace vernal {

// The day of that date with this sky, run from a store at begin_c. Error: it cannot be run.
Result<FirstDay> foretell(const Job& job, const Variant& v, const std::string& date, Clouds sky, double air_min_c, double air_max_c, double begin_c);

struct FirstDayRow {
    std::string what, foretold, reached, says;
    Tone tone = Tone::plain;
};
// Against what was read on that date or the day after: the store's top, starts of the first output.
std::vector<FirstDayRow> first_day_rows(const Job& job, const Visit& visit, const Units& units);

} // namespace vernal
