#include "shared.h"

#include "core/plant/collector_kinds.h"

#include "core/job/field_path.h"
#include "core/plant/hydraulic_state.h"
#include "core/plant/hydraulics.h"
#include "core/plant/parts.h"

namespace vernal {
namespace {

Found pump_below_lift(const FindingContext& c)
{
    const Loop& l = c.variant.loop;
    const double speed = l.drain_back.fill_boost ? 1.0 : l.pump.speed;
    if (!drains(c) || l.pump.head_m <= 0 || flow_against(l.pump, l.drain_back.lift_m, speed) > 0)
        return {};
    return {{"", Severity::serious, "The pump does not reach the top",
        "It gives " + said(c, l.pump.head_m * speed * speed, Quantity::length) + " of head at most and must lift " + said(c, l.drain_back.lift_m, Quantity::length) + ": the array never fills and the pump runs dry. A stronger pump, or a reservoir higher up.",
        {}}};
}

// What a pump of these watts can move, at the best that small ones make of them.
Found pump_too_weak_for_its_flow(const FindingContext& c)
{
    constexpr double best_efficiency = 0.6; // of motor and pump together; estimate, small ones reach half of it
    const Loop& l = loop(c);
    const Fluid fluid = glycol_share(l) > 0 ? fluid_at(glycol_share(l), 20) : glycol_water(0);
    Found out;
    for (const auto& [driver, part, pump] : {std::tuple{Driver::pump, Part::pump, &l.pump}, {Driver::pump_2, Part::pump_2, &l.pump_2}, {Driver::exchanger_pump, Part::exchanger_pump, &l.exchanger_pump}}) {
        double drop_pa = 0;
        for (const Route& r : arrangement(c).routes)
            if (r.turns == driver)
                drop_pa = std::max(drop_pa, ring_drop_pa(l, r, fluid, pump->flow_m3_s));
        const double needed_w = pump->flow_m3_s * drop_pa;
        if (drop_pa <= 0 || needed_w <= best_efficiency * pump->power_w)
            continue;
        out.push_back({"", Severity::caution, part_text(part).title + std::string(": its watts cannot move its flow"),
            said(c, pump->flow_m3_s, Quantity::flow) + " against " + said(c, drop_pa, Quantity::pressure_drop) + " of pipe and collector takes " + said(c, needed_w, Quantity::power) + " in the water alone; the pump draws " + said(c, pump->power_w, Quantity::power) + ". Check the flow, the bore, the pressure drop on the collector's label, or the watts.", {}});
        out.back().at = part_path(part);
    }
    return out;
}

// By more than this from the equator an array gets little sun, the more the steeper it stands.
Found array_looks_away(const FindingContext& c)
{
    constexpr double most_deg = 110, least_tilt_deg = 15; // estimates
    const bool south = c.job.site.place.latitude_deg < 0;
    Found out;
    const auto look = [&](const Collector& k, Part part) {
        const double off_deg = std::fabs(std::remainder(k.azimuth_deg - (south ? 180 : 0), 360.0));
        if (off_deg <= most_deg || k.tilt_deg < least_tilt_deg)
            return;
        const double to = std::remainder(k.azimuth_deg + 180, 360.0);
        out.push_back({"", Severity::caution, part_text(part).title + std::string(" looks away from the sun"),
            std::string("At this latitude the noon sun stands in the ") + (south ? "north" : "south") + ", and the array looks " + said(c, off_deg, Quantity::angle) + " away from there.",
            on_loop("Try: turned round", [part, to](Loop& l) { (part == Part::collector_2 ? l.collector_2 : l.collector).azimuth_deg = to; })});
        out.back().at = part_path(part) + "/azimuth_deg";
    };
    look(loop(c).collector, Part::collector);
    if (has(c, Part::collector_2))
        look(loop(c).collector_2, Part::collector_2);
    return out;
}

Found reservoir_too_small(const FindingContext& c)
{
    if (!arrangement(c).has(Part::reservoir))
        return {};
    const double needed = draining(c.variant.loop, 0).reservoir_m3;
    if (c.variant.loop.reservoir.volume_m3 >= needed)
        return {};
    return {{"", Severity::serious, "The reservoir is too small",
        "What drains from the array and the pipe beside it needs " + said(c, needed, Quantity::volume) + " with a reserve; it holds " + said(c, c.variant.loop.reservoir.volume_m3, Quantity::volume) + ". The pump would draw air.",
        Remedy{"Try: reservoir of " + said(c, needed, Quantity::volume), [needed](Variant& v) { v.loop.reservoir.volume_m3 = needed; }}}};
}

Found pitch_too_small(const FindingContext& c)
{
    if (!drains(c) || c.variant.loop.drain_back.pitch >= least_pitch - 1e-9)
        return {};
    return {{"", Severity::serious, "Too little pitch to drain",
        "Below 2 % water stays in the array and in each sag between two clips, and freezes there. Pitch the array and its pipes, and leave no sag.", {}}};
}

// What its wind terms leave of a collector's loss and add to its gain in still air.
Found report_wind_doubtful(const FindingContext& c)
{
    Found out;
    const auto look = [&](const Collector& k, Part part, const char* path) {
        constexpr double least_w_m2k = 1; // an absorber in still air loses more; estimate
        if (!has(c, part) || k.wind_from != WindFrom::three_m_s)
            return;
        const double a1 = k.a1_w_m2k - report_wind_m_s * k.wind_loss_j_m3k, eta0 = k.eta0 + report_wind_m_s * k.wind_gain_s_m;
        if (a1 >= least_w_m2k && eta0 <= 1)
            return;
        out.push_back({"", Severity::caution, "The report's wind terms do not fit its edition",
            "ISO 9806:2017 counts the wind from 3 m/s. In still air this collector would then lose " + said(c, a1, Quantity::loss_linear) + " and take in " + said(c, eta0, Quantity::ratio) + " of the sun. Reports of 2013 count from still air: look at its first page.",
            on_loop("Try: from still air", [part](Loop& l) { (part == Part::collector ? l.collector : l.collector_2).wind_from = WindFrom::still_air; }), path});
    };
    look(loop(c).collector, Part::collector, "loop/collector/wind_from");
    look(loop(c).collector_2, Part::collector_2, "loop/collector_2/wind_from");
    return out;
}

// A start before the water is down again pushes air and water against each other.
Found restarts_while_draining(const FindingContext& c)
{
    if (!drains(c))
        return {};
    const double drain_s = c.variant.loop.drain_back.drain_s;
    for (const Rule& r : c.variant.unit.rules)
        if (const auto* t = std::get_if<DrainTime>(&r.body); t && r.enabled && r.output == c.variant.unit.outputs.front().key && t->drain_s >= drain_s)
            return {};
    for (std::size_t i = 0; i < c.variant.unit.rules.size(); ++i)
        if (const Rule& r = c.variant.unit.rules[i]; r.enabled && r.output == c.variant.unit.outputs.front().key)
            if (const auto* t = std::get_if<RunTimes>(&r.body)) {
                if (t->min_off_s >= drain_s)
                    return {};
                return {{"", Severity::caution, "Starts before it has drained",
                    "The array takes " + said(c, drain_s, Quantity::duration) + " to empty, the pump may rest only " + said(c, t->min_off_s, Quantity::duration) + ": air is trapped and the drained part may freeze.",
                    change<RunTimes>(c, "Try: rest " + said(c, drain_s, Quantity::duration), i, [drain_s](RunTimes& now) { now.min_off_s = drain_s; })}};
            }
    const std::string key = c.variant.unit.outputs.front().key;
    return {{"", Severity::caution, "Starts before it has drained", "Nothing keeps the pump at rest for the " + said(c, drain_s, Quantity::duration) + " that the array takes to empty.",
        Remedy{"Try: rest " + said(c, drain_s, Quantity::duration), [key, drain_s](Variant& v) {
                   v.unit.rules.push_back({key, true, RunTimes{0, drain_s}});
                   sort_by_priority(v.unit.rules);
               }}}};
}

Found fills_with_steam(const FindingContext& c)
{
    if (!c.figures || c.figures->hydraulics.steam_fills == 0)
        return {};
    Finding f{"", Severity::caution, "Fills a hot array " + (c.figures->hydraulics.steam_fills == 1 ? std::string("once") : std::to_string(c.figures->hydraulics.steam_fills) + " times") + meanwhile(c),
        "Above 100 °C the first water flashes to steam and hammers. A lower collector cut-out keeps the pump off until the array has cooled.", {}};
    for (std::size_t i = 0; i < c.variant.unit.rules.size() && !f.remedy; ++i)
        if (std::holds_alternative<CutOut>(c.variant.unit.rules[i].body))
            f.remedy = change<CutOut>(c, "Try: cut-out at " + said(c, 95, Quantity::temperature), i, [](CutOut& r) { r.limit = Temperature::celsius(95); });
    return {f};
}

// What of an open absorber stays dry takes in sun and gives it to the air.
Found trickle_stays_dry(const FindingContext& c)
{
    Found out;
    const Arrangement& a = arrangement(c);
    const auto look = [&](const Collector& array, Pump pump, Driver driver, const char* path) {
        const auto route = std::find_if(a.routes.begin(), a.routes.end(), [&](const Route& r) { return r.turns == driver; });
        if (route == a.routes.end() || array.wetted_at_m3_s <= 0)
            return;
        const double floor = least_speed(c, c.variant.unit.outputs[std::min(route->pump, c.variant.unit.outputs.size() - 1)].key), wanted = array.wetted_at_m3_s;
        pump.speed *= floor;
        const double flow = pump_flow(loop(c), *route, pump, glycol_water(0), loop(c).drain_back.lift_m);
        if (flow >= wanted)
            return;
        const std::string at = floor < 1 ? "At its minimum speed of " + said(c, floor, Quantity::ratio) + " the pump" : std::string("The pump");
        out.push_back({"", Severity::caution, "The absorber stays dry in part", at + " brings " + said(c, flow, Quantity::flow) + " up there, and it is wet all over from " + said(c, wanted, Quantity::flow) + " on: of its area " + said(c, 1 - flow / wanted, Quantity::ratio) + " only warms the air. More flow, a higher minimum speed, or a cleaner header.", {}, path});
    };
    if (a.answers.array != Array::trickle)
        return out;
    look(loop(c).collector, loop(c).pump, Driver::pump, "loop/pump/flow_m3_s");
    look(loop(c).collector_2, loop(c).pump_2, Driver::pump_2, "loop/pump_2/flow_m3_s");
    return out;
}

Found siphon_cannot_stand(const FindingContext& c)
{
    const DrainBack& d = c.variant.loop.drain_back;
    if (!drains(c) || !d.siphon)
        return {};
    const Draining sums = draining(c.variant.loop, c.job.site.place.altitude_m);
    if (d.lift_m < sums.siphon_m)
        return {};
    return {{"", Severity::note, "No siphon on hot days",
        "Water at " + said(c, sums.hot_c, Quantity::temperature) + " hangs together over " + said(c, sums.siphon_m, Quantity::length) + " here, the lift is " + said(c, d.lift_m, Quantity::length) + ": the pump then lifts all the time and the flow falls.", {}}};
}

Found panel_label_impossible(const FindingContext& c)
{
    const Arrangement& a = arrangement_of(c.variant.loop);
    const Panel& p = c.variant.loop.panel;
    if (!a.has(Part::panel) || (p.imp_a < p.isc_a && p.vmp_v < p.voc_v))
        return {};
    return {{"", Severity::serious, "The panel's label cannot be", "At its greatest power a panel gives less current than shorted and less voltage than open: check the four figures, they are easily swapped.", {}}};
}

Found battery_cut_too_low(const FindingContext& c)
{
    const Arrangement& a = arrangement_of(c.variant.loop);
    const Battery& b = c.variant.loop.battery;
    if (!a.has(Part::battery) || b.cut_v > b.empty_v)
        return {};
    const double better = b.empty_v + 0.1;
    return {{"", Severity::caution, "The cut-out comes when the battery is empty",
        "At " + said(c, b.cut_v, Quantity::voltage) + " a lead-acid battery has nothing left and is soon ruined.",
        Remedy{"Try: cut off at " + said(c, better, Quantity::voltage), [better](Variant& v) { v.loop.battery.cut_v = better; }}}};
}

Found battery_cut_without_band(const FindingContext& c)
{
    const Arrangement& a = arrangement_of(c.variant.loop);
    const Battery& b = c.variant.loop.battery;
    constexpr double least_band_v = 0.5; // what the voltage recovers when the pump lets go, and more; estimate
    if (!a.has(Part::battery) || b.reconnect_v >= b.cut_v + least_band_v)
        return {};
    const double better = b.cut_v + 1.0;
    return {{"", Severity::caution, "Cut-out and reconnection lie too close",
        "Without its load a battery recovers by some tenths of a volt: the pump would start and stop on an empty battery.",
        Remedy{"Try: on again above " + said(c, better, Quantity::voltage), [better](Variant& v) { v.loop.battery.reconnect_v = better; }}}};
}

Found battery_trips(const FindingContext& c)
{
    if (!c.figures || c.figures->power.trips == 0)
        return {};
    return {{"", Severity::caution, "The battery is cut off " + (c.figures->power.trips == 1 ? std::string("once") : std::to_string(c.figures->power.trips) + " times") + meanwhile(c),
        "The pump was asked for and stood still for " + said(c, c.figures->power.cut_s, Quantity::minutes) + ". A larger panel or battery, a wider difference, or a smaller pump.", {}}};
}

Found does_not_turn(const FindingContext& c)
{
    constexpr double noticed_s = 300;
    if (!c.figures || !arrangement(c).has(Part::battery) || c.figures->power.stalled_s < noticed_s)
        return {};
    return one(Severity::caution, "The pump is asked for and does not turn", "For " + said(c, c.figures->power.stalled_s, Quantity::minutes) + " the unit showed it on, and what came to the motor did not break it loose: it takes its worst current and moves nothing. A higher cut-out, a shorter or thicker cable, a charged battery.");
}

Found charges_nothing(const FindingContext& c)
{
    if (loop(c).battery.fault != ControllerFault::no_charge)
        return {};
    return one(Severity::serious, "The charge controller gives nothing", "Whatever the sun does, the battery only empties: the pump stands still on the first clear days after. Fuse, cable and panel first, then the controller.", on_loop("Try: a sound controller", [](Loop& l) { l.battery.fault = ControllerFault::none; }));
}

Found overcharged(const FindingContext& c)
{
    constexpr double measured_v = 0.2;
    const Battery& b = loop(c).battery;
    if (!c.figures || !(c.figures->power.highest_v > b.charge_limit_v + measured_v))
        return {};
    const double bears = loop(c).wiring.bears_v;
    return one(Severity::serious, "The battery is charged to " + said(c, c.figures->power.highest_v, Quantity::voltage), "The controller does not hold its limit of " + said(c, b.charge_limit_v, Quantity::voltage) + ": the battery boils, gives off explosive gas and dries out" + (bears > 0 && c.figures->power.highest_v > bears ? ", and the unit bears " + said(c, bears, Quantity::voltage) + " only" : "") + ". Cover the panel, no flame or spark; then the controller.",
        on_loop("Try: a sound controller", [](Loop& l) { l.battery.fault = ControllerFault::none; }));
}

Remedy better_fed(const FindingContext& c)
{
    const UnitFeed feed = arrangement(c).has(Part::battery) ? UnitFeed::battery : UnitFeed::panel_and_mains;
    return on_loop(feed == UnitFeed::battery ? "Try: the unit on the battery" : "Try: panel and mains, each by a diode", [feed](Loop& l) { l.wiring.unit_feed = feed; });
}

// What the unit does not see for want of supply.
Found unit_sleeps(const FindingContext& c)
{
    const UnitFeed feed = loop(c).wiring.unit_feed;
    const bool battery = arrangement(c).has(Part::battery);
    if (!battery && (feed == UnitFeed::battery || feed == UnitFeed::load_output))
        return one(Severity::serious, "Nothing feeds the unit", "It is said to live on a battery, and this loop has none.", better_fed(c));
    const bool cut = feed == UnitFeed::load_output && c.figures && c.figures->power.trips > 0;
    if (feed != UnitFeed::panel && !cut)
        return {};
    const std::string when = cut ? "When the load output cuts off, the unit has no supply" : "Without sun on the panel the unit has no supply";
    return each<Freeze>(c, [&](Found& found, std::size_t, const Rule&, const Freeze&) {
        found.push_back({"", Severity::serious, "The frost rule sleeps at night", when + ": nothing looks at the frost and nothing runs against it.", better_fed(c)});
    });
}

// A route without its pump or valve never runs.
Found output_missing(const FindingContext& c)
{
    const std::size_t needed = arrangement(c).drivers.size();
    if (c.variant.unit.outputs.size() >= needed)
        return {};
    return {{"", Severity::serious, "A pump or valve has no output", "This loop needs " + std::to_string(needed) + " outputs, the unit here has " + std::to_string(c.variant.unit.outputs.size()) + ". What is not driven never moves.", {}}};
}

} // namespace

const FindingKinds& loop_findings()
{
    static const FindingKinds table{
        {"output_missing", output_missing, Cause::loop, Loops::all, "loop/pump"},
        {"pump_below_lift", pump_below_lift, Cause::loop, Loops::draining, "loop/pump/head_m"},
        {"pump_too_weak_for_its_flow", pump_too_weak_for_its_flow, Cause::loop, Loops::pumped_liquid, "loop/pump"},
        {"array_looks_away", array_looks_away, Cause::loop, Loops::all, "loop/collector"},
        {"reservoir_too_small", reservoir_too_small, Cause::loop, Loops::draining},
        {"pitch_too_small", pitch_too_small, Cause::loop, Loops::draining, "loop/drain_back/pitch"},
        {"report_wind_doubtful", report_wind_doubtful, Cause::loop, Loops::all, "loop/collector"},
        {"restarts_while_draining", restarts_while_draining, Cause::rules, Loops::draining},
        {"fills_with_steam", fills_with_steam, Cause::rules, Loops::draining, "loop/collector"},
        {"trickle_stays_dry", trickle_stays_dry, Cause::loop, Loops::draining},
        {"siphon_cannot_stand", siphon_cannot_stand, Cause::loop, Loops::draining, "loop/drain_back/siphon"},
        {"panel_label_impossible", panel_label_impossible, Cause::loop, Loops::panel, "loop/panel"},
        {"battery_cut_too_low", battery_cut_too_low, Cause::loop, Loops::battery},
        {"battery_cut_without_band", battery_cut_without_band, Cause::loop, Loops::battery},
        {"battery_trips", battery_trips, Cause::loop, Loops::battery, "loop/battery"},
        {"does_not_turn", does_not_turn, Cause::loop, Loops::battery, "loop/motor"},
        {"charges_nothing", charges_nothing, Cause::loop, Loops::battery, "loop/battery/fault"},
        {"overcharged", overcharged, Cause::loop, Loops::battery, "loop/battery/fault"},
        {"unit_sleeps", unit_sleeps, Cause::loop, Loops::panel, "loop/wiring/unit_feed"},
    };
    return table;
}

} // namespace vernal
