#include "trace_edit.h"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <cstdio>
#include <map>

namespace vernal {
namespace {

constexpr double day_s = 86400;
constexpr std::size_t most_rows = 50'000'000;

Trace empty_like(const Trace& t)
{
    Trace out;
    out.start = t.start;
    for (const TraceColumn& c : t.columns)
        out.columns.push_back({c.name, c.quantity, {}, c.unit});
    return out;
}

void put_row(Trace& out, const Trace& from, std::size_t row)
{
    out.time_s.push_back(from.time_s[row]);
    for (std::size_t c = 0; c < out.columns.size(); ++c)
        out.columns[c].values.push_back(from.columns[c].values[row]);
}

template <class Keeps>
Result<Trace> rows_of(const Trace& trace, Keeps keeps)
{
    Trace out = empty_like(trace);
    for (std::size_t i = 0; i < trace.time_s.size(); ++i)
        if (keeps(trace.time_s[i]))
            put_row(out, trace, i);
    if (out.time_s.empty())
        return Error{"no row is left", "", "Mark another stretch"};
    return out;
}

// Local seconds since 1970-01-01 of the trace's time 0.
double absolute_s(const Trace& t) { return t.has_date() ? day_s * t.date() + t.clock_s() : 0; }

std::string date_text(double absolute)
{
    const auto whole = static_cast<long long>(std::floor(absolute));
    const long long of_day = ((whole % 86400) + 86400) % 86400;
    const std::chrono::year_month_day d{std::chrono::sys_days{std::chrono::days{(whole - of_day) / 86400}}};
    char text[40];
    std::snprintf(text, sizeof text, "%04d-%02u-%02uT%02lld:%02lld:%02lld", static_cast<int>(d.year()), static_cast<unsigned>(d.month()), static_cast<unsigned>(d.day()), of_day / 3600, of_day / 60 % 60, of_day % 60);
    return text;
}

bool is_switch(const TraceColumn& c)
{
    return c.quantity == Quantity::number && c.unit.empty() && std::all_of(c.values.begin(), c.values.end(), [](double v) { return !std::isfinite(v) || v == 0 || v == 1; });
}

bool is_named(const std::vector<std::string>& names, const std::string& name) { return std::find(names.begin(), names.end(), name) != names.end(); }

// Mean of the finite values of rows first … last.
double mean(const std::vector<double>& v, std::size_t first, std::size_t last)
{
    double sum = 0;
    std::size_t n = 0;
    for (std::size_t i = first; i < last; ++i)
        if (std::isfinite(v[i])) {
            sum += v[i];
            ++n;
        }
    return n > 0 ? sum / static_cast<double>(n) : NAN;
}

std::size_t first_at(const std::vector<double>& time_s, double t) { return static_cast<std::size_t>(std::lower_bound(time_s.begin(), time_s.end(), t) - time_s.begin()); }

} // namespace

Result<Trace> cut(const Trace& trace, double from_s, double to_s)
{
    return rows_of(trace, [&](double t) { return t >= from_s && t <= to_s; });
}

Result<Trace> cut_out(const Trace& trace, double from_s, double to_s)
{
    return rows_of(trace, [&](double t) { return t < from_s || t > to_s; });
}

namespace {

// Where each of the logs begins, seconds on one clock.
Result<std::vector<double>> beginnings(const std::vector<Trace>& traces)
{
    std::vector<double> out;
    double next = 0;
    for (const Trace& t : traces) {
        if (t.has_date() != traces.front().has_date())
            return Error{"one of the logs has dates and another has none", "", "Join logs with dates, or logs without"};
        out.push_back(t.has_date() ? absolute_s(t) : next);
        if (!t.time_s.empty())
            next = out.back() + t.time_s.back() + std::max(1.0, t.interval_s());
    }
    return out;
}

} // namespace

Result<Trace> join(const std::vector<Trace>& traces)
{
    if (traces.empty())
        return Error{"there is no log to join", "", "Choose at least one"};
    const auto begins = beginnings(traces);
    if (!begins)
        return begins.error();
    Trace out;
    const double base = *std::min_element(begins->begin(), begins->end());
    if (traces.front().has_date())
        out.start = date_text(base);
    for (const Trace& t : traces)
        for (const TraceColumn& c : t.columns) {
            const TraceColumn* there = out.find(c.name);
            if (there && (there->quantity != c.quantity || there->unit != c.unit))
                return Error{"“" + c.name + "” is in two units", "", "Import both logs with the same unit"};
            if (!there)
                out.columns.push_back({c.name, c.quantity, {}, c.unit});
        }
    std::map<double, std::pair<std::size_t, std::size_t>> rows; // by time: log, row; the later log holds
    std::vector<std::size_t> order(traces.size());
    for (std::size_t i = 0; i < order.size(); ++i)
        order[i] = i;
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return (*begins)[a] < (*begins)[b]; });
    std::size_t twice = 0;
    for (const std::size_t i : order) {
        const Trace& t = traces[i];
        if (t.time_s.empty())
            continue;
        const double offset = (*begins)[i] - base;
        const auto from = rows.lower_bound(t.time_s.front() + offset), to = rows.upper_bound(t.time_s.back() + offset);
        twice += static_cast<std::size_t>(std::distance(from, to));
        rows.erase(from, to);
        for (std::size_t r = 0; r < t.time_s.size(); ++r)
            rows[t.time_s[r] + offset] = {i, r};
    }
    for (const auto& [time, at] : rows) {
        out.time_s.push_back(time);
        for (TraceColumn& c : out.columns) {
            const TraceColumn* from = traces[at.first].find(c.name);
            c.values.push_back(from ? from->values[at.second] : NAN);
        }
    }
    if (twice > 0)
        out.notes.push_back(std::to_string(twice) + " rows lie where two logs overlap; the later log holds");
    return out;
}

Trace shifted(const Trace& trace, double by_s)
{
    Trace out = trace;
    if (trace.has_date()) {
        const double whole = std::floor(by_s);
        out.start = date_text(absolute_s(trace) + whole);
        for (double& t : out.time_s)
            t += by_s - whole;
        return out;
    }
    out = empty_like(trace);
    for (std::size_t i = 0; i < trace.time_s.size(); ++i)
        if (trace.time_s[i] + by_s >= 0) {
            put_row(out, trace, i);
            out.time_s.back() += by_s;
        }
    return out;
}

Trace scaled(const Trace& trace, const std::vector<std::string>& columns, RowsOf on, double factor, double offset)
{
    Trace out = trace;
    for (TraceColumn& c : out.columns)
        if (is_named(columns, c.name))
            for (std::size_t i = 0; i < c.values.size(); ++i)
                if (out.time_s[i] >= on.from_s && out.time_s[i] <= on.to_s)
                    c.values[i] = c.values[i] * factor + offset;
    return out;
}

Result<Trace> resampled(const Trace& trace, double every_s)
{
    Trace out = empty_like(trace);
    if (trace.time_s.empty() || !(every_s > 0))
        return Error{"there is nothing to take rows from", "", "State a spacing above 0"};
    const double span = trace.time_s.back() - trace.time_s.front(), bridged = 3.5 * trace.interval_s();
    if (span / every_s >= static_cast<double>(most_rows))
        return Error{"that would be more than fifty million rows", "", "Choose a longer spacing"};
    std::vector<char> switches;
    for (const TraceColumn& c : trace.columns)
        switches.push_back(is_switch(c) ? 1 : 0);
    const auto rows = static_cast<std::size_t>(std::floor(span / every_s + 1e-9)) + 1;
    for (std::size_t k = 0; k < rows; ++k) {
        const double t = trace.time_s.front() + every_s * static_cast<double>(k);
        const std::size_t first = first_at(trace.time_s, t - every_s / 2), last = first_at(trace.time_s, t + every_s / 2), at = first_at(trace.time_s, t + 1e-9 * std::max(1.0, t));
        const bool inside = last > first;
        if (!inside && (at == 0 || at >= trace.time_s.size() || trace.time_s[at] - trace.time_s[at - 1] >= std::max(bridged, 1e-9)))
            continue; // a gap
        out.time_s.push_back(t);
        for (std::size_t c = 0; c < trace.columns.size(); ++c) {
            const auto& v = trace.columns[c].values;
            double x = NAN;
            if (switches[c] != 0)
                x = v[at > 0 ? at - 1 : 0];
            else if (inside)
                x = mean(v, first, last);
            else
                x = v[at - 1] + (v[at] - v[at - 1]) * (t - trace.time_s[at - 1]) / (trace.time_s[at] - trace.time_s[at - 1]);
            out.columns[c].values.push_back(x);
        }
    }
    return out;
}

Trace smoothed(const Trace& trace, const std::vector<std::string>& columns, RowsOf on, double over_s)
{
    Trace out = trace;
    for (std::size_t c = 0; c < trace.columns.size(); ++c) {
        if (!is_named(columns, trace.columns[c].name))
            continue;
        const auto& from = trace.columns[c].values;
        for (std::size_t i = 0; i < from.size(); ++i) {
            const double t = trace.time_s[i];
            if (t >= on.from_s && t <= on.to_s && std::isfinite(from[i]))
                out.columns[c].values[i] = mean(from, first_at(trace.time_s, t - over_s / 2), first_at(trace.time_s, t + over_s / 2 + 1e-9));
        }
    }
    return out;
}

} // namespace vernal
