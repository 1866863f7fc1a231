#include "date_order.h"

#include "files/log_cells.h"
#include "log_rows.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr int far_days = 2;              // rows of one log lie closer, but for a gap; a choice
constexpr std::size_t a_few_gaps = 3;    // of these a log may have; a choice
constexpr std::size_t all_dates = 20000; // looked at one by one; of more each hundredth

// What the dates come to in one order.
struct DatesRead {
    std::size_t unread = 0, falls = 0, rises = 0, far = 0;
    double leaps_d = 0;
    std::optional<std::chrono::sys_days> last;

    void take(std::string_view cell, TimeForm form)
    {
        const auto m = read_moment(cell, form);
        if (!m || !m->day) {
            ++unread;
            return;
        }
        if (last) {
            const auto days = (*m->day - *last).count();
            falls += days < 0;
            rises += days > 0;
            far += std::abs(days) > far_days;
            leaps_d += std::fabs(static_cast<double>(days));
        }
        last = m->day;
    }
    // Newest first is an order too.
    std::size_t backwards() const { return std::min(falls, rises); }
    bool worse_than(const DatesRead& o) const { return unread != o.unread ? unread > o.unread : backwards() > o.backwards(); }
};

// The cell of a line, by its delimiter alone where there are no quotes.
std::string cell_at(std::string_view line, char delimiter, std::size_t column)
{
    if (delimiter == ' ' || line.find('"') != std::string_view::npos) {
        const auto cells = cells_of(line, delimiter);
        return column < cells.size() ? std::string(trimmed(cells[column])) : std::string();
    }
    for (; column > 0; --column) {
        const std::size_t end = line.find(delimiter);
        if (end == std::string_view::npos)
            return {};
        line.remove_prefix(end + 1);
    }
    return std::string(trimmed(line.substr(0, line.find(delimiter))));
}

// A date without its time of day, which does not change from row to row.
std::string_view without_clock(std::string_view cell)
{
    const std::size_t colon = cell.find(':');
    const std::size_t before = colon == std::string_view::npos ? std::string_view::npos : cell.find_last_of(" T", colon);
    return before == std::string_view::npos ? cell : trimmed(cell.substr(0, before));
}

// Calls f with each date that differs from the one above it, until it says false.
template <class F>
void each_date(std::string_view text, const LogLayout& layout, std::size_t column, F f)
{
    std::string last;
    std::size_t seen = 0;
    int line_number = 0;
    for (std::size_t at = text.starts_with("\xef\xbb\xbf") ? 3 : 0; at < text.size();) {
        const std::size_t end = std::min(text.find('\n', at), text.size());
        const std::string_view line = text.substr(at, end - at);
        at = end + 1;
        if (++line_number < layout.first_line || trimmed(line).empty() || (seen > all_dates && line_number % 100 != 0))
            continue;
        const std::string cell = cell_at(line, layout.delimiter, column);
        const std::string_view date = without_clock(cell);
        if (date.empty() || date == last)
            continue;
        last = date;
        ++seen;
        if (!f(std::string_view(last)))
            return;
    }
}

bool begins_with_a_year(std::string_view date)
{
    return date.size() > 4 && std::all_of(date.begin(), date.begin() + 4, [](char c) { return c >= '0' && c <= '9'; });
}

} // namespace

TimeForm order_of_dates(std::string_view text, const LogLayout& layout, std::size_t column, bool us)
{
    DatesRead by_year, by_day, by_month;
    std::string first;
    each_date(text, layout, column, [&](std::string_view date) {
        if (first.empty())
            first = date;
        if (begins_with_a_year(first))
            return false;
        by_year.take(date, TimeForm::year_first);
        by_day.take(date, TimeForm::day_first);
        by_month.take(date, TimeForm::month_first);
        return true;
    });
    if (begins_with_a_year(first))
        return TimeForm::year_first;
    const bool points = first.find('.') != std::string::npos;
    bool day_first = true;
    if (by_day.worse_than(by_month) || by_month.worse_than(by_day))
        day_first = by_month.worse_than(by_day);
    else if (points)
        day_first = by_day.far < a_few_gaps || by_month.far > 0;
    else if (by_day.leaps_d != by_month.leaps_d)
        day_first = by_day.leaps_d < by_month.leaps_d;
    else
        day_first = !us;
    const DatesRead& chosen = day_first ? by_day : by_month;
    return chosen.worse_than(by_year) ? TimeForm::year_first : day_first ? TimeForm::day_first
                                                                         : TimeForm::month_first;
}

} // namespace vernal
