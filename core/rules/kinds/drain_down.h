#pragma once

#include "shared.h"

namespace vernal {

// A valve that is held shut and falls open, emptying the loop.
struct DrainDown {
    std::string probe;
    Temperature limit = Temperature::celsius(5);
    TempDiff hysteresis = TempDiff::kelvin(4);
    std::string pump; // output that rests meanwhile; may be empty
    bool operator==(const DrainDown&) const = default;

    static constexpr RuleKind kind{"drain_down", "Drain-down", "Freeze", "The valve falls open and empties the loop before it freezes, also when the power fails.",
        "Hold {output} shut; let it fall open when the {probe} falls to {limit_c}; shut it again {hysteresis_k} above that.", "Meanwhile {pump} rests.", Priority::freeze};
    std::optional<LimitOf> limit_of() const { return LimitOf{probe, limit, hysteresis, true}; }
    void fresh(const FreshContext& c, std::string& output)
    {
        if (const std::string valve = c.driving(Drives::drain_valve); !valve.empty()) {
            output = valve;
            pump = c.first();
        }
    }
    void compile(RuleCompiler& c) const
    {
        const Bits frost = c.low(probe, limit, limit + hysteresis, {});
        c.clause(kind.priority, all_of(frost), false);
        c.hold_unless(frost);
        if (pump.empty())
            return;
        const std::size_t its_pump = c.output(pump);
        c.use(its_pump, c.last_reads());
        c.clause_for(its_pump, kind.priority, all_of(frost), false);
    }
};

template <class V, OneOf<DrainDown> T>
void fields(V& v, T& r)
{
    limit_fields(v, r, {"limit_c", "Threshold", Quantity::temperature, -40, 30, "2 to 8 °C (estimate): the coldest wet pipe is colder than the probe, and the probe may be off"}, ProbeRole::array);
    v.output({"pump", "Pump", true, "(no pump)"}, r.pump);
}

} // namespace vernal
