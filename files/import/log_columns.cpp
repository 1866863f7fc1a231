// What the columns of a log hold, and which is which.
#include "date_order.h"
#include "files/log_cells.h"
#include "log_rows.h"

#include <algorithm>
#include <cctype>
#include <cmath>
#include <set>

namespace vernal {
namespace {

struct Kinds {
    std::size_t filled = 0, numbers = 0, moments = 0, dates = 0, clocks = 0, rises = 0;
    double least = INFINITY, most = -INFINITY;
    bool mostly(std::size_t n) const { return filled > 0 && n * 10 >= filled * 9; }
};

Kinds look(const Rows& rows, std::size_t column, const LogLayout& layout)
{
    Kinds k;
    double last = -INFINITY;
    for (const auto& row : rows) {
        const std::string_view cell = column < row.size() ? trimmed(row[column]) : std::string_view();
        if (cell.empty())
            continue;
        ++k.filled;
        if (const auto number = log_number(cell, layout.decimal_comma)) {
            const double v = number->value;
            ++k.numbers;
            k.least = std::min(k.least, v);
            k.most = std::max(k.most, v);
            k.rises += v > last;
            last = v;
            if (cell.size() != 8 && cell.find_first_of(".,") != std::string_view::npos)
                continue;
        }
        auto m = read_moment(cell, TimeForm::day_first);
        if (!m)
            m = read_moment(cell, TimeForm::month_first);
        if (m) {
            k.moments += m->day && m->second;
            k.dates += m->day && !m->second;
            k.clocks += !m->day;
        }
    }
    return k;
}

TimeForm form_of_numbers(const Kinds& k, const std::string& header)
{
    if (k.least > 1e12)
        return TimeForm::unix_ms;
    if (k.least > 5e8)
        return TimeForm::unix_s;
    if (k.least > 20000 && k.most < 80000 && k.most - k.least < 20000 && header.find("second") == std::string::npos)
        return TimeForm::serial_days;
    const std::string words = ' ' + header + ' ';
    if (words.find(" min") != std::string::npos)
        return TimeForm::minutes;
    return words.find(" h ") != std::string::npos || words.find(" hour") != std::string::npos ? TimeForm::hours : TimeForm::seconds;
}

bool says_time(const std::string& words)
{
    const std::string padded = ' ' + words + ' ';
    for (const char* word : {" time", " date", " datetime", " timestamp", " clock", " seconds ", " minutes ", " hours ", " elapsed"})
        if (padded.find(word) != std::string::npos)
            return true;
    return false;
}

// --- which column is which ----------------------------------------------------

struct Hint {
    const char* name;
    std::vector<const char*> all; // words that must be there, alternatives by |
};
const std::vector<Hint>& hints()
{
    static const std::vector<Hint> list{
        {"collector_2", {"collector|array|roof|panel", "2|west|second"}},
        {"tank_2_bottom", {"tank|store|storage", "2|second", "bottom|lower|low"}},
        {"tank_2_top", {"tank|store|storage", "2|second", "top|upper|high"}},
        {"irradiance_plane", {"irradiance|radiation|sun|solar|pyranometer", "plane|tilted|array|collector"}},
        {"tank_top", {"tank|store|storage|cylinder", "top|upper|hot|high"}},
        {"tank_middle", {"tank|store|storage|cylinder", "middle|mid"}},
        {"circulation_return", {"circulation|recirculation"}},
        {"pool_water", {"pool"}},
        {"slab_return", {"slab|floor"}},
        {"room_air", {"room|indoor|inside"}},
        {"flow_meter", {"flow|flowrate", "meter|rate|flow|flowrate|l|lpm|gpm"}},
        {"pressure_sensor", {"pressure|gauge"}},
        {"irradiance", {"irradiance|radiation|pyranometer|ghi|sun"}},
        {"return_pipe", {"return"}},
        {"supply_pipe", {"feed", "pipe"}},
        {"supply", {"battery|supply|voltage|volts|vbat|vcc"}},
        {"collector", {"collector|roof|array|absorber|manifold|panel"}},
        {"tank_bottom", {"tank|store|storage|cylinder"}},
        {"air", {"air|outdoor|outside|ambient"}}};
    return list;
}

bool has_word(const std::string& padded, std::string_view alternatives)
{
    while (!alternatives.empty()) {
        const std::size_t bar = std::min(alternatives.find('|'), alternatives.size());
        if (padded.find(' ' + std::string(alternatives.substr(0, bar)) + ' ') != std::string::npos)
            return true;
        alternatives.remove_prefix(std::min(bar + 1, alternatives.size()));
    }
    return false;
}

const LogTarget* target_of(const std::string& header, const std::vector<LogTarget>& targets, const std::set<std::string>& taken)
{
    const std::string words = plain_words(header);
    if (words.empty())
        return nullptr;
    const auto free = [&](const LogTarget& t) { return taken.count(t.name) == 0; };
    for (const LogTarget& t : targets)
        if (free(t) && (plain_words(t.name) == words || plain_words(t.label) == words))
            return &t;
    for (const LogTarget& t : targets)
        if (free(t) && std::any_of(t.known_by.begin(), t.known_by.end(), [&](const std::string& k) { return !k.empty() && plain_words(k) == words; }))
            return &t;
    const std::string padded = ' ' + words + ' ';
    for (const Hint& h : hints())
        if (std::all_of(h.all.begin(), h.all.end(), [&](const char* w) { return has_word(padded, w); }))
            for (const LogTarget& t : targets)
                if (free(t) && t.name == h.name)
                    return &t;
    if (has_word(padded, "pump|relay|output|valve|heater|blower|fan"))
        for (const LogTarget& t : targets)
            if (free(t) && t.kind == LogTarget::Kind::on_off)
                return &t;
    return nullptr;
}

// Of a header such as "tank_f", "TankDegC" or "flow lpm", where no brackets say it.
std::string unit_in_words(const std::string& words, LogTarget::Kind kind)
{
    const std::string padded = ' ' + words + ' ';
    const auto has = [&](const char* alternatives) { return has_word(padded, alternatives); };
    switch (kind) {
    case LogTarget::Kind::temperature: return has("f|degf|fahrenheit") ? "°F" : has("ohm|ohms|resistance") ? "Ω"
                                                                                                           : "";
    case LogTarget::Kind::flow: return has("gpm") ? "gal/min" : has("lph") ? "L/h"
                                                                           : "";
    case LogTarget::Kind::pressure: return has("psi") ? "psi" : has("kpa") ? "kPa"
                                                            : has("mbar")  ? "mbar"
                                                                           : "";
    case LogTarget::Kind::volt: return has("mv") ? "mV" : "";
    case LogTarget::Kind::irradiance:
    case LogTarget::Kind::on_off: break;
    }
    return "";
}

std::string unit_of(const std::string& header, const CellHeader& parts, const LogTarget& target)
{
    const auto unit = parts.unit.empty() ? std::nullopt : cell_unit(parts.unit);
    const auto& offered = units_for(target.kind);
    if (unit)
        for (const char* u : offered)
            if (const auto same = cell_unit(u); same && same->quantity == unit->quantity && same->scale == unit->scale && same->offset == unit->offset && plain_words(same->kept) == plain_words(unit->kept))
                return u;
    if (!parts.unit.empty())
        for (const char* u : offered)
            if (plain_words(u) == plain_words(parts.unit) && !plain_words(u).empty())
                return u;
    if (const std::string said = unit_in_words(plain_words(header), target.kind); !said.empty())
        return said;
    return offered.front();
}

// The unit below a column's name, or behind its first number.
std::string unit_below(const Lines& lines, const Rows& rows, const LogLayout& layout, std::size_t column)
{
    const auto below = static_cast<std::size_t>(layout.header_line); // the line after it, from 0
    if (layout.header_line > 0 && layout.first_line > layout.header_line + 1 && below < lines.head.size())
        if (const auto cells = cells_of(lines.head[below], layout.delimiter); is_row_of_units(cells) && column < cells.size()) {
            std::string_view unit = trimmed(cells[column]);
            if (unit.size() > 2 && (unit.front() == '[' || unit.front() == '('))
                unit = trimmed(unit.substr(1, unit.size() - 2));
            if (cell_unit(unit))
                return std::string(unit);
        }
    for (const auto& row : rows)
        if (column < row.size())
            if (const auto number = log_number(row[column], layout.decimal_comma))
                return std::string(number->unit);
    return "";
}

void choose_time(LogLayout& layout, std::string_view text, const std::vector<Kinds>& kinds, bool us)
{
    const auto role = [&](std::size_t i, LogRole r) { layout.columns[i].role = r; };
    const auto first = [&](auto test) {
        for (std::size_t i = 0; i < kinds.size(); ++i)
            if (test(i))
                return i;
        return kinds.size();
    };
    if (const auto i = first([&](std::size_t c) { return kinds[c].mostly(kinds[c].moments); }); i < kinds.size()) {
        role(i, LogRole::moment);
        layout.form = order_of_dates(text, layout, i, us);
        return;
    }
    const auto date = first([&](std::size_t c) { return kinds[c].mostly(kinds[c].dates); }), clock = first([&](std::size_t c) { return kinds[c].mostly(kinds[c].clocks); });
    if (date < kinds.size()) {
        role(date, clock < kinds.size() ? LogRole::date : LogRole::moment);
        layout.form = order_of_dates(text, layout, date, us);
    }
    if (clock < kinds.size())
        role(clock, date < kinds.size() ? LogRole::clock : LogRole::moment);
    if (date < kinds.size() || clock < kinds.size())
        return;
    const auto rises = [&](std::size_t c) { return kinds[c].filled > 0 && kinds[c].mostly(kinds[c].numbers) && kinds[c].rises * 10 >= kinds[c].filled * 9; };
    auto i = first([&](std::size_t c) { return rises(c) && says_time(plain_words(layout.columns[c].header)); });
    if (i == kinds.size())
        i = first([&](std::size_t c) { return says_time(plain_words(layout.columns[c].header)) && kinds[c].mostly(kinds[c].numbers); });
    if (i == kinds.size() && !kinds.empty() && rises(0) && kinds[0].filled > 1)
        i = 0;
    if (i == kinds.size())
        return;
    role(i, LogRole::moment);
    layout.form = form_of_numbers(kinds[i], plain_words(layout.columns[i].header));
}

void collect_words(LogLayout& layout, const Rows& rows)
{
    layout.words.clear();
    for (const auto& row : rows)
        for (std::size_t i = 0; i < std::min(row.size(), layout.columns.size()); ++i) {
            const std::string cell(trimmed(row[i]));
            if (layout.columns[i].role != LogRole::value || cell.empty() || cell.size() > 40 || is_number_cell(cell, layout.decimal_comma) || layout.words.size() >= 24)
                continue;
            const bool has_digit = std::any_of(cell.begin(), cell.end(), [](unsigned char c) { return std::isdigit(c) != 0; });
            if (has_digit && !usual_word(cell)) // a number that is spoilt
                continue;
            const bool known = std::any_of(layout.words.begin(), layout.words.end(), [&](const auto& w) { return w.first == cell; });
            if (!known)
                layout.words.emplace_back(cell, usual_word(cell).value_or(NAN));
        }
}

} // namespace

void guess_columns(LogLayout& layout, std::string_view text, const std::vector<LogTarget>& targets, bool us)
{
    const Lines lines = lines_of(text);
    const Rows rows = rows_from(lines, layout);
    layout.columns.clear();
    if (layout.header_line > 0 && static_cast<std::size_t>(layout.header_line) <= lines.head.size())
        for (const std::string& cell : cells_of(lines.head[static_cast<std::size_t>(layout.header_line) - 1], layout.delimiter))
            layout.columns.push_back({std::string(trimmed(cell)), LogRole::left_out, "", ""});
    std::size_t most = 0;
    for (const auto& row : rows)
        most = std::max(most, row.size());
    while (layout.columns.size() < std::min<std::size_t>(most, 200))
        layout.columns.emplace_back();
    std::vector<Kinds> kinds;
    for (std::size_t i = 0; i < layout.columns.size(); ++i)
        kinds.push_back(look(rows, i, layout));
    choose_time(layout, text, kinds, us);
    std::set<std::string> taken;
    for (std::size_t i = 0; i < layout.columns.size(); ++i) {
        LogColumn& c = layout.columns[i];
        if (c.role != LogRole::left_out || kinds[i].filled == 0)
            continue;
        constexpr std::size_t of_a_switch = 3; // different words at most
        std::size_t words = 0, all = 0;
        std::set<std::string> different;
        for (const auto& row : rows)
            if (i < row.size() && !trimmed(row[i]).empty()) {
                ++all;
                if (is_number_cell(row[i], layout.decimal_comma) || usual_word(row[i]))
                    continue;
                ++words;
                if (different.size() <= of_a_switch)
                    different.insert(plain_words(row[i]));
            }
        CellHeader parts = header_parts(c.header);
        if (parts.unit.empty())
            parts.unit = unit_below(lines, rows, layout, i);
        const LogTarget* t = target_of(parts.name, targets, taken);
        const bool says = words * 2 > all; // sentences, names of modes
        if (says && (different.size() > of_a_switch || !t || t->kind != LogTarget::Kind::on_off))
            continue;
        c.role = LogRole::value;
        if (t) {
            c.name = t->name;
            c.unit = unit_of(c.header, parts, *t);
            taken.insert(t->name);
        } else {
            c.name = c.header.empty() ? "column " + std::to_string(i + 1) : parts.name;
            c.unit = cell_unit(parts.unit) ? parts.unit : "";
        }
    }
    collect_words(layout, rows);
}

} // namespace vernal
