#pragma once

#include "shared.h"

namespace vernal {

struct Disinfection {
    std::string probe; // at the coldest stored point
    Temperature target = Temperature::celsius(60);
    double hold_s = 1800;
    double every_days = 7, last_days = 0; // last reached so many days before power-up
    bool operator==(const Disinfection&) const = default;

    // Estimates, wide enough for the noise of a probe: done this far above the
    // target at the least, heated between these two, so that it surely stays above.
    static constexpr double reach_k = 1.0, heat_low_k = 1.0, heat_high_k = 3.0;
    static constexpr RuleKind kind{"disinfection", "Disinfection", "Heat", "Legionella grows in warm water. Heat it at the coldest stored point, as often and as long as local codes ask; and temper the taps, such water scalds.",
        "When the {probe} has not stood at {target_c} for {hold_s} within {every_days} days, heat with {output} until it has.", "It last did {last_days} days before the unit was switched on.", Priority::heat};
    void compile(RuleCompiler& c) const
    {
        const Bits done = c.high(probe, target, target - TempDiff::kelvin(reach_k), {"target_c", ""});
        c.delay(done, hold_s, 0);
        const Bits cool = c.low(probe, target + TempDiff::kelvin(heat_low_k), target + TempDiff::kelvin(heat_high_k), {"", ""});
        Gate& due = c.gate(Gate::Kind::cycle, all_of({}, done));
        due.timer = c.timer();
        due.wait_ms = RuleCompiler::millis(every_days * 86400);
        due.on_ms = for_ever / 2;
        due.outlives_power = true;
        due.before_ms = RuleCompiler::millis(last_days * 86400);
        c.clause(kind.priority, all_of(RuleCompiler::bit_of(due) | cool), true);
    }
};

template <class V, OneOf<Disinfection> T>
void fields(V& v, T& r)
{
    v.probe({"probe", "Probe", ProbeRole::cold_store}, r.probe);
    v.temperature({"target_c", "Target", Quantity::temperature, 50, 95, "60 °C (WHO 2007); by local code"}, r.target);
    v.number({"hold_s", "Held for", Quantity::minutes, 0, 86400, "10 to 60 min by local code (estimate)"}, r.hold_s);
    v.number({"every_days", "At least every", Quantity::days, 0.5, 60, "1 to 7 days (estimate); codes may ask for every day (DVGW W 551, from memory)"}, r.every_days);
    v.number({"last_days", "Last reached before", Quantity::days, 0, 60, "As the record says"}, r.last_days);
}

} // namespace vernal
