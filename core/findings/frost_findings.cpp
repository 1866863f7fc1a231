#include "shared.h"

#include "core/job/fresh_rule.h"
#include "core/sums/filling.h"
#include "core/sums/switching.h"
#include "core/weather/winter.h"

namespace vernal {
namespace {

constexpr double frost_on_c = 5.0;     // above the latest by three kelvin for the probe and the pipe it does not see; estimate
constexpr double latest_frost_c = 2.0; // the coldest wet place is colder than the probe; estimate
constexpr double hard_frost_c = -3.0;  // coldest air of a day that pipe outdoors does not outlast; estimate
constexpr double widest_dump_k = 20.0; // more throws heat away that the store could use; estimate

double coldest_day_c(const FindingContext& c)
{
    double out = INFINITY;
    for (const Day& d : c.job.days)
        if (d.kind == DayKind::generated)
            out = std::min(out, d.sky.air_min_c);
    return out;
}

// An on or off that was a difference in °F and went through the formula for
// temperatures: 12 °F of difference became −11.1.
std::optional<double> meant_k(double k)
{
    const double typed_f = k * 1.8 + 32;
    return k < -5 && typed_f >= 0 && typed_f <= 30 ? std::optional(typed_f / 1.8) : std::nullopt;
}

Found bypass_closed(const FindingContext& c)
{
    Found out;
    for (std::size_t i = 0; i < c.variant.unit.outputs.size(); ++i)
        if (const Output& o = c.variant.unit.outputs[i]; o.bypass)
            out.push_back({"", Severity::serious, "The service bypass feeds " + o.key, "It runs day and night whatever the unit decides: no limit, no cut-out and no voltage protection can stop it. Open the bypass after the work.",
                Remedy{"Try: bypass open", [of = ref_to(c.variant.unit.outputs, i)](Variant& v) {
                           if (Output* now = of.in(v.unit.outputs))
                               now->bypass = false;
                       }}});
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
            change<Differential>(c, "Try: " + diff(c, on_k) + " and " + diff(c, off_k), i, [on_k, off_k](Differential& r) {
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
            drains ? "It would pump water into a cold empty array, where it freezes. Draining is the protection." : "It sends the store's heat to the roof on every cold night, for nothing.", switch_off(c, i)});
    });
}

// From loop and place alone, whatever days the job has.
Found unprotected_from_frost(const FindingContext& c)
{
    const Arrangement& a = arrangement(c);
    if (a.carrier != Carrier::water || a.answers.empties == Empties::reservoir || a.answers.empties == Empties::open_tank)
        return {};
    for (const Rule& r : c.variant.unit.rules)
        if (r.enabled && (std::holds_alternative<Freeze>(r.body) || std::holds_alternative<DrainDown>(r.body)))
            return {};
    const double coldest = std::min(coldest_winter_c(c.job.site.place), coldest_day_c(c));
    if (coldest > frost_on_c)
        return {};
    return {{"", Severity::caution, "Nothing protects this loop from frost", "Water stays in the collector and in the pipes outdoors, and a winter here brings about " + temp(c, coldest) + " (by latitude, altitude and the job's days; estimate). Drain it by hand before the first frost and keep it empty, or choose glycol, a drain-back, a drain-down valve, or recirculation where frost is rare and the power stays.", {}, "loop/supply"}};
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
        out.push_back({"", Severity::serious, "Freeze recirculation begins at " + temp(c, f.limit.in_celsius()), "The coldest wet place is often not where the probe sits, and the probe itself may be a kelvin off: pipe elsewhere is frozen by then. Under a clear sky a collector stands some kelvin below the air; its sums say at which air it freezes.",
            change<Freeze>(c, "Try: from " + temp(c, frost_on_c), i, [](Freeze& r) { r.limit = Temperature::celsius(frost_on_c); })});
    });
}

Found freeze_without_floor(const FindingContext& c)
{
    return each<Freeze>(c, [&](Found& out, std::size_t i, const Rule&, const Freeze& f) {
        const std::string store = probe_at(c.variant, {ProbePlace::tank_bottom, ProbePlace::tank_middle, ProbePlace::tank_top, ProbePlace::pool_water});
        if (!f.store.empty() || store.empty())
            return;
        out.push_back({"", Severity::caution, "Nothing ends what freeze recirculation takes from the store", "On a long frosty night it goes on with water as cold as the pipe, and the store freezes with it.",
            change<Freeze>(c, "Try: not below " + temp(c, 8), i, [store](Freeze& r) {
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
        out.push_back({"", Severity::caution, "The dump goes on down to " + temp(c, (d.limit - d.hysteresis).in_celsius()), "Heat that the store could still take goes to the cooler: only what stands above its limit is too much.",
            change<Divert>(c, "Try: back " + diff(c, 8) + " below", i, [](Divert& r) { r.hysteresis = TempDiff::kelvin(8); })});
    });
}

} // namespace

const FindingKinds& frost_findings()
{
    static const FindingKinds table{
        {"bypass_closed", bypass_closed},
        {"difference_converted", difference_converted},
        {"unprotected_from_frost", unprotected_from_frost, Cause::loop, Loops::liquid, "loop/supply"},
        {"freeze_on_wrong_loop", freeze_on_wrong_loop},
        {"freeze_needs_power", freeze_needs_power},
        {"freeze_too_late", freeze_too_late},
        {"freeze_without_floor", freeze_without_floor},
        {"freeze_waits", freeze_waits},
        {"dump_throws_away", dump_throws_away},
    };
    return table;
}

} // namespace vernal
