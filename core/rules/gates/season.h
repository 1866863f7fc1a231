#pragma once

#include "gate.h"

#include "core/units/quantity.h"

#include <chrono>

namespace vernal {

// The date lies between two of the year, both in it; never with clock or date lost.
struct SeasonGate {
    static constexpr Gate::Kind kind = Gate::Kind::season;

    // A year without 29 Feb skips day 60, so that one as an end needs no case of its own.
    static bool in_season(const Gate& g, std::int32_t date)
    {
        const std::chrono::year_month_day d{std::chrono::sys_days{std::chrono::days{date}}};
        const int day = day_of_leap_year(static_cast<int>(static_cast<unsigned>(d.month())), static_cast<int>(static_cast<unsigned>(d.day())));
        return g.first_day <= g.last_day ? day >= g.first_day && day <= g.last_day : day >= g.first_day || day <= g.last_day;
    }
    static bool known(const Inputs& in) { return in.clock_ms >= 0 && in.date != no_date; }
    static bool holds(const Gate& g, GateSample& s) { return known(s.in) && in_season(g, s.in.date); }
    template <class At>
    static void events(const Gate&, const GateView& v, At at)
    {
        if (known(v.last))
            at(v.state.now_ms + day_ms - v.last.clock_ms);
    }
    static Unmet unmet(const Gate& g, const GateView& v, bool must_end)
    {
        constexpr std::int32_t year = 366;
        for (std::int32_t days = 1; known(v.last) && days <= year; ++days)
            if (in_season(g, v.last.date + days) != must_end)
                return {must_end, days * day_ms - v.last.clock_ms};
        return {must_end, not_since};
    }
    static std::string words(const Gate&, const Unmet& u, const GateWords& w)
    {
        return u.left_ms == not_since ? std::string("the date were set") : "its dates " + std::string(u.must_end ? "were over" : "had begun") + " (in " + w.time(u.left_ms) + ")";
    }
};

} // namespace vernal
