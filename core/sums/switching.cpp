#include "switching.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

bool outdoors(ProbePlace p) { return p == ProbePlace::collector || p == ProbePlace::collector_2; }

double room_of(const Loop& l)
{
    const Arrangement& a = arrangement_of(l);
    return a.has(Part::slab) ? l.slab.room_c : l.tank.room_c;
}

BudgetProbe budget_probe(const Variant& v, std::size_t i, const BudgetState& s)
{
    const Probe& p = v.probes[i];
    return {p.curve, p.sensor, p.lead, p.placement, outdoors(p.place) ? s.air_c : room_of(v.loop)};
}

std::optional<std::size_t> index_of(const Variant& v, const std::string& key)
{
    const auto it = std::find_if(v.probes.begin(), v.probes.end(), [&](const Probe& p) { return p.key == key && reads_temperature(p); });
    return it == v.probes.end() ? std::nullopt : std::optional(static_cast<std::size_t>(it - v.probes.begin()));
}

} // namespace

StoreRange store_range(const Variant& v, std::size_t rule)
{
    const auto d = difference_of(v.unit, v.unit.rules[rule]);
    const Probe* store = nullptr;
    for (const Probe& p : v.probes)
        if (d && p.key == d->store)
            store = &p;
    // What a store without a limit comes to; estimates.
    StoreRange out{20, 60};
    if (store && store->place == ProbePlace::pool_water)
        out = {12, 32};
    else if (store && store->place == ProbePlace::room_air)
        out = {10, 26};
    else if (store && store->place == ProbePlace::slab_return)
        out = {15, 35};
    for (const Rule& r : v.unit.rules)
        if (const auto* l = std::get_if<StoreLimit>(&r.body); l && r.enabled && d && r.output == v.unit.rules[rule].output)
            for (const Probe& p : v.probes)
                if (p.key == l->probe && in_store(p.place) && (l->only_store.empty() || l->only_store == d->store))
                    out.high_c = std::min(out.high_c, l->limit.in_celsius());
    out.low_c = std::min(out.low_c, out.high_c - 5);
    return out;
}

std::optional<RealPoints> real_points(const Variant& v, std::size_t rule, const BudgetState& state)
{
    const auto d = rule < v.unit.rules.size() ? difference_of(v.unit, v.unit.rules[rule]) : std::nullopt;
    if (!d)
        return {};
    const auto source = index_of(v, d->source), store = index_of(v, d->store);
    if (!source || !store)
        return {};
    BudgetAsk ask{budget_probe(v, *source, state), budget_probe(v, *store, state), v.input, v.unit.resolution_k, state.store_c, d->on.in_kelvin()};
    RealPoints out{*source, *store, error_budget(ask), {}};
    ask.set_k = d->off.in_kelvin();
    out.off = error_budget(ask);
    return out;
}

std::optional<DifferenceOf> first_difference(const Variant& v)
{
    for (const Rule& r : v.unit.rules)
        if (const auto d = difference_of(v.unit, r); d && r.enabled)
            return d;
    return {};
}

double stagnation_c(const Collector& report)
{
    const Collector c = in_still_air(report);
    constexpr double sun_w_m2 = 1000, air_c = 30;
    const double gain = c.eta0 * sun_w_m2;
    if (c.a2_w_m2k2 <= 0)
        return air_c + gain / c.a1_w_m2k;
    return air_c + (std::sqrt(c.a1_w_m2k * c.a1_w_m2k + 4 * c.a2_w_m2k2 * gain) - c.a1_w_m2k) / (2 * c.a2_w_m2k2);
}

double stagnation_at(const Loop& loop, ProbePlace place)
{
    if (place == ProbePlace::collector)
        return stagnation_c(loop.collector);
    return place == ProbePlace::collector_2 ? stagnation_c(loop.collector_2) : NAN;
}

} // namespace vernal
