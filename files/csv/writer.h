// CSV as RFC 4180 has it, for everything this program writes: comma, point,
// CRLF, quotes where a cell needs them. Rows go out as they come.
#pragma once

#include "core/units/exact_text.h"

#include <functional>
#include <initializer_list>
#include <string>
#include <string_view>

namespace vernal {

class CsvWriter {
public:
    using Sink = std::function<void(std::string_view)>;
    // The sink is given whole rows, some thousands of characters at a time, the last with finish().
    explicit CsvWriter(Sink sink) : sink_(std::move(sink)) {}

    CsvWriter& cell(std::string_view text);
    CsvWriter& number(double v); // the shortest text that reads back as the same number; empty where it is not finite
    void end_row();
    void row(std::initializer_list<std::string_view> cells);
    void finish();

private:
    void separate();
    Sink sink_;
    std::string text_;
    bool begun_ = false; // the row has a cell
};

} // namespace vernal
