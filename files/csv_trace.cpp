#include "csv_trace.h"

#include "csv/reader.h"
#include "csv/writer.h"

#include <algorithm>
#include <charconv>
#include <chrono>
#include <cmath>
#include <cstdio>
#include <cstring>
#include <optional>

namespace vernal {
namespace {

std::string trimmed(const std::string& s)
{
    const std::size_t a = s.find_first_not_of(" \t"), b = s.find_last_not_of(" \t");
    return a == std::string::npos ? "" : s.substr(a, b - a + 1);
}

struct Column {
    TraceColumn column;
    bool fahrenheit = false, kelvin = false;
    bool passed_over = false; // the words of a run's own CSV, "P1_decided_by"
};

constexpr std::string_view words_suffix = "_decided_by";

Column column_from(const std::string& header)
{
    Column c;
    const std::size_t open = header.find_first_of("[(");
    c.column.name = trimmed(header.substr(0, open));
    std::string unit = open == std::string::npos ? "" : header.substr(open + 1, header.find_first_of("])", open) - open - 1);
    std::replace(c.column.name.begin(), c.column.name.end(), ' ', '_');
    c.passed_over = c.column.name.ends_with(words_suffix);
    if (unit == "°F" || unit == "F" || unit == "degF")
        c.fahrenheit = true;
    if (unit == "K")
        c.kelvin = true;
    if (c.fahrenheit || c.kelvin || unit == "°C" || unit == "C" || unit == "degC")
        c.column.quantity = Quantity::temperature;
    for (const char* usual : {"collector", "tank_bottom", "tank_middle", "tank_top", "return_pipe", "supply_pipe", "air", "temperature"})
        if (unit.empty() && c.column.name == usual)
            c.column.quantity = Quantity::temperature; // °C where the header does not say
    if (unit.rfind("W/m", 0) == 0)
        c.column.quantity = Quantity::irradiance;
    return c;
}

std::optional<double> number(std::string s, bool decimal_comma)
{
    s = trimmed(s);
    if (decimal_comma)
        std::replace(s.begin(), s.end(), ',', '.');
    if (!s.empty() && s.front() == '+')
        s.erase(0, 1);
    double v = 0;
    const auto [end, ec] = std::from_chars(s.data(), s.data() + s.size(), v);
    if (ec != std::errc() || end != s.data() + s.size() || !std::isfinite(v))
        return std::nullopt;
    return v;
}

std::optional<double> on_off(const std::string& s)
{
    const std::string t = trimmed(s);
    if (t == "on" || t == "ON" || t == "true")
        return 1.0;
    if (t == "off" || t == "OFF" || t == "false")
        return 0.0;
    return std::nullopt;
}

// "2026-05-07T08:00:01.5", "2026-05-07 08:00", with or without Z or ±hh:mm.
struct Instant {
    double seconds; // after 1900-01-01
    std::string text;
};
std::optional<Instant> iso_time(const std::string& cell)
{
    int y, mo, d, h, mi, used = 0;
    double s = 0;
    const std::string t = trimmed(cell);
    if (std::sscanf(t.c_str(), "%4d-%2d-%2d%*1[T ]%2d:%2d%n", &y, &mo, &d, &h, &mi, &used) < 5 || used == 0)
        return std::nullopt;
    int more = 0;
    if (std::sscanf(t.c_str() + used, ":%lf%n", &s, &more) == 1)
        used += more;
    const std::chrono::year_month_day date = std::chrono::year{y} / mo / d;
    if (!date.ok() || y < 1900 || h < 0 || h > 24 || mi < 0 || mi > 59 || s < 0 || s >= 61)
        return std::nullopt;
    const auto n = (std::chrono::sys_days{date} - std::chrono::sys_days{std::chrono::year{1900} / 1 / 1}).count();
    char text[64];
    std::snprintf(text, sizeof text, "%04d-%02d-%02dT%02d:%02d:%02d", y, mo, d, h, mi, static_cast<int>(s));
    return Instant{static_cast<double>(n) * 86400.0 + h * 3600.0 + mi * 60.0 + s, text};
}

class TraceReader {
public:
    TraceReader(const std::string& text, const std::string& file) : csv_(text, file) {}

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
            columns_.push_back(column_from(trimmed(cell)));
            std::string& name = columns_.back().column.name;
            std::string lower = name;
            std::transform(lower.begin(), lower.end(), lower.begin(), [](unsigned char c) { return std::tolower(c); });
            if (time_column_ == npos && (lower == "time" || lower == "date" || lower == "datetime" || lower == "timestamp" || lower == "time_s"))
                time_column_ = columns_.size() - 1;
            for (std::size_t i = 0; i + 1 < columns_.size(); ++i)
                if (columns_[i].column.name == name)
                    csv_.fail(csv_.line(), columns_.size() - 1, "two columns are named “" + name + "”", "Give each column a name of its own");
        }
        if (time_column_ == npos)
            csv_.fail(csv_.line(), 0, "there is no column named “time”", "Name the column of times “time”");
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
            if (i != time_column_ && !columns_[i].passed_over)
                columns_[i].column.values.push_back(value(i));
    }

    double time_of()
    {
        const std::string& cell = csv_.cells()[time_column_];
        if (const auto v = number(cell, csv_.separator() != ','))
            return *v;
        const auto instant = iso_time(cell);
        if (!instant)
            csv_.fail(csv_.line(), time_column_, "“" + cell + "” is not a time", "Use seconds, or a date and time such as 2026-05-07T08:00:00");
        if (trace_.start.empty()) {
            trace_.start = instant->text;
            origin_ = instant->seconds;
        }
        return instant->seconds - origin_;
    }

    double value(std::size_t i)
    {
        const std::string cell = trimmed(csv_.cells()[i]);
        if (cell.empty() || cell == "-" || cell == "NaN" || cell == "nan") {
            ++empty_;
            return NAN;
        }
        if (const auto v = on_off(cell))
            return *v;
        const auto v = number(cell, csv_.separator() != ',');
        if (!v)
            csv_.fail(csv_.line(), i, "“" + cell + "” is not a number", "Leave the cell empty where there is no reading");
        return columns_[i].fahrenheit ? (*v - 32) * 5 / 9 : columns_[i].kelvin ? *v - 273.15
                                                                               : *v;
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
        note(duplicates_, " rows repeat a time; the last one was taken");
        note(empty_, " cells are empty");
        const double usual = trace_.interval_s();
        std::size_t gaps = 0;
        for (std::size_t i = 1; i < trace_.time_s.size(); ++i)
            gaps += trace_.time_s[i] - trace_.time_s[i - 1] > 2 * usual + 1e-9;
        note(gaps, " gaps are longer than two intervals; readings there count as missing");
    }

    static constexpr std::size_t npos = static_cast<std::size_t>(-1);
    CsvReader csv_;
    Trace trace_;
    std::vector<Column> columns_;
    std::size_t time_column_ = npos, duplicates_ = 0, empty_ = 0;
    double origin_ = 0;
};

std::string header_of(const TraceColumn& c)
{
    if (c.quantity == Quantity::temperature)
        return c.name + " [°C]";
    if (c.quantity == Quantity::irradiance)
        return c.name + " [W/m²]";
    return c.name;
}

// ISO time `seconds` after `start`; start is "YYYY-MM-DDThh:mm:ss".
std::string iso_after(const std::string& start, double seconds)
{
    int y, mo, d, h, mi, s;
    std::sscanf(start.c_str(), "%d-%d-%dT%d:%d:%d", &y, &mo, &d, &h, &mi, &s);
    const double total = h * 3600.0 + mi * 60.0 + s + seconds;
    const auto whole_days = static_cast<int>(std::floor(total / 86400.0));
    const double rest = total - whole_days * 86400.0;
    const std::chrono::year_month_day date = std::chrono::sys_days{std::chrono::year{y} / mo / d} + std::chrono::days{whole_days};
    const int sec = static_cast<int>(rest);
    char text[64];
    std::snprintf(text, sizeof text, "%04d-%02u-%02uT%02d:%02d:%02d", static_cast<int>(date.year()), static_cast<unsigned>(date.month()), static_cast<unsigned>(date.day()), sec / 3600, sec / 60 % 60, sec % 60);
    const double fraction = rest - sec;
    return fraction < 5e-7 ? text : text + exact_text(std::round(fraction * 1e6) / 1e6).substr(1);
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
    for (std::size_t i = 0; i < trace.time_s.size(); ++i) {
        trace.start.empty() ? csv.number(trace.time_s[i]) : csv.cell(iso_after(trace.start, trace.time_s[i]));
        for (const TraceColumn& c : trace.columns)
            csv.number(c.values[i]);
        csv.end_row();
    }
    csv.finish();
    return out;
}

} // namespace vernal
