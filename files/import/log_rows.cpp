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

namespace {

constexpr std::string_view hard_blank = "\u00a0", narrow_blank = "\u202f";

// Bytes of a blank or apostrophe between groups at `at`; 0: none.
std::size_t group_mark(std::string_view s, std::size_t at)
{
    for (const std::string_view mark : {std::string_view(" "), std::string_view("'"), hard_blank, narrow_blank})
        if (s.substr(at).starts_with(mark))
            return mark.size();
    return 0;
}

bool is_digit(std::string_view s, std::size_t at) { return at < s.size() && s[at] >= '0' && s[at] <= '9'; }
bool three_digits(std::string_view s, std::size_t at) { return is_digit(s, at) && is_digit(s, at + 1) && is_digit(s, at + 2) && !is_digit(s, at + 3); }

} // namespace

std::optional<LogNumber> log_number(std::string_view cell, bool decimal_comma)
{
    if (const auto v = cell_number(cell, decimal_comma))
        return LogNumber{*v, {}};
    const std::string_view s = trimmed(cell);
    const char point = decimal_comma ? ',' : '.', group = decimal_comma ? '.' : ',';
    std::string plain;
    std::size_t at = 0, digits = 0;
    if (at < s.size() && (s[at] == '-' || s[at] == '+'))
        plain += s[at++];
    while (is_digit(s, at)) {
        plain += s[at++];
        ++digits;
        const std::size_t mark = at < s.size() && s[at] == group ? 1 : group_mark(s, at);
        if (mark > 0 && digits <= 3 && three_digits(s, at + mark)) {
            at += mark;
            digits = 0;
        }
    }
    if (at < s.size() && s[at] == point && is_digit(s, at + 1)) {
        plain += '.';
        for (++at; is_digit(s, at); ++at)
            plain += s[at];
    }
    std::string_view rest = s.substr(at);
    while (rest.starts_with(hard_blank) || rest.starts_with(narrow_blank))
        rest.remove_prefix(group_mark(rest, 0));
    const std::string_view unit = trimmed(rest);
    const auto value = cell_number(plain, false);
    if (!value || (!unit.empty() && !cell_unit(unit)))
        return {};
    return LogNumber{*value, unit};
}

bool is_number_cell(std::string_view cell, bool decimal_comma) { return log_number(cell, decimal_comma).has_value(); }

bool is_row_of_units(const std::vector<std::string>& cells)
{
    std::size_t units = 0;
    for (const std::string& cell : cells) {
        std::string_view s = trimmed(cell);
        if (s.size() > 2 && ((s.front() == '[' && s.back() == ']') || (s.front() == '(' && s.back() == ')')))
            s = trimmed(s.substr(1, s.size() - 2));
        const std::string words = plain_words(s);
        if (cell_unit(s))
            ++units;
        else if (!s.empty() && s != "-" && words != "time" && words != "date" && words != "date time" && words != "on off" && words != "hh mm ss")
            return false;
    }
    return units > 0;
}

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
    // English, German, French, Spanish, Portuguese, Italian, Dutch, Danish and Norwegian, Swedish, Polish, Finnish.
    for (const char* on : {"on", "true", "yes", "running", "run", "active", "ein", "an", "marche", "encendido", "encendida", "ligado", "ligada", "acceso", "accesa", "aan", "til", "på", "pÅ", "zał", "włączone", "päällä"})
        if (w == on)
            return 1.0;
    for (const char* off : {"off", "false", "no", "stopped", "stop", "idle", "rest", "resting", "inactive", "standby", "aus", "arrêt", "arrÊt", "arret", "apagado", "apagada", "desligado", "desligada", "spento", "spenta", "uit", "fra", "av", "wył", "wyłączone", "pois"})
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
