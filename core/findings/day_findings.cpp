#include "shared.h"

#include "core/job/fresh_rule.h"
#include "core/plant/fluid.h"
#include "core/plant/pane.h"
#include "core/setup/job_setup.h"
#include "core/units/in_units.h"
#include "core/units/instant_text.h"

namespace vernal {
namespace {

constexpr double glycol_ages_c = 170;   // a usual collector fluid's; estimate
constexpr double frost_reserve_k = 5.0; // a clear sky takes the collector that far below the air; estimate

Found glycol_too_weak(const FindingContext& c)
{
    const Arrangement& a = arrangement_of(c.variant.loop);
    if (a.carrier != Carrier::glycol)
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
    const std::string where = "First at " + instant_text(f.first_freeze_s) + ": " + in_units(f.first_freeze_at, c.units) + ". ";
    const bool slush = arrangement_of(c.variant.loop).carrier == Carrier::glycol && f.burst_s <= 0;
    const std::string what = slush ? "The mixture turns to slush that no pump moves; it bursts pipe only at " + temp(c, burst_c(c.variant.loop.glycol_fraction)) + ". " : "What freezes there bursts. ";
    // A loop of water that nothing protects can be helped by recirculation, where frost is rare.
    const Arrangement& a = arrangement_of(c.variant.loop);
    bool guarded = a.drains || !a.pumped() || f.first_freeze_at.starts_with("tap circulation") || a.carrier != Carrier::water;
    for (const Rule& r : c.variant.unit.rules)
        guarded = guarded || (r.enabled && (std::holds_alternative<Freeze>(r.body) || std::holds_alternative<DrainDown>(r.body)));
    std::string over_bridge;
    if (const auto bridge = sensors(c.variant).bridge)
        for (const Rule& r : c.variant.unit.rules)
            if (const auto limit = limit_of(r); r.enabled && limit && limit->lower && limit->probe == c.variant.probes[bridge->collector].key && kind_of(r).priority == Priority::freeze)
                over_bridge = std::string(kind_of(r).title) + " reads " + named(c.variant.probes[bridge->collector]) + " over a bridge, which tells only how much warmer it is than the store. Give that probe an input of its own, or put a thermostat switch on the pipe. ";
    std::optional<Remedy> remedy;
    if (!over_bridge.empty())
        remedy = own_inputs();
    else if (!guarded)
        remedy = Remedy{"Try: freeze recirculation", [](Variant& v) {
                            v.unit.rules.push_back(fresh_rule(v, kind_index<Freeze>()));
                            sort_by_priority(v.unit.rules);
                        }};
    return {{"", slush ? Severity::caution : Severity::serious, "Frost in wet pipe for " + to_text(f.freezing_s, Quantity::minutes, c.units), where + what + over_bridge + (slush ? "Use stronger glycol." : "Drain the loop before frost, by hand, by a drain-down valve or as a drain-back; recirculation only where frost is rare and the power stays."), remedy}};
}

Found report_without_sky(const FindingContext& c)
{
    const Collector& k = loop(c).collector;
    if (k.sky_exchange > 0)
        return {};
    return one(Severity::note, "The night sky is in no figure of this collector", pane_w_m2k(loop(c).answers, k) > 0 ? "A report's zero for the sky does not mean that there is no night loss: it was tested by day. Runs let its pane cool below the air on a clear night, and the absorber with it." : "Without a pane it radiates to the sky itself; a zero leaves that out, by night and in the cold.");
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
    if (!c.figures || c.figures->highest_collector_c < collector_steam_c)
        return {};
    const double stands_c = c.figures->highest_collector_c;
    Finding out{"", Severity::note, "The collector stands at " + temp(c, stands_c), "Steam and hot fluid: never fill or open the loop then, cover the collector first. Pipe and cable near it must bear this.", {}};
    for (const auto& [pipe, path, called] : {std::tuple(&loop(c).supply, "loop/supply/bears_c", "The pipe to the collector"), std::tuple(&loop(c).back, "loop/back/bears_c", "The pipe from the collector")})
        if (pipe->bears_c > 0 && pipe->bears_c < stands_c && pipe->outdoor_m > 0) {
            out.severity = Severity::serious;
            out.at = path;
            out.reason += std::string(" ") + called + " is rated for " + temp(c, pipe->bears_c) + ": steam softens it and it bursts. Copper or steel for the metres next to the collector, or a loop that does not stagnate (a cooler, a drain-back, shade in summer).";
            return {out};
        }
    if (arrangement(c).carrier == Carrier::glycol && stands_c > glycol_ages_c) {
        out.severity = Severity::caution;
        out.reason += " Above about " + temp(c, glycol_ages_c) + " glycol and its inhibitors break down (estimate; the label of the fluid says at what): read its pH and its freezing point each year, and keep such days few.";
    }
    return {out};
}

} // namespace

const FindingKinds& day_findings()
{
    static const FindingKinds table{
        {"glycol_too_weak", glycol_too_weak, Cause::loop, Loops::glycol, "loop/glycol_fraction"},
        {"freezes_today", freezes_today, Cause::loop, Loops::liquid, "loop/supply"},
        {"report_without_sky", report_without_sky, Cause::loop, Loops::all, "loop/collector/sky_exchange"},
        {"scald", scald, Cause::sight, Loops::tank, "loop/tank"},
        {"stagnates", stagnates, Cause::sight, Loops::liquid, "loop/collector"},
    };
    return table;
}

} // namespace vernal
