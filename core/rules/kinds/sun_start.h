#pragma once

#include "shared.h"

namespace vernal {

// By the sun alone, whatever collector and store are at.
struct SunStart {
    std::string sensor;
    double on_w_m2 = 250, off_w_m2 = 150;
    InputConditioning conditioning;
    bool operator==(const SunStart&) const = default;

    static constexpr RuleKind kind{"sun_start", "Start by the sun", "Collect", "Runs by the sun on the array. It asks neither what the collector nor what the store is at: limits must, and a warm store is cooled by a weak sun.",
        "Start {output} when the {sensor} reads {on_w_m2}; stop at {off_w_m2}.", "Confirmed for {confirm_s}, readings averaged over {average_s}.", Priority::collect};
    void compile(RuleCompiler& c) const
    {
        const std::uint8_t sun = c.averaged(c.probe(sensor, Reads::irradiance), conditioning.average_s);
        const Bits l = c.latch(sun, static_cast<std::uint8_t>(zero_channel), {in_milli(on_w_m2), in_milli(off_w_m2), "on_w_m2", "off_w_m2", "it stops at or above the sun at which it starts"});
        c.delay(l, conditioning.confirm_s, 0);
        c.clause(kind.priority, all_of(l), true);
    }
};

template <class V, OneOf<SunStart> T>
void fields(V& v, T& r)
{
    v.probe({"sensor", "Sun sensor", ProbeRole::sun, false, "(no sun sensor)"}, r.sensor);
    v.number({"on_w_m2", "Start at", Quantity::irradiance, 0, 1500, "The sun at which the collector stands above the store on a mild day: its losses over its optical efficiency"}, r.on_w_m2);
    v.number({"off_w_m2", "Stop at", Quantity::irradiance, 0, 1500, "100 W/m² and more below (estimate)"}, r.off_w_m2);
    conditioning_fields(v, r.conditioning);
}

} // namespace vernal
