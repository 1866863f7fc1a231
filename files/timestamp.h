// Dates and times of logs (ISO 8601, extended format).
#pragma once

#include <chrono>
#include <optional>
#include <string>
#include <string_view>

namespace vernal {

struct Timestamp {
    std::chrono::sys_days day{};
    int second = 0;                              // of the day, 0…86399
    double fraction = 0;                         // of a second, below 1
    std::optional<std::chrono::minutes> ahead{}; // of UTC, where it is said
};

// "2026-05-07T08:00:01.5", "2026-05-07 08:00", also with Z or ±hh:mm behind. Dates
// that exist, of the years 1900 to 2999; 24:00 is the next day's midnight. Nothing
// else before or behind.
std::optional<Timestamp> read_timestamp(std::string_view text);

// Without what is behind the seconds' fraction; reads back as the same.
std::string timestamp_text(const Timestamp& t);

// `seconds` later; exact for what read_timestamp and elapsed_s give.
Timestamp later(const Timestamp& t, double seconds);

// Seconds from one to the other, both ahead of UTC by something or neither.
double elapsed_s(const Timestamp& from, const Timestamp& to);

} // namespace vernal
