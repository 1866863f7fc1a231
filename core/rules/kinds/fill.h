#pragma once

#include "shared.h"

namespace vernal {

struct Fill {
    double boost_s = 120, boost = 1.0;              // share of full speed
    std::string probe;                              // may be empty: no lockout
    Temperature lockout = Temperature::celsius(95); // no start above it
    TempDiff hysteresis = TempDiff::kelvin(10);
    bool operator==(const Fill&) const = default;

    static constexpr RuleKind kind{"fill", "Filling", "Protect", "Full speed lifts the water to the top; water that enters a hot empty collector flashes to steam.",
        "Start {output} at {boost} of full speed for {boost_s}; never while the {probe} is at {lockout_c}.", "Allow a start again {hysteresis_k} below.", Priority::limit};
    std::optional<LimitOf> limit_of() const { return probe.empty() ? std::nullopt : std::optional(LimitOf{probe, lockout, hysteresis}); }
    void compile(RuleCompiler& c) const
    {
        c.timers().boost_ms = std::max<Millis>(0, RuleCompiler::millis(boost_s));
        c.timers().boost_pm = RuleCompiler::per_mille(boost);
        if (!probe.empty())
            c.clause(kind.priority, all_of(c.high(probe, lockout, lockout - hysteresis, {"lockout_c"})), false, true);
    }
};

template <class V, OneOf<Fill> T>
void fields(V& v, T& r)
{
    v.number({"boost_s", "Boost for", Quantity::duration, 0, 3600, "Until water comes back: 1 to 4 min (estimate)"}, r.boost_s);
    v.number({"boost", "Speed while filling", Quantity::ratio, 0.1, 1, "100 %"}, r.boost);
    v.probe({"probe", "Probe", ProbeRole::array, true}, r.probe);
    v.temperature({"lockout_c", "No filling from", Quantity::temperature, 40, 250, "95 °C: the first water into a hotter array flashes to steam"}, r.lockout);
    v.difference(hysteresis_field, r.hysteresis);
}

} // namespace vernal
