#pragma once

#include "speed_range.h"

namespace vernal {

// One step up or down every so often while further than `within` from the target.
struct SpeedToTemperature {
    std::string probe;
    Temperature target = Temperature::celsius(65);
    TempDiff within = TempDiff::kelvin(1);
    double every_s = 15;
    SpeedRange range{};
    bool operator==(const SpeedToTemperature&) const = default;

    static constexpr RuleKind kind{"speed_to_temperature", "Speed to a temperature", "Collect", "Holds the collector at a temperature by the pump's speed: water that is warm enough at once.",
        "Let the speed of {output} hold the {probe} at {target_c}, within {within_k}.", "A step of {step} every {every_s}, between {floor} and {top} of full speed, rounded to {resolution}, by {drive}.", Priority::collect};
    void compile(RuleCompiler& c) const { compile_seeking(c, range, c.probe(probe), zero_channel, target.in_celsius(), within, every_s, "target_c"); }
    void fresh(const FreshContext& loop, std::string& output)
    {
        if (!loop.difference)
            return;
        output = loop.difference_output;
        probe = loop.difference->source;
    }
};

template <class V, OneOf<SpeedToTemperature> T>
void fields(V& v, T& r)
{
    v.probe({"probe", "Probe", ProbeRole::array}, r.probe);
    v.temperature({"target_c", "Target", Quantity::temperature, 0, 150, "A few kelvin above what the tap wants"}, r.target);
    v.difference(within_field, r.within);
    v.number(every_field, r.every_s);
    range_fields(v, r.range);
}

} // namespace vernal
