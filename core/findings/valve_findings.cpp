// Hand valves that stand wrong in a state of the loop's service.
#include "shared.h"

#include "core/plant/valve_board.h"
#include "core/plant/valve_piping.h"

namespace vernal {
namespace {

using V = HandValve;
using S = ServiceState;

constexpr std::array every_state{S::run, S::fill, S::flush, S::backup_only, S::drained, S::winter};

std::string path_of(S s, V v) { return std::string("loop/valves/") + state_keys[static_cast<std::size_t>(s)] + "/" + valve_keys[static_cast<std::size_t>(v)]; }

bool fitted(const FindingContext& c, V v)
{
    const auto here = valves_of(loop(c));
    return std::find(here.begin(), here.end(), v) != here.end();
}
bool open(const FindingContext& c, V v, S s) { return fitted(c, v) && lets_through(stands(loop(c), v, s)); }
bool shut(const FindingContext& c, V v, S s) { return fitted(c, v) && !lets_through(stands(loop(c), v, s)); }

Remedy turned(std::string label, V v, S s, ValveStands to)
{
    return on_loop(std::move(label), [v, s, to](Loop& l) { set_stands(l, v, s, to); });
}

std::string named(V v) { return valve_text(v).title; }
std::string in_state(S s) { return std::string(", “") + state_title(s) + "”"; }

Found array_shut_in(const FindingContext& c)
{
    Found out;
    for (const S s : every_state)
        for (const bool second : {false, true})
            if (shut_in(loop(c), second, s))
                out.push_back({"", Severity::serious, std::string(second ? "The second array is shut in" : "The array is shut in") + in_state(s), "Both isolating valves are shut and fluid stands between them. In the sun it boils, and nothing takes up what expands: the relief valve blows, or the array bursts. One of them stays open, or the array is emptied by its ports.",
                    turned("Try: the return open", valves::of_array(V::return_isolating, second), s, ValveStands::open), path_of(s, valves::of_array(V::return_isolating, second))});
    return out;
}

Found run_is_cut(const FindingContext& c)
{
    Found out;
    const StateFlow flow = flow_in(loop(c), S::run);
    for (const bool second : {false, true}) {
        if ((second && loop(c).answers.fields == Fields::one) || flow.runs(second ? Segment::collector_2 : Segment::collector))
            continue;
        for (const V v : {valves::of_array(V::supply_isolating, second), valves::of_array(V::return_isolating, second), V::loop_valve})
            if (shut(c, v, S::run))
                out.push_back({"", Severity::serious, "“" + named(v) + "” is shut while the loop runs", "The pump works against it: it moves nothing, heats its own fluid and ruins its seal, and the collectors stagnate.", turned("Try: open it", v, S::run, ValveStands::open), path_of(S::run, v)});
    }
    for (const V v : {V::water_supply, V::water_return})
        if (shut(c, v, S::run))
            out.push_back({"", Severity::serious, "“" + named(v) + "” is shut while the loop runs", "No water passes the exchanger: its pump works against a shut line, and the collectors' heat has nowhere to go.", turned("Try: open it", v, S::run, ValveStands::open), path_of(S::run, v)});
    return out;
}

Found port_is_open(const FindingContext& c)
{
    Found out;
    for (const V v : {V::fill_port, V::flush_port, V::fill_port_2, V::flush_port_2, V::level_cock, V::water_fill, V::water_flush, V::tank_drain})
        if (open(c, v, S::run))
            out.push_back({"", Severity::serious, "“" + named(v) + "” is open while the loop runs", "Hot fluid runs out of it, and air comes in. After filling it is shut and capped.", turned("Try: shut", v, S::run, ValveStands::shut), path_of(S::run, v)});
    return out;
}

Found vent_is_open(const FindingContext& c)
{
    Found out;
    for (const V v : {V::air_vent, V::air_vent_2})
        if (arrangement(c).has(Part::vessel) && open(c, v, S::run))
            out.push_back({"", Severity::caution, "“" + named(v) + "” is open while the loop runs", "When the collectors boil, steam leaves by it, and with the steam the loop's pressure. It is opened while filling.", turned("Try: shut", v, S::run, ValveStands::shut), path_of(S::run, v)});
    return out;
}

Found vessel_is_cut_off(const FindingContext& c)
{
    Found out;
    for (const S s : every_state)
        if (shut(c, V::vessel_valve, s) && !emptied(loop(c), false, s))
            out.push_back({"", Severity::serious, "The expansion vessel is shut off" + in_state(s), "The first warmth opens the relief valve, and fluid is lost with each warm day. Its valve stays open, without a handle.", turned("Try: open it", V::vessel_valve, s, ValveStands::open), path_of(s, V::vessel_valve)});
    return out;
}

Found taps_stay_dry(const FindingContext& c)
{
    Found out;
    for (const S s : {S::run, S::backup_only}) {
        const StateFlow flow = flow_in(loop(c), s);
        if (!fitted(c, V::cold_inlet) || std::any_of(flow.ways.begin(), flow.ways.end(), [](const auto& way) { return way.front().name == "cold water"; }))
            continue;
        for (const V v : {V::cold_inlet, V::tank_bypass, V::heater_inlet, V::heater_bypass})
            if (set_by_hand(loop(c), v, s)) {
                out.push_back({"", Severity::caution, "No water reaches the taps" + in_state(s), "Every way from the cold water to the taps is shut. What is heated without a way out for its expansion opens its relief valve.", turned("Try: as is usual", v, s, usual_stands(arrangement(c), v, s, loop(c).heater.way)), path_of(s, v)});
                break;
            }
    }
    return out;
}

Found two_ways_open(const FindingContext& c)
{
    Found out;
    const auto both = [&](V straight, V past, const char* what) {
        for (const S s : every_state)
            if (open(c, straight, s) && open(c, past, s))
                out.push_back({"", Severity::caution, std::string("Bypass and straight way are both open at the ") + what + in_state(s), "Part of the water goes past it: the taps are lukewarm, and what stands lukewarm inside is where legionella grow.", turned("Try: the bypass shut", past, s, ValveStands::shut), path_of(s, past)});
    };
    both(V::cold_inlet, V::tank_bypass, "tank");
    both(V::heater_inlet, V::heater_bypass, "heater");
    if (open(c, V::pool_bypass, S::run))
        out.push_back({"", Severity::caution, "The bypass is open while the loop runs", "Most of the water goes past the collectors. It is shut, or throttled until the filter's pressure is right.", turned("Try: shut", V::pool_bypass, S::run, ValveStands::shut), path_of(S::run, V::pool_bypass)});
    return out;
}

Found stays_full_in_winter(const FindingContext& c)
{
    Found out;
    for (const bool second : {false, true}) {
        const V port = valves::of_array(V::fill_port, second);
        if (!fitted(c, port) || arrangement(c).carrier != Carrier::water || emptied(loop(c), second, S::winter) || !lets_through(usual_stands(arrangement(c), port, S::winter)))
            continue;
        out.push_back({"", Severity::caution, std::string(second ? "The second array" : "The array") + " stays full of water over the winter", "Shut off and full it freezes first: what is not warmed must be empty. Its ports stay open, and the vent with them.", turned("Try: the port open", port, S::winter, ValveStands::open), path_of(S::winter, port)});
    }
    return out;
}

} // namespace

const FindingKinds& valve_findings()
{
    static const FindingKinds table{
        {"array_shut_in", array_shut_in, Cause::loop, Loops::liquid},
        {"run_is_cut", run_is_cut, Cause::loop, Loops::liquid},
        {"port_is_open", port_is_open, Cause::loop, Loops::liquid},
        {"vessel_is_cut_off", vessel_is_cut_off, Cause::loop, Loops::closed},
        {"vent_is_open", vent_is_open, Cause::loop, Loops::closed},
        {"taps_stay_dry", taps_stay_dry, Cause::loop, Loops::tank},
        {"two_ways_open", two_ways_open, Cause::loop, Loops::liquid},
        {"stays_full_in_winter", stays_full_in_winter, Cause::loop, Loops::liquid},
    };
    return table;
}

} // namespace vernal
