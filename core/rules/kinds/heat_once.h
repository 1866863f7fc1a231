#pragma once

#include "shared.h"

namespace vernal {

// From a press of the button until the target is reached, once.
struct HeatOnce {
    std::string probe;
    Temperature target = Temperature::celsius(55);
    double press_h = 0; // where a day is simulated: hour at which the button is pressed
    bool operator==(const HeatOnce&) const = default;

    static constexpr double reach_k = 1.0; // asks anew this far below its target; an estimate
    static constexpr RuleKind kind{"heat_once", "Heat once", "Heat", "One heating on demand, from a press of the button.",
        "When the button is pressed heat with {output} until the {probe} reaches {target_c}, once.", "In a simulated day it is pressed at {press_h}.", Priority::heat};
    void compile(RuleCompiler& c) const
    {
        const Bits reached = c.high(probe, target, target - TempDiff::kelvin(reach_k), {"target_c", ""});
        Gate& pressed = c.gate(Gate::Kind::pressed, all_of(reached));
        pressed.timer = c.timer();
        pressed.button = c.button();
        pressed.wait_ms = RuleCompiler::of_day(press_h) % day_ms;
        c.clause(kind.priority, all_of(RuleCompiler::bit_of(pressed)), true);
    }
};

template <class V, OneOf<HeatOnce> T>
void fields(V& v, T& r)
{
    v.probe({"probe", "Probe", ProbeRole::warm_store}, r.probe);
    v.temperature({"target_c", "Target", Quantity::temperature, 0, 95, ""}, r.target);
    v.number({"press_h", "Pressed at", Quantity::time_of_day, 0, 24, "In a simulated day"}, r.press_h);
}

} // namespace vernal
