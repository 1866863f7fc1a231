// CSV read row by row: RFC 4180, and what spreadsheets and loggers make of it.
#pragma once

#include "core/units/result.h"

#include <functional>
#include <string>
#include <string_view>
#include <vector>

namespace vernal {

// Thrown while a file is read; its readers turn it into a Result.
struct BadCsv {
    Error error; // file, line and column
};

// Tolerated: comma, semicolon or tab, told by the first line; byte order mark;
// CR LF or LF; quotes, also around line breaks; rows with nothing in them are passed over.
class CsvReader {
public:
    using Source = std::function<std::string_view()>;   // the next piece, valid until the next call; empty: the end
    CsvReader(std::string_view text, std::string file); // text: must outlive the reader
    CsvReader(Source more, std::string file);
    // By this separator in place of the one told by the first line; ' ': any run of blanks.
    CsvReader(Source more, std::string file, char separator);

    // Next row with something in it; false: there is none.
    bool next();
    std::size_t line() const { return row_line_; } // of the row, from 1
    const std::vector<std::string>& cells() const { return cells_; }
    char separator() const { return separator_; }

    // column: index of the cell.
    [[noreturn]] void fail(std::size_t line, std::size_t column, std::string what, std::string remedy = "") const;

private:
    bool more();
    void begin();
    void read_row();
    std::size_t read_quoted(std::string& cell);
    std::string& fresh_cell();

    Source source_;
    std::string file_, head_; // head: pieces joined until the first line was whole
    std::string_view piece_;
    std::size_t at_ = 0, line_ = 0, row_line_ = 0, count_ = 0;
    char separator_ = ',';
    bool begun_ = false, stated_ = false; // stated: the separator is not guessed
    std::vector<std::string> cells_;      // keeps its strings from row to row
    std::vector<std::string> spare_;
};

} // namespace vernal
