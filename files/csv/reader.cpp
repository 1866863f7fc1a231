#include "reader.h"

#include <utility>

namespace vernal {

CsvReader::CsvReader(std::string_view text, std::string file) : CsvReader([text, given = false]() mutable { return std::exchange(given, true) ? std::string_view() : text; }, std::move(file)) {}

CsvReader::CsvReader(Source more, std::string file) : source_(std::move(more)), file_(std::move(file)) {}

CsvReader::CsvReader(Source more, std::string file, char separator) : source_(std::move(more)), file_(std::move(file)), separator_(separator), stated_(true) {}

void CsvReader::fail(std::size_t line, std::size_t column, std::string what, std::string remedy) const
{
    throw BadCsv{{std::move(what), file_ + ", line " + std::to_string(line) + ", column " + std::to_string(column + 1), std::move(remedy)}};
}

bool CsvReader::more()
{
    if (at_ < piece_.size())
        return true;
    piece_ = source_();
    at_ = 0;
    return !piece_.empty();
}

namespace {

// Separators of the first line outside of quotes, counted piece by piece.
struct FirstLine {
    std::size_t commas = 0, semicolons = 0, tabs = 0;
    bool quoted = false;
    bool ends_in(std::string_view piece)
    {
        for (char c : piece) {
            quoted = quoted != (c == '"');
            if (quoted)
                continue;
            if (c == '\n')
                return true;
            commas += c == ',';
            semicolons += c == ';';
            tabs += c == '\t';
        }
        return false;
    }
};

} // namespace

// Takes off the byte order mark and guesses the separator, for which the first line must be there as a whole.
void CsvReader::begin()
{
    begun_ = true;
    piece_ = source_();
    FirstLine line;
    while (!stated_ && !piece_.empty() && !line.ends_in(piece_)) { // pieces without a whole line are joined
        head_ += piece_;
        piece_ = source_();
    }
    if (!head_.empty())
        piece_ = head_ += piece_;
    if (piece_.starts_with("\xef\xbb\xbf"))
        at_ = 3;
    if (stated_)
        return;
    if (line.semicolons > line.commas || line.tabs > line.commas)
        separator_ = line.tabs > line.semicolons ? '\t' : ';';
}

bool CsvReader::next()
{
    if (!begun_)
        begin();
    while (more()) {
        read_row();
        if (cells_.size() > 1 || !cells_.front().empty())
            return true;
    }
    return false;
}

std::string& CsvReader::fresh_cell()
{
    if (count_ == cells_.size()) {
        if (spare_.empty()) {
            cells_.emplace_back();
        } else {
            cells_.push_back(std::move(spare_.back()));
            spare_.pop_back();
        }
    }
    cells_[count_].clear();
    return cells_[count_++];
}

// Up to the closing quote; gives the lines it went over.
std::size_t CsvReader::read_quoted(std::string& cell)
{
    std::size_t lines = 0;
    for (; more(); ++at_) {
        const char c = piece_[at_];
        if (c != '"') {
            lines += c == '\n';
            cell += c;
            continue;
        }
        ++at_;
        if (!more() || piece_[at_] != '"')
            return lines;
        cell += '"';
    }
    fail(row_line_, count_ - 1, "a quoted cell is not closed", "Add the missing quote");
}

void CsvReader::read_row()
{
    row_line_ = ++line_;
    count_ = 0;
    std::string* cell = &fresh_cell();
    while (more()) {
        const char c = piece_[at_];
        if (c == '"' && cell->empty()) {
            ++at_;
            line_ += read_quoted(*cell);
            continue;
        }
        ++at_;
        if (c == '\n')
            break;
        if (c == separator_ && (separator_ != ' ' || !cell->empty()))
            cell = &fresh_cell();
        else if (c != '\r' && c != separator_)
            *cell += c;
    }
    if (separator_ == ' ' && count_ > 1 && cell->empty()) // blanks at the end
        --count_;
    while (cells_.size() > count_) {
        spare_.push_back(std::move(cells_.back()));
        cells_.pop_back();
    }
}

} // namespace vernal
