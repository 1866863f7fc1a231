// Dates and moments of records as text that sorts: "2026-05-12", "2026-05-12T09:30", local.
#pragma once

#include <chrono>
#include <optional>
#include <string>
#include <string_view>

namespace vernal {

using Day1970 = std::chrono::sys_days;

// A date of the years 1900 to 2999 that exists, alone or with "Thh:mm" behind it. None: it is not one.
std::optional<Day1970> date_of(std::string_view text);
bool is_date(std::string_view text);   // without a time
bool is_moment(std::string_view text); // with one

std::string date_text(Day1970 day);              // "2026-05-12"
std::string date_words(std::string_view text);   // "12 May 2026" of a date or moment; what is neither, as it is
std::string moment_words(std::string_view text); // "12 May 2026, 09:30"

// The same day of a later month; the month's last day where it has no such day. months may be negative.
Day1970 months_later(Day1970 day, int months);

inline constexpr double days_a_year = 365.25;

} // namespace vernal
