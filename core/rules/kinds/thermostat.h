#pragma once

#include "shared.h"

namespace vernal {

// on < off heats, on > off cools.
struct Thermostat {
    std::string probe;
    Temperature on = Temperature::celsius(40), off = Temperature::celsius(45);
    std::array<ClockWindow, 3> windows{ClockWindow{0, 23 + 59.0 / 60}, {}, {}};
    bool operator==(const Thermostat&) const = default;

    static constexpr RuleKind kind{"thermostat", "Thermostat", "Heat", "Any output by any probe: on below and off above heats, the other way round cools.",
        "Switch {output} on when the {probe} comes to {on_c}, off at {off_c}, from {from_1_h} to {to_1_h}.", "Also from {from_2_h} to {to_2_h} and from {from_3_h} to {to_3_h}.", Priority::heat};
    void compile(RuleCompiler& c) const
    {
        const RuleCompiler::Fields names{"on_c", "off_c", on < off ? RuleCompiler::no_hysteresis : "it switches on and off at the same temperature"};
        const Bits l = on < off ? c.low(probe, on, off, names) : c.high(probe, on, off, names);
        c.clause(kind.priority, all_of(l | c.windows(windows)), true);
    }
};

template <class V, OneOf<Thermostat> T>
void fields(V& v, T& r)
{
    v.probe({"probe", "Probe", ProbeRole::warm_store}, r.probe);
    v.temperature({"on_c", "On at", Quantity::temperature, -40, 250, "Below the other it heats, above it cools"}, r.on);
    v.temperature({"off_c", "Off at", Quantity::temperature, -40, 250, ""}, r.off);
    window_fields(v, r.windows);
}

} // namespace vernal
