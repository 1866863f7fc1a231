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
        const MilliKelvin least = in_milli(RuleCompiler::reading(least_m3_s, Reads::flow));
        if (least <= 0)
            throw Refused{"a flow of nothing proves nothing"};
        c.guard(Gate::Kind::flow_guard, c.probe(meter, Reads::flow), check_s, pause_s, retries).change_mk = least;
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
