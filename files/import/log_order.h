// Rows of a log in the order of time.
#pragma once

#include "log_reader.h"

namespace vernal {

// More than a century, s: rows of one log lie no further apart.
inline constexpr double longest_log_s = 4e9;

// A row's time: of the clock that is written, s since 1970-01-01, or of the day.
struct RowTime {
    double s = 0;
    bool fixed = false; // the cell says how far it is ahead of UTC: `s` is UTC
};

// Those alike of lines that follow each other are one; of more than are kept the number.
class TroubleList {
public:
    void put(std::size_t line, std::size_t to_line, std::string what);
    std::vector<LogTrouble> take() { return std::move(list_); }
    std::size_t more() const { return more_; }

private:
    std::vector<LogTrouble> list_;
    std::size_t more_ = 0;
};

struct OrderedRows {
    std::vector<std::size_t> rows; // those that are kept
    std::vector<double> time_s;    // of each, rising, since `start`; without a date of the day
    std::string start;             // local time at the place, ISO 8601; empty without dates
    std::vector<std::string> notes;
    std::size_t duplicates = 0; // rows that repeat a time: the last holds
};
// What read_log() says of turned, repeated, missing and backward times. lines: of each row.
OrderedRows rows_in_order(const std::vector<RowTime>& times, const std::vector<std::uint32_t>& lines, bool dated, const LogLayout& layout, const Place& place, TroubleList& troubles);

} // namespace vernal
