// Reads a log as its layout says.
#pragma once

#include "log_layout.h"

#include <functional>
#include <stop_token>

namespace vernal {

struct LogTrouble {
    std::size_t line = 0, to_line = 0; // of the file, from 1, the last with it
    std::string what;
};

// More than one row in a thousand is left out: that is said first, and asked about.
constexpr bool drops_many(std::size_t rows, std::size_t dropped) { return dropped * 1000 > rows; }

struct ImportedLog {
    Trace trace; // at least one row, unless it was stopped
    std::vector<LogTrouble> troubles;
    std::size_t more_troubles = 0;     // that are not listed
    std::size_t rows = 0, dropped = 0; // of the file below its header, and of these left out
    bool drops_many() const { return vernal::drops_many(rows, dropped); }
    bool stopped = false;
};
inline constexpr std::size_t most_troubles = 500;

struct LogWatch {
    std::function<void(double)> progress; // share read, 0…1; may be empty
    std::stop_token stop;
    std::size_t most_rows = 0; // for a look: no more are read; 0: all
};

// Rows with a time that cannot be read or that runs backwards are left out and listed,
// cells that are no reading are empty and listed; gaps stay gaps. Where more than one row in
// a thousand is left out, the trace's first note says so. A log whose newest row
// stands first is turned round. An hour that comes twice when clocks are put back goes on
// after the first; one that is missing when they are put forward is no gap where the
// place's zone says so. Error: no column says when, or no row is left.
Result<ImportedLog> read_log(std::string_view text, const std::string& file, const LogLayout& layout, const std::vector<LogTarget>& targets, const Place& place, const LogWatch& watch = {});

} // namespace vernal
