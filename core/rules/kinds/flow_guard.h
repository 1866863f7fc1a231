#pragma once

#include "shared.h"

namespace vernal {

// A flow meter in the return tells at once whether anything comes round.
struct FlowGuard {
    std::string meter;
    double least_m3_s = 1e-3 / 60;
    double check_s = 240, pause_s = 900;
    double retries = 3;
    bool operator==(const FlowGuard&) const = default;

    static constexpr RuleKind kind{"flow_guard", "Flow guard", "Protect", "Where the pump runs and the flow meter stands still, it runs dry, against air or against a shut valve. Even ON is stopped.",
        "Stop {output} when the {meter} has stayed below {least_m3_s} for {check_s} of running; try again after {pause_s}.", "Give up after {retries} retries, until the switch is moved to OFF.", Priority::hold};
    void compile(RuleCompiler& c) const
    {
        const std::uint8_t channel = c.probe(meter, Reads::flow);
        if (c.program().guards == max_guards)
            throw Refused{"a unit holds two guards against running dry"};
        if (in_milli(RuleCompiler::reading(least_m3_s, Reads::flow)) <= 0)
            throw Refused{"a flow of nothing proves nothing"};
        Gate& guard = c.gate(Gate::Kind::flow_guard);
        guard.channel = channel;
        guard.output = static_cast<std::int8_t>(c.own());
        guard.timer = c.program().guards++;
        guard.change_mk = in_milli(RuleCompiler::reading(least_m3_s, Reads::flow));
        guard.wait_ms = RuleCompiler::millis(check_s);
        guard.on_ms = RuleCompiler::millis(pause_s);
        guard.retries = static_cast<std::uint8_t>(std::lround(std::clamp(retries, 0.0, 200.0)));
        const Bits b = RuleCompiler::bit_of(guard);
        c.use(c.own(), c.reads(channel));
        c.clause(kind.priority, all_of(b), false);
    }
};

template <class V, OneOf<FlowGuard> T>
void fields(V& v, T& r)
{
    v.probe({"meter", "Flow meter", ProbeRole::flow, false, "(no flow meter)"}, r.meter);
    v.number({"least_m3_s", "Flow of at least", Quantity::flow, 0, 2, "A quarter to a half of the flow measured at the lowest speed (estimate), above what the meter needs to turn"}, r.least_m3_s);
    v.number({"check_s", "For", Quantity::duration, 5, 3600, "Longer than filling takes where the array empties; else 20 to 60 s (estimate)"}, r.check_s);
    v.number({"pause_s", "Again after", Quantity::minutes, 10, 86400, "Longer than draining takes"}, r.pause_s);
    v.number({"retries", "Retries", Quantity::count, 0, 50, "2 to 5 (estimate)"}, r.retries);
}

} // namespace vernal
