#pragma once

#include "shared.h"

namespace vernal {

struct HeatWindow {
    double from_h = 0, to_h = 0;
    Temperature on = Temperature::celsius(45), off = Temperature::celsius(50);
    bool operator==(const HeatWindow&) const = default;
};

struct Heating {
    std::string probe;
    std::array<HeatWindow, 3> windows{HeatWindow{5, 7}, {}, {}};
    std::string unless; // not while this output runs; may be empty
    bool operator==(const Heating&) const = default;

    static constexpr RuleKind kind{"heating", "Backup heating", "Heat", "Warms the store when the sun has not.",
        "Heat with {output} by the {probe}: from {from_1_h} to {to_1_h} on at {on_1_c}, off at {off_1_c}.", "From {from_2_h} to {to_2_h} on at {on_2_c}, off at {off_2_c}; from {from_3_h} to {to_3_h} on at {on_3_c}, off at {off_3_c}. Not while {unless} runs.", Priority::heat};
    void fresh(const FreshContext& c, const std::string& output) { unless = output == c.first() ? "" : c.first(); }
    void compile(RuleCompiler& c) const
    {
        Bits sun;
        if (!unless.empty()) {
            const std::size_t leader = c.output(unless);
            Gate& runs = c.gate(Gate::Kind::follow);
            runs.output = static_cast<std::int8_t>(leader);
            sun = RuleCompiler::bit_of(runs);
        }
        bool any = false;
        for (std::size_t i = 0; i < windows.size(); ++i) {
            const HeatWindow& w = windows[i];
            if (RuleCompiler::of_day(w.from_h) == RuleCompiler::of_day(w.to_h))
                continue;
            any = true;
            const Bits cold = c.low(probe, w.on, w.off, {window_keys[i][2], window_keys[i][3], "a window switches on at or above the temperature at which it switches off"});
            c.clause(kind.priority, all_of(cold | c.window(w.from_h, w.to_h), sun), true);
        }
        if (!any)
            c.probe(probe);
    }
};

template <class V, OneOf<Heating> T>
void fields(V& v, T& r)
{
    v.probe({"probe", "Probe", ProbeRole::warm_store}, r.probe);
    for (std::size_t i = 0; i < r.windows.size(); ++i) {
        v.number({window_keys[i][0], "From", Quantity::time_of_day, 0, 24, "Before the hours of use; the day is the sun's"}, r.windows[i].from_h);
        v.number({window_keys[i][1], "to", Quantity::time_of_day, 0, 24, "Equal to its start: no window"}, r.windows[i].to_h);
        v.temperature({window_keys[i][2], "On at", Quantity::temperature, 0, 95, "What the tap needs"}, r.windows[i].on);
        v.temperature({window_keys[i][3], "Off at", Quantity::temperature, 0, 95, "Some kelvin above; 60 °C against legionella, tempered at the tap"}, r.windows[i].off);
    }
    v.output({"unless", "Not while it runs", true, "(nothing)"}, r.unless);
}

} // namespace vernal
