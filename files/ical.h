// What is due, for a calendar: RFC 5545.
#pragma once

#include "core/visit/due.h"

namespace vernal {

struct CalendarEntry {
    DueNow due;
    std::string job, customer, place; // of the job it is of
};

// One all-day event each. stamp: when it is written, "20260512T093000Z". The same item of the
// same job keeps its UID, so that an import moves it instead of doubling it.
std::string due_calendar(const std::vector<CalendarEntry>& entries, const std::string& stamp);

} // namespace vernal
