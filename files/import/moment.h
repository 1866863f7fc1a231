// Dates and times as loggers and spreadsheets write them.
#pragma once

#include <array>
#include <chrono>
#include <optional>
#include <string_view>

namespace vernal {

// How a cell says when. The first three are dates, with or without a time of day behind;
// a year of four digits at the front is taken for one whatever the order is. The rest are
// plain numbers.
enum class TimeForm : std::uint8_t { year_first,
    day_first,
    month_first,
    seconds, // since the log began
    minutes,
    hours,
    serial_days, // of a spreadsheet: since 1899-12-30
    unix_s,      // since 1970-01-01 UTC
    unix_ms };
inline constexpr std::array time_form_keys{"year_first", "day_first", "month_first", "seconds", "minutes", "hours", "serial_days", "unix_s", "unix_ms"};
inline bool is_date(TimeForm f) { return f <= TimeForm::month_first; }
inline bool is_unix(TimeForm f) { return f == TimeForm::unix_s || f == TimeForm::unix_ms; }

struct Moment {
    std::optional<std::chrono::sys_days> day{};  // 1900…2999; none: the cell has none
    std::optional<double> second{};              // of the day, 0…86400; none: the cell has none
    std::optional<std::chrono::minutes> ahead{}; // of UTC, where it is said
};

// "7.5.2026 08:00", "05/07/26 8:00:30 PM", "7-May-2026", "20260507 080000", "2026-05-07T08:00Z",
// "08:00". Separators . / - and blanks; years of two digits are of 2000 to 2099.
// none: it is neither a date of this order nor a time of day.
std::optional<Moment> read_moment(std::string_view cell, TimeForm order);

} // namespace vernal
