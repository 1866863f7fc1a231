#include "timestamp.h"

#include <charconv>
#include <cmath>
#include <cstdio>

namespace vernal {
namespace {

using namespace std::chrono;

constexpr int day_s = 86400;

// Takes parts off the front of a text; once one is missing, none is there any more.
class Parts {
public:
    explicit Parts(std::string_view text) : left_(text) {}
    int number(std::size_t digits)
    {
        int value = 0;
        for (std::size_t i = 0; i < digits; ++i) {
            if (i >= left_.size() || left_[i] < '0' || left_[i] > '9') {
                good_ = false;
                return 0;
            }
            value = value * 10 + (left_[i] - '0');
        }
        left_.remove_prefix(digits);
        return value;
    }
    bool one_of(std::string_view chars)
    {
        if (left_.empty() || chars.find(left_[0]) == std::string_view::npos)
            return false;
        left_.remove_prefix(1);
        return true;
    }
    void need(std::string_view chars) { good_ = one_of(chars) && good_; }
    double fraction()
    {
        std::string digits = "0.";
        while (!left_.empty() && left_[0] >= '0' && left_[0] <= '9') {
            digits += left_[0];
            left_.remove_prefix(1);
        }
        double value = 0;
        std::from_chars(digits.data(), digits.data() + digits.size(), value);
        good_ = good_ && digits.size() > 2 && value < 1;
        return value;
    }
    bool at_end() const { return good_ && left_.empty(); }
    char next() const { return left_.empty() ? '\0' : left_[0]; }

private:
    std::string_view left_;
    bool good_ = true;
};

std::optional<minutes> offset(Parts& p)
{
    if (p.one_of("Z"))
        return minutes{0};
    const bool behind = p.next() == '-';
    if (!p.one_of("+-"))
        return {};
    const int h = p.number(2);
    p.one_of(":");
    const minutes ahead{h * 60 + p.number(2)};
    return behind ? -ahead : ahead;
}

} // namespace

std::optional<Timestamp> read_timestamp(std::string_view text)
{
    Parts p(text);
    const int y = p.number(4);
    p.need("-");
    const int mo = p.number(2);
    p.need("-");
    const int d = p.number(2);
    p.need("T ");
    const int h = p.number(2);
    p.need(":");
    const int mi = p.number(2);
    const bool seconds_too = p.one_of(":");
    const int s = seconds_too ? p.number(2) : 0;
    Timestamp out;
    if (seconds_too && p.one_of(".,"))
        out.fraction = p.fraction();
    out.ahead = offset(p);
    const year_month_day date = year{y} / mo / d;
    if (!p.at_end() || !date.ok() || y < 1900 || y > 2999 || h > 24 || mi > 59 || s > 59 || (h == 24 && (mi > 0 || s > 0 || out.fraction > 0)))
        return std::nullopt;
    out.day = sys_days{date} + days{h / 24};
    out.second = h % 24 * 3600 + mi * 60 + s;
    return out;
}

std::string timestamp_text(const Timestamp& t)
{
    const year_month_day date{t.day};
    char text[64];
    std::snprintf(text, sizeof text, "%04d-%02u-%02uT%02d:%02d:%02d", static_cast<int>(date.year()), static_cast<unsigned>(date.month()), static_cast<unsigned>(date.day()), t.second / 3600, t.second / 60 % 60, t.second % 60);
    if (t.fraction == 0)
        return text;
    char fraction[400]; // the shortest without an exponent may begin with hundreds of zeros
    const auto end = std::to_chars(fraction, fraction + sizeof fraction, t.fraction, std::chars_format::fixed).ptr;
    return text + std::string(fraction + 1, end);
}

Timestamp later(const Timestamp& t, double seconds)
{
    const double whole = std::floor(seconds);
    double fraction = seconds - whole + t.fraction;
    const double carried = std::floor(fraction);
    fraction -= carried;
    const auto total = static_cast<long long>(whole + carried) + t.second;
    const long long past = ((total % day_s) + day_s) % day_s;
    return {t.day + days{(total - past) / day_s}, static_cast<int>(past), fraction, t.ahead};
}

double elapsed_s(const Timestamp& from, const Timestamp& to)
{
    const auto utc = [](const Timestamp& t) { return t.ahead ? seconds{*t.ahead} : seconds{0}; };
    const seconds whole = seconds{to.day - from.day} + seconds{to.second - from.second} - (utc(to) - utc(from));
    return static_cast<double>(whole.count()) + (to.fraction - from.fraction);
}

} // namespace vernal
