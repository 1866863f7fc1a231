#include "shared.h"

#include "core/job/field_path.h"
#include "core/job/fresh_rule.h"
#include "core/sums/filling.h"
#include "core/sums/switching.h"

namespace vernal {
namespace {

constexpr double plastic_c = 95.0;       // common plastic heating pipe (estimate; ISO 10508 malfunction class 100 °C, from memory)
constexpr double slow_s = 180;           // a start later than that costs sun; estimate
constexpr double felt_placement = 0.1;   // share of the surroundings in a reading: 2 K at 20 K above the air; estimate
constexpr double empty_battery_v = 11.0; // of a 12 V lead-acid battery; half a volt above 1.75 V a cell (IEC 60896-11, from memory): estimate

Found voltage_cut_too_low(const FindingContext& c)
{
    const double scale = loop(c).battery.full_v > 18 ? 2 : 1;
    return each<LowVoltage>(c, [&](Found& out, std::size_t i, const Rule&, const LowVoltage& l) {
        if (l.cut_v >= empty_battery_v * scale)
            return;
        out.push_back({"", Severity::caution, "Cut off at " + to_text(l.cut_v, Quantity::voltage, c.units) + " the battery is already empty", "A lead-acid battery is empty at 1.75 V a cell, 10.5 V of twelve (IEC 60896-11, from memory), and dies young of being drawn down near it.", change<LowVoltage>(c, "Try: cut at " + to_text(11.5 * scale, Quantity::voltage, c.units), i, [scale](LowVoltage& r) {
                           r.cut_v = 11.5 * scale;
                           r.reconnect_v = std::max(r.reconnect_v, 12.5 * scale);
                       })});
    });
}

Found voltage_cut_at_once(const FindingContext& c)
{
    return each<LowVoltage>(c, [&](Found& out, std::size_t i, const Rule&, const LowVoltage& l) {
        if (l.delay_s >= 1)
            return;
        out.push_back({"", Severity::caution, "The dip of a starting motor trips the cut-out", "A motor draws its worst current for the first half second; with no delay each start may cut itself off.", change<LowVoltage>(c, "Try: after 5 s", i, [](LowVoltage& r) { r.delay_s = 5; })});
    });
}

Found speed_below_lift(const FindingContext& c)
{
    const Loop& l = loop(c);
    if (!arrangement(c).drains || l.pump.head_m <= 0)
        return {};
    const double least = std::sqrt(l.drain_back.lift_m / l.pump.head_m);
    Found out;
    for (std::size_t i = 0; i < c.variant.unit.rules.size(); ++i) {
        const Rule& r = c.variant.unit.rules[i];
        const SpeedRange* range = r.enabled ? std::visit(
                                                  [](const auto& b) -> const SpeedRange* {
                                                      if constexpr (requires { b.range; })
                                                          return &b.range;
                                                      else
                                                          return nullptr;
                                                  },
                                                  r.body)
                                            : nullptr;
        if (!range || range->drive == DriveKind::bursts || range->floor > least || least >= 1)
            continue;
        const double floor = std::min(1.0, std::ceil(least * 110) / 100);
        out.push_back({"", Severity::serious, "At its minimum speed the water does not reach the top", "Head goes with the square of the speed: " + to_text(range->floor, Quantity::ratio, c.units) + " of the speed has " + to_text(range->floor * range->floor, Quantity::ratio, c.units) + " of the head, and the lift needs " + to_text(least, Quantity::ratio, c.units) + " of the speed. Without a siphon the array runs dry.",
            Remedy{"Try: minimum speed " + to_text(floor, Quantity::ratio, c.units), [of = ref_to(c.variant.unit.rules, i), floor](Variant& v) {
                       if (Rule* rule = of.in(v.unit.rules))
                           std::visit(
                               [floor](auto& b) {
                                   if constexpr (requires { b.range; }) {
                                       b.range.floor = floor;
                                       b.range.top = std::max(b.range.top, floor);
                                   }
                               },
                               rule->body);
                   }}});
    }
    return out;
}

// A guard of either kind that looks before anything can have come back.
template <class Guard>
Found judges_too_quick(const FindingContext& c, const char* which)
{
    const double fills_s = fill_time_s(loop(c), c.job.site.place.altitude_m);
    return each<Guard>(c, [&](Found& out, std::size_t i, const Rule&, const Guard& g) {
        if (g.check_s >= fills_s * 1.2)
            return;
        const double better = std::ceil(fills_s * 2 / 10) * 10;
        out.push_back({"", Severity::caution, std::string("The ") + which + " judges before the array is full", "Filling takes about " + lasts(c, fills_s) + ", it looks after " + lasts(c, g.check_s) + ": good starts are broken off.", change<Guard>(c, "Try: within " + lasts(c, better), i, [better](Guard& r) { r.check_s = better; })});
    });
}

Found guard_too_quick(const FindingContext& c)
{
    if (!arrangement(c).drains)
        return {};
    Found out = judges_too_quick<DryRun>(c, "dry-run guard");
    const Found by_flow = judges_too_quick<FlowGuard>(c, "flow guard");
    out.insert(out.end(), by_flow.begin(), by_flow.end());
    return out;
}

Found guard_at_collector(const FindingContext& c)
{
    return each<DryRun>(c, [&](Found& out, std::size_t i, const Rule&, const DryRun& g) {
        if (!sits_at(c, g.probe, {ProbePlace::collector, ProbePlace::collector_2}))
            return;
        const std::string back = probe_at(c.variant, {ProbePlace::return_pipe});
        std::optional<Remedy> remedy;
        if (!back.empty())
            remedy = change<DryRun>(c, "Try: by " + back, i, [back](DryRun& r) { r.probe = back; });
        out.push_back({"", Severity::caution, "The dry-run guard looks at the collector", "A dry collector climbs in the sun: that is a change too, and the guard takes it for water. A probe on the return pipe, where nothing changes unless water comes.", remedy});
    });
}

Found slow_to_start(const FindingContext& c)
{
    return each<Differential>(c, [&](Found& out, std::size_t i, const Rule&, const Differential& d) {
        if (d.conditioning.confirm_s + d.conditioning.average_s <= slow_s)
            return;
        out.push_back({"", Severity::caution, "The pump starts " + lasts(c, d.conditioning.confirm_s + d.conditioning.average_s) + " late", "Confirming and averaging calm the switching; so long they cost sun at each start and let it run on at each stop.", change<Differential>(c, "Try: confirmed for 20 s", i, [](Differential& r) { r.conditioning = {20, 0}; })});
    });
}

Found runs_on_fault(const FindingContext& c)
{
    Found out;
    for (std::size_t o = 0; o < c.variant.unit.outputs.size(); ++o) {
        const Output& output = c.variant.unit.outputs[o];
        const bool asked = std::any_of(c.variant.unit.rules.begin(), c.variant.unit.rules.end(), [&](const Rule& r) { return r.enabled && r.output == output.key && (std::holds_alternative<Freeze>(r.body) || std::holds_alternative<Divert>(r.body)); });
        if (asked || std::none_of(output.faults.begin(), output.faults.end(), [](const FaultChoice& f) { return f.does == OnFault::on; }))
            continue;
        out.push_back({"", Severity::caution, output.key + " runs while a probe is broken", "A dump or freeze recirculation may have to; here it only circulates day and night, with no limit that can read.", Remedy{"Try: off", [of = ref_to(c.variant.unit.outputs, o)](Variant& v) {
                                                                                                                                                                                                                          if (Output* now = of.in(v.unit.outputs))
                                                                                                                                                                                                                              std::erase_if(now->faults, [](const FaultChoice& f) { return f.does == OnFault::on; });
                                                                                                                                                                                                                      }}});
    }
    return out;
}

Found store_probe_high(const FindingContext& c)
{
    return each<Differential>(c, [&](Found& out, std::size_t i, const Rule&, const Differential& d) {
        const std::string low = probe_at(c.variant, {ProbePlace::tank_bottom, ProbePlace::tank_middle});
        if (!sits_at(c, d.store, {ProbePlace::tank_top}) || low.empty())
            return;
        out.push_back({"", Severity::caution, "The difference looks at the top of the tank", "The top stays warm when the bottom is cold: the pump rests while there is heat to be had.", change<Differential>(c, "Try: against " + low, i, [low](Differential& r) { r.store = low; })});
    });
}

// An element beside the store probe makes it read the element.
Found store_probe_heated(const FindingContext& c)
{
    const bool driven = std::any_of(c.variant.unit.outputs.begin(), c.variant.unit.outputs.end(), [](const Output& o) { return o.drives == Drives::element; });
    if (!arrangement(c).has(Part::element) || (loop(c).element.mode == ElementMode::off && !driven))
        return {};
    return each<Differential>(c, [&](Found& out, std::size_t, const Rule&, const Differential& d) {
        const double height = sits_at(c, d.store, {ProbePlace::tank_bottom}) ? 0.05 : sits_at(c, d.store, {ProbePlace::tank_middle}) ? 0.5
                                                                                                                                     : 2;
        if (loop(c).element.height > height + 0.05)
            return;
        out.push_back({"", Severity::caution, "The element heats the store probe", "It sits at " + to_text(loop(c).element.height, Quantity::ratio, c.units) + " of the height, at or below the probe of the difference: while it heats, the sun finds no cold water. The element belongs in the upper part.", Remedy{"Try: element at 65 %", [](Variant& v) { v.loop.element.height = 0.65; }}});
    });
}

Found collector_probe_astray(const FindingContext& c)
{
    Found out;
    for (const Rule& r : c.variant.unit.rules) {
        const auto d = difference_of(c.variant.unit, r);
        const Probe* p = d && r.enabled ? probe_of(c, d->source) : nullptr;
        if (!p)
            continue;
        const bool elsewhere = p->place != ProbePlace::collector && p->place != ProbePlace::collector_2;
        if (!elsewhere && p->placement <= felt_placement)
            continue;
        const std::string key = p->key, better = probe_at(c.variant, {ProbePlace::collector});
        std::optional<Remedy> remedy;
        if (!elsewhere)
            remedy = Remedy{"Try: in a pocket, insulated", [key](Variant& v) {
                                for (Probe& x : v.probes)
                                    if (x.key == key)
                                        x.placement = 0.02;
                            }};
        out.push_back({"", Severity::caution, elsewhere ? p->name + " does not sit on the collector" : p->name + " reads the weather",
            elsewhere ? "While nothing flows it learns nothing of the sun: the pump starts late or never." : "It takes " + to_text(p->placement, Quantity::ratio, c.units) + " of its reading from the air around it: in the shade or in moving air it starts late, in the sun early.", remedy, "probe/" + p->id});
        break;
    }
    return out;
}

Found pipe_bears_too_little(const FindingContext& c)
{
    const double stands = stagnation_c(loop(c).collector);
    Found out;
    const auto look = [&](const Pipe& p, const char* name, Part part) {
        const double bears = p.bears_c;
        if (bears <= 0 || (bears >= stands && bears >= plastic_c) || stands < bears)
            return;
        if (out.empty())
            out.push_back({"", Severity::serious, std::string("The ") + name + " pipe bears " + temp(c, bears), "Full sun without flow brings the collector to " + temp(c, stands) + ". Plastic heating pipe is made for 100 °C at the most, and that for hours only (ISO 10508, malfunction class, from memory); copper on any loop that stagnates hotter.", {}, part_path(part) + "/bears_c"});
    };
    look(loop(c).supply, "supply", Part::supply);
    look(loop(c).back, "return", Part::back);
    return out;
}

Found unit_on_a_plug(const FindingContext& c)
{
    if (!loop(c).wiring.plug)
        return {};
    return {{"", Severity::caution, "The unit hangs on a plug", "For continuous duty fixed wiring with its own breaker is expected: a plug is pulled for the vacuum cleaner, and with it goes the frost protection. Isolate and prove dead before opening a cover; a licensed tradesperson where the law asks for one.",
        Remedy{"Try: fixed wiring", [](Variant& v) { v.loop.wiring.plug = false; }}}};
}

Found dip_pipe_in_wrong_port(const FindingContext& c)
{
    if (!arrangement(c).has(Part::tank) || !loop(c).tank.dip_swapped)
        return {};
    return {{"", Severity::serious, "The cold water enters at the top", "The dip pipe sits in the wrong port: cold water mixes with the hot at the tap and the tank seems empty. Put the dip pipe into the cold port.", Remedy{"Try: dip pipe in the cold port", [](Variant& v) { v.loop.tank.dip_swapped = false; }}}};
}

} // namespace

const FindingKinds& unit_findings()
{
    static const FindingKinds table{
        {"voltage_cut_too_low", voltage_cut_too_low},
        {"voltage_cut_at_once", voltage_cut_at_once},
        {"speed_below_lift", speed_below_lift},
        {"guard_too_quick", guard_too_quick},
        {"guard_at_collector", guard_at_collector},
        {"slow_to_start", slow_to_start},
        {"runs_on_fault", runs_on_fault},
        {"store_probe_high", store_probe_high, Cause::rules, Loops::tank},
        {"store_probe_heated", store_probe_heated, Cause::rules, Loops::tank},
        {"collector_probe_astray", collector_probe_astray, Cause::probes},
        {"pipe_bears_too_little", pipe_bears_too_little, Cause::loop, Loops::liquid},
        {"unit_on_a_plug", unit_on_a_plug, Cause::loop},
        {"dip_pipe_in_wrong_port", dip_pipe_in_wrong_port, Cause::loop, Loops::tank, "loop/tank/dip_swapped"},
    };
    return table;
}

} // namespace vernal
