// What a cell of a log may hold: numbers, words, units.
#pragma once

#include "core/job/trace.h"

#include <optional>
#include <string>
#include <string_view>

namespace vernal {

// Without blanks at both ends.
std::string_view trimmed(std::string_view s);

// What a unit in a header makes of the cells: value × scale + offset.
struct CellUnit {
    const char* name;
    Quantity quantity; // temperature (°C), irradiance (W/m²) or a plain number
    double scale = 1, offset = 0;
    const char* kept = ""; // of plain numbers: the unit they are kept and written back in
    double inside(double cell) const { return cell * scale + offset; }
};
std::optional<CellUnit> cell_unit(std::string_view name); // none: not known

// Name, and the unit in square brackets or, if it is one, in round ones at the end.
struct CellHeader {
    std::string name, unit;
};
CellHeader header_parts(const std::string& text);

// Columns that the program reads under this name, and what they are; none: any other
// column, or an instrument's, which says by its unit.
std::optional<Quantity> signal_quantity(const std::string& column);

// Columns of words that a run writes beside its outputs and readings.
bool holds_words(const std::string& column);

// UTF-16 by its byte order mark; of others bytes that are no UTF-8 are Latin 1, as older loggers
// write their degree sign (`converted`). Lines that end in a carriage return alone end in a line feed.
std::string as_utf8(const std::string& text, bool& converted);

// Finite, nothing else in the cell; a plus sign is allowed.
std::optional<double> cell_number(std::string_view cell, bool decimal_comma);

// 1 or 0 of "on", "off", "true", "false".
std::optional<double> cell_switch(std::string_view cell);

// Notes what was tolerated: rows that repeat a time, empty cells, and the trace's gaps.
void note_lacks(Trace& trace, std::size_t duplicates, std::size_t empty);

} // namespace vernal
