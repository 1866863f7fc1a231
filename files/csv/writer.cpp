#include "writer.h"

namespace vernal {
namespace {

constexpr std::size_t passed_on = 1 << 16; // characters

} // namespace

void CsvWriter::separate()
{
    if (begun_)
        text_ += ',';
    begun_ = true;
}

CsvWriter& CsvWriter::cell(std::string_view text)
{
    separate();
    if (text.find_first_of(",;\t\"\r\n") == std::string_view::npos) {
        text_ += text;
        return *this;
    }
    text_ += '"';
    for (char c : text) {
        if (c == '"')
            text_ += '"';
        text_ += c;
    }
    text_ += '"';
    return *this;
}

CsvWriter& CsvWriter::number(double v)
{
    separate();
    text_ += exact_text(v);
    return *this;
}

void CsvWriter::end_row()
{
    text_ += "\r\n";
    begun_ = false;
    if (text_.size() >= passed_on)
        finish();
}

void CsvWriter::row(std::initializer_list<std::string_view> cells)
{
    for (std::string_view c : cells)
        cell(c);
    end_row();
}

void CsvWriter::finish()
{
    sink_(text_);
    text_.clear();
}

} // namespace vernal
