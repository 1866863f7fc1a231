#pragma once

#include "shared.h"

namespace vernal {

struct Look {
    std::string probe;
    Temperature least = Temperature::celsius(25);
    double every_s = 1800, run_s = 30;
    double from_h = 8, to_h = 18;
    bool operator==(const Look&) const = default;

    static constexpr double hysteresis_k = 2.0; // of "the sun is likely"; an estimate
    static constexpr RuleKind kind{"look", "Look", "Collect", "In a tube manifold the probe learns little until fluid moves.",
        "While the sun is likely, from {from_h} to {to_h} and with the {probe} at {least_c}, run {output} for {run_s} every {every_s}.", "", Priority::collect};
    void compile(RuleCompiler& c) const
    {
        const Bits sunny = c.high(probe, least, least - TempDiff::kelvin(hysteresis_k), {"least_c", ""});
        const Bits day = c.window(from_h, to_h);
        Gate& looks = c.gate(Gate::Kind::cycle, all_of(sunny | day));
        looks.output = static_cast<std::int8_t>(c.own());
        looks.timer = c.timer();
        looks.wait_ms = RuleCompiler::millis(every_s);
        looks.on_ms = RuleCompiler::millis(run_s);
        c.clause(kind.priority, all_of(RuleCompiler::bit_of(looks)), true);
    }
};

template <class V, OneOf<Look> T>
void fields(V& v, T& r)
{
    v.probe({"probe", "Probe", ProbeRole::array}, r.probe);
    v.temperature({"least_c", "Probe at least", Quantity::temperature, -20, 120, "Above the night's air (estimate)"}, r.least);
    v.number({"every_s", "Every", Quantity::minutes, 60, 86400, "10 to 120 min (estimate)"}, r.every_s);
    v.number({"run_s", "Run", Quantity::duration, 1, 600, "Until the header's fluid has passed the probe: 3 to 120 s (estimate)"}, r.run_s);
    v.number({"from_h", "From", Quantity::time_of_day, 0, 24, ""}, r.from_h);
    v.number({"to_h", "to", Quantity::time_of_day, 0, 24, ""}, r.to_h);
}

} // namespace vernal
