#pragma once

#include "shared.h"

namespace vernal {

struct LowVoltage {
    double cut_v = 11.5, reconnect_v = 12.5;
    double delay_s = 5, reconnect_s = 60;
    bool operator==(const LowVoltage&) const = default;

    static constexpr RuleKind kind{"low_voltage", "Low voltage", "Protect", "A battery that is drawn empty dies. Even ON is stopped.",
        "Cut {output} off when the supply stays at {cut_v} or below for {delay_s}; reconnect at {reconnect_v} after {reconnect_s}.", "", Priority::hold};
    void compile(RuleCompiler& c) const
    {
        const Bits b = c.low(static_cast<std::uint8_t>(supply_channel), cut_v, reconnect_v, {"cut_v", "reconnect_v", "it reconnects at or below the voltage at which it cuts"});
        c.delay(b, delay_s, reconnect_s);
        c.clause(kind.priority, all_of(b), false);
    }
};

template <class V, OneOf<LowVoltage> T>
void fields(V& v, T& r)
{
    v.number({"cut_v", "Cut at", Quantity::voltage, 0, 60, "Above 10.5 V, 1.75 V a cell, at which a lead-acid battery is empty (IEC 60896-11, from memory); the higher, the longer it lives"}, r.cut_v);
    v.number({"delay_s", "for", Quantity::duration, 0, 600, "A few seconds: the dip of a starting motor must not cut"}, r.delay_s);
    v.number({"reconnect_v", "Reconnect at", Quantity::voltage, 0, 60, "12.2 to 14 V (estimate): charged again, not only rested"}, r.reconnect_v);
    v.number({"reconnect_s", "after", Quantity::duration, 0, 3600, ""}, r.reconnect_s);
}

} // namespace vernal
