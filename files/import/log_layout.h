// A log from elsewhere: how it is laid out, and what its columns are. Texts are UTF-8
// (as_utf8() makes it of older ones).
#pragma once

#include "core/job/job.h"
#include "moment.h"

namespace vernal {

// What a column of a log can be taken for.
struct LogTarget {
    enum class Kind : std::uint8_t { temperature,
        irradiance,
        flow,
        pressure,
        volt,
        on_off };
    std::string name;  // of the trace's column: "collector", "P1"
    std::string label; // "Collector", "Pump P1"
    Kind kind = Kind::temperature;
    std::optional<ProbeCurve> curve;   // of the probe there, for columns in ohms
    std::vector<std::string> known_by; // other names of it in this job
};
// The variant's probes and outputs, then the other places, the air, the sun and the supply.
std::vector<LogTarget> log_targets(const Variant& v);
// Units that a column of this kind may be in; the first is taken where none is said.
const std::vector<const char*>& units_for(LogTarget::Kind kind);

// What the clock of a log shows.
enum class LogClock : std::uint8_t { wall, // of the place, put forward and back as the cells themselves say
    standard,                              // the place's, the same all year
    utc };
inline constexpr std::array log_clock_keys{"wall", "standard", "utc"};

enum class LogRole : std::uint8_t { left_out,
    moment, // date and time, or all of the time there is
    date,
    clock,
    value };
inline constexpr std::array log_role_keys{"left_out", "time", "date", "clock", "value"};

struct LogColumn {
    std::string header; // as the file has it; empty where it has none
    LogRole role = LogRole::left_out;
    std::string name; // value: of the trace's column
    std::string unit; // value: as units_for() names it, or any other for a column of its own
    bool operator==(const LogColumn&) const = default;
};

struct LogLayout {
    char delimiter = ','; // , ; | tab, or ' ' for any run of blanks
    bool decimal_comma = false;
    int header_line = 1; // from 1; 0: none
    int first_line = 2;  // of the readings
    TimeForm form = TimeForm::year_first;
    LogClock clock = LogClock::wall;
    std::vector<LogColumn> columns;
    std::vector<std::pair<std::string, double>> words; // what a cell of words says; NaN: no reading. Letters' size does not matter
    bool operator==(const LogLayout& o) const;
};

inline constexpr std::array log_delimiters{',', ';', '\t', '|', ' '};

// What the file's first thousand lines and its last ones make likely, and the order of dates
// by all of them. us: dates of which
// both orders would do have the month first.
LogLayout guess_layout(std::string_view text, const std::vector<LogTarget>& targets, bool us = false);

// The columns anew, after the delimiter or the header's line was changed.
void guess_columns(LogLayout& layout, std::string_view text, const std::vector<LogTarget>& targets, bool us = false);

// The file's first rows as cells, header first where there is one, at most `rows`.
std::vector<std::vector<std::string>> first_rows(std::string_view text, const LogLayout& layout, std::size_t rows);

// By which a layout is known again: the names in the header, or how many columns there are.
std::string layout_key(const LogLayout& layout);

// As JSON, and read back; the error says what is wrong with it.
std::string write_layout(const LogLayout& layout);
Result<LogLayout> read_layout(const std::string& json);

} // namespace vernal
