// How a log is written: what divides its cells, where its names and its readings stand.
#include "files/log_cells.h"
#include "log_rows.h"

#include <algorithm>

namespace vernal {
namespace {

// Share of the lines that have the most frequent number of cells, where that is more than one.
double evenness(const std::vector<std::string_view>& lines, char delimiter, std::size_t& cells)
{
    std::vector<std::size_t> count;
    std::size_t all = 0;
    for (const std::string_view line : lines)
        if (!trimmed(line).empty() && ++all <= 200) {
            const std::size_t n = cells_of(line, delimiter).size();
            count.resize(std::max(count.size(), n + 1));
            ++count[n];
        }
    if (count.size() < 3)
        return 0;
    cells = static_cast<std::size_t>(std::max_element(count.begin() + 2, count.end()) - count.begin());
    return static_cast<double>(count[cells]) / static_cast<double>(std::min<std::size_t>(all, 200));
}

// Cells that parse are worth more than cells that are merely even: "12,5;13,2" divided at commas is even too.
void guess_delimiter(LogLayout& layout, const std::vector<std::string_view>& lines)
{
    double best = 0;
    for (const char d : log_delimiters) {
        std::size_t cells = 0;
        double score = evenness(lines, d, cells);
        std::size_t sound = 0, all = 0;
        for (std::size_t i = lines.size() / 2; i < std::min(lines.size(), lines.size() / 2 + 20); ++i)
            for (const std::string& cell : cells_of(lines[i], d)) {
                ++all;
                sound += is_number_cell(cell, d != ',') || trimmed(cell).empty() || read_moment(trimmed(cell), TimeForm::day_first) || read_moment(trimmed(cell), TimeForm::month_first) || usual_word(cell);
            }
        score *= all > 0 ? 0.2 + static_cast<double>(sound) / static_cast<double>(all) : 0;
        if (d == ' ')
            score *= 0.7; // dates and words hold blanks
        if (score > best + 1e-9) {
            best = score;
            layout.delimiter = d;
        }
    }
}

void guess_decimal(LogLayout& layout, const std::vector<std::string_view>& lines)
{
    layout.decimal_comma = false;
    std::size_t commas = 0, points = 0;
    for (const std::string_view line : lines)
        for (const std::string& cell : cells_of(line, layout.delimiter)) {
            const bool comma = cell.find(',') != std::string::npos;
            const bool point = cell.find('.') != std::string::npos;
            commas += comma && (is_number_cell(cell, true) && (!point || cell.rfind(',') > cell.rfind('.')));
            points += point && (is_number_cell(cell, false) && (!comma || cell.rfind('.') > cell.rfind(',')));
        }
    layout.decimal_comma = commas > points;
}

// The last line before readings begin that has as many cells and no number in them.
void guess_header(LogLayout& layout, const std::vector<std::string_view>& lines)
{
    std::size_t cells = 1;
    evenness(lines, layout.delimiter, cells);
    layout.header_line = 0;
    layout.first_line = 1;
    for (std::size_t i = 0; i < lines.size(); ++i) {
        if (trimmed(lines[i]).empty())
            continue;
        const auto row = cells_of(lines[i], layout.delimiter);
        const auto numbers = static_cast<std::size_t>(std::count_if(row.begin(), row.end(), [&](const std::string& c) { return is_number_cell(c, layout.decimal_comma) || read_moment(trimmed(c), TimeForm::day_first) || read_moment(trimmed(c), TimeForm::month_first); }));
        if (row.size() + 1 < cells)
            continue;
        if (numbers > 0 && row.size() <= cells + 1) {
            layout.first_line = static_cast<int>(i) + 1;
            return;
        }
        if (layout.header_line == 0 || !is_row_of_units(row))
            layout.header_line = static_cast<int>(i) + 1;
    }
    layout.first_line = layout.header_line + 1;
}

} // namespace

LogLayout guess_layout(std::string_view text, const std::vector<LogTarget>& targets, bool us)
{
    LogLayout layout;
    const Lines lines = lines_of(text);
    guess_delimiter(layout, lines.head);
    guess_decimal(layout, lines.head);
    guess_header(layout, lines.head);
    guess_columns(layout, text, targets, us);
    return layout;
}

std::vector<std::vector<std::string>> first_rows(std::string_view text, const LogLayout& layout, std::size_t rows)
{
    const Lines lines = lines_of(text);
    Rows out;
    const auto put = [&](int line) {
        if (line >= 1 && static_cast<std::size_t>(line) <= lines.head.size() && out.size() < rows)
            out.push_back(cells_of(lines.head[static_cast<std::size_t>(line) - 1], layout.delimiter));
    };
    put(layout.header_line);
    for (int line = std::max(1, layout.first_line); static_cast<std::size_t>(line) <= lines.head.size() && out.size() < rows; ++line)
        if (!trimmed(lines.head[static_cast<std::size_t>(line) - 1]).empty())
            put(line);
    return out;
}

std::string layout_key(const LogLayout& layout)
{
    std::string out;
    bool named = false;
    for (const LogColumn& c : layout.columns) {
        out += c.header + '\n';
        named = named || !c.header.empty();
    }
    return named ? out : std::to_string(layout.columns.size()) + " columns";
}

} // namespace vernal
