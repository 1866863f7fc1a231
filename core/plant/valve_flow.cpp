#include "valve_board.h"
#include "valve_piping.h"

#include <algorithm>
#include <cctype>
#include <map>

namespace vernal {

using namespace valves;

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
