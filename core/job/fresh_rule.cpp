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

std::string output_that(const Variant& v, Drives drives)
{
    for (const Output& o : v.unit.outputs)
        if (o.drives == drives)
            return o.key;
    return "";
}

// An output other than this one; empty: there is none.
std::string another(const Variant& v, const std::string& than)
{
    for (const Output& o : v.unit.outputs)
        if (o.key != than)
            return o.key;
    return "";
}

} // namespace

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
    Rule rule{v.unit.outputs.front().key, true, body_of(kind, std::make_index_sequence<std::variant_size_v<RuleBody>>())};
    const auto first = [&](std::initializer_list<ProbePlace> places) {
        const std::string found = probe_at(v, places);
        return found.empty() ? v.probes.front().key : found;
    };
    const std::string array = first({collector, collector_2}), warm = first({tank_top, tank_middle, tank_bottom, pool_water, slab_return, room_air}),
                      cold = first({tank_bottom, tank_middle, pool_water, slab_return, room_air, tank_top});
    for (const KeyOf& k : keys_of(rule))
        if (k.of == KeyOf::Of::probe && !k.may_be_empty)
            *k.key = std::string(k.field) == "source" ? array : std::string(k.field) == "store" ? cold
                                                                                                : warm;
    if (kind_of(rule).priority == Priority::heat)
        if (const std::string element = output_that(v, Drives::element); !element.empty())
            rule.output = element;
    if (auto* c = std::get_if<CutOut>(&rule.body))
        c->probe = array;
    else if (auto* d = std::get_if<Divert>(&rule.body))
        d->probe = array;
    else if (auto* m = std::get_if<CollectorMinimum>(&rule.body))
        m->probe = array;
    else if (auto* look = std::get_if<Look>(&rule.body))
        look->probe = array;
    else if (auto* dry = std::get_if<DryRun>(&rule.body))
        dry->probe = first({return_pipe, collector});
    else if (auto* fill = std::get_if<Fill>(&rule.body))
        fill->probe = array;
    else if (auto* speed = std::get_if<SpeedToTemperature>(&rule.body))
        speed->probe = array;
    else if (auto* mixing = std::get_if<MixingLimit>(&rule.body))
        mixing->probe = first({return_pipe, slab_return, supply_pipe});
    else if (auto* room = std::get_if<SeriesThermostat>(&rule.body))
        room->probe = first({room_air});
    else if (auto* clean = std::get_if<Disinfection>(&rule.body))
        clean->probe = cold;
    else if (auto* heat = std::get_if<Heating>(&rule.body))
        heat->unless = rule.output == v.unit.outputs.front().key ? "" : v.unit.outputs.front().key;
    else if (auto* frost = std::get_if<Freeze>(&rule.body)) {
        frost->probe = array;
        frost->second = probe_at(v, {return_pipe});
        frost->store = cold;
    } else if (auto* drain = std::get_if<DrainDown>(&rule.body)) {
        drain->probe = array;
        if (const std::string valve = output_that(v, Drives::drain_valve); !valve.empty()) {
            rule.output = valve;
            drain->pump = v.unit.outputs.front().key;
        }
    } else if (auto* second = std::get_if<SecondStore>(&rule.body)) {
        second->valve = another(v, rule.output);
        second->store = first({tank_2_bottom, tank_2_top});
    } else if (auto* follow = std::get_if<Follow>(&rule.body)) {
        follow->leader = v.unit.outputs.front().key;
        rule.output = another(v, follow->leader);
    }
    return rule;
}

} // namespace vernal
