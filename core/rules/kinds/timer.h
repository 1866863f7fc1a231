#pragma once

#include "shared.h"

namespace vernal {

struct Timer {
    std::array<ClockWindow, 3> windows{ClockWindow{6, 8}, {}, {}};
    double for_s = 0, every_s = 3600;     // for_s 0: all of its windows
    double first_day = 1, last_day = 366; // of a year of 366, both in it; last before first: over New Year
    bool operator==(const Timer&) const = default;

    static constexpr RuleKind kind{"timer", "Timer", "Heat", "Any output by the clock, all of a window or in bursts: a few minutes of warm water on winter nights need no probe.",
        "Switch {output} on from {from_1_h} to {to_1_h}, between {first_day} and {last_day}.", "For {for_s} every {every_s}. Also from {from_2_h} to {to_2_h} and from {from_3_h} to {to_3_h}.", Priority::heat};
    void compile(RuleCompiler& c) const
    {
        const Expr when = all_of(c.windows(windows) | c.season(first_day, last_day));
        if (for_s <= 0 || every_s <= for_s)
            return c.clause(kind.priority, when, true);
        c.clause(kind.priority, all_of(c.bursts(when, for_s, every_s)), true);
    }
};

template <class V, OneOf<Timer> T>
void fields(V& v, T& r)
{
    window_fields(v, r.windows);
    v.number({"for_s", "For", Quantity::minutes, 0, 86400, "0: all of the window; against frost until warm water has passed the coldest pipe"}, r.for_s);
    v.number({"every_s", "every", Quantity::minutes, 60, 86400, "What the pipe takes to cool, less a margin; try it on a frosty night"}, r.every_s);
    v.number({"first_day", "Between", Quantity::date, 1, 366, "1 Jan to 31 Dec is all the year"}, r.first_day);
    v.number({"last_day", "and", Quantity::date, 1, 366, "Before the first: over New Year"}, r.last_day);
}

} // namespace vernal
