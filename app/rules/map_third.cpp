#include "map_third.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace vernal {
namespace {

constexpr double lowest_supply_v = 9, highest_supply_v = 16;
struct Range {
    double from, to; // °C, L/min, bar, W/m²
};
constexpr std::array ranges{Range{-20, 140}, Range{0, 30}, Range{0, 10}, Range{0, 1200}}; // by Reads

} // namespace

double MapThird::value(double share) const
{
    switch (kind) {
    case hour: return std::lerp(0.0, 24.0, share);
    case supply: return std::lerp(lowest_supply_v, highest_supply_v, share);
    case probe: break;
    }
    const Range& r = ranges[static_cast<std::size_t>(reads)];
    return std::lerp(r.from, r.to, share) * inside_per_reading(reads);
}

Quantity MapThird::quantity() const
{
    if (kind == probe)
        return quantity_of(reads);
    return kind == hour ? Quantity::time_of_day : Quantity::voltage;
}

void MapThird::put(Inputs& in, double share) const
{
    if (kind == hour)
        in.clock_ms = std::min<Millis>(std::llround(value(share) * 3'600'000.0), day_ms - 1);
    else if (kind == supply)
        in.readings[supply_channel].mk = in_milli(value(share));
    else if (channel < max_probes)
        in.readings[channel].mk = in_milli(value(share) / inside_per_reading(reads));
}

std::vector<MapThird> map_thirds(const Variant& v, const std::optional<MapAxes>& axes)
{
    const Program program = compile(v).program;
    std::vector<MapThird> out;
    if (std::any_of(program.gates.begin(), program.gates.end(), [](const Gate& g) { return g.kind == Gate::Kind::window; }))
        out.push_back({MapThird::hour, 0});
    if ((program.used >> supply_channel & 1U) != 0)
        out.push_back({MapThird::supply, 0});
    for (std::size_t i = 0; axes && i < v.probes.size(); ++i)
        if (i != axes->source && i != axes->store && (program.used >> i & 1U) != 0)
            out.push_back({MapThird::probe, i, reads_at(v.probes[i].place)});
    return out;
}

} // namespace vernal
