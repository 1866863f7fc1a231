#include "shared.h"

#include "core/job/fresh_rule.h"
#include "core/sums/switching.h"

namespace vernal {
namespace {

constexpr double shortest_limit_c = 30.0;    // 60 °F typed on a °C unit's mind is 15.6 °C
constexpr double relief_opens_c = 99.0;      // about 210 °F, from memory
constexpr double layers_above_probe_k = 8.0; // what stratification and probe error may hide; estimate
constexpr double steams_c = 100.0;           // a collector that never gets there makes no steam
constexpr double least_gap_k = 2.0;          // of two probes of ordinary tolerance

Found off_not_below_on(const FindingContext& c)
{
    Found out;
    for_each_rule<Differential>(c, [&](std::size_t i, const Differential& d) {
        if (d.off < d.on)
            return;
        const TempDiff off = d.on * 0.4;
        out.push_back({"", Severity::serious, "Stops above its start point",
            "The rule stops at " + diff(c, d.off.in_kelvin()) + " but starts at " + diff(c, d.on.in_kelvin()) + ". It is out of action: the pump will not run.",
            d.on.in_kelvin() > 0 ? std::optional(change<Differential>(c, "Try: stop at " + diff(c, off.in_kelvin()), i, [off](Differential& r) { r.off = off; })) : std::nullopt});
    });
    return out;
}

template <class L>
void hysteresis_of(const FindingContext& c, Found& out)
{
    for_each_rule<L>(c, [&](std::size_t i, const L& l) {
        if (l.hysteresis.in_kelvin() <= 0)
            out.push_back({"", Severity::serious, "A limit has no hysteresis", "With " + diff(c, l.hysteresis.in_kelvin()) + " the limit is out of action: it protects nothing.",
                change<L>(c, "Try: " + diff(c, 4), i, [](L& r) { r.hysteresis = TempDiff::kelvin(4); })});
    });
}

Found hysteresis_not_positive(const FindingContext& c)
{
    Found out;
    hysteresis_of<StoreLimit>(c, out);
    hysteresis_of<CutOut>(c, out);
    hysteresis_of<Divert>(c, out);
    hysteresis_of<MixingLimit>(c, out);
    hysteresis_of<SeriesThermostat>(c, out);
    hysteresis_of<CollectorMinimum>(c, out);
    hysteresis_of<Freeze>(c, out);
    hysteresis_of<DrainDown>(c, out);
    return out;
}

// Where a rule names a probe that is gone, or reads something else: the one that suits its part best.
std::optional<Remedy> next_best_probe(const FindingContext& c, std::size_t rule)
{
    Rule r = c.variant.unit.rules[rule];
    for (const KeyOf& k : keys_of(r)) {
        if (k.of != KeyOf::Of::probe || (k.key->empty() && reads_for(k.role) == Reads::temperature))
            continue;
        if (const Probe* p = probe_of(c, *k.key); p && reads_at(p->place) == reads_for(k.role))
            continue;
        const std::string better = probe_for(c.variant, k.role);
        if (better.empty())
            return {};
        return Remedy{"Try: read " + better, [of = ref_to(c.variant.unit.rules, rule), gone = *k.key, role = k.role, better](Variant& v) {
                          if (Rule* now = of.in(v.unit.rules))
                              for (const KeyOf& key : keys_of(*now))
                                  if (key.of == KeyOf::Of::probe && *key.key == gone && reads_for(key.role) == reads_for(role))
                                      *key.key = better;
                      }};
    }
    return {};
}

std::string warmest_in_store(const Variant& v) { return probe_at(v, {ProbePlace::tank_top, ProbePlace::tank_middle, ProbePlace::tank_bottom, ProbePlace::pool_water, ProbePlace::slab_return, ProbePlace::room_air}); }

Found rule_out_of_action(const FindingContext& c)
{
    Found out;
    for (const OutOfAction& o : compile(c.variant).out_of_action)
        // Differences and hysteresis that leave no band have findings of their own.
        if (o.reason.rfind("there ", 0) == 0 || !(o.reason == "the hysteresis is not above zero" || std::holds_alternative<Differential>(c.variant.unit.rules[o.rule].body)))
            out.push_back({"", Severity::serious, "A rule is out of action", std::string(kind_of(c.variant.unit.rules[o.rule]).title) + ": " + o.reason + ".", next_best_probe(c, o.rule)});
    return out;
}

// A store limit is about the store; the collector is hotter on every sunny day, and
// cool when the store is hot at night.
Found limit_reads_collector(const FindingContext& c)
{
    return each<StoreLimit>(c, [&](Found& out, std::size_t i, const Rule&, const StoreLimit& l) {
        if (!sits_at(c, l.probe, {ProbePlace::collector, ProbePlace::collector_2}))
            return;
        const std::string better = warmest_in_store(c.variant);
        std::optional<Remedy> remedy;
        if (!better.empty())
            remedy = change<StoreLimit>(c, "Try: read " + better, i, [better](StoreLimit& x) { x.probe = better; });
        out.push_back({"", Severity::serious, "The store limit reads the collector", "It stops the pump when the collector is hot, which is when there is most to gain, and does not know how hot the store is.", remedy});
    });
}

// It guards what flows into a floor: the collector is hot whenever there is sun.
Found mixing_limit_reads_collector(const FindingContext& c)
{
    return each<MixingLimit>(c, [&](Found& out, std::size_t i, const Rule& r, const MixingLimit& m) {
        if (!sits_at(c, m.probe, {ProbePlace::collector, ProbePlace::collector_2}))
            return;
        const std::string better = probe_at(c.variant, {ProbePlace::return_pipe, ProbePlace::slab_return});
        std::optional<Remedy> remedy;
        if (!better.empty())
            remedy = change<MixingLimit>(c, "Try: read " + better, i, [better](MixingLimit& x) { x.probe = better; });
        out.push_back({"", Severity::serious, "The mixing limit reads the collector", "It stops " + r.output + " as soon as the sun warms the collector to " + temp(c, m.limit.in_celsius()) + ", whatever flows into the store. It belongs on the pipe to the store, behind the mixing valve.", remedy});
    });
}

// Source and store of a pair are each on the other's probe: it collects by night.
Found pair_swapped(const FindingContext& c)
{
    return each<Differential>(c, [&](Found& out, std::size_t i, const Rule& r, const Differential& d) {
        const Probe *source = probe_of(c, d.source), *store = probe_of(c, d.store);
        const auto on_array = [](const Probe* p) { return p && (p->place == ProbePlace::collector || p->place == ProbePlace::collector_2); };
        if (!source || !in_store(source->place) || !on_array(store))
            return;
        out.push_back({"", Severity::serious, "Source and store are swapped", r.output + " starts when " + named(*source) + " is warmer than " + named(*store) + ": by night, and it sends the store's heat to the roof.",
            change<Differential>(c, "Try: source " + d.store + ", store " + d.source, i, [](Differential& x) { std::swap(x.source, x.store); })});
    });
}

// The usual unit of two probes: its limit reads the bottom, and the layers above are hotter.
Found limit_below_the_layers(const FindingContext& c)
{
    return each<StoreLimit>(c, [&](Found& out, std::size_t i, const Rule&, const StoreLimit& l) {
        const bool bottom = sits_at(c, l.probe, {ProbePlace::tank_bottom, ProbePlace::tank_2_bottom}), middle = sits_at(c, l.probe, {ProbePlace::tank_middle});
        const double hidden = bottom ? 20 : 10; // kelvin that the layers above may be hotter at least; estimate
        if ((!bottom && !middle) || l.allowance.in_kelvin() >= hidden)
            return;
        out.push_back({"", Severity::caution, std::string("The store limit reads the ") + (bottom ? "bottom" : "middle"), "The top may be " + diff(c, hidden) + " hotter and more than its probe shows, after a draw and while an element heats. An allowance lets the limit act that much sooner; a probe at the top is better.",
            change<StoreLimit>(c, "Try: an allowance of " + diff(c, hidden), i, [hidden](StoreLimit& x) { x.allowance = TempDiff::kelvin(hidden); })});
    });
}

// An output beyond those of the arrangement that says it drives a part of the loop.
Found output_moves_nothing(const FindingContext& c)
{
    Found out;
    for (std::size_t o = 0; o < c.variant.unit.outputs.size(); ++o) {
        const bool moves = o < arrangement(c).drivers.size();
        const Output& output = c.variant.unit.outputs[o];
        if (moves || output.drives != Drives::loop)
            continue;
        out.push_back({"", Severity::caution, output.key + " moves nothing here", "It is said to drive a pump or valve of the loop, and this loop has none in its place: nothing comes of it in a run.", Remedy{"Try: it drives another thing", [of = ref_to(c.variant.unit.outputs, o)](Variant& v) {
                                                                                                                                                                                                                    if (Output* now = of.in(v.unit.outputs))
                                                                                                                                                                                                                        now->drives = Drives::other;
                                                                                                                                                                                                                }}});
    }
    return out;
}

// A collecting rule that names a probe which is gone, or none on the collector at all.
Found collector_without_probe(const FindingContext& c)
{
    Found out;
    for (const Part part : {Part::collector, Part::collector_2}) {
        const ProbePlace place = part == Part::collector ? ProbePlace::collector : ProbePlace::collector_2;
        if (!arrangement(c).has(part) || !probe_at(c.variant, {place}).empty())
            continue;
        // What the rules call it, if one names a probe that is not there.
        std::string key;
        for (const Rule& r : c.variant.unit.rules)
            if (const auto d = difference_of(c.variant.unit, r); d && !probe_of(c, d->source) && key.empty())
                key = d->source;
        out.push_back({"", Severity::serious, part == Part::collector ? "The collector has no probe" : "The second collector has no probe", "No rule learns whether the sun has anything to give: the pump starts by another reading or never.", Remedy{"Try: a probe on it", [key, place](Variant& v) {
                                                                                                                                                                                                                                                            Probe p;
                                                                                                                                                                                                                                                            p.key = key;
                                                                                                                                                                                                                                                            for (std::size_t n = 1; p.key.empty() || std::any_of(v.probes.begin(), v.probes.end(), [&](const Probe& x) { return x.key == p.key; }); ++n)
                                                                                                                                                                                                                                                                p.key = "S" + std::to_string(n);
                                                                                                                                                                                                                                                            p.name = place_names[static_cast<std::size_t>(place)];
                                                                                                                                                                                                                                                            p.place = place;
                                                                                                                                                                                                                                                            v.probes.insert(v.probes.begin(), p);
                                                                                                                                                                                                                                                        }}});
    }
    return out;
}

Found switch_left(const FindingContext& c)
{
    Found out;
    for (std::size_t i = 0; i < c.variant.unit.outputs.size(); ++i) {
        const Output& o = c.variant.unit.outputs[i];
        if (o.mode == Mode::automatic)
            continue;
        const bool on = o.mode == Mode::on;
        out.push_back({"", on ? Severity::serious : Severity::caution, o.key + " is left " + (on ? "ON" : "OFF"),
            on ? "No limit and no cut-out can stop it: a hot store gets hotter, and at night it throws the heat away. Put it back to AUTO after a function test."
               : "It will not run whatever the sun does. A common call-back.",
            Remedy{"Try: AUTO", [of = ref_to(c.variant.unit.outputs, i)](Variant& v) {
                       if (Output* now = of.in(v.unit.outputs))
                           now->mode = Mode::automatic;
                   }}});
    }
    return out;
}

Found no_collecting_rule(const FindingContext& c)
{
    bool any = false;
    for (const Rule& r : c.variant.unit.rules)
        any = any || (r.enabled && (difference_of(c.variant.unit, r) || std::holds_alternative<FixedDifference>(r.body)));
    if (any)
        return {};
    return {{"", Severity::serious, "Nothing starts the pump", "There is no rule that collects: add a Difference.", {}}};
}

Found limit_too_low(const FindingContext& c)
{
    Found out;
    if (!holds_drinking_water(c)) // a pool, a slab and a room are limited low on purpose
        return out;
    for_each_rule<StoreLimit>(c, [&](std::size_t i, const StoreLimit& l) {
        const double limit = l.limit.in_celsius();
        if (limit >= shortest_limit_c)
            return;
        const double meant = l.limit.in_fahrenheit(); // the figure read as °C
        const bool slip = meant >= 40 && meant <= 90;
        const double better = slip ? meant : 65.0;
        out.push_back({"", Severity::serious, "Store limit of " + temp(c, limit) + " stops nearly all sun",
            slip ? "It looks like a figure in °C typed while the unit showed °F." : "The store is above it on most days.",
            change<StoreLimit>(c, "Try: " + temp(c, better), i, [better](StoreLimit& r) { r.limit = Temperature::celsius(better); })});
    });
    return out;
}

Found limit_never_acts(const FindingContext& c)
{
    Found out;
    for_each_rule<StoreLimit>(c, [&](std::size_t i, const StoreLimit& l) {
        const double limit = l.limit.in_celsius();
        if (limit + layers_above_probe_k <= relief_opens_c)
            return;
        const double meant = (limit - 32) / 1.8;
        const double better = meant >= 50 && meant <= 85 ? meant : 70.0;
        out.push_back({"", Severity::serious, "Store limit of " + temp(c, limit) + " acts too late",
            "The layers above the probe can be " + diff(c, layers_above_probe_k) + " hotter, and relief valves open near " + temp(c, relief_opens_c) +
                ": steam and scalding water. Never cap a relief valve. Follow the maker's manual and local codes.",
            change<StoreLimit>(c, "Try: " + temp(c, better), i, [better](StoreLimit& r) { r.limit = Temperature::celsius(better); })});
    });
    return out;
}

// The warmest tank probe, or the first probe where there is none in the tank.
std::string limit_probe(const Variant& v)
{
    for (ProbePlace place : {ProbePlace::tank_top, ProbePlace::tank_middle, ProbePlace::tank_bottom})
        for (const Probe& p : v.probes)
            if (p.place == place)
                return p.key;
    return "";
}

template <class L>
Found missing_rule(const FindingContext& c, Severity severity, const char* title, const char* reason, const std::string& probe, L rule)
{
    bool any = false;
    for_each_rule<L>(c, [&](std::size_t, const L&) { any = true; });
    if (any)
        return {};
    std::optional<Remedy> remedy;
    if (!probe.empty()) {
        rule.probe = probe;
        const std::string output = c.variant.unit.outputs.front().key;
        remedy = Remedy{"Try: add one at " + temp(c, rule.limit.in_celsius()), [output, rule](Variant& v) {
                            v.unit.rules.push_back(Rule{output, true, rule});
                            sort_by_priority(v.unit.rules);
                        }};
    }
    return {{"", severity, title, reason, remedy}};
}

Found no_store_limit(const FindingContext& c)
{
    if (holds_drinking_water(c))
        return missing_rule(c, Severity::serious, "The store has no limit", "On a sunny week without draw the water goes on to the relief valve: steam, scalding water, a spoilt tank lining.", limit_probe(c.variant),
            StoreLimit{"", Temperature::celsius(70), TempDiff::kelvin(4)});
    const ProbePlace store = arrangement(c).places[1];
    const double limit_c = store == ProbePlace::pool_water ? 30 : store == ProbePlace::room_air ? 23
                                                                                                : 32; // estimates, as choosing has them
    return missing_rule(c, Severity::caution, "Nothing ends the heating", "On a sunny day it goes on beyond what people bear.", probe_at(c.variant, {store}), StoreLimit{"", Temperature::celsius(limit_c), TempDiff::kelvin(2)});
}

Found no_cut_out(const FindingContext& c)
{
    if (stagnation_c(loop(c).collector) < steams_c)
        return {};
    std::string probe;
    for (const Probe& p : c.variant.probes)
        if (p.place == ProbePlace::collector && probe.empty())
            probe = p.key;
    return missing_rule(c, Severity::caution, "No collector cut-out", "A start into a stagnating collector sends steam and a thermal shock into the loop.", probe, CutOut{"", Temperature::celsius(125), TempDiff::kelvin(15)});
}

Found too_cool_against_legionella(const FindingContext& c)
{
    Found out;
    const Element& e = c.variant.loop.element;
    const Heater& after = loop(c).heater;
    const bool made_hot_after = arrangement(c).has(Part::heater) && after.way != HeaterWay::tank_only && after.set_c >= legionella_c;
    if (!holds_drinking_water(c) || made_hot_after || (e.mode != ElementMode::off && e.set_c >= legionella_c))
        return out;
    for_each_rule<StoreLimit>(c, [&](std::size_t, const StoreLimit& l) {
        if (l.limit.in_celsius() >= shortest_limit_c && l.limit.in_celsius() < legionella_c)
            out.push_back({"", Severity::caution, "The store never reaches " + temp(c, legionella_c),
                "Legionella grows in warm water. Store at 60 °C or heat there regularly, with another heater if need be; local codes say how often.", {}});
    });
    return out;
}

// Where probes state their tolerance, their own budget says it better (band_may_close).
Found narrow_band(const FindingContext& c)
{
    Found out;
    for_each_rule<Differential>(c, [&](std::size_t i, const Differential& d) {
        const double gap = (d.on - d.off).in_kelvin();
        const bool stated = std::any_of(c.variant.probes.begin(), c.variant.probes.end(), [&](const Probe& p) { return (p.key == d.source || p.key == d.store) && p.sensor.tolerance.kind != ToleranceKind::none; });
        if (gap <= 0 || gap >= least_gap_k || stated)
            return;
        const TempDiff on = d.off + TempDiff::kelvin(4);
        out.push_back({"", Severity::caution, "Start and stop are only " + diff(c, gap) + " apart", "Two ordinary probes may differ by as much: the pump may chatter.",
            change<Differential>(c, "Try: start at " + diff(c, on.in_kelvin()), i, [on](Differential& r) { r.on = on; })});
    });
    return out;
}

Found stops_below_zero(const FindingContext& c)
{
    Found out;
    for_each_rule<Differential>(c, [&](std::size_t i, const Differential& d) {
        if (d.off.in_kelvin() >= 0 || d.off >= d.on || d.off.in_kelvin() < -5) // that low it is a slip: difference_converted says so
            return;
        out.push_back({"", Severity::caution, "Runs on while losing heat", "It stops only when the collector is " + diff(c, -d.off.in_kelvin()) + " colder than the store.",
            change<Differential>(c, "Try: stop at " + diff(c, 2), i, [](Differential& r) { r.off = TempDiff::kelvin(2); })});
    });
    return out;
}

} // namespace

const FindingKinds& settings_findings()
{
    static const FindingKinds table{
        {"off_not_below_on", off_not_below_on},
        {"hysteresis_not_positive", hysteresis_not_positive},
        {"rule_out_of_action", rule_out_of_action},
        {"collector_without_probe", collector_without_probe, Cause::probes, Loops::pumped, "loop/collector"},
        {"limit_reads_collector", limit_reads_collector},
        {"mixing_limit_reads_collector", mixing_limit_reads_collector},
        {"pair_swapped", pair_swapped, Cause::rules, Loops::pumped},
        {"limit_below_the_layers", limit_below_the_layers, Cause::rules, Loops::tank},
        {"output_moves_nothing", output_moves_nothing},
        {"switch_left", switch_left},
        {"no_collecting_rule", no_collecting_rule, Cause::rules, Loops::pumped},
        {"limit_too_low", limit_too_low, Cause::rules, Loops::tank},
        {"limit_never_acts", limit_never_acts, Cause::rules, Loops::tank},
        {"no_store_limit", no_store_limit, Cause::rules, Loops::pumped},
        {"no_cut_out", no_cut_out, Cause::rules, Loops::pumped_liquid},
        {"too_cool_against_legionella", too_cool_against_legionella, Cause::rules, Loops::tank},
        {"narrow_band", narrow_band},
        {"stops_below_zero", stops_below_zero},
    };
    return table;
}

} // namespace vernal
