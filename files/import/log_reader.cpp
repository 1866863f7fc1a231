#include "log_reader.h"

#include "files/log_cells.h"
#include "log_order.h"
#include "log_rows.h"

#include <algorithm>
#include <cctype>
#include <cmath>
#include <map>

namespace vernal {
namespace {

using namespace std::chrono;

constexpr double day_s = 86400, hour_s = 3600;
constexpr double first_year_s = -2.2e9, last_year_s = 3.24e10; // 1900 to 2996, since 1970
constexpr sys_days serial_epoch{year{1899} / December / day{30}};

// A column of readings while it is read.
struct Taken {
    std::size_t cell = 0; // in the row
    TraceColumn column;
    CellUnit unit{"", Quantity::number};
    const ProbeCurve* curve = nullptr; // cells are ohms of it
    double ohm_scale = 1;
};

class LogReader {
public:
    LogReader(std::string_view text, const std::string& file, const LogLayout& layout, const std::vector<LogTarget>& targets, const Place& place, const LogWatch& watch)
        : layout_(layout), targets_(targets), place_(place), watch_(watch), size_(std::max<std::size_t>(1, text.size())), csv_(in_pieces(text, done_), file, layout.delimiter)
    {
        for (const auto& [word, value] : layout.words)
            words_[word] = value;
    }

    Result<ImportedLog> read()
    {
        if (auto problem = find_columns())
            return *problem;
        read_rows();
        if (out_.stopped)
            return std::move(out_);
        OrderedRows order = rows_in_order(times_, lines_, dated_, layout_, place_, troubles_);
        if (order.rows.empty())
            return Error{"no row has a time that can be read", "", "Choose which column holds the time, and how it is written"};
        finish(std::move(order));
        return std::move(out_);
    }

private:
    std::optional<Error> find_columns()
    {
        for (std::size_t i = 0; i < layout_.columns.size(); ++i) {
            const LogColumn& c = layout_.columns[i];
            switch (c.role) {
            case LogRole::moment: moment_ = i; break;
            case LogRole::date: date_ = i; break;
            case LogRole::clock: clock_ = i; break;
            case LogRole::left_out: break;
            case LogRole::value:
                if (auto problem = take_column(i))
                    return problem;
                break;
            }
        }
        if (moment_ == none && clock_ == none)
            return Error{"no column says when", "", "Choose the column of the time, or those of the day and of the time"};
        if (moment_ == none && date_ == none && clock_ != none)
            std::swap(moment_, clock_);
        if (columns_.empty())
            return Error{"no column is taken", "", "Choose what at least one column is"};
        return {};
    }

    const LogTarget* target(const std::string& name) const
    {
        const auto it = std::find_if(targets_.begin(), targets_.end(), [&](const LogTarget& t) { return t.name == name; });
        return it == targets_.end() ? nullptr : &*it;
    }

    static std::string usable_name(std::string name, std::size_t column)
    {
        for (char& c : name)
            if (static_cast<unsigned char>(c) <= 0x20 || c == 0x7F)
                c = '_';
        if (name.empty() || holds_words(name))
            name = "column_" + std::to_string(column + 1);
        std::string lower = name;
        std::transform(lower.begin(), lower.end(), lower.begin(), [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
        return lower == "time" ? name + "_2" : name;
    }

    std::optional<Error> take_column(std::size_t i)
    {
        const LogColumn& c = layout_.columns[i];
        Taken t;
        t.cell = i;
        t.column.name = usable_name(c.name, i);
        const LogTarget* known = target(c.name);
        const std::string place = "“" + (c.header.empty() ? "column " + std::to_string(i + 1) : c.header) + "”";
        if (std::any_of(columns_.begin(), columns_.end(), [&](const Taken& x) { return x.column.name == t.column.name; }))
            return Error{"two columns are taken for " + (known ? known->label : t.column.name), place, "Leave one of them out, or keep it under its own name"};
        const std::string unit = c.unit.empty() && known ? units_for(known->kind).front() : c.unit;
        if (known && known->kind == LogTarget::Kind::temperature && (unit == "Ω" || unit == "kΩ" || unit == "ohm" || unit == "kohm")) {
            if (!known->curve)
                return Error{"the job has no curve for " + known->label, place, "Choose °C or °F, or state the probe at the Probes station"};
            t.curve = &*known->curve;
            t.ohm_scale = unit.starts_with('k') ? 1000 : 1;
            t.unit.quantity = Quantity::temperature;
        } else if (!unit.empty()) {
            const auto u = cell_unit(unit);
            if (!u)
                return Error{"the unit “" + unit + "” is not known", place, "Choose one from the list"};
            t.unit = *u;
        }
        const auto asked = signal_quantity(t.column.name);
        if (asked && (*asked != t.unit.quantity || (t.column.name == "supply" && t.unit.kept != std::string_view("V"))))
            return Error{t.column.name + " cannot be in " + (unit.empty() ? "plain numbers" : unit), place, "Choose another unit, or keep the column under a name of its own"};
        t.column.quantity = t.unit.quantity;
        t.column.unit = t.unit.kept;
        columns_.push_back(std::move(t));
        return {};
    }

    void read_rows()
    {
        try {
            std::size_t rows = 0;
            while (csv_.next()) {
                if (csv_.line() < static_cast<std::size_t>(std::max(1, layout_.first_line)))
                    continue;
                read_row();
                if (watch_.most_rows > 0 && times_.size() >= watch_.most_rows)
                    return;
                if ((++rows & 0x3FFFU) == 0) {
                    out_.stopped = watch_.stop.stop_requested();
                    if (out_.stopped)
                        return;
                    if (watch_.progress)
                        watch_.progress(static_cast<double>(done_) / static_cast<double>(size_));
                }
            }
        } catch (const BadCsv& b) {
            troubles_.put(csv_.line(), csv_.line(), b.error.what + "; what comes after it was not read");
        }
    }

    void read_row()
    {
        const auto& cells = csv_.cells();
        const auto when = time_of(cells);
        ++out_.rows;
        if (!when) {
            const std::size_t at = moment_ != none ? moment_ : date_;
            std::string cell = at < cells.size() ? std::string(trimmed(cells[at])) : "";
            if (moment_ == none && clock_ < cells.size())
                cell += ' ' + std::string(trimmed(cells[clock_]));
            troubles_.put(csv_.line(), csv_.line(), cell.empty() ? "there is no time in this row; it was left out" : "“" + cell.substr(0, 40) + "” is not a time; the row was left out");
            return;
        }
        if (cells.size() < layout_.columns.size())
            troubles_.put(csv_.line(), csv_.line(), "this row is short of cells; they are empty");
        times_.push_back(*when);
        lines_.push_back(static_cast<std::uint32_t>(csv_.line()));
        for (Taken& t : columns_)
            t.column.values.push_back(t.cell < cells.size() ? value(t, trimmed(cells[t.cell])) : NAN);
    }

    std::optional<RowTime> time_of(const std::vector<std::string>& cells)
    {
        const auto cell = [&](std::size_t i) { return i < cells.size() ? trimmed(cells[i]) : std::string_view(); };
        if (moment_ != none && !is_date(layout_.form)) {
            const auto v = cell_number(cell(moment_), layout_.decimal_comma);
            if (!v)
                return {};
            return of_number(*v);
        }
        auto m = read_moment(cell(moment_ != none ? moment_ : date_), layout_.form);
        if (!m)
            return {};
        if (moment_ == none) {
            const auto c = read_moment(cell(clock_), layout_.form);
            if (!m->day || !c || !c->second || c->day)
                return {};
            m->second = c->second;
            m->ahead = c->ahead;
        }
        if (!times_.empty() && m->day.has_value() != dated_)
            return {};
        dated_ = m->day.has_value();
        RowTime w;
        w.s = (m->day ? static_cast<double>(seconds{m->day->time_since_epoch()}.count()) : 0.0) + m->second.value_or(0.0);
        if (m->ahead) {
            w.fixed = true;
            w.s -= static_cast<double>(seconds{*m->ahead}.count());
        }
        return w;
    }

    std::optional<RowTime> of_number(double v)
    {
        dated_ = layout_.form >= TimeForm::serial_days;
        switch (layout_.form) {
        case TimeForm::minutes: v *= 60; break;
        case TimeForm::hours: v *= hour_s; break;
        case TimeForm::serial_days: v = std::round(v * day_s * 1000) / 1000 + static_cast<double>(seconds{serial_epoch.time_since_epoch()}.count()); break;
        case TimeForm::unix_ms: v /= 1000; break;
        default: break;
        }
        if (dated_ ? v < first_year_s || v > last_year_s : std::fabs(v) > longest_log_s)
            return {};
        return RowTime{v, is_unix(layout_.form)};
    }

    double value(const Taken& t, std::string_view cell)
    {
        if (cell.empty()) {
            ++empty_;
            return NAN;
        }
        if (const auto v = cell_number(cell, layout_.decimal_comma)) {
            const double inside = t.curve ? temperature_of(*t.curve, *v * t.ohm_scale) : t.unit.inside(*v);
            if (std::isfinite(inside) || t.curve)
                return inside;
        }
        if (const auto number = log_number(cell, layout_.decimal_comma))
            if (const double inside = of_written(t, *number); std::isfinite(inside))
                return inside;
        if (const auto it = words_.find(cell); it != words_.end())
            return it->second;
        if (const auto usual = usual_word(cell))
            return *usual;
        troubles_.put(csv_.line(), csv_.line(), "“" + std::string(cell.substr(0, 40)) + "” is no reading of " + t.column.name + "; the cell is empty");
        return NAN;
    }

    // A number in groups or with a unit of its own; NaN: not of what this column is in.
    static double of_written(const Taken& t, const LogNumber& number)
    {
        const auto unit = number.unit.empty() ? std::nullopt : cell_unit(number.unit);
        if (t.curve)
            return temperature_of(*t.curve, number.value * (number.unit.starts_with('k') ? 1000 : unit ? 1
                                                                                                       : t.ohm_scale));
        if (!unit)
            return t.unit.inside(number.value);
        if (unit->quantity != t.unit.quantity || (unit->quantity == Quantity::number && std::string_view(unit->kept) != t.unit.kept))
            return NAN;
        return unit->inside(number.value);
    }

    // What lies outside its curve is an open or a shorted probe.
    static double temperature_of(const ProbeCurve& curve, double ohm)
    {
        const auto t = temperature_at(curve, ohm);
        return t ? t->in_celsius() : NAN;
    }

    void finish(OrderedRows order)
    {
        Trace& trace = out_.trace;
        trace.time_s = std::move(order.time_s);
        trace.start = std::move(order.start);
        trace.notes = std::move(order.notes);
        for (Taken& t : columns_) {
            std::vector<double> values;
            values.reserve(order.rows.size());
            for (const std::size_t row : order.rows)
                values.push_back(t.column.values[row]);
            t.column.values = std::move(values);
            trace.columns.push_back(std::move(t.column));
        }
        note_lacks(trace, order.duplicates, empty_);
        out_.dropped = out_.rows - order.rows.size() - order.duplicates;
        if (out_.drops_many())
            trace.notes.insert(trace.notes.begin(), dropped_note(std::minmax(lines_[order.rows.front()], lines_[order.rows.back()])));
        out_.troubles = troubles_.take();
        out_.more_troubles = troubles_.more();
    }

    // kept: lines of the first and the last row that stay.
    std::string dropped_note(const std::pair<std::uint32_t, std::uint32_t>& kept) const
    {
        const std::size_t behind = csv_.line() - kept.second, before = kept.first - static_cast<std::size_t>(std::max(1, layout_.first_line));
        std::string out = std::to_string(out_.dropped) + " of " + std::to_string(out_.rows) + " rows were left out";
        if (behind * 2 > out_.dropped)
            out += ", most of them behind line " + std::to_string(kept.second) + ": days are missing at the end";
        else if (before * 2 > out_.dropped)
            out += ", most of them before line " + std::to_string(kept.first) + ": days are missing at the beginning";
        return out + "; check the column of the time and the order of day and month";
    }

    static constexpr std::size_t none = static_cast<std::size_t>(-1);
    const LogLayout& layout_;
    const std::vector<LogTarget>& targets_;
    const Place& place_;
    const LogWatch& watch_;
    std::size_t done_ = 0, size_;
    CsvReader csv_;
    std::map<std::string, double, std::less<>> words_;
    std::vector<Taken> columns_;
    std::size_t moment_ = none, date_ = none, clock_ = none;
    std::vector<RowTime> times_;       // of every row with a time
    std::vector<std::uint32_t> lines_; // likewise
    bool dated_ = false;
    std::size_t empty_ = 0;
    TroubleList troubles_;
    ImportedLog out_;
};

} // namespace

Result<ImportedLog> read_log(std::string_view text, const std::string& file, const LogLayout& layout, const std::vector<LogTarget>& targets, const Place& place, const LogWatch& watch)
{
    return LogReader(text, file, layout, targets, place, watch).read();
}

} // namespace vernal
