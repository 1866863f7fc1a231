#include "valve_board.h"

#include <algorithm>
#include <map>

namespace vernal {
namespace {

using V = HandValve;
using S = ServiceState;

// How its valves are arranged, whatever else the answers say.
enum class Piping { none,
    closed,      // filled between two ports with a valve between them
    open,        // the store's own water, under the mains' pressure or from a pool
    reservoir,   // drains by itself
    open_tank }; // likewise, into the store

Piping piping_of(const Arrangement& a)
{
    if (a.carrier == Carrier::air)
        return Piping::none;
    if (a.answers.empties == Empties::reservoir)
        return Piping::reservoir;
    if (a.answers.empties == Empties::open_tank)
        return Piping::open_tank;
    return a.has(Part::vessel) ? Piping::closed : Piping::open;
}

bool pool(const Arrangement& a) { return a.answers.store == Store::pool; }
bool water_side(const Arrangement& a) { return a.has(Part::exchanger); }
bool pressurised(const Arrangement& a) { return piping_of(a) == Piping::closed || (piping_of(a) == Piping::open && a.has(Part::tank)); }
bool mains_fed(const Arrangement& a) { return a.has(Part::tank) && a.answers.empties != Empties::open_tank; }

constexpr V of_array(V v, bool second) { return second ? static_cast<V>(static_cast<int>(v) + static_cast<int>(V::supply_isolating_2)) : v; }
static_assert(of_array(V::air_vent, true) == V::air_vent_2);
constexpr bool is_array_valve(V v) { return v <= V::air_vent_2; }
constexpr V of_first(V v) { return is_array_valve(v) && v >= V::supply_isolating_2 ? static_cast<V>(static_cast<int>(v) - static_cast<int>(V::supply_isolating_2)) : v; }

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
    const std::string cover = a.drains || a.carrier == Carrier::glycol || a.carrier == Carrier::water ? "Cover the collectors first, or wait for evening: water on a hot absorber flashes to steam." : "";
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

namespace {

// Places between the stretches. Those of the second array follow the first's.
enum Node { header, // where both arrays' supplies begin
    before_pump,
    array_in,
    array_out,
    return_end,
    before_pump_2,
    array_in_2,
    array_out_2,
    return_end_2,
    store_in, // of what takes the collectors' heat
    reservoir_out,
    store_out,
    water_in, // store's side of an exchanger
    water_out,
    cold,
    tank_foot,
    tank_head,
    behind_tank,
    taps,
    outside, // a port's hose, or the air
    nodes };

struct Edge {
    int a, b;
    FlowWay way;
};

const char* word_of(Segment s)
{
    switch (s) {
    case Segment::coil:
    case Segment::coil_2: return "coil";
    case Segment::tank_down: return "tank";
    case Segment::tank_2_down: return "second tank";
    case Segment::exchanger_hot: return "exchanger";
    case Segment::pool: return "pool";
    case Segment::slab: return "slab";
    default: return "";
    }
}

class Ways {
public:
    Ways(const Loop& loop, S state) : a_(arrangement_of(loop))
    {
        for (const V v : valves_of(loop))
            there_.insert({v, stands(loop, v, state)});
        collecting();
        water();
    }

    // Every way from one place to another, without touching a place twice.
    std::vector<std::vector<FlowWay>> between(int from, int to) const
    {
        std::vector<bool> been(nodes);
        std::vector<FlowWay> way;
        std::vector<std::vector<FlowWay>> found;
        walk(from, to, been, way, found);
        return found;
    }
    // Likewise, but only the shortest: of what runs by its own weight.
    std::vector<std::vector<FlowWay>> shortest(int from, int to) const
    {
        auto found = between(from, to);
        const auto least = std::min_element(found.begin(), found.end(), [](const auto& a, const auto& b) { return a.size() < b.size(); });
        if (least != found.end())
            found = {std::vector<FlowWay>(*least)};
        return found;
    }
    // In by one valve and out by another.
    void through(V in, V end, StateFlow& out, bool falls = false) const
    {
        if (!open(in) || !open(end))
            return;
        for (auto& way : falls ? shortest(at_.at(in), at_.at(end)) : between(at_.at(in), at_.at(end))) {
            way.insert(way.begin(), {in, {}, name_of(in)});
            way.push_back({end, {}, name_of(end)});
            out.ways.push_back(std::move(way));
        }
    }
    // From the store itself, by pipe, out by a valve.
    void from_store(V end, StateFlow& out)
    {
        if (!open(end))
            return;
        barred_ = stores();
        for (const int from : {store_out, store_in})
            for (auto& way : between(from, at_.at(end))) {
                way.insert(way.begin(), {{}, {}, "store"});
                way.push_back({end, {}, name_of(end)});
                out.ways.push_back(std::move(way));
            }
        barred_.clear();
    }
    bool open(V v) const
    {
        const auto it = there_.find(v);
        return it != there_.end() && lets_through(it->second);
    }
    // Round through what takes the heat and back to where it began; not up a return, nor past the collectors.
    void rounds(StateFlow& out)
    {
        barred_ = {Segment::return_pipe, Segment::return_2};
        for (const bool second : {false, true})
            if (!second || a_.answers.fields == Fields::two)
                for (auto& way : between(second ? return_end_2 : return_end, second ? array_out_2 : array_out)) {
                    way.push_back({{}, second ? Segment::return_2 : Segment::return_pipe, "return"});
                    out.ways.push_back(std::move(way));
                }
        barred_.clear();
        if (a_.has(Part::exchanger) && !cut(V::water_supply) && !cut(V::water_return))
            out.ways.push_back({{V::water_supply, {}, ""}, {{}, Segment::exchanger_cold, "exchanger's water side"}, {V::water_return, {}, ""}, {{}, {}, "store"}});
    }

private:
    static std::string name_of(V v)
    {
        std::string s = valve_text(v).title;
        s.front() = static_cast<char>(std::tolower(static_cast<unsigned char>(s.front())));
        return s;
    }
    bool cut(V v) const { return there_.contains(v) && !open(v); }
    void join(int a, int b, std::optional<V> valve, std::optional<Segment> shows, std::string name) { edges_.push_back({a, b, {valve && there_.contains(*valve) ? valve : std::nullopt, shows, std::move(name)}}); }

    void collecting()
    {
        const Piping p = piping_of(a_);
        for (const bool second : {false, true}) {
            if (second && a_.answers.fields == Fields::one)
                continue;
            const int by = second ? before_pump_2 - before_pump : 0;
            const auto of = [&](V v) { return of_array(v, second); };
            join(header, before_pump + by, of(V::supply_isolating), {}, "");
            join(before_pump + by, array_in + by, {}, second ? Segment::supply_2 : Segment::supply_pipe, a_.pumped() ? "pump and supply" : "supply");
            join(array_in + by, array_out + by, {}, second ? Segment::collector_2 : Segment::collector, second ? "second collector" : "collector");
            join(array_out + by, return_end + by, {}, second ? Segment::return_2 : Segment::return_pipe, "return");
            join(return_end + by, p == Piping::reservoir ? reservoir_out : store_in, of(V::return_isolating), {}, p == Piping::reservoir ? "reservoir" : "");
            at_[of(V::air_vent)] = array_out + by;
            at_[of(V::fill_port)] = p == Piping::open ? before_pump + by : static_cast<int>(header);
            at_[of(V::flush_port)] = p == Piping::open ? return_end + by : p == Piping::closed ? static_cast<int>(store_out)
                                                                                               : static_cast<int>(reservoir_out);
        }
        at_[V::level_cock] = reservoir_out;
        at_[V::relief] = array_out;
        if (p == Piping::reservoir)
            join(reservoir_out, store_in, {}, Segment::reservoir, "");
        for (const Segment s : stores())
            join(store_in, store_out, {}, s, word_of(s));
        join(store_out, header, V::loop_valve, {}, "");
        if (there_.contains(V::pool_bypass))
            join(before_pump, return_end, V::pool_bypass, {}, "bypass");
        at_[V::water_fill] = water_in;
        at_[V::water_flush] = water_out;
        if (a_.has(Part::exchanger))
            join(water_in, water_out, {}, Segment::exchanger_cold, "exchanger's water side");
    }

    std::vector<Segment> stores() const
    {
        if (a_.answers.transfer == Transfer::exchanger)
            return {Segment::exchanger_hot};
        const bool coil = a_.answers.transfer == Transfer::coil;
        switch (a_.answers.store) {
        case Store::tank: return {coil ? Segment::coil : Segment::tank_down};
        case Store::two_tanks: return {coil ? Segment::coil : Segment::tank_down, coil ? Segment::coil_2 : Segment::tank_2_down};
        case Store::pool: return {Segment::pool};
        case Store::slab: return {Segment::slab};
        case Store::room: break;
        }
        return {};
    }

    void water()
    {
        if (!a_.has(Part::tank))
            return;
        join(cold, tank_foot, V::cold_inlet, {}, "");
        join(tank_foot, tank_head, {}, {}, "tank");
        at_[V::tank_drain] = tank_foot;
        at_[V::tank_relief] = tank_head;
        if (!a_.has(Part::heater))
            return join(tank_head, taps, {}, {}, "taps");
        join(tank_head, behind_tank, {}, {}, "");
        join(cold, behind_tank, V::tank_bypass, {}, "past the tank");
        join(behind_tank, taps, V::heater_inlet, {}, "heater, taps");
        join(behind_tank, taps, V::heater_bypass, {}, "past the heater, taps");
    }

    void walk(int at, int to, std::vector<bool>& been, std::vector<FlowWay>& way, std::vector<std::vector<FlowWay>>& found) const
    {
        if (at == to)
            return found.push_back(way);
        been[static_cast<std::size_t>(at)] = true;
        for (const Edge& e : edges_) {
            const int next = e.a == at ? e.b : e.b == at ? e.a
                                                         : -1;
            const bool barred = e.way.shows && std::find(barred_.begin(), barred_.end(), *e.way.shows) != barred_.end();
            if (next < 0 || been[static_cast<std::size_t>(next)] || barred || (!barred_.empty() && e.way.valve == V::pool_bypass) || (e.way.valve && cut(*e.way.valve)))
                continue;
            way.push_back(e.way);
            way.back().against = e.b == at;
            walk(next, to, been, way, found);
            way.pop_back();
        }
        been[static_cast<std::size_t>(at)] = false;
    }

    const Arrangement& a_;
    std::map<V, ValveStands> there_;
    std::map<V, int> at_;
    std::vector<Edge> edges_;
    std::vector<Segment> barred_;
};

} // namespace

bool StateFlow::runs(Segment s) const
{
    return std::any_of(ways.begin(), ways.end(), [s](const auto& way) { return std::any_of(way.begin(), way.end(), [s](const FlowWay& w) { return w.shows == s; }); });
}

bool StateFlow::against(Segment s) const
{
    for (const auto& way : ways)
        for (const FlowWay& w : way)
            if (w.shows == s)
                return w.against;
    return false;
}

bool StateFlow::through(HandValve v) const
{
    return std::any_of(ways.begin(), ways.end(), [v](const auto& way) { return std::any_of(way.begin(), way.end(), [v](const FlowWay& w) { return w.valve == v; }); });
}

std::vector<std::string> StateFlow::words() const
{
    std::vector<std::string> out;
    for (const auto& way : ways) {
        std::string s;
        for (const FlowWay& w : way)
            if (!w.name.empty())
                s += (s.empty() ? "" : " → ") + w.name;
        if (std::find(out.begin(), out.end(), s) == out.end())
            out.push_back(std::move(s));
    }
    return out;
}

StateFlow flow_in(const Loop& loop, ServiceState s)
{
    const Arrangement& a = arrangement_of(loop);
    const Piping p = piping_of(a);
    StateFlow out;
    if (p == Piping::none)
        return out;
    Ways ways(loop, s);
    switch (s) {
    case S::run: ways.rounds(out); break;
    case S::fill:
    case S::flush:
        for (const bool second : {false, true}) {
            ways.through(of_array(V::fill_port, second), of_array(V::flush_port, second), out);
            if (s == S::fill && p == Piping::open)
                ways.from_store(of_array(V::air_vent, second), out);
        }
        if (s == S::fill && pool(a))
            ways.rounds(out); // its pump does it
        if (s == S::fill)
            ways.through(V::fill_port, V::level_cock, out, true);
        ways.through(V::water_fill, V::water_flush, out);
        break;
    case S::backup_only:
    case S::winter:
    case S::drained:
        for (const bool second : {false, true})
            for (const V port : {V::fill_port, V::flush_port})
                ways.through(of_array(V::air_vent, second), of_array(port, second), out, true);
        if (ways.open(V::pool_bypass))
            out.ways.push_back({{{}, {}, "filter"}, {V::pool_bypass, {}, "bypass"}, {{}, {}, "pool"}});
        break;
    }
    for (auto& way : ways.between(cold, taps)) {
        way.insert(way.begin(), {{}, {}, "cold water"});
        out.ways.push_back(std::move(way));
    }
    return out;
}

bool emptied(const Loop& loop, bool second, ServiceState s)
{
    const auto here = valves_of(loop);
    const auto open = [&](V v) { return std::find(here.begin(), here.end(), v) != here.end() && lets_through(stands(loop, v, s)); };
    if (piping_of(arrangement_of(loop)) == Piping::open)
        return open(of_array(V::fill_port, second)) || open(of_array(V::flush_port, second));
    return open(V::fill_port) && open(of_array(V::supply_isolating, second));
}

bool shut_in(const Loop& loop, bool second, ServiceState s)
{
    const auto here = valves_of(loop);
    const auto shut = [&](V v) { return std::find(here.begin(), here.end(), v) != here.end() && !lets_through(stands(loop, v, s)); };
    return shut(of_array(V::supply_isolating, second)) && shut(of_array(V::return_isolating, second)) && !emptied(loop, second, s);
}

void shut_lines(Loop& loop)
{
    if (loop.valves == HandValves{})
        return;
    const StateFlow flow = flow_in(loop, S::run);
    const auto here = valves_of(loop);
    const auto shut = [&](V v) { return std::find(here.begin(), here.end(), v) != here.end() && !lets_through(stands(loop, v, S::run)); };
    if (here.empty())
        return;
    loop.pump.shut = loop.pump.shut || !flow.runs(Segment::collector);
    loop.pump_2.shut = loop.pump_2.shut || (loop.answers.fields == Fields::two && !flow.runs(Segment::collector_2));
    loop.exchanger_pump.shut = loop.exchanger_pump.shut || shut(V::water_supply) || shut(V::water_return);
}

} // namespace vernal
