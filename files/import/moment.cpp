#include "moment.h"

#include <algorithm>
#include <cctype>

namespace vernal {
namespace {

using namespace std::chrono;

constexpr std::array month_names{"jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec"};
constexpr double minute_s = 60, hour_s = 3600, day_s = 86400;

bool is_digit(char c) { return c >= '0' && c <= '9'; }
bool is_letter(char c) { return std::isalpha(static_cast<unsigned char>(c)) != 0; }

// A text that is taken apart from its front.
class Front {
public:
    explicit Front(std::string_view s) : left_(s) {}
    bool done() const { return left_.empty(); }
    char next() const { return left_.empty() ? '\0' : left_[0]; }
    bool skip(char c)
    {
        const bool there = next() == c;
        if (there)
            left_.remove_prefix(1);
        return there;
    }
    std::size_t skip_any(std::string_view chars)
    {
        const std::size_t n = std::min(left_.find_first_not_of(chars), left_.size());
        left_.remove_prefix(n);
        return n;
    }
    std::string_view digits() { return while_true(is_digit); }
    std::string_view letters() { return while_true(is_letter); }
    std::string_view left() const { return left_; }

private:
    template <class Test>
    std::string_view while_true(Test test)
    {
        std::size_t n = 0;
        while (n < left_.size() && test(left_[n]))
            ++n;
        const std::string_view out = left_.substr(0, n);
        left_.remove_prefix(n);
        return out;
    }
    std::string_view left_;
};

int whole(std::string_view digits)
{
    int v = 0;
    for (const char c : digits.substr(0, 9))
        v = v * 10 + (c - '0');
    return v;
}

std::optional<int> month_named(std::string_view letters)
{
    if (letters.size() < 3)
        return {};
    for (std::size_t m = 0; m < month_names.size(); ++m)
        if (std::equal(month_names[m], month_names[m] + 3, letters.begin(), [](char a, char b) { return a == std::tolower(static_cast<unsigned char>(b)); }))
            return static_cast<int>(m) + 1;
    return {};
}

std::optional<sys_days> date_of(int y, int m, int d)
{
    const year_month_day date = year{y} / m / d;
    if (m < 1 || d < 1 || y < 1900 || y > 2999 || !date.ok())
        return {};
    return sys_days{date};
}

int full_year(std::string_view digits) { return digits.size() == 2 ? 2000 + whole(digits) : whole(digits); }

std::optional<sys_days> read_date(Front& f, TimeForm order)
{
    constexpr std::string_view between = "./- ";
    const auto first = f.digits();
    if (first.size() == 8) // 20260507
        return date_of(whole(first.substr(0, 4)), whole(first.substr(4, 2)), whole(first.substr(6, 2)));
    const std::optional<int> leading_month = first.empty() ? month_named(f.letters()) : std::nullopt; // May 7, 2026
    if (first.empty() && !leading_month)
        return {};
    if (f.skip_any(between) == 0)
        return {};
    std::optional<int> named;
    auto second = f.digits();
    if (second.empty())
        named = month_named(f.letters());
    if ((second.empty() && !named) || f.skip_any("./-, ") == 0)
        return {};
    const auto third = f.digits();
    if (third.empty() || third.size() > 4 || first.size() > 4 || second.size() > 2)
        return {};
    if (leading_month)
        return date_of(full_year(third), *leading_month, whole(second));
    if (first.size() == 4 || order == TimeForm::year_first) {
        if (third.size() > 2 || (first.size() != 4 && first.size() != 2))
            return {};
        return date_of(full_year(first), named ? *named : whole(second), whole(third));
    }
    if (third.size() != 4 && third.size() != 2)
        return {};
    if (named)
        return date_of(full_year(third), *named, whole(first));
    return order == TimeForm::day_first ? date_of(full_year(third), whole(second), whole(first)) : date_of(full_year(third), whole(first), whole(second));
}

std::optional<double> fraction(Front& f)
{
    const auto digits = f.digits();
    if (digits.empty())
        return {};
    double v = 0, scale = 0.1;
    for (const char c : digits.substr(0, 15)) {
        v += scale * (c - '0');
        scale /= 10;
    }
    return v;
}

// After noon, before noon, or not said.
std::optional<double> noon_s(Front& f, int hour)
{
    Front look = f;
    look.skip_any(" ");
    auto word = look.letters();
    std::string pointed; // "a.m."
    if (word.size() == 1 && look.skip('.')) {
        pointed = std::string(word) + std::string(look.letters());
        look.skip('.');
        word = pointed;
    }
    const bool half = word.size() == 2 && std::tolower(static_cast<unsigned char>(word[1])) == 'm';
    const char which = half ? static_cast<char>(std::tolower(static_cast<unsigned char>(word[0]))) : '\0';
    if (which != 'a' && which != 'p')
        return 0.0;
    f = look;
    if (hour < 1 || hour > 12)
        return {};
    return (which == 'p' ? 12 * hour_s : 0.0) - (hour == 12 ? 12 * hour_s : 0.0);
}

// 8.00.30: `behind_a_date`, for by itself it could be one.
std::optional<double> read_clock(Front& f, bool behind_a_date = false)
{
    const auto first = f.digits();
    int h = 0, m = 0, s = 0;
    double part = 0;
    if (first.size() == 6 || (first.size() == 4 && f.next() != ':')) { // 080030, 0800
        h = whole(first.substr(0, 2));
        m = whole(first.substr(2, 2));
        s = first.size() == 6 ? whole(first.substr(4, 2)) : 0;
    } else {
        const char mark = behind_a_date && f.next() == '.' ? '.' : ':';
        if (first.empty() || first.size() > 2 || !f.skip(mark))
            return {};
        h = whole(first);
        const auto minutes_text = f.digits();
        if (minutes_text.empty() || minutes_text.size() > 2)
            return {};
        m = whole(minutes_text);
        if (f.skip(mark)) {
            const auto seconds_text = f.digits();
            if (seconds_text.empty() || seconds_text.size() > 2)
                return {};
            s = whole(seconds_text);
            if (f.next() == '.' || f.next() == ',' || f.next() == ':') {
                f.skip_any(".,:");
                const auto p = fraction(f);
                if (!p)
                    return {};
                part = *p;
            }
        }
    }
    const auto noon = noon_s(f, h);
    if (!noon || h > 24 || m > 59 || s > 59 || (h == 24 && (m > 0 || s > 0 || part > 0)))
        return {};
    return h * hour_s + m * minute_s + s + part + *noon;
}

std::optional<minutes> read_ahead(Front& f)
{
    f.skip_any(" ");
    if (f.skip('Z'))
        return minutes{0};
    const bool behind = f.next() == '-';
    if (f.skip_any("+-") != 1)
        return {};
    const auto h = f.digits();
    const bool colon = f.skip(':');
    const auto m = colon ? f.digits() : h.size() == 4 ? h.substr(2)
                                                      : std::string_view();
    if (h.empty() || (h.size() > 2 && h.size() != 4) || (colon && m.size() != 2))
        return {};
    const minutes ahead{whole(h.substr(0, h.size() == 4 ? 2 : h.size())) * 60 + whole(m)};
    return behind ? -ahead : ahead;
}

} // namespace

std::optional<Moment> read_moment(std::string_view cell, TimeForm order)
{
    Moment out;
    Front clock_only(cell);
    if (const auto clock = read_clock(clock_only); clock && cell.find(':') != std::string_view::npos) {
        clock_only.skip_any(" ");
        if (clock_only.done()) {
            out.second = *clock;
            return out;
        }
    }
    Front f(cell);
    // "Thu 7.5.2026", "Thursday, 7 May 2026": a weekday, in whatever language.
    if (Front weekday = f; !weekday.letters().empty() && !month_named(Front(cell).letters()) && weekday.skip_any("., ") > 0)
        f = weekday;
    out.day = read_date(f, order);
    if (!out.day)
        return {};
    if (f.done())
        return out;
    if (f.skip_any(" T,_-") == 0)
        return {};
    out.second = read_clock(f, true);
    if (!out.second)
        return {};
    if (!f.done())
        out.ahead = read_ahead(f);
    f.skip_any(" ");
    if (!f.done())
        return {};
    if (*out.second >= day_s) {
        *out.second -= day_s;
        *out.day += days{1};
    }
    return out;
}

} // namespace vernal
