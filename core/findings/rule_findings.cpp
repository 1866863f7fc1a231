#include "rule_findings.h"

#include "core/sums/filling.h"
#include "core/job/fresh_rule.h"
#include "core/sums/switching.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

using Found = std::vector<Finding>;

constexpr double frost_on_c = 4.5;              // 40 °F (common practice, no source)
constexpr double latest_frost_c = 2.0;          // the coldest wet place is colder than the probe; estimate
constexpr double hard_frost_c = -3.0;           // coldest air of a day that pipe outdoors does not outlast; estimate
constexpr double widest_dump_k = 20.0;          // more throws heat away that the store could use; estimate
constexpr double legionella_c = 60.0;           // WHO, Legionella and the prevention of legionellosis (2007)
constexpr double least_hold_s = 600;            // estimate; local codes say
constexpr double plastic_c = 95.0;              // common plastic heating pipe (estimate; ISO 10508 malfunction class 100 °C, from memory)
constexpr double slow_s = 180;                  // a start later than that costs sun; estimate
constexpr double felt_placement = 0.1;          // share of the surroundings in a reading: 2 K at 20 K above the air; estimate
constexpr double empty_battery_v = 11.0;        // 12 V lead-acid under load; common practice, no source
constexpr double day_from_h = 9, day_to_h = 16; // in which most of the sun comes; estimate

const Loop& loop(const FindingContext& c) { return c.variant.loop; }
const Arrangement& arrangement(const FindingContext& c) { return *find_arrangement(loop(c).arrangement); }
std::string temp(const FindingContext& c, double v) { return to_text(v, Quantity::temperature, c.units); }
std::string diff(const FindingContext& c, double v) { return to_text(v, Quantity::difference, c.units); }
std::string lasts(const FindingContext& c, double s) { return to_text(s, Quantity::duration, c.units); }

// Calls f(found, index, rule, body) for each enabled rule of kind R.
template <class R, class F>
Found each(const FindingContext& c, F f)
{
    Found out;
    for (std::size_t i = 0; i < c.variant.unit.rules.size(); ++i)
        if (const Rule& r = c.variant.unit.rules[i]; r.enabled)
            if (const R* body = std::get_if<R>(&r.body))
                f(out, i, r, *body);
    return out;
}

template <class R, class F>
Remedy change(std::string label, std::size_t index, F what)
{
    return {std::move(label), [index, what](Variant& v) {
                if (R* body = index < v.unit.rules.size() ? std::get_if<R>(&v.unit.rules[index].body) : nullptr)
                    what(*body);
            }};
}
Remedy switch_off(std::size_t index)
{
    return {"Try: without this rule", [index](Variant& v) {
                if (index < v.unit.rules.size())
                    v.unit.rules[index].enabled = false;
            }};
}

const Probe* probe(const FindingContext& c, const std::string& key)
{
    const auto it = std::find_if(c.variant.probes.begin(), c.variant.probes.end(), [&](const Probe& p) { return p.key == key; });
    return it == c.variant.probes.end() ? nullptr : &*it;
}
bool at(const FindingContext& c, const std::string& key, std::initializer_list<ProbePlace> places)
{
    const Probe* p = probe(c, key);
    return p && std::find(places.begin(), places.end(), p->place) != places.end();
}

double coldest_day_c(const FindingContext& c)
{
    double out = INFINITY;
    for (const Day& d : c.job.days)
        if (d.kind == DayKind::generated)
            out = std::min(out, d.sky.air_min_c);
    return out;
}

// Where the store limit really stops the sun; infinity: there is none.
double store_limit_c(const FindingContext& c)
{
    double out = INFINITY;
    for (const Rule& r : c.variant.unit.rules)
        if (const auto* l = std::get_if<StoreLimit>(&r.body); l && r.enabled)
            out = std::min(out, (l->limit - l->allowance).in_celsius());
    return out;
}

// An on or off that was a difference in °F and went through the formula for
// temperatures: 12 °F of difference became −11.1.
std::optional<double> meant_k(double k)
{
    const double typed_f = k * 1.8 + 32;
    return k < -5 && typed_f >= 0 && typed_f <= 30 ? std::optional(typed_f / 1.8) : std::nullopt;
}

} // namespace

Found bypass_closed(const FindingContext& c)
{
    Found out;
    for (std::size_t i = 0; i < c.variant.unit.outputs.size(); ++i)
        if (const Output& o = c.variant.unit.outputs[i]; o.bypass)
            out.push_back({"", Severity::serious, "The service bypass feeds " + o.key, "It runs day and night whatever the unit decides: no limit, no cut-out and no voltage protection can stop it. Open the bypass after the work.",
                Remedy{"Try: bypass open", [i](Variant& v) { v.unit.outputs[i].bypass = false; }}});
    return out;
}

Found difference_converted(const FindingContext& c)
{
    return each<Differential>(c, [&](Found& out, std::size_t i, const Rule&, const Differential& d) {
        const auto on = meant_k(d.on.in_kelvin()), off = meant_k(d.off.in_kelvin());
        if (!on && !off)
            return;
        const double on_k = on.value_or(d.on.in_kelvin()), off_k = off.value_or(d.off.in_kelvin());
        out.push_back({"", Severity::serious, "A difference was converted as a temperature", std::string("12 °F of difference is 6.7 K, not −11 °C: ") + (on ? "the start at " + diff(c, d.on.in_kelvin()) : "the stop at " + diff(c, d.off.in_kelvin())) + " looks like " + to_text((on ? *on : *off) * 1.8, Quantity::number, c.units) + " °F put through the formula for temperatures.",
            change<Differential>("Try: " + diff(c, on_k) + " and " + diff(c, off_k), i, [on_k, off_k](Differential& r) {
                r.on = TempDiff::kelvin(on_k);
                r.off = TempDiff::kelvin(off_k);
            })});
    });
}

Found freeze_on_wrong_loop(const FindingContext& c)
{
    const bool drains = arrangement(c).drains, glycol = arrangement(c).carrier == Carrier::glycol, air = arrangement(c).carrier == Carrier::air;
    if (!drains && !glycol && !air)
        return {};
    return each<Freeze>(c, [&](Found& out, std::size_t i, const Rule&, const Freeze&) {
        out.push_back({"", Severity::serious, std::string("Freeze recirculation on a loop that ") + (drains ? "drains" : glycol ? "holds glycol"
                                                                                                                                : "carries air"),
            drains ? "It would pump water into a cold empty array, where it freezes. Draining is the protection." : "It sends the store's heat to the roof on every cold night, for nothing.", switch_off(i)});
    });
}

Found freeze_needs_power(const FindingContext& c)
{
    if (arrangement(c).drains || arrangement(c).carrier != Carrier::water || coldest_day_c(c) > hard_frost_c)
        return {};
    return each<Freeze>(c, [&](Found& out, std::size_t, const Rule&, const Freeze&) {
        out.push_back({"", Severity::caution, "Recirculation is all that keeps this loop from freezing",
            "A day here has " + temp(c, coldest_day_c(c)) + ". It fails with the power and with the pump, on just such a night; set a power failure on the frosty day to see. A drain-down valve, drain-back or glycol need neither.", {}});
    });
}

Found freeze_too_late(const FindingContext& c)
{
    return each<Freeze>(c, [&](Found& out, std::size_t i, const Rule&, const Freeze& f) {
        if (f.limit.in_celsius() >= latest_frost_c)
            return;
        out.push_back({"", Severity::serious, "Freeze recirculation begins at " + temp(c, f.limit.in_celsius()), "The coldest wet place is often not where the probe sits, and the probe itself may be a kelvin off: pipe elsewhere is frozen by then.",
            change<Freeze>("Try: from " + temp(c, frost_on_c), i, [](Freeze& r) { r.limit = Temperature::celsius(frost_on_c); })});
    });
}

Found freeze_without_floor(const FindingContext& c)
{
    return each<Freeze>(c, [&](Found& out, std::size_t i, const Rule&, const Freeze& f) {
        const std::string store = probe_at(c.variant, {ProbePlace::tank_bottom, ProbePlace::tank_middle, ProbePlace::tank_top, ProbePlace::pool_water});
        if (!f.store.empty() || store.empty())
            return;
        out.push_back({"", Severity::caution, "Nothing ends what freeze recirculation takes from the store", "On a long frosty night it goes on with water as cold as the pipe, and the store freezes with it.",
            change<Freeze>("Try: not below " + temp(c, 8), i, [store](Freeze& r) {
                r.store = store;
                r.store_min = Temperature::celsius(8);
            })});
    });
}

// Holds are above the freeze rules: for so long frost is not answered.
Found freeze_waits(const FindingContext& c)
{
    return each<Freeze>(c, [&](Found& out, std::size_t, const Rule& rule, const Freeze&) {
        for (const Rule& r : c.variant.unit.rules)
            if (const auto* d = std::get_if<DrainTime>(&r.body); d && r.enabled && r.output == rule.output && d->drain_s > 0)
                out.push_back({"", Severity::caution, "The drain time delays the freeze protection", "For " + lasts(c, d->drain_s) + " after each stop, and after power returns, not even frost starts " + rule.output + ". A loop that drains needs no recirculation.", {}});
    });
}

Found dump_throws_away(const FindingContext& c)
{
    return each<Divert>(c, [&](Found& out, std::size_t i, const Rule&, const Divert& d) {
        if (d.hysteresis.in_kelvin() <= widest_dump_k)
            return;
        out.push_back({"", Severity::caution, "The dump goes on down to " + temp(c, (d.limit - d.hysteresis).in_celsius()), "It throws the day's heat away: what is below the limit belongs to the store.",
            change<Divert>("Try: back " + diff(c, 8) + " below", i, [](Divert& r) { r.hysteresis = TempDiff::kelvin(8); })});
    });
}

Found limit_below_window(const FindingContext& c)
{
    const double limit = store_limit_c(c);
    double target = -INFINITY;
    std::string what;
    const auto take = [&](double t, const char* name) {
        if (t > target) {
            target = t;
            what = name;
        }
    };
    for (const Rule& r : c.variant.unit.rules) {
        if (!r.enabled)
            continue;
        if (const auto* h = std::get_if<Heating>(&r.body))
            for (const HeatWindow& w : h->windows)
                if (w.from_h != w.to_h)
                    take(w.off.in_celsius(), "Backup heating");
        if (const auto* d = std::get_if<Disinfection>(&r.body))
            take(d->target.in_celsius(), "Disinfection");
    }
    if (loop(c).element.mode != ElementMode::off && arrangement(c).has(Part::element))
        take(loop(c).element.set_c, "The element's thermostat");
    if (!(target > limit))
        return {};
    const double better = std::ceil(target + 5);
    std::optional<Remedy> remedy;
    if (better <= 85)
        remedy = Remedy{"Try: store limit of " + temp(c, better), [better](Variant& v) {
                            for (Rule& r : v.unit.rules)
                                if (auto* l = std::get_if<StoreLimit>(&r.body); l && r.enabled && (l->limit - l->allowance).in_celsius() < better)
                                    l->limit = Temperature::celsius(better) + l->allowance;
                        }};
    return {{"", Severity::caution, "The store limit is below what " + what + " heats to", what + " goes to " + temp(c, target) + ", the sun is stopped at " + temp(c, limit) + ": after each heating the sun is locked out until the store has cooled.", remedy}};
}

Found heating_by_day(const FindingContext& c)
{
    return each<Heating>(c, [&](Found& out, std::size_t i, const Rule& rule, const Heating& h) {
        const std::string sun = c.variant.unit.outputs.front().key;
        if (!h.unless.empty() || rule.output == sun)
            return;
        const auto by_day = [](const HeatWindow& w) {
            if (w.from_h == w.to_h)
                return false;
            return w.from_h < w.to_h ? w.from_h < day_to_h && w.to_h > day_from_h : w.from_h < day_to_h || w.to_h > day_from_h;
        };
        if (std::none_of(h.windows.begin(), h.windows.end(), by_day))
            return;
        out.push_back({"", Severity::caution, "Backup heating takes the sun's work", "A window lies in the day and does not wait for the sun: the store is warm before the collector can give anything.",
            change<Heating>("Try: not while " + sun + " runs", i, [sun](Heating& r) { r.unless = sun; })});
    });
}

Found heating_without_window(const FindingContext& c)
{
    return each<Heating>(c, [&](Found& out, std::size_t i, const Rule&, const Heating& h) {
        if (std::any_of(h.windows.begin(), h.windows.end(), [](const HeatWindow& w) { return w.from_h != w.to_h; }))
            return;
        out.push_back({"", Severity::caution, "Backup heating has no window", "A window whose start equals its end is off: it never heats.", change<Heating>("Try: 04:00 to 08:00", i, [](Heating& r) {
                           r.windows[0].from_h = 4;
                           r.windows[0].to_h = 8;
                       })});
    });
}

Found disinfection_weak(const FindingContext& c)
{
    return each<Disinfection>(c, [&](Found& out, std::size_t i, const Rule&, const Disinfection& d) {
        if (d.target.in_celsius() >= legionella_c && d.hold_s >= least_hold_s && d.every_days <= 14)
            return;
        out.push_back({"", Severity::serious, "The disinfection does not disinfect", "At " + temp(c, d.target.in_celsius()) + " for " + lasts(c, d.hold_s) + " every " + to_text(d.every_days, Quantity::days, c.units) + " legionella survives. 60 °C, held, every week; local codes say how long.",
            change<Disinfection>("Try: " + temp(c, legionella_c) + " for 30 min every 7 days", i, [](Disinfection& r) {
                r.target = Temperature::celsius(legionella_c);
                r.hold_s = 1800;
                r.every_days = 7;
            })});
    });
}

Found disinfection_at_the_top(const FindingContext& c)
{
    return each<Disinfection>(c, [&](Found& out, std::size_t i, const Rule&, const Disinfection& d) {
        const std::string low = probe_at(c.variant, {ProbePlace::tank_bottom, ProbePlace::tank_middle});
        if (!at(c, d.probe, {ProbePlace::tank_top}) || low.empty())
            return;
        out.push_back({"", Severity::caution, "Disinfection is judged at the top", "The top is hot first; below it the water stays as legionella likes it. The coldest stored point counts, or what the element cannot reach must be heated otherwise.",
            change<Disinfection>("Try: by " + low, i, [low](Disinfection& r) { r.probe = low; })});
    });
}

Found night_cooling_never(const FindingContext& c)
{
    return each<NightCooling>(c, [&](Found& out, std::size_t i, const Rule&, const NightCooling& n) {
        const double limit = store_limit_c(c);
        if (n.from.in_celsius() < limit)
            return;
        const double from = limit - 8;
        out.push_back({"", Severity::caution, "Night cooling never begins", "It begins at " + temp(c, n.from.in_celsius()) + ", and the store limit stops the sun at " + temp(c, limit) + ".",
            change<NightCooling>("Try: from " + temp(c, from), i, [from](NightCooling& r) {
                r.from = Temperature::celsius(from);
                r.until = Temperature::celsius(std::min(r.until.in_celsius(), from - 10));
            })});
    });
}

Found heats_while_away(const FindingContext& c)
{
    if (!c.variant.unit.away)
        return {};
    return each<Heating>(c, [&](Found& out, std::size_t i, const Rule&, const Heating&) { out.push_back({"", Severity::note, "It heats while nobody is at home", "The backup keeps water warm that nobody draws. Disinfection goes on by itself.", switch_off(i)}); });
}

Found voltage_cut_too_low(const FindingContext& c)
{
    const double scale = loop(c).battery.full_v > 18 ? 2 : 1;
    return each<LowVoltage>(c, [&](Found& out, std::size_t i, const Rule&, const LowVoltage& l) {
        if (l.cut_v >= empty_battery_v * scale)
            return;
        out.push_back({"", Severity::caution, "Cut off at " + to_text(l.cut_v, Quantity::voltage, c.units) + " the battery is already empty", "10 to 10.5 V are in use; a lead-acid battery dies young of it. 11.5 V spares it.", change<LowVoltage>("Try: cut at " + to_text(11.5 * scale, Quantity::voltage, c.units), i, [scale](LowVoltage& r) {
                           r.cut_v = 11.5 * scale;
                           r.reconnect_v = std::max(r.reconnect_v, 12.6 * scale);
                       })});
    });
}

Found voltage_cut_at_once(const FindingContext& c)
{
    return each<LowVoltage>(c, [&](Found& out, std::size_t i, const Rule&, const LowVoltage& l) {
        if (l.delay_s >= 1)
            return;
        out.push_back({"", Severity::caution, "The dip of a starting motor trips the cut-out", "A motor draws its worst current for the first half second; with no delay each start may cut itself off.", change<LowVoltage>("Try: after 5 s", i, [](LowVoltage& r) { r.delay_s = 5; })});
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
            Remedy{"Try: minimum speed " + to_text(floor, Quantity::ratio, c.units), [i, floor](Variant& v) {
                       if (i < v.unit.rules.size())
                           std::visit(
                               [floor](auto& b) {
                                   if constexpr (requires { b.range; }) {
                                       b.range.floor = floor;
                                       b.range.top = std::max(b.range.top, floor);
                                   }
                               },
                               v.unit.rules[i].body);
                   }}});
    }
    return out;
}

Found guard_too_quick(const FindingContext& c)
{
    if (!arrangement(c).drains)
        return {};
    const double fills_s = fill_time_s(loop(c), c.job.site.place.altitude_m);
    return each<DryRun>(c, [&](Found& out, std::size_t i, const Rule&, const DryRun& g) {
        if (g.check_s >= fills_s * 1.2)
            return;
        const double better = std::ceil(fills_s * 2 / 10) * 10;
        out.push_back({"", Severity::caution, "The dry-run guard judges before the array is full", "Filling takes about " + lasts(c, fills_s) + ", it looks after " + lasts(c, g.check_s) + ": good starts are broken off.", change<DryRun>("Try: within " + lasts(c, better), i, [better](DryRun& r) { r.check_s = better; })});
    });
}

Found guard_at_collector(const FindingContext& c)
{
    return each<DryRun>(c, [&](Found& out, std::size_t i, const Rule&, const DryRun& g) {
        if (!at(c, g.probe, {ProbePlace::collector, ProbePlace::collector_2}))
            return;
        const std::string back = probe_at(c.variant, {ProbePlace::return_pipe});
        std::optional<Remedy> remedy;
        if (!back.empty())
            remedy = change<DryRun>("Try: by " + back, i, [back](DryRun& r) { r.probe = back; });
        out.push_back({"", Severity::caution, "The dry-run guard looks at the collector", "A dry collector climbs in the sun: that is a change too, and the guard takes it for water. A probe on the return pipe, where nothing changes unless water comes.", remedy});
    });
}

Found slow_to_start(const FindingContext& c)
{
    return each<Differential>(c, [&](Found& out, std::size_t i, const Rule&, const Differential& d) {
        if (d.conditioning.confirm_s + d.conditioning.average_s <= slow_s)
            return;
        out.push_back({"", Severity::caution, "The pump starts " + lasts(c, d.conditioning.confirm_s + d.conditioning.average_s) + " late", "Confirming and averaging calm the switching; so long they cost sun at each start and let it run on at each stop.", change<Differential>("Try: confirmed for 20 s", i, [](Differential& r) { r.conditioning = {20, 0}; })});
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
        out.push_back({"", Severity::caution, output.key + " runs while a probe is broken", "A dump or freeze recirculation may have to; here it only circulates day and night, with no limit that can read.", Remedy{"Try: off", [o](Variant& v) { std::erase_if(v.unit.outputs[o].faults, [](const FaultChoice& f) { return f.does == OnFault::on; }); }}});
    }
    return out;
}

Found store_probe_high(const FindingContext& c)
{
    return each<Differential>(c, [&](Found& out, std::size_t i, const Rule&, const Differential& d) {
        const std::string low = probe_at(c.variant, {ProbePlace::tank_bottom, ProbePlace::tank_middle});
        if (!at(c, d.store, {ProbePlace::tank_top}) || low.empty())
            return;
        out.push_back({"", Severity::caution, "The difference looks at the top of the tank", "The top stays warm when the bottom is cold: the pump rests while there is heat to be had.", change<Differential>("Try: against " + low, i, [low](Differential& r) { r.store = low; })});
    });
}

// An element beside the store probe makes it read the element.
Found store_probe_heated(const FindingContext& c)
{
    const bool driven = std::any_of(c.variant.unit.outputs.begin(), c.variant.unit.outputs.end(), [](const Output& o) { return o.drives == Drives::element; });
    if (!arrangement(c).has(Part::element) || (loop(c).element.mode == ElementMode::off && !driven))
        return {};
    return each<Differential>(c, [&](Found& out, std::size_t, const Rule&, const Differential& d) {
        const double height = at(c, d.store, {ProbePlace::tank_bottom}) ? 0.05 : at(c, d.store, {ProbePlace::tank_middle}) ? 0.5
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
        const Probe* p = d && r.enabled ? probe(c, d->source) : nullptr;
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
            elsewhere ? "While nothing flows it learns nothing of the sun: the pump starts late or never." : "It takes " + to_text(p->placement, Quantity::ratio, c.units) + " of its reading from the air around it: in the shade or in moving air it starts late, in the sun early.", remedy});
        break;
    }
    return out;
}

Found pipe_bears_too_little(const FindingContext& c)
{
    const double stands = stagnation_c(loop(c).collector);
    Found out;
    const auto look = [&](const Pipe& p, const char* name) {
        const double bears = p.bears_c;
        if (bears <= 0 || (bears >= stands && bears >= plastic_c) || stands < bears)
            return;
        if (out.empty())
            out.push_back({"", Severity::serious, std::string("The ") + name + " pipe bears " + temp(c, bears), "Full sun without flow brings the collector to " + temp(c, stands) + ". Common plastic heating pipe melts away near 120 °C and must not be used beyond its label; copper on any loop that stagnates hotter.", {}});
    };
    look(loop(c).supply, "supply");
    look(loop(c).back, "return");
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

} // namespace vernal
