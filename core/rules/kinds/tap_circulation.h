#pragma once

#include "shared.h"

namespace vernal {

// The pump that keeps warm water at the taps of a building: by the clock, by what
// comes back, or both, and only while there is warm water to send.
struct TapCirculation {
    std::string back, store; // probes; either may be empty: not looked at
    std::array<ClockWindow, 3> windows{ClockWindow{6, 9}, ClockWindow{17, 22}, {}};
    Temperature on = Temperature::celsius(42), off = Temperature::celsius(48); // of what comes back
    Temperature store_min = Temperature::celsius(45);
    TempDiff hysteresis = TempDiff::kelvin(3);
    bool operator==(const TapCirculation&) const = default;

    static constexpr RuleKind kind{"tap_circulation", "Tap circulation", "Heat", "Keeps warm water at the taps. It takes heat and stirs the store, so no longer than it is wanted; where codes against legionella ask for a warm return all day, keep to them.",
        "Circulate with {output} from {from_1_h} to {to_1_h} and from {from_2_h} to {to_2_h}, once the {store} is at {store_min_c}.",
        "When the {back} falls to {on_c}, until it is at {off_c}. Also from {from_3_h} to {to_3_h}. Rests {hysteresis_k} below the store's temperature.", Priority::heat};
    void fresh(const FreshContext& c, std::string& output) { output = c.driving(Drives::other); } // no pump of the loop is its pump
    void compile(RuleCompiler& c) const
    {
        Bits all = c.windows(windows);
        if (off <= on)
            throw Refused{"it stops at or below the temperature at which it starts"};
        if (!back.empty())
            all |= c.low(back, on, off, {"on_c", "off_c"});
        if (!store.empty())
            all |= c.high(store, store_min, store_min - hysteresis, {"store_min_c", "hysteresis_k"});
        c.clause(kind.priority, all_of(all), true);
    }
};

template <class V, OneOf<TapCirculation> T>
void fields(V& v, T& r)
{
    v.probe({"back", "Return of the circulation", ProbeRole::left_open, true, "return (not looked at)"}, r.back);
    v.probe({"store", "Store", ProbeRole::warm_store, true, "store (not looked at)"}, r.store);
    window_fields(v, r.windows);
    v.temperature({"on_c", "Return: on at", Quantity::temperature, 5, 90, "Where it passes near no store, some kelvin below what the tap needs (estimate)"}, r.on);
    v.temperature({"off_c", "Return: off at", Quantity::temperature, 5, 90, "Codes may ask for 55 °C and more, all day: no return more than 5 K below the store (DVGW W 551, from memory)"}, r.off);
    v.temperature({"store_min_c", "From a store temperature of", Quantity::temperature, 10, 95, "What the tap needs; below it the pump only cools"}, r.store_min);
    v.difference(hysteresis_field, r.hysteresis);
}

} // namespace vernal
