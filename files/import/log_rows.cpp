#include "log_rows.h"

#include "files/log_cells.h"

#include <algorithm>
#include <cctype>
#include <cmath>

namespace vernal {
namespace {

constexpr std::size_t looked_at_lines = 1000, last_bytes = 20000;

} // namespace

Lines lines_of(std::string_view text)
{
    Lines out;
    std::size_t at = text.starts_with("\xef\xbb\xbf") ? 3 : 0;
    const auto next = [&](std::vector<std::string_view>& into) {
        const std::size_t end = std::min(text.find('\n', at), text.size());
        std::string_view line = text.substr(at, end - at);
        if (line.ends_with('\r'))
            line.remove_suffix(1);
        into.push_back(line);
        at = end + 1;
    };
    while (at < text.size() && out.head.size() < looked_at_lines)
        next(out.head);
    if (text.size() > last_bytes && at < text.size() - last_bytes)
        at = std::min(text.find('\n', text.size() - last_bytes), text.size() - 1) + 1;
    while (at < text.size())
        next(out.tail);
    return out;
}

std::vector<std::string> cells_of(std::string_view line, char delimiter)
{
    CsvReader reader([line, given = false]() mutable { return std::exchange(given, true) ? std::string_view() : line; }, "", delimiter);
    try {
        if (reader.next())
            return reader.cells();
    } catch (const BadCsv&) { // a quote that goes on in the next line
    }
    return {};
}

bool is_number_cell(std::string_view cell, bool decimal_comma) { return cell_number(cell, decimal_comma).has_value(); }

Rows rows_from(const Lines& lines, const LogLayout& layout)
{
    Rows out;
    for (std::size_t i = static_cast<std::size_t>(std::max(1, layout.first_line)) - 1; i < lines.head.size(); ++i)
        if (!trimmed(lines.head[i]).empty())
            out.push_back(cells_of(lines.head[i], layout.delimiter));
    for (const std::string_view line : lines.tail)
        if (!trimmed(line).empty())
            out.push_back(cells_of(line, layout.delimiter));
    return out;
}

std::string plain_words(std::string_view text)
{
    std::string out;
    bool lower = false;
    for (const char c : text) {
        const auto u = static_cast<unsigned char>(c);
        if (std::isalnum(u) == 0 && u < 0x80) {
            if (!out.empty() && out.back() != ' ')
                out += ' ';
            lower = false;
            continue;
        }
        if (lower && std::isupper(u) != 0) // TankBottom
            out += ' ';
        lower = std::islower(u) != 0;
        out += static_cast<char>(u < 0x80 ? std::tolower(u) : u);
    }
    while (out.ends_with(' '))
        out.pop_back();
    return out;
}

std::optional<double> usual_word(std::string_view cell)
{
    const std::string w = plain_words(cell);
    for (const char* on : {"on", "true", "yes", "running", "run", "active"})
        if (w == on)
            return 1.0;
    for (const char* off : {"off", "false", "no", "stopped", "stop", "idle", "rest", "resting", "inactive", "standby"})
        if (w == off)
            return 0.0;
    for (const char* none : {"nan", "na", "n a", "null", "none", "err", "error", "fault", "fail", "open", "open circuit", "short", "shorted", "ol", "over", "inf", "invalid", "missing"})
        if (w == none)
            return NAN;
    if (w.empty() && !trimmed(cell).empty()) // "---", "?"
        return NAN;
    return {};
}

CsvReader::Source in_pieces(std::string_view text, std::size_t& done)
{
    constexpr std::size_t piece = 1U << 18U;
    done = 0;
    return [text, &done] {
        const std::string_view out = text.substr(done, piece);
        done += out.size();
        return out;
    };
}

} // namespace vernal
