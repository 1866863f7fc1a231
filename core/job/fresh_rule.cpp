#include "fresh_rule.h"

namespace vernal {
namespace {

using enum ProbePlace;

template <std::size_t... I>
RuleBody body_of(std::size_t kind, std::index_sequence<I...>)
{
    RuleBody out;
    ((kind == I ? void(out.emplace<I>()) : void()), ...);
    return out;
}

std::string first_thermometer(const Variant& v)
{
    for (const Probe& p : v.probes)
        if (reads_temperature(p))
            return p.key;
    return v.probes.front().key;
}

} // namespace

// Where it is looked for, the best place first.
std::string probe_for(const Variant& v, ProbeRole role)
{
    const auto first = [&](std::initializer_list<ProbePlace> places) {
        const std::string found = probe_at(v, places);
        return found.empty() ? first_thermometer(v) : found;
    };
    switch (role) {
    case ProbeRole::array: return first({collector, collector_2});
    case ProbeRole::cold_store: return first({tank_bottom, tank_middle, pool_water, slab_return, room_air, tank_top});
    case ProbeRole::warm_store: return first({tank_top, tank_middle, tank_bottom, pool_water, slab_return, room_air});
    case ProbeRole::second_store: return first({tank_2_bottom, tank_2_top});
    case ProbeRole::water_back: return first({return_pipe, collector});
    case ProbeRole::second_spot: return probe_at(v, {return_pipe});
    case ProbeRole::delivered: return first({return_pipe, slab_return, supply_pipe});
    case ProbeRole::room: return first({room_air});
    case ProbeRole::flow: return probe_at(v, {flow_meter});
    case ProbeRole::pressure: return probe_at(v, {pressure_sensor});
    case ProbeRole::sun: return probe_at(v, {sun_sensor});
    case ProbeRole::left_open: break;
    }
    return "";
}

std::string probe_at(const Variant& v, std::initializer_list<ProbePlace> places)
{
    for (ProbePlace place : places)
        for (const Probe& p : v.probes)
            if (p.place == place)
                return p.key;
    return "";
}

Rule fresh_rule(const Variant& v, std::size_t kind)
{
    FreshContext loop{[&](ProbeRole role) { return probe_for(v, role); }, {}};
    for (const Output& o : v.unit.outputs)
        loop.outputs.push_back({o.key, o.drives});
    for (const Rule& r : v.unit.rules)
        if (const auto d = difference_of(v.unit, r); r.enabled && d && !loop.difference) {
            loop.difference = d;
            loop.difference_output = r.output;
        }
    Rule rule{loop.first(), true, body_of(kind, std::make_index_sequence<std::variant_size_v<RuleBody>>())};
    for (const KeyOf& k : keys_of(rule))
        if (k.of == KeyOf::Of::probe)
            *k.key = loop.probe(k.role);
    if (kind_of(rule).priority == Priority::heat)
        if (const std::string element = loop.driving(Drives::element); !element.empty())
            rule.output = element;
    std::visit(
        [&](auto& body) {
            if constexpr (requires { body.fresh(loop, rule.output); })
                body.fresh(loop, rule.output);
        },
        rule.body);
    return rule;
}

} // namespace vernal
