#pragma once

#include "shared.h"

namespace vernal {

// Warm water of the store goes round while the probe is near freezing.
struct Freeze {
    std::string probe, second; // either; second may be empty
    Temperature limit = Temperature::celsius(5);
    TempDiff hysteresis = TempDiff::kelvin(3);
    std::string store;                               // may be empty: never asked
    Temperature store_min = Temperature::celsius(8); // not below this
    double burst_s = 0, every_s = 900;               // burst_s 0: all the time
    bool operator==(const Freeze&) const = default;

    static constexpr RuleKind kind{"freeze", "Freeze recirculation", "Freeze", "Sends warm water round before the pipe freezes. It fails with the power, and cools the store: only where frost is rare.",
        "Run {output} when the {probe} falls to {limit_c}; stop {hysteresis_k} above that.", "Watch the {second} too. Not once the {store} is down to {store_min_c}. In bursts of {burst_s} every {every_s}.", Priority::freeze};
    std::optional<LimitOf> limit_of() const { return LimitOf{probe, limit, hysteresis, true}; }
    void compile(RuleCompiler& c) const
    {
        Expr when{c.low(probe, limit, limit + hysteresis, {}), {}, {}};
        if (!second.empty())
            when.any |= c.low(second, limit, limit + hysteresis, {});
        if (!store.empty())
            when.none |= c.low(store, store_min, store_min + hysteresis, {"store_min_c", "hysteresis_k"});
        if (burst_s <= 0 || every_s <= burst_s)
            return c.clause(kind.priority, when, true);
        c.clause(kind.priority, all_of(c.bursts(when, burst_s, every_s)), true);
    }
};

template <class V, OneOf<Freeze> T>
void fields(V& v, T& r)
{
    v.probe({"probe", "Probe", ProbeRole::array}, r.probe);
    v.temperature({"limit_c", "Threshold", Quantity::temperature, -40, 30, "2 to 8 °C (estimate): the coldest wet pipe is colder than the probe, and the probe may be off"}, r.limit);
    v.difference(hysteresis_field, r.hysteresis);
    v.probe({"second", "Second probe", ProbeRole::second_spot, true}, r.second);
    v.probe({"store", "Store probe", ProbeRole::cold_store, true}, r.store);
    v.temperature({"store_min_c", "Not below", Quantity::temperature, -40, 90, "What may be taken from the store"}, r.store_min);
    v.number({"burst_s", "Bursts of", Quantity::duration, 0, 86400, "0: all the time; else until warm water has passed the coldest pipe"}, r.burst_s);
    v.number({"every_s", "every", Quantity::minutes, 0, 86400, ""}, r.every_s);
}

} // namespace vernal
