#pragma once

#include "shared.h"

namespace vernal {

// A lamp or a horn for a closed loop that has lost pressure, or is about to blow off.
struct PressureAlarm {
    std::string sensor;
    double low_pa = 0.5e5, high_pa = 0; // 0: not looked at
    double band_pa = 0.2e5;
    double delay_s = 60;
    bool operator==(const PressureAlarm&) const = default;

    static constexpr RuleKind kind{"pressure_alarm", "Pressure alarm", "Heat", "A closed loop that falls below its cold pressure has lost fluid; one that nears the relief valve's is about to. It only calls somebody.",
        "Switch {output} on when the {sensor} has read {low_pa} or less, or {high_pa} or more, for {delay_s}.", "Off again {band_pa} inside.", Priority::heat};
    void fresh(const FreshContext& c, std::string& output) { output = c.driving(Drives::other); } // no pump is a lamp
    void compile(RuleCompiler& c) const
    {
        const std::uint8_t channel = c.probe(sensor, Reads::pressure);
        const auto bar = [](double pa) { return RuleCompiler::reading(pa, Reads::pressure); };
        if (low_pa <= 0 && high_pa <= 0)
            throw Refused{"it looks at neither a low nor a high pressure"};
        if (low_pa > 0 && high_pa > 0 && high_pa <= low_pa)
            throw Refused{"its high pressure is not above its low one"};
        Expr out;
        if (low_pa > 0) {
            const Bits low = c.low(channel, bar(low_pa), bar(low_pa + band_pa), {"low_pa", "band_pa"});
            c.delay(low, delay_s, 0);
            out.any |= low;
        }
        if (high_pa > 0) {
            const Bits high = c.latch(channel, static_cast<std::uint8_t>(zero_channel), {in_milli(bar(high_pa)), in_milli(bar(high_pa - band_pa)), "high_pa", "band_pa"});
            c.delay(high, delay_s, 0);
            out.any |= high;
        }
        c.clause(kind.priority, out, true);
    }
};

template <class V, OneOf<PressureAlarm> T>
void fields(V& v, T& r)
{
    v.probe({"sensor", "Pressure sensor", ProbeRole::pressure, false, "(no pressure sensor)"}, r.sensor);
    v.number({"low_pa", "Low at", Quantity::pressure, 0, 2e6, "Some tenths of a bar below the cold fill (estimate)", "not looked at"}, r.low_pa);
    v.number({"high_pa", "High at", Quantity::pressure, 0, 2e6, "Nine tenths of the relief valve's pressure (estimate)", "not looked at"}, r.high_pa);
    v.number({"band_pa", "Off again inside by", Quantity::pressure, 0, 1e6, "More than the sensor wavers"}, r.band_pa);
    v.number({"delay_s", "Has lasted", Quantity::duration, 0, 3600, "Some seconds at least: a start knocks"}, r.delay_s);
}

} // namespace vernal
