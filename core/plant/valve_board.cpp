#include "valve_board.h"
#include "valve_piping.h"

#include <algorithm>

namespace vernal {

using namespace valves;

namespace {

bool water_side(const Arrangement& a) { return a.has(Part::exchanger); }
bool pressurised(const Arrangement& a) { return piping_of(a) == Piping::closed || (piping_of(a) == Piping::open && a.has(Part::tank)); }
bool mains_fed(const Arrangement& a) { return a.has(Part::tank) && a.answers.empties != Empties::open_tank; }

bool has_valve(const Arrangement& a, V v)
{
    const Piping p = piping_of(a);
    if (p == Piping::none)
        return false;
    const bool falls = p == Piping::reservoir || p == Piping::open_tank; // what drains must find its way open
    if (is_array_valve(v) && v != of_first(v) && a.answers.fields == Fields::one)
        return false;
    switch (of_first(v)) {
    case V::supply_isolating: return true;
    case V::return_isolating: return !falls;
    case V::fill_port: return p == Piping::open || (p != Piping::open_tank && v == V::fill_port);
    case V::flush_port: return p == Piping::open || (p != Piping::open_tank && v == V::flush_port);
    case V::air_vent: return !falls && !(pool(a) && a.answers.transfer == Transfer::straight);
    case V::loop_valve: return p == Piping::closed;
    case V::vessel_valve: return a.has(Part::vessel);
    case V::relief: return pressurised(a);
    case V::level_cock: return p == Piping::reservoir;
    case V::pool_bypass: return pool(a) && p == Piping::open && a.pumped();
    case V::water_supply:
    case V::water_return:
    case V::water_fill:
    case V::water_flush: return water_side(a);
    case V::cold_inlet:
    case V::tank_relief: return mains_fed(a);
    case V::tank_drain: return a.has(Part::tank);
    case V::tank_bypass:
    case V::heater_inlet:
    case V::heater_bypass: return a.has(Part::heater);
    default: return false;
    }
}

ValveStands to(bool open) { return open ? ValveStands::open : ValveStands::shut; }
bool one_of(S s, std::initializer_list<S> list) { return std::find(list.begin(), list.end(), s) != list.end(); }

// Where the valves lead in the states that are not the sun's.
HeaterWay way_in(S s, HeaterWay running) { return s == S::backup_only ? HeaterWay::heater_only : running; }

} // namespace

const char* stands_text(ValveStands s)
{
    static constexpr const char* texts[]{"open", "shut", "seated", "lifted, then seated"};
    return texts[static_cast<std::size_t>(s)];
}

const ValveText& valve_text(HandValve v)
{
    static constexpr std::array<ValveText, hand_valves> table{{
        {"Supply isolating", "Cuts the way up to the collectors, for work on the pump"},
        {"Return isolating", "Cuts the way down from the collectors, for work on them"},
        {"Fill port", "A hose is screwed on here to fill, flush or drain"},
        {"Flush port", "Where what was flushed, and its air, comes out"},
        {"Air vent", "At the top of the collectors: lets air out, and in where they are emptied"},
        {"Supply isolating 2", "Cuts the way up to the second collectors"},
        {"Return isolating 2", "Cuts the way down from the second collectors"},
        {"Fill port 2", "A hose is screwed on here to fill, flush or drain"},
        {"Flush port 2", "Where what was flushed, and its air, comes out"},
        {"Air vent 2", "At the top of the second collectors"},
        {"Between the ports", "Shut, it sends the filling pump's flow round the whole loop"},
        {"Vessel's valve", "Between loop and expansion vessel: its handle is taken off or sealed"},
        {"Relief valve", "Of the collectors' side. Nothing may shut it off"},
        {"Level cock", "On the reservoir: water runs out of it once it stands high enough"},
        {"Bypass", "Past the collectors, from the filter straight to the pool"},
        {"Water supply", "Store's side of the exchanger, the way in"},
        {"Water return", "Store's side of the exchanger, the way out"},
        {"Descaling inlet", "Store's side of the exchanger"},
        {"Descaling outlet", "Store's side of the exchanger"},
        {"Cold inlet", "Cold water into the tank"},
        {"Tank drain", "At its foot"},
        {"Tank relief valve", "Temperature and pressure relief valve of the tank. Nothing may shut it off"},
        {"Tank bypass", "Cold water past the solar tank"},
        {"Heater inlet", "Into the heater after the tank"},
        {"Heater bypass", "Past the heater after the tank"},
    }};
    return table[static_cast<std::size_t>(v)];
}

const char* state_title(ServiceState s)
{
    static constexpr const char* titles[]{"Run", "Fill", "Flush", "Backup only", "Drained", "Winter"};
    return titles[static_cast<std::size_t>(s)];
}

std::string state_about(const Arrangement& a, ServiceState s)
{
    const Piping p = piping_of(a);
    switch (s) {
    case S::run: return a.has(Part::tank) ? "The sun collects, taps are served." : "The sun collects.";
    case S::fill:
        switch (p) {
        case Piping::closed: return "In by the fill port, round the whole loop, out by the flush port until no air comes; then the flush port shut, the pressure set, the fill port shut.";
        case Piping::reservoir: return "In by the fill port until water runs out of the level cock; the pump rests.";
        case Piping::open_tank: return "The tank is filled up to its mark; the pump rests, then is primed.";
        default: return pool(a) ? "Its pump sends pool water up and the air out into the pool." : "Water comes from the store and pushes the air out at the top.";
        }
    case S::flush: return p == Piping::open_tank ? "Tank and pipes are rinsed by hand; the pump rests." : "In by one port and out by the other until it comes clear; also for descaling.";
    case S::backup_only: return p == Piping::open ? "The collectors are shut off, and emptied, because shut in they burst. Something else heats." : "The pump rests; the loop stays open to what takes up its pressure. Something else heats.";
    case S::drained: return "The collectors' side is empty for a repair; the store stays in use.";
    case S::winter: return p == Piping::open ? "The collectors stand empty over the cold months." : "Left alone over the cold months; the loop's own protection holds.";
    }
    return {};
}

std::string state_caution(const Arrangement& a, ServiceState s)
{
    const std::string cover = "Cover the collectors first, or wait for evening: water on a hot absorber flashes to steam.";
    switch (s) {
    case S::run: return "Never shut off a relief valve, and never the collectors while they hold fluid.";
    case S::fill: return cover + " Lift a relief valve only with its outlet led to a safe place, and see it reseat.";
    case S::flush: return cover + (a.has(Part::tank) ? " What was flushed or descaled must not reach the taps." : "");
    case S::backup_only: return (a.has(Part::element) ? "Mains: never heat an empty tank. " : "") + std::string("Hot water scalds: the tempering valve stays in use.");
    case S::drained: return "Let it cool and take the pressure off before a port is opened: hot fluid and steam. Pump and heaters off.";
    case S::winter: return "What can freeze must be empty down to its lowest place: look at each port.";
    }
    return {};
}

std::vector<HandValve> valves_of(const Arrangement& a)
{
    std::vector<HandValve> out;
    for (std::size_t v = 0; v < hand_valves; ++v)
        if (has_valve(a, static_cast<V>(v)))
            out.push_back(static_cast<V>(v));
    return out;
}

std::vector<HandValve> valves_of(const Loop& loop)
{
    std::vector<HandValve> out = valves_of(arrangement_of(loop));
    std::erase_if(out, [&](V v) { return !is_relief(v) && loop.valves.fitted.has[static_cast<std::size_t>(v)] == Fitted::no; });
    return out;
}

ValveStands usual_stands(const Arrangement& a, HandValve v, ServiceState s, HeaterWay running)
{
    const Piping p = piping_of(a);
    const bool empty = p == Piping::open && one_of(s, {S::backup_only, S::drained, S::winter}); // the array
    const HeaterWay way = way_in(s, running);
    switch (of_first(v)) {
    case V::supply_isolating:
    case V::return_isolating: return to(p != Piping::open || one_of(s, {S::run, S::fill}));
    case V::fill_port: return to(one_of(s, {S::flush, S::drained}) || (s == S::fill && p != Piping::open) || empty);
    case V::flush_port: return to(one_of(s, {S::flush, S::drained}) || (s == S::fill && p == Piping::closed) || empty);
    // Closed by hand on a loop that can boil; on water that is emptied it lets the air in.
    case V::air_vent: return to(one_of(s, {S::fill, S::drained}) || empty || (p == Piping::open && s == S::run));
    case V::loop_valve: return to(!one_of(s, {S::fill, S::flush}));
    case V::vessel_valve: return ValveStands::open;
    case V::relief:
    case V::tank_relief: return s == S::fill ? ValveStands::lifted : ValveStands::seated;
    case V::level_cock: return to(one_of(s, {S::fill, S::drained}));
    case V::pool_bypass: return to(one_of(s, {S::flush, S::backup_only, S::drained, S::winter}));
    case V::water_supply:
    case V::water_return: return to(s != S::flush);
    case V::water_fill:
    case V::water_flush: return to(s == S::flush);
    case V::cold_inlet: return to(!a.has(Part::heater) || way != HeaterWay::heater_only);
    case V::tank_bypass: return to(way == HeaterWay::heater_only);
    case V::heater_inlet: return to(way != HeaterWay::tank_only);
    case V::heater_bypass: return to(way == HeaterWay::tank_only);
    default: return ValveStands::shut; // the tank's drain
    }
}

ValveStands stands(const Loop& loop, HandValve v, ServiceState s)
{
    const ValveStands usual = usual_stands(arrangement_of(loop), v, s, loop.heater.way);
    const auto i = static_cast<std::size_t>(v);
    if (is_relief(v)) {
        if (s != S::fill || loop.valves.fill.relief[i] == ReliefSet::usual)
            return usual;
        return loop.valves.fill.relief[i] == ReliefSet::lifted ? ValveStands::lifted : ValveStands::seated;
    }
    const ValveSet set = s == S::run && is_of_heater(v) && arrangement_of(loop).has(Part::heater) ? ValveSet::usual : loop.valves.at(s)[i];
    return set == ValveSet::usual ? usual : to(set == ValveSet::open);
}

bool set_by_hand(const Loop& loop, HandValve v, ServiceState s) { return stands(loop, v, s) != usual_stands(arrangement_of(loop), v, s, loop.heater.way); }

std::vector<ValveStands> can_stand(HandValve v, ServiceState s)
{
    if (is_relief(v))
        return s == S::fill ? std::vector{ValveStands::seated, ValveStands::lifted} : std::vector{ValveStands::seated};
    return {ValveStands::open, ValveStands::shut};
}

void set_stands(Loop& loop, HandValve v, ServiceState s, ValveStands next)
{
    const bool usual = next == usual_stands(arrangement_of(loop), v, s, loop.heater.way);
    const auto i = static_cast<std::size_t>(v);
    if (!is_relief(v))
        loop.valves.at(s)[i] = usual ? ValveSet::usual : next == ValveStands::open ? ValveSet::open
                                                                                   : ValveSet::shut;
    else if (s == S::fill)
        loop.valves.fill.relief[i] = usual ? ReliefSet::usual : next == ValveStands::lifted ? ReliefSet::lifted
                                                                                            : ReliefSet::seated;
}

} // namespace vernal
