// Rows of a delimited text, by a layout; shared by the guess and the reader.
#pragma once

#include "files/csv/reader.h"
#include "log_layout.h"

namespace vernal {

// The text in pieces, so that one knows how far the reader has come; cut after lines.
// done: bytes given out.
CsvReader::Source in_pieces(std::string_view text, std::size_t& done);

using Rows = std::vector<std::vector<std::string>>;

// The first thousand lines of a text and its last ones, blank ones with them.
struct Lines {
    std::vector<std::string_view> head, tail;
};
Lines lines_of(std::string_view text);
std::vector<std::string> cells_of(std::string_view line, char delimiter);
Rows rows_from(const Lines& lines, const LogLayout& layout); // of readings
// A number as people write it: thousands in groups ("1,234.5", "1.234,5", "1 234", "1'234"), a
// unit of cell_unit() behind it ("23.5 °C", "100 %").
struct LogNumber {
    double value;
    std::string_view unit; // of the cell; empty: none
};
std::optional<LogNumber> log_number(std::string_view cell, bool decimal_comma);
bool is_number_cell(std::string_view cell, bool decimal_comma);
// At least one cell is a unit, and the others are empty or "time", as some loggers put below the names.
bool is_row_of_units(const std::vector<std::string>& cells);

// Letters and digits in lower case, all else as single blanks.
std::string plain_words(std::string_view text);

// What it says in place of a number: 1, 0 or NaN for no reading; none: not known.
std::optional<double> usual_word(std::string_view cell);

} // namespace vernal
