#pragma once

#include "shared.h"

namespace vernal {

// Of the room that air is blown to.
struct SeriesThermostat {
    std::string probe;
    Temperature limit = Temperature::celsius(21);
    TempDiff hysteresis = TempDiff::kelvin(1);
    bool operator==(const SeriesThermostat&) const = default;

    static constexpr RuleKind kind{"series_thermostat", "Thermostat in series", "Comfort", "The room is warm enough: the blower rests.",
        "Stop {output} when the {probe} reaches {limit_c}; allow again {hysteresis_k} below.", "", Priority::limit};
    std::optional<LimitOf> limit_of() const { return LimitOf{probe, limit, hysteresis}; }
    void compile(RuleCompiler& c) const { compile_upper_limit(c, *this, kind.priority); }
};

template <class V, OneOf<SeriesThermostat> T>
void fields(V& v, T& r)
{
    limit_fields(v, r, {"limit_c", "Room", Quantity::temperature, 0, 60, "20 to 23 °C"}, ProbeRole::room);
}

} // namespace vernal
