#include "csv_trace.h"

#include "core/plant/loop.h"
#include "csv/reader.h"
#include "csv/writer.h"
#include "timestamp.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <optional>

namespace vernal {
namespace {

constexpr double longest_s = 4e9; // more than a century

std::string trimmed(const std::string& s)
{
    const std::size_t a = s.find_first_not_of(" \t"), b = s.find_last_not_of(" \t");
    return a == std::string::npos ? "" : s.substr(a, b - a + 1);
}

// What a unit in a header makes of the cells: value × scale + offset, in `kept`.
struct UnitOf {
    const char* name;
    Quantity quantity;
    double scale = 1, offset = 0;
    const char* kept = ""; // of plain numbers: written back with them
};
constexpr double rankine = 5.0 / 9;
constexpr UnitOf units[]{
    {"°C", Quantity::temperature}, {"C", Quantity::temperature}, {"degC", Quantity::temperature},
    {"°F", Quantity::temperature, rankine, -32 * rankine}, {"F", Quantity::temperature, rankine, -32 * rankine}, {"degF", Quantity::temperature, rankine, -32 * rankine},
    {"K", Quantity::temperature, 1, -273.15},
    {"W/m²", Quantity::irradiance}, {"W/m2", Quantity::irradiance}, {"W/m^2", Quantity::irradiance}, {"kW/m²", Quantity::irradiance, 1000}, {"kW/m2", Quantity::irradiance, 1000},
    {"V", Quantity::number, 1, 0, "V"}, {"mV", Quantity::number, 0.001, 0, "V"}};
// Kept as they are: nothing here reads such columns.
constexpr const char* plain_units[]{"%", "A", "mA", "W", "kW", "Wh", "kWh", "J", "kJ", "MJ", "bar", "mbar", "Pa", "kPa", "psi", "L", "l", "L/min", "l/min", "L/h", "l/h", "m3", "m³", "m3/h", "m³/h", "gal", "gpm", "gal/min", "m", "mm", "m/s", "s", "min", "h", "Hz", "rpm", "ohm", "Ω", "kΩ", "kohm"};

// Signals that the program reads, and what they are.
std::optional<Quantity> signal(const std::string& column)
{
    if (column == "air" || column == "temperature")
        return Quantity::temperature;
    if (const auto place = std::find(place_keys.begin(), place_keys.end(), column); place != place_keys.end())
        switch (reads_at(static_cast<ProbePlace>(place - place_keys.begin()))) {
        case Reads::temperature: return Quantity::temperature;
        case Reads::irradiance: return Quantity::irradiance;
        default: return {}; // by its unit, which the replay asks for
        }
    if (column == "irradiance" || column == "irradiance_plane")
        return Quantity::irradiance;
    if (column == "supply")
        return Quantity::number;
    return {};
}

struct Column {
    TraceColumn column;
    UnitOf unit{"", Quantity::number};
    bool passed_over = false; // words of a run's own CSV, or without a name and without content
};

// Columns of words that a run writes beside its outputs and readings.
bool holds_words(const std::string& column) { return column.ends_with("_decided_by") || column.ends_with("_rule") || column == "distrusted"; }

std::optional<UnitOf> unit_of(const std::string& name)
{
    for (const UnitOf& u : units)
        if (name == u.name)
            return u;
    for (const char* plain : plain_units)
        if (name == plain)
            return UnitOf{plain, Quantity::number, 1, 0, plain};
    if (name == "1")
        return UnitOf{"1", Quantity::number};
    return {};
}

// Name, and the unit in square brackets or, if it is one, in round ones at the end.
struct Header {
    std::string name, unit;
};
Header header_parts(const std::string& text)
{
    for (const auto& [open, close] : {std::pair{'[', ']'}, {'(', ')'}}) {
        const std::size_t at = text.rfind(open);
        if (at == std::string::npos || text.back() != close)
            continue;
        const std::string unit = trimmed(text.substr(at + 1, text.size() - at - 2));
        if (open == '[' || unit_of(unit))
            return {trimmed(text.substr(0, at)), unit};
    }
    return {text, ""};
}

// Bytes that are no UTF-8 are Latin 1, as older loggers write their degree sign.
std::string utf8(const std::string& text, bool& converted)
{
    const auto follows = [&](std::size_t i) { return i < text.size() && (static_cast<unsigned char>(text[i]) & 0xC0U) == 0x80; };
    for (std::size_t i = 0; i < text.size();) {
        const auto c = static_cast<unsigned char>(text[i]);
        const std::size_t more = c < 0x80 ? 0 : c >= 0xC2 && c < 0xE0 ? 1
                                            : c >= 0xE0 && c < 0xF0   ? 2
                                            : c >= 0xF0 && c < 0xF5   ? 3
                                                                      : 9;
        converted = more == 9;
        for (std::size_t k = 1; k <= more && !converted; ++k)
            converted = !follows(i + k);
        if (converted)
            break;
        i += more + 1;
    }
    if (!converted)
        return text;
    std::string out;
    for (const char byte : text) {
        const auto c = static_cast<unsigned char>(byte);
        if (c < 0x80) {
            out += byte;
        } else {
            out += static_cast<char>(0xC0U | c >> 6U);
            out += static_cast<char>(0x80U | (c & 0x3FU));
        }
    }
    return out;
}

std::optional<double> number(std::string s, bool decimal_comma)
{
    s = trimmed(s);
    if (decimal_comma)
        std::replace(s.begin(), s.end(), ',', '.');
    if (s.size() > 1 && s.front() == '+' && s[1] != '-')
        s.erase(0, 1);
    double v = 0;
    const auto [end, ec] = std::from_chars(s.data(), s.data() + s.size(), v);
    if (ec != std::errc() || end != s.data() + s.size() || !std::isfinite(v))
        return std::nullopt;
    return v;
}

std::optional<double> on_off(const std::string& t)
{
    if (t == "on" || t == "ON" || t == "true")
        return 1.0;
    if (t == "off" || t == "OFF" || t == "false")
        return 0.0;
    return std::nullopt;
}

class TraceReader {
public:
    TraceReader(const std::string& text, const std::string& file) : text_(utf8(text, converted_)), csv_(text_, file) {}

    Trace read()
    {
        read_header();
        while (csv_.next())
            read_row();
        if (trace_.time_s.empty())
            csv_.fail(1, 0, "there is a header but no row of readings");
        finish();
        return std::move(trace_);
    }

private:
    void read_header()
    {
        if (!csv_.next())
            csv_.fail(1, 0, "the file is empty", "A log needs a header such as time,collector [°C],tank_bottom [°C]");
        for (const std::string& cell : csv_.cells()) {
            columns_.push_back(column_from(trimmed(cell), columns_.size()));
            const std::string& name = columns_.back().column.name;
            for (std::size_t i = 0; i + 1 < columns_.size(); ++i)
                if (!name.empty() && columns_[i].column.name == name)
                    csv_.fail(csv_.line(), columns_.size() - 1, "two columns are named “" + name + "”", "Give each column a name of its own");
        }
        find_time();
    }

    Column column_from(const std::string& header, std::size_t at)
    {
        if (std::any_of(header.begin(), header.end(), [](char c) { return static_cast<unsigned char>(c) < 0x20 || c == 0x7F; }))
            csv_.fail(csv_.line(), at, "the name of this column holds a line break or another control character", "Name it in one line");
        Column c;
        const Header parts = header_parts(header);
        c.column.name = parts.name;
        std::replace(c.column.name.begin(), c.column.name.end(), ' ', '_');
        c.passed_over = holds_words(c.column.name) || c.column.name.empty();
        const auto reads = signal(c.column.name);
        if (!parts.unit.empty()) {
            const auto unit = unit_of(parts.unit);
            if (!unit)
                csv_.fail(csv_.line(), at, "the unit “" + parts.unit + "” is not known", "Temperatures are in °C, °F or K, irradiance is in W/m², the supply in V; leave out the brackets where there is no unit");
            if (reads && (*reads != unit->quantity || (c.column.name == "supply" && std::string(unit->kept) != "V")))
                csv_.fail(csv_.line(), at, "“" + c.column.name + "” is in " + parts.unit + " here", *reads == Quantity::temperature ? "A temperature is expected: °C, °F or K" : *reads == Quantity::irradiance ? "W/m² are expected"
                                                                                                                                                                                                                : "V are expected");
            c.unit = *unit;
            c.column.unit = unit->kept;
        } else if (reads) {
            c.unit.quantity = *reads; // °C and W/m² where the header does not say
        }
        c.column.quantity = c.unit.quantity;
        return c;
    }

    // The one that is called so, else the first of another usual name.
    void find_time()
    {
        const auto lower = [](std::string s) {
            std::transform(s.begin(), s.end(), s.begin(), [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
            return s;
        };
        for (const char* usual : {"time", "datetime", "timestamp", "date", "time_s"})
            for (std::size_t i = 0; i < columns_.size() && time_column_ == npos; ++i)
                if (lower(columns_[i].column.name) == usual)
                    time_column_ = i;
        if (time_column_ == npos)
            csv_.fail(csv_.line(), 0, "there is no column named “time”", "Name the column of times “time”");
        for (std::size_t i = 0; i < columns_.size(); ++i)
            if (i != time_column_ && lower(columns_[i].column.name) == "time")
                csv_.fail(csv_.line(), i, "two columns are named “time”", "Give each column a name of its own");
        const std::string unit = columns_[time_column_].column.unit;
        if (columns_[time_column_].unit.quantity != Quantity::number || (!unit.empty() && unit != "s"))
            csv_.fail(csv_.line(), time_column_, "times are in seconds, or dates and times", "Put seconds into this column, or 2026-05-07T08:00:00");
    }

    void read_row()
    {
        if (csv_.cells().size() != columns_.size())
            csv_.fail(csv_.line(), std::min(csv_.cells().size(), columns_.size()) - 1,
                "this row has " + std::to_string(csv_.cells().size()) + " cells, the header has " + std::to_string(columns_.size()),
                csv_.separator() == ',' ? "With decimal commas separate the cells by semicolons" : "");
        const double t = time_of();
        if (!trace_.time_s.empty() && t < trace_.time_s.back())
            csv_.fail(csv_.line(), time_column_, "the time runs backwards", "Sort the log, or cut it where the clock was set back");
        if (!trace_.time_s.empty() && t == trace_.time_s.back()) {
            ++duplicates_;
            for (Column& c : columns_)
                if (&c != &columns_[time_column_] && !c.passed_over)
                    c.column.values.pop_back();
        } else {
            trace_.time_s.push_back(t);
        }
        for (std::size_t i = 0; i < columns_.size(); ++i)
            if (i != time_column_)
                take(i);
    }

    double time_of()
    {
        const std::string cell = trimmed(csv_.cells()[time_column_]);
        const auto seconds = number(cell, csv_.separator() != ',');
        const auto stamp = seconds ? std::nullopt : read_timestamp(cell);
        const auto refuse = [&](const char* remedy) { csv_.fail(csv_.line(), time_column_, "“" + cell + "” is not a time", remedy); };
        if ((!seconds && !stamp) || (seconds && std::fabs(*seconds) > longest_s))
            refuse("Use seconds, or a date and time such as 2026-05-07T08:00:00");
        if (!trace_.time_s.empty() && stamp.has_value() != first_.has_value())
            refuse("Some rows have seconds and some a date here; use one of them");
        if (seconds)
            return *seconds;
        if (!first_) {
            first_ = stamp;
            first_->fraction = 0;
            trace_.start = timestamp_text(*first_);
        }
        if (first_->ahead.has_value() != stamp->ahead.has_value())
            refuse("Some rows say how far they are ahead of UTC and some do not");
        const double t = elapsed_s(*first_, *stamp);
        if (const std::chrono::year_month_day day{later(*first_, t).day}; std::fabs(t) > longest_s || day.year() < std::chrono::year{1900} || day.year() > std::chrono::year{2999})
            refuse("It lies too far from the first one");
        return t;
    }

    void take(std::size_t i)
    {
        Column& c = columns_[i];
        const std::string cell = trimmed(csv_.cells()[i]);
        if (c.passed_over) {
            if (c.column.name.empty() && !cell.empty())
                csv_.fail(csv_.line(), i, "this column has readings and no name", "Name it in the header");
            return;
        }
        c.column.values.push_back(value(i, cell));
    }

    double value(std::size_t i, const std::string& cell)
    {
        if (cell.empty() || cell == "-" || cell == "NaN" || cell == "nan") {
            ++empty_;
            return NAN;
        }
        const UnitOf& unit = columns_[i].unit;
        if (const auto v = unit.quantity == Quantity::number ? on_off(cell) : std::nullopt)
            return *v;
        const auto v = number(cell, csv_.separator() != ',');
        const double inside = v ? *v * unit.scale + unit.offset : NAN;
        if (!std::isfinite(inside))
            csv_.fail(csv_.line(), i, "“" + cell + "” is not a number", "Leave the cell empty where there is no reading");
        return inside;
    }

    void finish()
    {
        for (std::size_t i = 0; i < columns_.size(); ++i)
            if (i != time_column_ && !columns_[i].passed_over)
                trace_.columns.push_back(std::move(columns_[i].column));
        const auto note = [&](std::size_t n, const char* what) {
            if (n > 0)
                trace_.notes.push_back(std::to_string(n) + what);
        };
        if (converted_)
            trace_.notes.emplace_back("The file is no UTF-8; it was read as Latin 1");
        note(duplicates_, " rows repeat a time; the last one was taken");
        note(empty_, " cells are empty");
        const double usual = trace_.interval_s();
        std::size_t gaps = 0;
        for (std::size_t i = 1; i < trace_.time_s.size(); ++i)
            gaps += trace_.time_s[i] - trace_.time_s[i - 1] >= 3.5 * usual;
        note(gaps, " gaps lack more than two rows; readings there count as missing from the third on");
    }

    static constexpr std::size_t npos = static_cast<std::size_t>(-1);
    bool converted_ = false; // before the text that sets it
    std::string text_;
    CsvReader csv_;
    Trace trace_;
    std::vector<Column> columns_;
    std::size_t time_column_ = npos, duplicates_ = 0, empty_ = 0;
    std::optional<Timestamp> first_; // of the first row, at its whole second
};

std::string header_of(const TraceColumn& c)
{
    if (c.quantity == Quantity::temperature)
        return c.name + " [°C]";
    if (c.quantity == Quantity::irradiance)
        return c.name + " [W/m²]";
    // Brackets at the end of a name would be taken for those of a unit.
    return c.unit.empty() && !c.name.ends_with(')') && !c.name.ends_with(']') ? c.name : c.name + " [" + (c.unit.empty() ? "1" : c.unit) + "]";
}

} // namespace

Result<Trace> read_trace_csv(const std::string& text, const std::string& file_name)
{
    try {
        return TraceReader(text, file_name).read();
    } catch (const BadCsv& b) {
        return b.error;
    }
}

std::string write_trace_csv(const Trace& trace)
{
    std::string out;
    CsvWriter csv([&](std::string_view text) { out += text; });
    csv.cell("time");
    for (const TraceColumn& c : trace.columns)
        csv.cell(header_of(c));
    csv.end_row();
    const auto start = read_timestamp(trace.start);
    for (std::size_t i = 0; i < trace.time_s.size(); ++i) {
        start ? csv.cell(timestamp_text(later(*start, trace.time_s[i]))) : csv.number(trace.time_s[i]);
        for (const TraceColumn& c : trace.columns)
            csv.number(c.values[i]);
        csv.end_row();
    }
    csv.finish();
    return out;
}

} // namespace vernal
