#include "calendar.h"

#include <array>
#include <cstdio>

namespace vernal {
namespace {

using namespace std::chrono;

constexpr std::size_t date_size = 10, moment_size = 16;
constexpr std::array months_short{"Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"};

// The digits of a part; −1: there is something else.
int digits(std::string_view text, std::size_t at, std::size_t n)
{
    int out = 0;
    for (const char c : text.substr(at, n)) {
        if (c < '0' || c > '9')
            return -1;
        out = out * 10 + (c - '0');
    }
    return out;
}

std::optional<year_month_day> calendar_date(std::string_view text)
{
    if (text.size() < date_size || text[4] != '-' || text[7] != '-')
        return {};
    const int y = digits(text, 0, 4), m = digits(text, 5, 2), d = digits(text, 8, 2);
    if (y < 1900 || y > 2999 || m < 0 || d < 0)
        return {};
    const year_month_day date{year(y), month(static_cast<unsigned>(m)), day(static_cast<unsigned>(d))};
    return date.ok() ? std::optional(date) : std::nullopt;
}

} // namespace

std::optional<Day1970> date_of(std::string_view text)
{
    if (!is_date(text) && !is_moment(text))
        return {};
    return sys_days(*calendar_date(text));
}

bool is_date(std::string_view text) { return text.size() == date_size && calendar_date(text); }

bool is_moment(std::string_view text)
{
    if (text.size() != moment_size || !calendar_date(text) || text[10] != 'T' || text[13] != ':')
        return false;
    const int h = digits(text, 11, 2), min = digits(text, 14, 2);
    return h >= 0 && h < 24 && min >= 0 && min < 60;
}

std::string date_text(Day1970 at)
{
    const year_month_day d(at);
    char b[40];
    std::snprintf(b, sizeof b, "%04d-%02u-%02u", static_cast<int>(d.year()), static_cast<unsigned>(d.month()), static_cast<unsigned>(d.day()));
    return b;
}

std::string date_words(std::string_view text)
{
    const auto at = date_of(text);
    if (!at)
        return std::string(text);
    const year_month_day d(*at);
    return std::to_string(static_cast<unsigned>(d.day())) + " " + months_short[static_cast<unsigned>(d.month()) - 1] + " " + std::to_string(static_cast<int>(d.year()));
}

std::string moment_words(std::string_view text) { return is_moment(text) ? date_words(text) + ", " + std::string(text.substr(11)) : date_words(text); }

Day1970 months_later(Day1970 at, int n)
{
    year_month_day d(at);
    d += months(n);
    return d.ok() ? sys_days(d) : sys_days(d.year() / d.month() / last);
}

} // namespace vernal
