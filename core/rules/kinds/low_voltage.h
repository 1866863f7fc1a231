#pragma once

#include "shared.h"

namespace vernal {

struct LowVoltage {
    double cut_v = 11.5, reconnect_v = 12.6;
    double delay_s = 5, reconnect_s = 60;
    bool operator==(const LowVoltage&) const = default;

    static constexpr RuleKind kind{"low_voltage", "Low voltage", "Protect", "A battery that is drawn empty dies. Even ON is stopped.",
        "Cut {output} off when the supply stays at {cut_v} or below for {delay_s}; reconnect at {reconnect_v} after {reconnect_s}.", "", Priority::hold};
    void compile(RuleCompiler& c) const
    {
        const Bits b = c.low(static_cast<std::uint8_t>(supply_channel), cut_v, reconnect_v, {"cut_v", "reconnect_v", "it reconnects at or below the voltage at which it cuts"});
        c.delay(b, delay_s, reconnect_s);
        c.clause(kind.priority, {0, b, 0}, false);
    }
};

template <class V, OneOf<LowVoltage> T>
void fields(V& v, T& r)
{
    v.number({"cut_v", "Cut at", Quantity::voltage, 0, 60, "11.5 V spares a 12 V battery; 10 to 10.5 V is empty (common practice, no source)"}, r.cut_v);
    v.number({"delay_s", "for", Quantity::duration, 0, 600, "A few seconds: the dip of a starting motor must not cut"}, r.delay_s);
    v.number({"reconnect_v", "Reconnect at", Quantity::voltage, 0, 60, "12.6 to 13.5 V (common practice, no source)"}, r.reconnect_v);
    v.number({"reconnect_s", "after", Quantity::duration, 0, 3600, ""}, r.reconnect_s);
}

} // namespace vernal
