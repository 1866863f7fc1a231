// Fields and parts that several kinds of rules have.
#pragma once

#include "core/rules/rule_compiler.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace vernal {

inline constexpr NumberField hysteresis_field{"hysteresis_k", "Hysteresis", Quantity::difference, -50, 100, "A few kelvin"};
inline constexpr NumberField on_field{"on_k", "Start at", Quantity::difference, -20, 60, "3 to 20 K (estimate): above the stop by what the probes may be off together, at least"};
inline constexpr NumberField off_field{"off_k", "Stop at", Quantity::difference, -20, 60, "0.5 to 10 K (estimate): what the probes may be off together, at least"};

inline constexpr ProbeField source_field{"source", "Warm probe", ProbeRole::array};
inline constexpr ProbeField store_field{"store", "Store probe", ProbeRole::cold_store};

template <class V, class T>
void conditioning_fields(V& v, T& t)
{
    v.number({"confirm_s", "Confirmed for", Quantity::duration, 0, 3600, "0: at once; 10 to 60 s against gusts of sun (estimate)"}, t.confirm_s);
    v.number({"average_s", "Readings averaged over", Quantity::duration, 0, 3600, "0: none; it delays start and stop alike"}, t.average_s);
}

template <class V, class T>
void limit_fields(V& v, T& r, const NumberField& limit, ProbeRole role)
{
    v.probe({"probe", "Probe", role}, r.probe);
    v.temperature(limit, r.limit);
    v.difference(hysteresis_field, r.hysteresis);
}

// Blocks at the limit, releases a hysteresis below; counts for the time above limits.
template <class Limit>
void compile_upper_limit(RuleCompiler& c, const Limit& l, Priority priority)
{
    const Bits b = c.high(l.probe, l.limit, l.limit - l.hysteresis, {});
    c.program().limiting |= b.word[0];
    c.clause(priority, all_of(b), false);
}

// Hours of the day; equal: none; end before start: over midnight.
struct ClockWindow {
    double from_h = 0, to_h = 0;
    bool operator==(const ClockWindow&) const = default;
};
inline constexpr const char* window_keys[3][4]{{"from_1_h", "to_1_h", "on_1_c", "off_1_c"}, {"from_2_h", "to_2_h", "on_2_c", "off_2_c"}, {"from_3_h", "to_3_h", "on_3_c", "off_3_c"}};

template <class V, class Windows>
void window_fields(V& v, Windows& windows)
{
    for (std::size_t i = 0; i < windows.size(); ++i) {
        v.number({window_keys[i][0], "From", Quantity::time_of_day, 0, 24, "00:00 to 23:59 is always"}, windows[i].from_h);
        v.number({window_keys[i][1], "to", Quantity::time_of_day, 0, 24, "Equal to its start: no window"}, windows[i].to_h);
    }
}

} // namespace vernal
