#include "findings.h"
#include "core/plant/fluid.h"

#include "core/job/fresh_rule.h"
#include "loop_findings.h"
#include "probe_findings.h"
#include "protection_findings.h"
#include "rule_findings.h"
#include "core/sums/stability.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

using Found = std::vector<Finding>;

// Limits below which a setting can only be a slip, and safe figures offered instead.
constexpr double shortest_limit_c = 30.0;    // 60 °F typed on a °C unit's mind is 15.6 °C
constexpr double relief_opens_c = 99.0;      // about 210 °F, from memory
constexpr double layers_above_probe_k = 8.0; // what stratification and probe error may hide; estimate
constexpr double legionella_c = 60.0;        // WHO, Legionella and the prevention of legionellosis (2007)
constexpr double tempered_c = 49.0;          // 120 °F at the tap, common practice
constexpr int many_starts = 20;              // a day; estimate
constexpr double least_gap_k = 2.0;          // of two probes of ordinary tolerance
constexpr double steam_c = 110.0;
constexpr double frost_reserve_k = 5.0;

std::string temp(const FindingContext& c, double v) { return to_text(v, Quantity::temperature, c.units); }
std::string diff(const FindingContext& c, double v) { return to_text(v, Quantity::difference, c.units); }

bool holds_drinking_water(const FindingContext& c)
{
    const Arrangement* a = find_arrangement(c.variant.loop.arrangement);
    return a && a->has(Part::tank);
}

// Calls f(index, body) for each enabled rule of kind R.
template <class R, class F>
void each(const FindingContext& c, F f)
{
    for (std::size_t i = 0; i < c.variant.unit.rules.size(); ++i)
        if (const Rule& r = c.variant.unit.rules[i]; r.enabled)
            if (const R* body = std::get_if<R>(&r.body))
                f(i, *body);
}

template <class R, class F>
Remedy set_rule(std::string label, std::size_t index, F change)
{
    return {std::move(label), [index, change](Variant& v) {
                if (index < v.unit.rules.size())
                    if (R* body = std::get_if<R>(&v.unit.rules[index].body))
                        change(*body);
            }};
}

Found off_not_below_on(const FindingContext& c)
{
    Found out;
    each<Differential>(c, [&](std::size_t i, const Differential& d) {
        if (d.off < d.on)
            return;
        const TempDiff off = d.on * 0.4;
        out.push_back({"", Severity::serious, "Stops above its start point",
            "The rule stops at " + diff(c, d.off.in_kelvin()) + " but starts at " + diff(c, d.on.in_kelvin()) + ". It is out of action: the pump will not run.",
            d.on.in_kelvin() > 0 ? std::optional(set_rule<Differential>("Try: stop at " + diff(c, off.in_kelvin()), i, [off](Differential& r) { r.off = off; })) : std::nullopt});
    });
    return out;
}

template <class L>
void hysteresis_of(const FindingContext& c, Found& out)
{
    each<L>(c, [&](std::size_t i, const L& l) {
        if (l.hysteresis.in_kelvin() <= 0)
            out.push_back({"", Severity::serious, "A limit has no hysteresis", "With " + diff(c, l.hysteresis.in_kelvin()) + " the limit is out of action: it protects nothing.",
                set_rule<L>("Try: " + diff(c, 4), i, [](L& r) { r.hysteresis = TempDiff::kelvin(4); })});
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

Found rule_out_of_action(const FindingContext& c)
{
    Found out;
    for (const OutOfAction& o : compile(c.variant.unit, probe_keys(c.variant)).out_of_action)
        // Differences and hysteresis that leave no band have findings of their own.
        if (o.reason.rfind("there ", 0) == 0 || !(o.reason == "the hysteresis is not above zero" || std::holds_alternative<Differential>(c.variant.unit.rules[o.rule].body)))
            out.push_back({"", Severity::serious, "A rule is out of action", std::string(kind_of(c.variant.unit.rules[o.rule]).title) + ": " + o.reason + ".", {}});
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
            Remedy{"Try: AUTO", [i](Variant& v) { v.unit.outputs[i].mode = Mode::automatic; }}});
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
    each<StoreLimit>(c, [&](std::size_t i, const StoreLimit& l) {
        const double limit = l.limit.in_celsius();
        if (limit >= shortest_limit_c)
            return;
        const double meant = l.limit.in_fahrenheit(); // the figure read as °C
        const bool slip = meant >= 40 && meant <= 90;
        const double better = slip ? meant : 65.0;
        out.push_back({"", Severity::serious, "Store limit of " + temp(c, limit) + " stops nearly all sun",
            slip ? "It looks like a figure in °C typed while the unit showed °F." : "The store is above it on most days.",
            set_rule<StoreLimit>("Try: " + temp(c, better), i, [better](StoreLimit& r) { r.limit = Temperature::celsius(better); })});
    });
    return out;
}

Found limit_never_acts(const FindingContext& c)
{
    Found out;
    each<StoreLimit>(c, [&](std::size_t i, const StoreLimit& l) {
        const double limit = l.limit.in_celsius();
        if (limit + layers_above_probe_k <= relief_opens_c)
            return;
        const double meant = (limit - 32) / 1.8;
        const double better = meant >= 50 && meant <= 85 ? meant : 70.0;
        out.push_back({"", Severity::serious, "Store limit of " + temp(c, limit) + " acts too late",
            "The layers above the probe can be " + diff(c, layers_above_probe_k) + " hotter, and relief valves open near " + temp(c, relief_opens_c) +
                ": steam and scalding water. Never cap a relief valve. Follow the maker's manual and local codes.",
            set_rule<StoreLimit>("Try: " + temp(c, better), i, [better](StoreLimit& r) { r.limit = Temperature::celsius(better); })});
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
    each<L>(c, [&](std::size_t, const L&) { any = true; });
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
    return missing_rule(c, Severity::serious, "The store has no limit", "On a sunny week without draw the water goes on to the relief valve: steam, scalding water, a spoilt tank lining.", limit_probe(c.variant),
        StoreLimit{"", Temperature::celsius(70), TempDiff::kelvin(4)});
}

Found no_cut_out(const FindingContext& c)
{
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
    if (!holds_drinking_water(c) || (e.mode != ElementMode::off && e.set_c >= legionella_c))
        return out;
    each<StoreLimit>(c, [&](std::size_t, const StoreLimit& l) {
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
    each<Differential>(c, [&](std::size_t i, const Differential& d) {
        const double gap = (d.on - d.off).in_kelvin();
        const bool stated = std::any_of(c.variant.probes.begin(), c.variant.probes.end(), [&](const Probe& p) { return (p.key == d.source || p.key == d.store) && p.sensor.tolerance.kind != ToleranceKind::none; });
        if (gap <= 0 || gap >= least_gap_k || stated)
            return;
        const TempDiff on = d.off + TempDiff::kelvin(4);
        out.push_back({"", Severity::caution, "Start and stop are only " + diff(c, gap) + " apart", "Two ordinary probes may differ by as much: the pump may chatter.",
            set_rule<Differential>("Try: start at " + diff(c, on.in_kelvin()), i, [on](Differential& r) { r.on = on; })});
    });
    return out;
}

Found stops_below_zero(const FindingContext& c)
{
    Found out;
    each<Differential>(c, [&](std::size_t i, const Differential& d) {
        if (d.off.in_kelvin() >= 0 || d.off >= d.on || d.off.in_kelvin() < -5) // that low it is a slip: difference_converted says so
            return;
        out.push_back({"", Severity::caution, "Runs on while losing heat", "It stops only when the collector is " + diff(c, -d.off.in_kelvin()) + " colder than the store.",
            set_rule<Differential>("Try: stop at " + diff(c, 2), i, [](Differential& r) { r.off = TempDiff::kelvin(2); })});
    });
    return out;
}

Found glycol_too_weak(const FindingContext& c)
{
    const Arrangement* a = find_arrangement(c.variant.loop.arrangement);
    if (!a || a->carrier != Carrier::glycol)
        return {};
    double coldest = INFINITY;
    for (const Day& d : c.job.days)
        if (d.kind == DayKind::generated)
            coldest = std::min(coldest, d.sky.air_min_c);
    const double freezes = glycol_water(c.variant.loop.glycol_fraction).freezing_c;
    if (freezes <= coldest - frost_reserve_k)
        return {};
    std::optional<Remedy> remedy;
    for (double f = c.variant.loop.glycol_fraction; f <= 0.55; f += 0.01)
        if (glycol_water(f).freezing_c <= coldest - frost_reserve_k) {
            remedy = Remedy{"Try: " + to_text(f, Quantity::ratio, c.units) + " glycol", [f](Variant& v) { v.loop.glycol_fraction = f; }};
            break;
        }
    return {{"", freezes > coldest ? Severity::serious : Severity::caution, "The glycol freezes at " + temp(c, freezes),
        "The coldest day here has " + temp(c, coldest) + ", and a clear sky takes the collector below the air. It turns to slush before it bursts a pipe. Use propylene glycol near drinking water.", remedy}};
}

Found freezes_today(const FindingContext& c)
{
    if (!c.figures || c.figures->freezing_s < 60)
        return {};
    const Figures& f = *c.figures;
    const std::string where = "First at " + clock_text(f.first_freeze_s) + ": " + f.first_freeze_at + ". ";
    const bool slush = find_arrangement(c.variant.loop.arrangement)->carrier == Carrier::glycol && f.burst_s <= 0;
    const std::string what = slush ? "The mixture turns to slush that no pump moves; it bursts pipe only at " + temp(c, burst_c(c.variant.loop.glycol_fraction)) + ". " : "What freezes there bursts. ";
    // A loop of water that nothing protects can be helped by recirculation, where frost is rare.
    const Arrangement& a = *find_arrangement(c.variant.loop.arrangement);
    bool guarded = a.drains || a.carrier != Carrier::water;
    for (const Rule& r : c.variant.unit.rules)
        guarded = guarded || (r.enabled && (std::holds_alternative<Freeze>(r.body) || std::holds_alternative<DrainDown>(r.body)));
    std::optional<Remedy> remedy;
    if (!guarded)
        remedy = Remedy{"Try: freeze recirculation", [](Variant& v) {
                            constexpr std::size_t freeze = 14; // its place among the kinds
                            static_assert(std::is_same_v<std::variant_alternative_t<freeze, RuleBody>, Freeze>);
                            v.unit.rules.push_back(fresh_rule(v, freeze));
                            sort_by_priority(v.unit.rules);
                        }};
    return {{"", slush ? Severity::caution : Severity::serious, "Frost in wet pipe for " + to_text(f.freezing_s, Quantity::minutes, c.units), where + what + (slush ? "Use stronger glycol." : "Drain the loop before frost, by hand, by a drain-down valve or as a drain-back; recirculation only where frost is rare and the power stays."), remedy}};
}

Found many_starts_today(const FindingContext& c)
{
    if (!c.figures || c.figures->starts() <= many_starts)
        return {};
    Found out;
    each<Differential>(c, [&](std::size_t i, const Differential& d) {
        if (!out.empty())
            return;
        const TempDiff on = d.on + TempDiff::kelvin(4);
        out.push_back({"", Severity::caution, std::to_string(c.figures->starts()) + " starts today",
            "Every start is a shock to the pump. After a start the cold fluid that stood in the pipes reaches the probe and stops it again; the shortest run is " +
                to_text(c.figures->pumps.front().shortest_run_s, Quantity::duration, c.units) + ". " + stability_text(c.variant.loop, d.on.in_kelvin(), d.off.in_kelvin()),
            set_rule<Differential>("Try: start at " + diff(c, on.in_kelvin()), i, [on](Differential& r) { r.on = on; })});
    });
    return out;
}

Found scald(const FindingContext& c)
{
    if (!c.figures || !holds_drinking_water(c) || c.figures->highest_store_c < legionella_c)
        return {};
    return {{"", Severity::note, "The store reaches " + temp(c, c.figures->highest_store_c),
        "Water of " + temp(c, legionella_c) + " burns in seconds. A tempering valve must hold the taps at " + temp(c, tempered_c) + " or less. Follow the maker's manual and local codes, and use a licensed tradesperson where the law asks for one.", {}}};
}

Found stagnates(const FindingContext& c)
{
    if (!c.figures || c.figures->highest_collector_c < steam_c)
        return {};
    return {{"", Severity::note, "The collector stands at " + temp(c, c.figures->highest_collector_c),
        "Steam and hot fluid: never fill or open the loop then, cover the collector first. Pipe and cable near it must bear this.", {}}};
}

} // namespace

const std::vector<FindingKind>& finding_kinds()
{
    static const std::vector<FindingKind> table{
        {"off_not_below_on", off_not_below_on},
        {"hysteresis_not_positive", hysteresis_not_positive},
        {"rule_out_of_action", rule_out_of_action},
        {"switch_left", switch_left},
        {"no_collecting_rule", no_collecting_rule},
        {"limit_too_low", limit_too_low},
        {"limit_never_acts", limit_never_acts},
        {"no_store_limit", no_store_limit},
        {"no_cut_out", no_cut_out},
        {"too_cool_against_legionella", too_cool_against_legionella},
        {"narrow_band", narrow_band},
        {"stops_below_zero", stops_below_zero},
        {"glycol_too_weak", glycol_too_weak, Cause::loop},
        {"freezes_today", freezes_today, Cause::loop},
        {"many_starts_today", many_starts_today},
        {"scald", scald, Cause::sight},
        {"stagnates", stagnates, Cause::sight},
        {"output_missing", output_missing, Cause::loop},
        {"pump_below_lift", pump_below_lift, Cause::loop},
        {"reservoir_too_small", reservoir_too_small, Cause::loop},
        {"pitch_too_small", pitch_too_small, Cause::loop},
        {"restarts_while_draining", restarts_while_draining},
        {"fills_with_steam", fills_with_steam},
        {"siphon_cannot_stand", siphon_cannot_stand, Cause::loop},
        {"panel_label_impossible", panel_label_impossible, Cause::loop},
        {"battery_cut_too_low", battery_cut_too_low, Cause::loop},
        {"battery_cut_without_band", battery_cut_without_band, Cause::loop},
        {"battery_trips", battery_trips, Cause::loop},
        {"check_valve_in_return", check_valve_in_return, Cause::loop},
        {"ports_swapped", ports_swapped, Cause::loop},
        {"prime_lost", prime_lost, Cause::loop},
        {"draws_steam", draws_steam, Cause::loop},
        {"water_lost_by_vent", water_lost_by_vent, Cause::loop},
        {"line_shut", line_shut, Cause::loop},
        {"curve_not_known", curve_not_known, Cause::loop},
        {"open_voltage_too_high", open_voltage_too_high, Cause::loop},
        {"cable_drop", cable_drop, Cause::loop},
        {"breaker_too_large", breaker_too_large, Cause::loop},
        {"current_over_output", current_over_output, Cause::loop},
        {"starting_dip", starting_dip, Cause::loop},
        {"leads_swapped", leads_swapped, Cause::loop},
        {"vessel_too_small", vessel_too_small, Cause::loop},
        {"vessel_precharge", vessel_precharge, Cause::loop},
        {"relief_discharged", relief_discharged, Cause::loop},
        {"check_valve_leaks", check_valve_leaks, Cause::loop},
        {"element_windows_empty", element_windows_empty, Cause::loop},
        {"element_by_day", element_by_day, Cause::loop},
        {"probe_not_sound", probe_not_sound, Cause::probes},
        {"swapped_alone", swapped_alone, Cause::probes},
        {"read_by_other_curve", read_by_other_curve, Cause::probes},
        {"band_may_close", band_may_close},
        {"off_may_pass_zero", off_may_pass_zero},
        {"probe_rated_too_low", probe_rated_too_low, Cause::probes},
        {"cable_rated_too_low", cable_rated_too_low, Cause::probes},
        {"range_too_small", range_too_small, Cause::probes},
        {"limit_not_readable", limit_not_readable, Cause::probes},
        {"lead_reads_off", lead_reads_off, Cause::probes},
        {"counts_too_coarse", counts_too_coarse, Cause::probes},
        {"bypass_closed", bypass_closed},
        {"difference_converted", difference_converted},
        {"freeze_on_wrong_loop", freeze_on_wrong_loop},
        {"freeze_needs_power", freeze_needs_power},
        {"freeze_too_late", freeze_too_late},
        {"freeze_without_floor", freeze_without_floor},
        {"freeze_waits", freeze_waits},
        {"dump_throws_away", dump_throws_away},
        {"limit_below_window", limit_below_window},
        {"heating_by_day", heating_by_day},
        {"heating_without_window", heating_without_window},
        {"disinfection_weak", disinfection_weak},
        {"disinfection_at_the_top", disinfection_at_the_top},
        {"night_cooling_never", night_cooling_never},
        {"heats_while_away", heats_while_away},
        {"voltage_cut_too_low", voltage_cut_too_low},
        {"voltage_cut_at_once", voltage_cut_at_once},
        {"speed_below_lift", speed_below_lift},
        {"guard_too_quick", guard_too_quick},
        {"guard_at_collector", guard_at_collector},
        {"slow_to_start", slow_to_start},
        {"runs_on_fault", runs_on_fault},
        {"store_probe_high", store_probe_high},
        {"store_probe_heated", store_probe_heated},
        {"collector_probe_astray", collector_probe_astray, Cause::probes},
        {"pipe_bears_too_little", pipe_bears_too_little, Cause::loop},
        {"unit_on_a_plug", unit_on_a_plug, Cause::loop},
        {"dip_pipe_in_wrong_port", dip_pipe_in_wrong_port, Cause::loop},
    };
    return table;
}

const FindingKind* find_kind(const std::string& key)
{
    const auto& all = finding_kinds();
    const auto it = std::find_if(all.begin(), all.end(), [&](const FindingKind& k) { return key == k.key; });
    return it == all.end() ? nullptr : &*it;
}

std::vector<Finding> findings(const FindingContext& context)
{
    std::vector<Finding> out;
    for (const FindingKind& kind : finding_kinds())
        for (Finding& f : kind.check(context)) {
            f.kind = kind.key;
            out.push_back(std::move(f));
        }
    std::stable_sort(out.begin(), out.end(), [](const Finding& a, const Finding& b) { return a.severity < b.severity; });
    return out;
}

const char* severity_text(Severity s)
{
    static constexpr const char* texts[] = {"serious", "caution", "note"};
    return texts[static_cast<std::size_t>(s)];
}

} // namespace vernal
