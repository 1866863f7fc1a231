// What hangs on the tank's hot side: a heater after it, the tap circulation; and what a
// loop without a pump cannot do.
#include "shared.h"

namespace vernal {
namespace {

constexpr double lukewarm_c = 50.0;    // of what comes back (WHO, Legionella and the prevention of legionellosis, 2007: above 50 °C; from memory)
constexpr double long_enough_s = 3600; // of running in a day; estimate
constexpr double much_of_it = 0.3;     // of what is drawn; estimate

// The store's highest limit, °C; −infinity: it has none.
double highest_limit_c(const FindingContext& c)
{
    double limit = -INFINITY;
    for_each_rule<StoreLimit>(c, [&](std::size_t, const StoreLimit& l) { limit = std::max(limit, l.limit.in_celsius()); });
    return limit;
}

// What may be sent past the taps: by the store's limits, by the heater's thermostat,
// and what the chosen day came to.
double hottest_c(const FindingContext& c)
{
    if (has(c, Part::heater) && loop(c).heater.way == HeaterWay::heater_only)
        return loop(c).heater.set_c;
    double out = highest_limit_c(c);
    if (c.figures)
        out = std::max(out, c.figures->highest_store_c);
    if (has(c, Part::heater) && loop(c).heater.way != HeaterWay::tank_only)
        out = std::max(out, loop(c).heater.set_c);
    return out;
}

// Run longer to get rid of heat.
bool runs_as_cooler(const FindingContext& c)
{
    const int output = arrangement(c).output_of(Driver::circulation);
    const auto& outputs = c.variant.unit.outputs;
    bool divert = loop(c).answers.excess == Excess::circulation;
    if (output >= 0 && static_cast<std::size_t>(output) < outputs.size())
        each<Divert>(c, [&](Found&, std::size_t, const Rule& r, const Divert&) { divert = divert || r.output == outputs[static_cast<std::size_t>(output)].key; });
    return divert;
}

Found circulation_scalds(const FindingContext& c)
{
    const double hot = hottest_c(c);
    if (loop(c).circulation.tempering != Tempering::nowhere || hot <= tempered_c)
        return {};
    const std::string also = runs_as_cooler(c) ? " It is run on purpose when the tank is hottest." : "";
    return one(hot > legionella_c || runs_as_cooler(c) ? Severity::serious : Severity::caution, "Water of up to " + temp(c, hot) + " circulates past the taps", "Nothing mixes it down: at " + temp(c, legionella_c) + " it burns in seconds." + also + " A tempering valve at each tap, or one before the circulation, holds them at " + temp(c, tempered_c) + " or less. Local codes, and a licensed plumber where the law asks for one.",
        on_loop("Try: tempered at the taps", [](Loop& l) { l.circulation.tempering = Tempering::at_taps; }));
}

Found circulation_pipe(const FindingContext& c)
{
    const double hot = hottest_c(c), bears = loop(c).circulation.bears_c;
    if (bears <= 0 || hot <= bears || loop(c).circulation.tempering == Tempering::at_tank)
        return {};
    return one(Severity::serious, "The circulation's pipe bears " + temp(c, bears) + ", the water may have " + temp(c, hot), "It softens and bursts in a wall, with hot water behind it. A lower limit of the store, a tempering valve before the circulation, or other pipe.",
        on_loop("Try: tempered before the circulation", [](Loop& l) { l.circulation.tempering = Tempering::at_tank; }));
}

Found circulation_cold_line(const FindingContext& c)
{
    if (!loop(c).circulation.by_cold_line)
        return {};
    const bool hot = runs_as_cooler(c) && loop(c).circulation.tempering != Tempering::at_tank;
    return one(hot ? Severity::serious : Severity::caution, hot ? "Hot water is sent back through the cold line" : "The circulation comes back through the cold line",
        std::string(hot ? "As a cooler it fills the cold line with what the tank has at its hottest: a cold tap scalds, and its pipe and seals are not made for it. " : "") + "A cold line that is warmed for hours is where legionella grow. It wants a return pipe of its own.",
        on_loop("Try: a return pipe of its own", [](Loop& l) { l.circulation.by_cold_line = false; }));
}

Found circulation_lukewarm(const FindingContext& c)
{
    if (!c.figures || c.figures->circulation_s < long_enough_s || c.figures->circulation_warmest_c >= lukewarm_c)
        return {};
    const std::string reason = "In " + lasts(c, c.figures->circulation_s) + " it never came back warmer than " + temp(c, c.figures->circulation_warmest_c) + ": pipe that is kept lukewarm is where legionella grow. ";
    if (loop(c).circulation.tempering == Tempering::at_tank)
        return one(Severity::caution, "The circulation stays lukewarm", reason + "A valve at the tank keeps it from scalding and from being clean; valves at the taps do both. Local codes say which.", on_loop("Try: tempered at the taps", [](Loop& l) { l.circulation.tempering = Tempering::at_taps; }));
    Found out = each<TapCirculation>(c, [&](Found& found, std::size_t i, const Rule&, const TapCirculation& r) {
        if (!r.store.empty() && r.store_min.in_celsius() < legionella_c)
            found.push_back({"", Severity::caution, "The circulation stays lukewarm", reason + "It should run only once the store can keep it hot, and another heater keep the store so.",
                change<TapCirculation>(c, "Try: from a store of " + temp(c, legionella_c), i, [](TapCirculation& t) { t.store_min = Temperature::celsius(legionella_c); })});
    });
    return out.empty() ? one(Severity::caution, "The circulation stays lukewarm", reason + "A warmer store, more flow or better insulation.") : out;
}

Found circulation_takes_much(const FindingContext& c)
{
    if (!c.figures || c.figures->needed_j <= 0 || c.figures->heat.loss(Loss::circulation) < much_of_it * c.figures->needed_j)
        return {};
    return one(Severity::note, "The circulation loses " + said(c, c.figures->heat.loss(Loss::circulation) / c.figures->days, Quantity::energy) + " a day", "What is drawn needs " + said(c, c.figures->needed_j / c.figures->days, Quantity::energy) + ". Shorter windows, better insulation, or a stop by what comes back; where codes against legionella ask for a warm return all day, keep to them.");
}

Found heater_passed_by(const FindingContext& c)
{
    const auto series = on_loop("Try: through both", [](Loop& l) { l.heater.way = HeaterWay::series; });
    if (loop(c).heater.way == HeaterWay::tank_only)
        return one(Severity::caution, "The valves lead past the heater", "What the sun left lukewarm comes to the taps as it is: cold on a dull day, and warm as legionella like it. Only while the tank is surely hot, or the heater is repaired.", series);
    if (loop(c).heater.way == HeaterWay::heater_only)
        return one(Severity::caution, "The valves lead past the solar tank", "Nothing that the sun collects is drawn: the tank stands at its limit and the array in its own heat. What stands in it must be made hot before it is drawn again.", series);
    return {};
}

Found heater_set_low(const FindingContext& c)
{
    const Heater& h = loop(c).heater;
    if (h.way == HeaterWay::tank_only || h.set_c >= legionella_c)
        return {};
    return one(Severity::caution, "The heater goes to " + temp(c, h.set_c) + " only", "What came lukewarm from the solar tank must be made hot here: legionella survive below " + temp(c, legionella_c) + ". Temper it at the taps.", on_loop("Try: " + temp(c, legionella_c), [](Loop& l) { l.heater.set_c = legionella_c; }));
}

Found heater_holds_nothing(const FindingContext& c)
{
    const Heater& h = loop(c).heater;
    bool disinfects = false;
    for_each_rule<Disinfection>(c, [&](std::size_t, const Disinfection&) { disinfects = true; });
    if (h.kind != HeaterKind::through_flow || h.way != HeaterWay::series || disinfects)
        return {};
    return one(Severity::caution, "What grows in the solar tank runs through the heater in seconds", "A through-flow heater makes water hot and does not hold it so. A tank that stays lukewarm for days before it wants to be made hot itself at times; local codes say how often.",
        on_loop("Try: a storage heater", [](Loop& l) { l.heater.kind = HeaterKind::storage; }));
}

Found heater_inlet_too_hot(const FindingContext& c)
{
    const Heater& h = loop(c).heater;
    const double limit = highest_limit_c(c);
    if (h.bears_c <= 0 || h.way != HeaterWay::series || limit <= h.bears_c)
        return {};
    const Remedy lower{"Try: store limit of " + temp(c, h.bears_c), [bears = h.bears_c](Variant& v) {
                           for (Rule& r : v.unit.rules)
                               if (auto* l = std::get_if<StoreLimit>(&r.body); l && r.enabled && l->limit.in_celsius() > bears)
                                   l->limit = Temperature::celsius(bears);
                       }};
    return one(Severity::serious, "The heater's inlet bears " + temp(c, h.bears_c) + ", the solar tank goes to " + temp(c, limit), "A heater made for cold water is damaged by hot, or goes out. A tempering valve before it, or a lower limit of the store.", lower);
}

Found nothing_limits_by_itself(const FindingContext& c)
{
    if (arrangement(c).pumped())
        return {};
    return one(Severity::note, "No rule can stop this sun", "The water circulates by itself: unused for days the tank goes on to its relief valve. A cover while nobody is there; never cap the valve, and lead its outlet to a safe place.");
}

Found does_not_rise(const FindingContext& c)
{
    if (arrangement(c).pumped() || loop(c).tank.above_m > 0)
        return {};
    return one(Severity::serious, "The tank does not lie above the collector", "What is warm rises: it circulates only upwards into the tank, and by night what is in the tank would go down.", on_loop("Try: " + said(c, Tank{}.above_m, Quantity::length) + " above", [](Loop& l) { l.tank.above_m = Tank{}.above_m; }));
}

} // namespace

const FindingKinds& tap_findings()
{
    static const FindingKinds table{
        {"circulation_scalds", circulation_scalds, Cause::loop, Loops::circulating, "loop/circulation/tempering"},
        {"circulation_pipe", circulation_pipe, Cause::loop, Loops::circulating, "loop/circulation/bears_c"},
        {"circulation_cold_line", circulation_cold_line, Cause::loop, Loops::circulating, "loop/circulation/by_cold_line"},
        {"circulation_lukewarm", circulation_lukewarm, Cause::rules, Loops::circulating, "loop/circulation"},
        {"circulation_takes_much", circulation_takes_much, Cause::rules, Loops::circulating, "loop/circulation"},
        {"heater_passed_by", heater_passed_by, Cause::loop, Loops::heater, "loop/heater/way"},
        {"heater_set_low", heater_set_low, Cause::loop, Loops::heater, "loop/heater/set_c"},
        {"heater_holds_nothing", heater_holds_nothing, Cause::loop, Loops::heater, "loop/heater/kind"},
        {"heater_inlet_too_hot", heater_inlet_too_hot, Cause::rules, Loops::heater, "loop/heater/bears_c"},
        {"nothing_limits_by_itself", nothing_limits_by_itself, Cause::sight, Loops::tank, "loop/tank"},
        {"does_not_rise", does_not_rise, Cause::loop, Loops::tank, "loop/tank/above_m"},
    };
    return table;
}

} // namespace vernal
