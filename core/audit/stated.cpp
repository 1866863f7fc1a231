#include "stated.h"

#include "core/plant/fluid.h"

#include <algorithm>
#include <limits>

namespace vernal {

std::vector<DifferencePair> difference_pairs(const Variant& v, std::size_t output)
{
    const auto keys = probe_keys(v);
    const auto probe = [&](const std::string& key) { return static_cast<std::size_t>(std::find(keys.begin(), keys.end(), key) - keys.begin()); };
    std::vector<DifferencePair> out;
    for (const Rule& r : v.unit.rules)
        if (const auto d = difference_of(v.unit, r); d && r.enabled && r.output == v.unit.outputs[output].key)
            if (const DifferencePair p{probe(d->source), probe(d->store), d->on.in_kelvin(), d->off.in_kelvin()}; p.source < keys.size() && p.store < keys.size())
                out.push_back(p);
    return out;
}

double stated_rate_w_k(const Variant& v)
{
    constexpr double working_c = 50;
    const Arrangement& a = arrangement_of(v.loop);
    if (!a.pumped() || a.carrier == Carrier::air)
        return 0;
    const Fluid f = fluid_at(glycol_share(v.loop), working_c);
    return v.loop.pump.flow_m3_s * v.loop.pump.speed * f.density_kg_m3 * f.heat_capacity_j_kgk;
}

double rise_at_full_sun_k(const Variant& v)
{
    const double rate = stated_rate_w_k(v);
    return rate > 0 ? v.loop.collector.area_m2 * in_still_air(v.loop.collector).eta0 * 1000 / rate : std::numeric_limits<double>::infinity();
}

} // namespace vernal
