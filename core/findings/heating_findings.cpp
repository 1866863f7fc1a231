#include "shared.h"

#include "core/job/fresh_rule.h"
#include "core/sums/filling.h"
#include "core/sums/switching.h"

namespace vernal {
namespace {

constexpr double least_hold_s = 600;            // estimate; local codes say
constexpr double day_from_h = 9, day_to_h = 16; // in which most of the sun comes; estimate

// Where the store limit really stops the sun; infinity: there is none.
double store_limit_c(const FindingContext& c)
{
    double out = INFINITY;
    for (const Rule& r : c.variant.unit.rules)
        if (const auto* l = std::get_if<StoreLimit>(&r.body); l && r.enabled)
            out = std::min(out, (l->limit - l->allowance).in_celsius());
    return out;
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
            change<Heating>(c, "Try: not while " + sun + " runs", i, [sun](Heating& r) { r.unless = sun; })});
    });
}

Found heating_without_window(const FindingContext& c)
{
    return each<Heating>(c, [&](Found& out, std::size_t i, const Rule&, const Heating& h) {
        if (std::any_of(h.windows.begin(), h.windows.end(), [](const HeatWindow& w) { return w.from_h != w.to_h; }))
            return;
        out.push_back({"", Severity::caution, "Backup heating has no window", "A window whose start equals its end is off: it never heats.", change<Heating>(c, "Try: 05:00 to 07:00", i, [](Heating& r) {
                           r.windows[0].from_h = 5;
                           r.windows[0].to_h = 7;
                       })});
    });
}

Found disinfection_weak(const FindingContext& c)
{
    return each<Disinfection>(c, [&](Found& out, std::size_t i, const Rule&, const Disinfection& d) {
        if (d.target.in_celsius() >= legionella_c && d.hold_s >= least_hold_s && d.every_days <= 14)
            return;
        out.push_back({"", Severity::serious, "The disinfection does not disinfect", "At " + temp(c, d.target.in_celsius()) + " for " + lasts(c, d.hold_s) + " every " + to_text(d.every_days, Quantity::days, c.units) + " legionella survives. 60 °C, held, every week; local codes say how long.",
            change<Disinfection>(c, "Try: " + temp(c, legionella_c) + " for 30 min every 7 days", i, [](Disinfection& r) {
                r.target = Temperature::celsius(legionella_c);
                r.hold_s = 1800;
                r.every_days = 7;
            })});
    });
}

constexpr double foot = 0.25; // an element below this share of the height heats the whole tank; estimate
constexpr double cold_c = 10; // of the mains, where a disinfection begins at the worst; estimate

// Hours a day in which the element may heat of itself.
double open_hours(const Element& e)
{
    if (e.mode != ElementMode::windows)
        return e.mode == ElementMode::always ? 24 : 0;
    constexpr int minutes = 24 * 60;
    int open = 0;
    for (int m = 0; m < minutes; ++m)
        open += std::any_of(e.windows.begin(), e.windows.end(), [h = m / 60.0](const HeatingWindow& w) { return w.start_h <= w.end_h ? h >= w.start_h && h < w.end_h : h >= w.start_h || h < w.end_h; }) ? 1 : 0;
    return open / 60.0;
}

// The rule's output does not feed the element, which heats by its own thermostat and windows:
// can that do what the rule waits for?
Found element_alone_disinfects(const FindingContext& c, const Rule& rule, const Disinfection& d)
{
    const Element& e = loop(c).element;
    const double hours = open_hours(e), target = d.target.in_celsius(), share = e.height < foot ? 1.0 : 1 - e.height;
    const double needs_h = share * loop(c).tank.volume_m3 * 4.18e6 * (target - cold_c) / std::max(1.0, e.power_w) / 3600 + d.hold_s / 3600;
    const bool below = e.height > foot && sits_at(c, d.probe, {ProbePlace::tank_bottom});
    if (hours >= needs_h && e.set_c > target && !below)
        return {};
    const std::string why = hours <= 0 ? "the element stays off" : e.set_c <= target ? "its own thermostat stops at " + temp(c, e.set_c)
                                                               : below               ? "the probe sits below it, where it stays cold"
                                                                                     : "it may heat " + to_text(hours, Quantity::hours, c.units) + " a day, and cold water takes " + to_text(needs_h, Quantity::hours, c.units) + " to reach and hold " + temp(c, target);
    return {{"", Severity::serious, "The disinfection heats nothing",
        rule.output + " does not feed the element, which keeps to its own thermostat and windows: " + why + ". The rule asks and is never done. Let the output feed the element. Such water scalds: a tempering valve must hold the taps.",
        Remedy{"Try: " + rule.output + " feeds the element", [key = rule.output](Variant& v) {
                   for (Output& o : v.unit.outputs)
                       if (o.key == key)
                           o.drives = Drives::element;
               }}}};
}

// Asked for, and the element cannot bring it: by its own thermostat, or because it heats only what lies above it.
Found disinfection_out_of_reach(const FindingContext& c)
{
    if (!has(c, Part::element))
        return {};
    const Element& e = loop(c).element;
    return each<Disinfection>(c, [&](Found& out, std::size_t, const Rule& r, const Disinfection& d) {
        const auto output = std::find_if(c.variant.unit.outputs.begin(), c.variant.unit.outputs.end(), [&](const Output& o) { return o.key == r.output; });
        if (output == c.variant.unit.outputs.end() || output->drives == Drives::other)
            return; // what that is, only the person knows
        if (output->drives != Drives::element) {
            for (Finding& f : element_alone_disinfects(c, r, d))
                out.push_back(std::move(f));
            return;
        }
        const double needed = (d.target + TempDiff::kelvin(Disinfection::heat_high_k)).in_celsius();
        if (e.set_c < needed)
            out.push_back({"", Severity::serious, "The disinfection cannot reach its target", "The element's own thermostat stops at " + temp(c, e.set_c) + "; the rule heats to " + temp(c, needed) + " so that " + temp(c, d.target.in_celsius()) + " is held. It asks day after day and is never done. Such water scalds: a tempering valve must hold the taps.",
                on_loop("Try: element's thermostat at " + temp(c, std::ceil(needed + 2)), [to = std::ceil(needed + 2)](Loop& l) { l.element.set_c = to; })});
        else if (e.height > foot && sits_at(c, d.probe, {ProbePlace::tank_bottom}))
            out.push_back({"", Severity::serious, "The disinfection cannot reach its probe", "The element sits at " + to_text(e.height, Quantity::ratio, c.units) + " of the height and heats what lies above it; the probe sits at the bottom, which stays cold. Heat from the bottom, mix the tank, or judge it where the element reaches and disinfect the rest otherwise.",
                on_loop("Try: element at the bottom", [](Loop& l) { l.element.height = 0.1; })});
        else if (const double share = e.height < foot ? 1.0 : 1 - e.height; e.power_w * 86400 * 0.5 < share * loop(c).tank.volume_m3 * 4.18e6 * (needed - cold_c))
            out.push_back({"", Severity::serious, "The element is too weak to disinfect", "At " + said(c, e.power_w, Quantity::power) + " it takes more than half a day to bring cold water to " + temp(c, needed) + ", and draws take it away again.", {}});
    });
}

Found disinfection_at_the_top(const FindingContext& c)
{
    return each<Disinfection>(c, [&](Found& out, std::size_t i, const Rule&, const Disinfection& d) {
        const std::string low = probe_at(c.variant, {ProbePlace::tank_bottom, ProbePlace::tank_middle});
        if (!sits_at(c, d.probe, {ProbePlace::tank_top}) || low.empty())
            return;
        out.push_back({"", Severity::caution, "Disinfection is judged at the top", "The top is hot first; below it the water stays as legionella likes it. The coldest stored point counts, or what the element cannot reach must be heated otherwise.",
            change<Disinfection>(c, "Try: by " + low, i, [low](Disinfection& r) { r.probe = low; })});
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
            change<NightCooling>(c, "Try: from " + temp(c, from), i, [from](NightCooling& r) {
                r.from = Temperature::celsius(from);
                r.until = Temperature::celsius(std::min(r.until.in_celsius(), from - 10));
            })});
    });
}

Found heats_while_away(const FindingContext& c)
{
    if (!c.variant.unit.away)
        return {};
    return each<Heating>(c, [&](Found& out, std::size_t i, const Rule&, const Heating&) { out.push_back({"", Severity::note, "It heats while nobody is at home", "The backup keeps water warm that nobody draws. Disinfection goes on by itself.", switch_off(c, i)}); });
}

} // namespace

const FindingKinds& heating_findings()
{
    static const FindingKinds table{
        {"limit_below_window", limit_below_window},
        {"heating_by_day", heating_by_day},
        {"heating_without_window", heating_without_window},
        {"disinfection_weak", disinfection_weak},
        {"disinfection_out_of_reach", disinfection_out_of_reach, Cause::rules, Loops::tank, "loop/element"},
        {"disinfection_at_the_top", disinfection_at_the_top},
        {"night_cooling_never", night_cooling_never},
        {"heats_while_away", heats_while_away},
    };
    return table;
}

} // namespace vernal
