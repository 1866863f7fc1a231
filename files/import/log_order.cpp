#include "log_order.h"

#include "core/weather/zone.h"
#include "files/timestamp.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace vernal {
namespace {

using namespace std::chrono;

constexpr double day_s = 86400, hour_s = 3600;

class Orderer {
public:
    Orderer(const std::vector<RowTime>& times, const std::vector<std::uint32_t>& lines, bool dated, const LogLayout& layout, const Place& place, TroubleList& troubles)
        : times_(times), lines_(lines), dated_(dated), layout_(layout), place_(place), troubles_(troubles) {}

    OrderedRows order()
    {
        put_in_order();
        for (const double t : at_)
            out_.time_s.push_back(t - base_.s);
        return std::move(out_);
    }

private:
    void put_in_order()
    {
        std::vector<std::size_t> order(times_.size());
        std::iota(order.begin(), order.end(), std::size_t{0});
        std::size_t falls = 0, rises = 0;
        for (std::size_t i = 1; i < times_.size(); ++i) {
            falls += times_[i].s < times_[i - 1].s;
            rises += times_[i].s > times_[i - 1].s;
        }
        if (falls > rises && dated_) {
            std::reverse(order.begin(), order.end());
            out_.notes.emplace_back("The newest row stood first; the log was turned round");
        }
        std::vector<double> gaps;
        for (std::size_t i = 1; i < times_.size(); ++i)
            gaps.push_back(std::fabs(times_[i].s - times_[i - 1].s));
        if (!gaps.empty()) {
            std::nth_element(gaps.begin(), gaps.begin() + static_cast<std::ptrdiff_t>(gaps.size() / 2), gaps.end());
            usual_s_ = gaps[gaps.size() / 2];
        }
        for (std::size_t k = 0; k < order.size(); ++k)
            place_row(order, k);
    }

    void place_row(const std::vector<std::size_t>& order, std::size_t k)
    {
        const std::size_t row = order[k];
        double t = times_[row].s + moved_s_;
        if (out_.rows.empty()) {
            begin(times_[row]);
            t = times_[row].s;
        } else {
            t = went_on(times_[row], t);
            const double last = at_.back();
            constexpr double far_s = 30 * day_s;
            if (t - last > far_s && k + 1 < order.size() && times_[order[k + 1]].s + moved_s_ < t && times_[order[k + 1]].s + moved_s_ > last)
                return troubles_.put(lines_[row], lines_[row], "the time lies far from that of the rows beside it; the row was left out");
            if (t < last || times_[row].fixed != base_.fixed || t - base_.s > longest_log_s)
                return troubles_.put(lines_[row], lines_[row], times_[row].fixed != base_.fixed ? "this row says how far its clock is ahead of UTC and others do not; it was left out" : "the time runs backwards; the row was left out");
            if (t == last) { // the last one wins
                ++out_.duplicates;
                out_.rows.back() = row;
                return;
            }
        }
        out_.rows.push_back(row);
        at_.push_back(t);
    }

    // Where clocks are put back or forward, and over midnight where there are no dates.
    double went_on(const RowTime& w, double t)
    {
        const double last = at_.back();
        if (w.fixed)
            return t;
        if (!dated_ && is_date(layout_.form)) {
            if (t < last - 0.5 * day_s) {
                moved_s_ += day_s;
                t += day_s;
            }
            return t;
        }
        if (!dated_ || layout_.clock != LogClock::wall)
            return t;
        const double back = last - t, reach = std::max(3.5 * usual_s_, 60.0);
        if (back > 0 && back <= hour_s && back >= hour_s - reach && usual_s_ < hour_s && last - put_back_s_ > 60 * day_s) {
            moved_s_ += hour_s;
            put_back_s_ = last;
            out_.notes.emplace_back("Clocks were put back an hour; the hour that comes twice goes on after the first");
            return t + hour_s;
        }
        if (t - last >= hour_s && t - last <= hour_s + reach && usual_s_ < hour_s && put_forward_on(w.s)) {
            moved_s_ -= hour_s;
            out_.notes.emplace_back("Clocks were put forward an hour; the hour that is missing is no gap");
            return t - hour_s;
        }
        return t;
    }

    bool put_forward_on(double local_s) const
    {
        const sys_days day{duration_cast<days>(seconds{static_cast<long long>(local_s)})};
        const double of_day = local_s - static_cast<double>(seconds{day.time_since_epoch()}.count());
        return of_day >= hour_s && of_day < 4 * hour_s && ahead_s(day) - ahead_s(day - days{1}) == hour_s;
    }

    double ahead_s(sys_days day) const
    {
        const year_month_day d{day};
        return hour_s * clock_ahead_h(place_, static_cast<int>(d.year()), static_cast<int>(static_cast<unsigned>(d.month())), static_cast<int>(static_cast<unsigned>(d.day())));
    }

    void begin(const RowTime& first)
    {
        base_ = first;
        if (!dated_) {
            base_.s = 0; // seconds are those of the day
            return;
        }
        base_.s = std::floor(first.s);
        double local = base_.s;
        const sys_days utc_day{days{static_cast<int>(std::floor(base_.s / day_s))}};
        if (first.fixed || layout_.clock == LogClock::utc)
            local += ahead_s(utc_day);
        else if (layout_.clock == LogClock::standard)
            local += ahead_s(utc_day) - standard_s();
        const auto whole = static_cast<long long>(std::floor(local));
        const long long of_day = ((whole % 86400) + 86400) % 86400;
        out_.start = timestamp_text({sys_days{days{(whole - of_day) / 86400}}, static_cast<int>(of_day), 0, {}});
    }

    double standard_s() const // the lesser of winter and summer
    {
        const sys_days day{days{static_cast<int>(std::floor(base_.s / day_s))}};
        const int y = static_cast<int>(year_month_day{day}.year());
        return std::min(ahead_s(sys_days{year{y} / 1 / 15}), ahead_s(sys_days{year{y} / 7 / 15}));
    }

    const std::vector<RowTime>& times_;
    const std::vector<std::uint32_t>& lines_;
    bool dated_;
    const LogLayout& layout_;
    const Place& place_;
    TroubleList& troubles_;
    double usual_s_ = 0;
    std::vector<double> at_; // of the kept rows, on the clock of the first
    double moved_s_ = 0, put_back_s_ = -1e18;
    RowTime base_;
    OrderedRows out_;
};

} // namespace

void TroubleList::put(std::size_t line, std::size_t to_line, std::string what)
{
    if (!list_.empty() && list_.back().what == what && list_.back().to_line + 1 >= line && line >= list_.back().line) {
        list_.back().to_line = std::max(list_.back().to_line, to_line);
        return;
    }
    if (list_.size() >= most_troubles)
        ++more_;
    else
        list_.push_back({line, to_line, std::move(what)});
}

OrderedRows rows_in_order(const std::vector<RowTime>& times, const std::vector<std::uint32_t>& lines, bool dated, const LogLayout& layout, const Place& place, TroubleList& troubles)
{
    return Orderer(times, lines, dated, layout, place, troubles).order();
}

} // namespace vernal
