#include "shared.h"

#include "core/plant/hydraulics.h"
#include "core/plant/parts.h"

#include "core/plant/vessel.h"
#include "core/plant/wiring.h"

namespace vernal {
namespace {

constexpr double largest_drop = 0.05; // of the pump's voltage; estimate; IEC 60364-5-52 annex G has 3 to 5 % (from memory)
constexpr double noticed_j = 0.1 * 3.6e6;

Found check_valve_in_return(const FindingContext& c)
{
    if (!drains(c) || !loop(c).drain_back.check_valve)
        return {};
    return one(Severity::serious, "A check valve keeps the array from draining", "Water stays up there and freezes. A drain-back loop has none in its return.", on_loop("Try: without it", [](Loop& l) { l.drain_back.check_valve = false; }));
}

Found ports_swapped(const FindingContext& c)
{
    if (!drains(c) || !loop(c).drain_back.ports_swapped)
        return {};
    return one(Severity::serious, "The return enters where the pump draws", "The air that comes down with the water goes round and round and locks the pump: after a minute or so nothing moves. Swap the two ports.",
        on_loop("Try: ports the right way round", [](Loop& l) { l.drain_back.ports_swapped = false; }));
}

Found prime_lost(const FindingContext& c)
{
    const DrainBack& d = loop(c).drain_back;
    if (!drains(c) || d.suction_m <= 0 || d.holds_prime)
        return {};
    return one(Severity::serious, "The pump loses its prime", "Its dip pipe rises " + said(c, d.suction_m, Quantity::length) + " over the water and runs empty at each stop; the pump cannot lift air. A U below the inlet or a foot valve keeps the water; prime it before the first start.",
        on_loop("Try: a U in the dip pipe", [](Loop& l) { l.drain_back.holds_prime = true; }));
}

Found draws_steam(const FindingContext& c)
{
    if (!c.figures || c.figures->hydraulics.cavitating_s <= 0)
        return {};
    return one(Severity::serious, "The pump draws steam", "Water this hot boils at the pump's inlet; for " + said(c, c.figures->hydraulics.cavitating_s, Quantity::minutes) + " nothing moved, and it wears the pump out. A lower store limit, or a pump below the water.");
}

Found water_lost_by_vent(const FindingContext& c)
{
    if (!c.figures || c.figures->hydraulics.vapour_kg <= 0)
        return {};
    const double a_day_kg = c.figures->hydraulics.vapour_kg / c.figures->days, litre_in_days = 1.0 / a_day_kg;
    if (litre_in_days > 365)
        return {};
    return one(Severity::note, "Water leaves through the vent", said(c, a_day_kg, Quantity::grams) + " on a day like this, a litre in about " + std::to_string(std::lround(litre_in_days)) + " days, and more from an open surface. Look at the level at each visit.");
}

Found line_shut(const FindingContext& c)
{
    Found out;
    for (Part part : {Part::pump, Part::pump_2, Part::exchanger_pump}) {
        const Pump& p = pump_of(loop(c), part);
        if (has(c, part) && p.shut)
            out.push_back({"", Severity::serious, "The pump works against a shut line", "It moves nothing, heats its own water and ruins its seal. A valve left shut after filling is a common find.", on_loop("Try: open it", [part](Loop& l) { pump_of(l, part).shut = false; })});
    }
    return out;
}

Found runs_into_steam(const FindingContext& c)
{
    constexpr double worth_saying_s = 60; // estimate
    if (!c.figures || c.figures->hydraulics.steam_s < worth_saying_s)
        return {};
    return one(Severity::caution, "The pump runs against steam for " + lasts(c, c.figures->hydraulics.steam_s), "The array has boiled: nothing goes round until the steam has condensed, and what cold fluid reaches it flashes and hammers. A collector cut-out keeps the pump off above what the array boils at; a store that takes more, or a cooler, keeps it from boiling.");
}

Found curve_not_known(const FindingContext& c)
{
    if (!loop(c).pump.by_curve || curve_known(loop(c).pump))
        return {};
    return one(Severity::caution, "The pump's curve is not known", "Its flow is meant to follow from curve and friction; without head and free flow the measured flow is used.", on_loop("Try: the measured flow", [](Loop& l) { l.pump.by_curve = false; }));
}

// One of them is wrong: the bucket, the curve, the pipe as described, or something sits in the way.
Found flows_contradict(const FindingContext& c)
{
    constexpr double alike = 1.3; // what a bucket and a curve may be apart; an estimate
    constexpr double usual_c = 40.0;
    const Pump& pump = loop(c).pump;
    if (!curve_known(pump) || pump.shut || arrangement(c).carrier == Carrier::air)
        return {};
    const double by_curve = working_flow(loop(c), arrangement(c).routes.front(), pump, fluid_at(glycol_share(loop(c)), usual_c), 0, pump.speed), measured = pump.flow_m3_s * pump.speed;
    const double ratio = by_curve > 0 ? measured / by_curve : INFINITY;
    if (ratio < alike && ratio > 1 / alike)
        return {};
    const std::string uses = pump.by_curve ? "Runs use the curve." : "Runs use the measured flow.";
    // Less than the curve gives may be throttled on purpose; more cannot be.
    return one(ratio < 1 ? Severity::note : Severity::caution, "Measured flow and curve contradict each other: " + said(c, measured, Quantity::flow) + " against " + said(c, by_curve, Quantity::flow),
        (std::isfinite(ratio) ? "The measured one is " + said(c, ratio, Quantity::ratio) + " of what curve and friction give. " : "") + uses + (ratio < 1 ? " A valve that throttles it, air or dirt in the line, a lower speed, or another pump than the curve's." : " Measured over too short a time, pipe or fittings stated too tight, or another pump than the curve's."));
}

Found open_voltage_too_high(const FindingContext& c)
{
    if (!has(c, Part::panel) || loop(c).wiring.bears_v <= 0)
        return {};
    double coldest = 25;
    for (const Day& d : c.job.days)
        coldest = d.kind == DayKind::generated ? std::min(coldest, d.sky.air_min_c) : coldest;
    const double open = panel_open_v(loop(c).panel, coldest);
    if (open <= loop(c).wiring.bears_v || has(c, Part::battery)) // behind a charge controller the battery holds the voltage
        return {};
    return one(Severity::serious, "The panel can reach " + said(c, open, Quantity::voltage),
        "Open and at " + said(c, coldest, Quantity::temperature) + " it stands above the " + said(c, loop(c).wiring.bears_v, Quantity::voltage) + " that the unit bears. Never feed a unit from a bare panel it is not made for.");
}

Found cable_drop(const FindingContext& c)
{
    if (!has(c, Part::motor))
        return {};
    const Wiring& w = loop(c).wiring;
    const double share = loop(c).motor.current_a * cable_ohm(w) / loop(c).motor.volt_v;
    if (share <= largest_drop)
        return {};
    std::optional<Remedy> remedy;
    for (double mm2 : {1.5, 2.5, 4.0, 6.0, 10.0, 16.0, 25.0}) {
        Wiring thicker = w;
        thicker.section_m2 = mm2 * 1e-6;
        if (!remedy && mm2 * 1e-6 > w.section_m2 && loop(c).motor.current_a * cable_ohm(thicker) / loop(c).motor.volt_v <= 0.03)
            remedy = on_loop("Try: " + said(c, thicker.section_m2, Quantity::wire), [s = thicker.section_m2](Loop& l) { l.wiring.section_m2 = s; });
    }
    return one(Severity::caution, "The cable takes " + said(c, share, Quantity::ratio) + " of the voltage", "The pump runs slower and starts later in the day. A thicker or shorter cable.", remedy);
}

Found breaker_too_large(const FindingContext& c)
{
    const Wiring& w = loop(c).wiring;
    const double cable = cable_bears_a(w.section_m2);
    if (!has(c, Part::wiring) || w.breaker_a <= std::min(w.output_a, cable))
        return {};
    std::optional<Remedy> remedy;
    if (const double a = breaker_for(loop(c)); a > 0)
        remedy = on_loop("Try: " + said(c, a, Quantity::current), [a](Loop& l) { l.wiring.breaker_a = a; });
    return one(Severity::serious, "The breaker protects neither unit nor cable", "At " + said(c, w.breaker_a, Quantity::current) + " it lets through more than " + (w.output_a < cable ? "the unit's output, " + said(c, w.output_a, Quantity::current) : "the cable, " + said(c, cable, Quantity::current)) + ". Fixed wiring is for a licensed electrician where the law asks for one.",
        remedy);
}

Found current_over_output(const FindingContext& c)
{
    if (!has(c, Part::motor))
        return {};
    const MotorCurrents m = motor_currents(loop(c), dc_motors_on_an_output(loop(c)));
    const double most = std::max(m.worst_a(), m.stalled_a), output = loop(c).wiring.output_a;
    if (most <= output)
        return {};
    const bool working = m.working_a > output;
    return one(working ? Severity::serious : Severity::caution, "The pump can take more than the output bears",
        "At work " + said(c, m.working_a, Quantity::current) + (m.label_a > 0 ? ", by its label " + said(c, m.label_a, Quantity::current) : "") + ", held fast " + said(c, m.stalled_a, Quantity::current) + "; the output bears " + said(c, output, Quantity::current) +
            ". A relay between them, or a fuse that blows before the output does.");
}

Found starting_dip(const FindingContext& c)
{
    if (!c.figures || c.figures->power.start_trips == 0)
        return {};
    return one(Severity::caution, "Starting trips the low-voltage cut-out", "While the motor breaks loose the battery dips below " + said(c, loop(c).battery.cut_v, Quantity::voltage) + " for about half a second. A cut-out that waits a few seconds rides through it.",
        on_loop("Try: wait 3 s", [](Loop& l) { l.battery.cut_delay_s = 3; }));
}

Found leads_swapped(const FindingContext& c)
{
    if (!has(c, Part::motor) || !loop(c).motor.swapped)
        return {};
    return one(Severity::serious, "The motor's leads are swapped", "It turns backwards: some flow, little head, and its seal wears. Check with a meter, red to plus.", on_loop("Try: the right way round", [](Loop& l) { l.motor.swapped = false; }));
}

Found vessel_too_small(const FindingContext& c)
{
    if (!has(c, Part::vessel))
        return {};
    const double needed = vessel_for(loop(c), hot_loop_c), volume = loop(c).vessel.volume_m3;
    if (std::isfinite(needed) && volume >= 0.9 * needed)
        return {};
    std::optional<Remedy> remedy;
    if (std::isfinite(needed) && needed <= 5)
        remedy = on_loop("Try: vessel of " + said(c, needed, Quantity::volume), [needed](Loop& l) { l.vessel.volume_m3 = needed; });
    return one(Severity::caution, "The vessel is too small to stagnate in",
        std::isfinite(needed) ? "Expansion and the array's content as steam need " + said(c, needed, Quantity::volume) + ", it has " + said(c, volume, Quantity::volume) + ". Fluid leaves by the relief valve and is missing when the loop is cold."
                              : std::string("Its gas stands as high as the relief valve: there is no room at all."),
        remedy);
}

Found vessel_precharge(const FindingContext& c)
{
    const Vessel& v = loop(c).vessel;
    if (!has(c, Part::vessel) || v.precharge_pa < v.fill_pa)
        return {};
    const double better = std::max(0.0, v.fill_pa - 0.3e5);
    return one(Severity::caution, "The vessel holds no fluid when cold", "Its gas stands above the cold fill: the first cool night draws the pressure down and air in.", on_loop("Try: gas at " + said(c, better, Quantity::pressure), [better](Loop& l) { l.vessel.precharge_pa = better; }));
}

Found relief_discharged(const FindingContext& c)
{
    if (!c.figures || c.figures->vessel.lost_kg <= 0.005)
        return {};
    return one(Severity::serious, "The relief valve lets fluid out", said(c, c.figures->vessel.lost_kg / 1000, Quantity::volume) + meanwhile(c) + ", as steam and hot glycol; cold again the gauge stands at " + said(c, c.figures->end_pressure_pa, Quantity::pressure) + " instead of " + said(c, loop(c).vessel.fill_pa, Quantity::pressure) + ". Never cap the valve; lead its outlet to a safe place.");
}

Found check_valve_leaks(const FindingContext& c)
{
    if (!c.figures || c.figures->night_loss_j < noticed_j)
        return {};
    return one(Severity::caution, "The check valve lets the store's heat rise to the roof", said(c, c.figures->night_loss_j, Quantity::energy) + " went round backwards by itself while the pump stood still. The sign of it: a warm return pipe before sunrise.", on_loop("Try: a valve that holds", [](Loop& l) { l.check_valve.leak = 0; }));
}

// It is told when to heat, and the loop has none.
Found element_not_there(const FindingContext& c)
{
    const auto& outputs = c.variant.unit.outputs;
    const bool wanted = loop(c).element.mode != ElementMode::off || std::any_of(outputs.begin(), outputs.end(), [](const Output& o) { return o.drives == Drives::element; });
    if (has(c, Part::element) || !wanted)
        return {};
    return one(Severity::caution, "The element is not a part of this loop", "Something is said about when it heats, and the question what backs the loop up is answered with nothing: it never heats.", on_loop("Try: an element in the tank", [](Loop& l) { l.answers.backup = Backup::element; }));
}

Found element_windows_empty(const FindingContext& c)
{
    const Element& e = loop(c).element;
    if (!has(c, Part::element) || e.mode != ElementMode::windows || std::any_of(e.windows.begin(), e.windows.end(), [](const HeatingWindow& w) { return w.start_h != w.end_h; }))
        return {};
    return one(Severity::caution, "The element has no window", "It heats in windows, but each ends when it starts: it never does.", on_loop("Try: 5 h to 7 h", [](Loop& l) { l.element.windows[0] = {5, 7}; }));
}

Found element_by_day(const FindingContext& c)
{
    if (!c.figures || loop(c).element.mode != ElementMode::always || !has(c, Part::element) || c.figures->heat.backup() < noticed_j)
        return {};
    return one(Severity::note, "The element heats whenever the tank cools", "By day that is heat which the sun would have brought. A window before the morning's draw leaves the day to the sun.", on_loop("Try: only 5 h to 7 h", [](Loop& l) {
        l.element.mode = ElementMode::windows;
        l.element.windows = {{{5, 7}, {}, {}}};
    }));
}

} // namespace

const FindingKinds& protection_findings()
{
    static const FindingKinds table{
        {"check_valve_in_return", check_valve_in_return, Cause::loop, Loops::draining},
        {"ports_swapped", ports_swapped, Cause::loop, Loops::draining},
        {"prime_lost", prime_lost, Cause::loop, Loops::draining},
        {"draws_steam", draws_steam, Cause::loop, Loops::liquid, "loop/pump"},
        {"water_lost_by_vent", water_lost_by_vent, Cause::loop, Loops::draining, "loop/drain_back/vented"},
        {"line_shut", line_shut, Cause::loop, Loops::pumped},
        {"runs_into_steam", runs_into_steam, Cause::rules, Loops::closed, "loop/vessel"},
        {"curve_not_known", curve_not_known, Cause::loop, Loops::pumped},
        {"flows_contradict", flows_contradict, Cause::loop, Loops::pumped, "loop/pump/flow_m3_s"},
        {"open_voltage_too_high", open_voltage_too_high, Cause::loop, Loops::panel, "loop/panel/voc_v"},
        {"cable_drop", cable_drop, Cause::loop, Loops::motor, "loop/wiring/section_m2"},
        {"breaker_too_large", breaker_too_large, Cause::loop, Loops::all, "loop/wiring/breaker_a"},
        {"current_over_output", current_over_output, Cause::loop, Loops::motor, "loop/wiring/output_a"},
        {"starting_dip", starting_dip, Cause::loop, Loops::battery},
        {"leads_swapped", leads_swapped, Cause::loop, Loops::motor},
        {"vessel_too_small", vessel_too_small, Cause::loop, Loops::closed, "loop/vessel/volume_m3"},
        {"vessel_precharge", vessel_precharge, Cause::loop, Loops::closed},
        {"relief_discharged", relief_discharged, Cause::loop, Loops::closed, "loop/vessel"},
        {"check_valve_leaks", check_valve_leaks, Cause::loop, Loops::liquid, "loop/check_valve"},
        {"element_not_there", element_not_there, Cause::loop, Loops::tank, "loop/answers/backup"},
        {"element_windows_empty", element_windows_empty, Cause::loop, Loops::tank},
        {"element_by_day", element_by_day, Cause::loop, Loops::tank},
    };
    return table;
}

} // namespace vernal
