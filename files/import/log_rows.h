// Rows of a delimited text, by a layout; shared by the guess and the reader.
#pragma once

#include "files/csv/reader.h"
#include "log_layout.h"

namespace vernal {

// The text in pieces, so that one knows how far the reader has come; cut after lines.
// done: bytes given out.
CsvReader::Source in_pieces(std::string_view text, std::size_t& done);

// Letters and digits in lower case, all else as single blanks.
std::string plain_words(std::string_view text);

// What it says in place of a number: 1, 0 or NaN for no reading; none: not known.
std::optional<double> usual_word(std::string_view cell);

} // namespace vernal
