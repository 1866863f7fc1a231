#include "csv_trace.h"

#include "csv/reader.h"
#include "csv/writer.h"
#include "log_cells.h"
#include "timestamp.h"

#include <algorithm>
#include <cmath>
#include <optional>

namespace vernal {
namespace {

constexpr double longest_s = 4e9; // more than a century

struct Column {
    TraceColumn column;
    CellUnit unit{"", Quantity::number};
    bool passed_over = false; // words of a run's own CSV, or without a name and without content
};

class TraceReader {
public:
    TraceReader(const std::string& text, const std::string& file) : text_(as_utf8(text, converted_)), csv_(text_, file) {}

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
            columns_.push_back(column_from(std::string(trimmed(cell)), columns_.size()));
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
        const CellHeader parts = header_parts(header);
        c.column.name = parts.name;
        std::replace(c.column.name.begin(), c.column.name.end(), ' ', '_');
        c.passed_over = holds_words(c.column.name) || c.column.name.empty();
        const auto reads = signal_quantity(c.column.name);
        if (!parts.unit.empty()) {
            const auto unit = cell_unit(parts.unit);
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
        const std::string cell(trimmed(csv_.cells()[time_column_]));
        const auto seconds = cell_number(cell, csv_.separator() != ',');
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
        const std::string cell(trimmed(csv_.cells()[i]));
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
        if (cell == invalid_cell)
            return stated_invalid;
        const CellUnit& unit = columns_[i].unit;
        if (const auto v = unit.quantity == Quantity::number ? cell_switch(cell) : std::nullopt)
            return *v;
        const auto v = cell_number(cell, csv_.separator() != ',');
        const double inside = v ? unit.inside(*v) : NAN;
        if (!std::isfinite(inside))
            csv_.fail(csv_.line(), i, "“" + cell + "” is not a number", "Leave the cell empty where there is no reading");
        return inside;
    }

    void finish()
    {
        for (std::size_t i = 0; i < columns_.size(); ++i)
            if (i != time_column_ && !columns_[i].passed_over)
                trace_.columns.push_back(std::move(columns_[i].column));
        if (converted_)
            trace_.notes.emplace_back("The file is no UTF-8; it was read as Latin 1");
        note_lacks(trace_, duplicates_, empty_);
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
            c.values[i] == stated_invalid ? csv.cell(invalid_cell) : csv.number(c.values[i]);
        csv.end_row();
    }
    csv.finish();
    return out;
}

} // namespace vernal
