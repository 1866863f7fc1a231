#include "loop.h"

#include <algorithm>
#include <map>
#include <mutex>
#include <shared_mutex>

namespace vernal {

Loop::Loop() = default;
Loop::Loop(const Loop&) = default;
Loop::Loop(Loop&&) noexcept = default;
Loop& Loop::operator=(const Loop&) = default;
Loop& Loop::operator=(Loop&&) noexcept = default;
Loop::~Loop() = default;
bool Loop::operator==(const Loop&) const = default;

Arrangement::Arrangement() = default;
Arrangement::Arrangement(const Arrangement&) = default;
Arrangement::Arrangement(Arrangement&&) noexcept = default;
Arrangement& Arrangement::operator=(const Arrangement&) = default;
Arrangement& Arrangement::operator=(Arrangement&&) noexcept = default;
Arrangement::~Arrangement() = default;

namespace {

using S = Segment;
using P = Part;

struct Named {
    const char* key;
    const char* title;
    const char* about;
    LoopAnswers answers;
};

const std::vector<Named>& named()
{
    const auto loop = [](auto change) {
        LoopAnswers a;
        change(a);
        return a;
    };
    using A = LoopAnswers;
    static const std::vector<Named> table{
        {"direct", "Direct", "The collector is fed straight from the tank", loop([](A& a) { a.carrier = Carrier::water, a.empties = Empties::valve, a.transfer = Transfer::straight; })},
        {"glycol-coil", "Glycol with coil", "Closed glycol loop, coil in the tank", {}},
        {"glycol-hx", "Glycol with outside exchanger", "Two pumps, exchanger beside the tank", loop([](A& a) { a.transfer = Transfer::exchanger, a.exchanger_pumps = ExchangerPumps::two; })},
        {"drainback", "Drain-back", "The array empties into a reservoir when the pump stops", loop([](A& a) { a.carrier = Carrier::water, a.empties = Empties::reservoir; })},
        {"open-tank", "Open-tank drain-back", "The unpressurised tank is its own reservoir", loop([](A& a) { a.carrier = Carrier::water, a.empties = Empties::open_tank, a.transfer = Transfer::straight; })},
        {"pool", "Pool", "Unglazed panels, the pool is the store", loop([](A& a) { a.array = Array::unglazed, a.carrier = Carrier::water, a.empties = Empties::valve, a.transfer = Transfer::straight, a.store = Store::pool; })},
        {"pv-direct", "Panel-driven pump", "DC pump straight on a panel, no battery", loop([](A& a) { a.power = PoweredBy::panel; })},
        {"pv-battery", "Battery-driven pump", "DC pump on a battery that a panel charges", loop([](A& a) { a.carrier = Carrier::water, a.empties = Empties::valve, a.transfer = Transfer::straight, a.power = PoweredBy::battery; })},
        {"floor", "Floor", "The store is a heated slab", loop([](A& a) { a.transfer = Transfer::straight, a.store = Store::slab; })},
        {"air", "Hot air", "Hot-air collector and blower", loop([](A& a) { a.array = Array::air, a.carrier = Carrier::air, a.transfer = Transfer::straight, a.store = Store::room; })},
        {"two-stores", "Two stores", "One array, two tanks, diverting valve", loop([](A& a) { a.store = Store::two_tanks; })},
        {"two-arrays", "Two arrays", "East and west array, one tank", loop([](A& a) { a.fields = Fields::two; })},
        {"dump", "Emergency cooler", "Closed loop with a cooler on a three-way valve", loop([](A& a) { a.excess = Excess::cooler; })},
        {"tube-manifold", "Tube manifold", "Evacuated tubes, probe in the manifold", loop([](A& a) { a.array = Array::tubes; })},
    };
    return table;
}

bool has_tank(const LoopAnswers& a) { return a.store == Store::tank || a.store == Store::two_tanks; }
bool by_itself(const LoopAnswers& a) { return a.power == PoweredBy::none; }
bool cools(const LoopAnswers& a) { return a.excess == Excess::cooler || a.excess == Excess::house; }
bool empties_by_itself(const LoopAnswers& a) { return a.empties == Empties::reservoir || a.empties == Empties::open_tank; }
// Nothing but the vessel takes what expands.
bool closed(const LoopAnswers& a) { return a.carrier != Carrier::air && !empties_by_itself(a) && (a.transfer != Transfer::straight || a.store == Store::slab); }

std::vector<Part> parts_of(const LoopAnswers& a)
{
    std::vector<Part> out{P::collector, P::back};
    const auto add = [&](bool here, std::initializer_list<Part> more) {
        for (const Part p : more)
            if (here)
                out.push_back(p);
    };
    add(has_tank(a), {P::tank});
    add(a.store == Store::pool, {P::pool});
    add(a.store == Store::slab, {P::slab});
    add(a.store == Store::room, {P::rock_bed, P::room});
    add(!by_itself(a), {P::pump});
    add(true, {P::supply});
    add(a.backup == Backup::element, {P::element});
    add(a.backup == Backup::heater_after, {P::heater});
    add(a.circulation == Circulates::taps, {P::circulation});
    add(true, {P::wiring});
    add(!empties_by_itself(a) && !by_itself(a), {P::check_valve});
    add(closed(a), {P::vessel});
    add(a.transfer == Transfer::exchanger, {P::exchanger, P::exchanger_pump});
    add(a.empties == Empties::reservoir, {P::reservoir});
    add(empties_by_itself(a), {P::drain_back});
    add(a.power == PoweredBy::panel || a.power == PoweredBy::battery, {P::panel, P::motor});
    add(a.power == PoweredBy::battery, {P::battery});
    add(a.store == Store::two_tanks, {P::tank_2, P::valve});
    add(a.fields == Fields::two, {P::collector_2, P::back_2, P::pump_2, P::supply_2});
    add(cools(a), {P::cooler, P::cooler_valve});
    return out;
}

std::vector<Driver> drivers_of(const LoopAnswers& a)
{
    std::vector<Driver> out;
    if (!by_itself(a))
        out.push_back(Driver::pump);
    if (a.fields == Fields::two)
        out.push_back(Driver::pump_2);
    if (a.transfer == Transfer::exchanger && a.exchanger_pumps == ExchangerPumps::two)
        out.push_back(Driver::exchanger_pump);
    if (a.store == Store::two_tanks)
        out.push_back(Driver::valve);
    if (cools(a))
        out.push_back(Driver::cooler_valve);
    if (a.circulation == Circulates::taps)
        out.push_back(Driver::circulation);
    return out;
}

// What the fluid that heats the store runs through, by the position of the store's valve.
std::vector<std::vector<Segment>> through_stores(const LoopAnswers& a)
{
    const bool coil = a.transfer == Transfer::coil;
    switch (a.store) {
    case Store::tank: return {{coil ? S::coil : S::tank_down}};
    case Store::two_tanks: return {{coil ? S::coil : S::tank_down}, {coil ? S::coil_2 : S::tank_2_down}};
    case Store::pool: return {{S::pool}};
    case Store::slab: return {{S::slab}};
    case Store::room: return {{S::rock_bed, S::room}};
    }
    return {};
}

std::vector<Route> routes_of(const Arrangement& a)
{
    const LoopAnswers& answers = a.answers;
    const bool exchanger = answers.transfer == Transfer::exchanger, sheds = cools(answers);
    const auto stores = through_stores(answers);
    using Valves = std::vector<Route::Valve>;
    const auto to_store = [&](std::size_t s) { return stores.size() > 1 ? Valves{{a.driven_by(Driver::valve), s == 1}} : Valves{}; };
    std::vector<Route> out;
    const auto collecting = [&](bool second, const std::vector<Segment>& middle, Valves valves) {
        Route r{second ? a.driven_by(Driver::pump_2) : 0, {second ? S::collector_2 : S::collector, second ? S::return_2 : S::return_pipe}, std::move(valves), second ? Driver::pump_2 : by_itself(answers) ? Driver::nothing
                                                                                                                                                                                                           : Driver::pump};
        if (answers.empties == Empties::reservoir)
            r.ring.push_back(S::reservoir);
        r.ring.insert(r.ring.end(), middle.begin(), middle.end());
        r.ring.push_back(second ? S::supply_2 : S::supply_pipe);
        out.push_back(std::move(r));
    };
    for (const bool second : {false, true}) {
        if (second && answers.fields == Fields::one)
            continue;
        for (std::size_t s = 0; s < (exchanger ? 1 : stores.size()); ++s) {
            Valves valves = exchanger ? Valves{} : to_store(s);
            if (sheds)
                valves.push_back({a.driven_by(Driver::cooler_valve), false});
            collecting(second, exchanger ? std::vector<Segment>{S::exchanger_hot} : stores[s], std::move(valves));
        }
        if (sheds)
            collecting(second, {S::cooler}, {{a.driven_by(Driver::cooler_valve), true}});
    }
    for (std::size_t s = 0; exchanger && s < stores.size(); ++s) {
        Route r{a.driven_by(Driver::exchanger_pump), {S::exchanger_cold}, to_store(s), Driver::exchanger_pump};
        r.ring.insert(r.ring.end(), stores[s].begin(), stores[s].end());
        out.push_back(std::move(r));
    }
    // Past the taps and back; what a tempering valve at its beginning sends round once
    // more runs in a ring of its own.
    if (a.has(P::circulation))
        for (std::vector<Segment> ring : {std::vector{S::circulation, a.has(P::heater) ? S::heater : S::tank_up}, std::vector{S::circulation}})
            out.push_back({a.driven_by(Driver::circulation), std::move(ring), {}, Driver::circulation});
    return out;
}

std::vector<ProbePlace> places_of(const LoopAnswers& a)
{
    using W = ProbePlace;
    std::vector<W> out{W::collector};
    const auto add = [&out](std::initializer_list<W> more) {
        for (const W place : more)
            out.push_back(place);
    };
    switch (a.store) {
    case Store::tank:
    case Store::two_tanks: add({W::tank_bottom, W::tank_middle, W::tank_top}); break;
    case Store::pool: out.push_back(W::pool_water); break;
    case Store::slab: out.push_back(W::slab_return); break;
    case Store::room: out.push_back(W::room_air); break;
    }
    add({W::return_pipe, W::supply_pipe});
    if (a.store == Store::two_tanks)
        add({W::tank_2_bottom, W::tank_2_top});
    if (a.fields == Fields::two)
        out.push_back(W::collector_2);
    if (a.circulation == Circulates::taps)
        out.push_back(W::circulation_return);
    if (a.carrier != Carrier::air)
        out.push_back(W::flow_meter);
    if (closed(a))
        out.push_back(W::pressure_sensor);
    out.push_back(W::sun_sensor);
    return out;
}

std::string title_of(const LoopAnswers& a)
{
    std::string s = by_itself(a)                      ? a.carrier == Carrier::glycol ? "Glycol by itself" : "Water by itself"
                    : a.carrier == Carrier::air       ? "Hot air"
                    : a.empties == Empties::open_tank ? "Open-tank drain-back"
                    : a.empties == Empties::reservoir ? a.carrier == Carrier::glycol ? "Glycol drain-back" : "Drain-back"
                    : a.carrier == Carrier::glycol    ? "Glycol"
                    : a.empties == Empties::valve     ? "Drained water"
                                                      : "Water";
    s += a.transfer == Transfer::coil ? " with coil" : a.transfer == Transfer::exchanger ? " with outside exchanger"
                                                                                         : "";
    const auto add = [&](bool here, const char* what) { s += here ? std::string(", ") + what : ""; };
    add(a.array == Array::tubes, "tubes");
    add(a.array == Array::unglazed, "unglazed");
    add(a.array == Array::hose, "hose");
    add(a.array == Array::trickle, "open trickle");
    add(a.fields == Fields::two, "two arrays");
    add(a.store == Store::two_tanks, "two tanks");
    add(a.store == Store::pool, "pool");
    add(a.store == Store::slab, "floor");
    add(a.power == PoweredBy::panel, "on a panel");
    add(a.power == PoweredBy::battery, "on a battery");
    add(a.excess == Excess::cooler, "cooler");
    add(a.excess == Excess::house, "house loop");
    return s;
}

// What hangs on a tank of any loop.
std::string beside_the_tank(const LoopAnswers& a)
{
    std::string s = a.backup == Backup::heater_after ? ", heater after it" : "";
    if (a.circulation == Circulates::taps)
        s += a.excess == Excess::circulation ? ", cooled by the tap circulation" : ", tap circulation";
    return s;
}

std::string about_of(const LoopAnswers& a)
{
    std::string s;
    for (const LoopQuestion& q : loop_questions())
        if (std::string(q.key) != "exchanger_pumps" && std::string(q.key) != "backup" && std::string(q.key) != "circulation")
            s += (s.empty() ? "" : "; ") + std::string(q.answers[q.get(a)].text);
    s.front() = static_cast<char>(std::toupper(static_cast<unsigned char>(s.front())));
    return s;
}

Arrangement joined(const LoopAnswers& answers)
{
    Arrangement a;
    a.answers = answers;
    LoopAnswers plain = answers;
    plain.backup = Backup::none;      // an element fits every tank, so does what hangs on its hot side
    if (answers.array == Array::flat) // with another coat it is the same loop
        plain.array = Array::selective;
    if (answers.excess == Excess::none)
        plain.circulation = Circulates::none;
    const auto preset = std::find_if(named().begin(), named().end(), [&](const Named& n) { return n.answers == plain; });
    if (preset != named().end()) {
        a.key = preset->key;
        a.title = preset->title;
        a.about = preset->about;
    } else {
        a.title = title_of(answers);
        a.about = about_of(answers);
    }
    a.title += beside_the_tank(answers);
    a.carrier = answers.carrier;
    a.drains = empties_by_itself(answers);
    a.parts = parts_of(answers);
    for (const Part part : a.parts)
        a.part_bits |= std::uint64_t{1} << static_cast<unsigned>(part);
    a.drivers = drivers_of(answers);
    a.routes = routes_of(a);
    a.places = places_of(answers);
    return a;
}

// Of these answers among all there are.
std::size_t number_of(const LoopAnswers& a)
{
    std::size_t n = 0;
    for (const LoopQuestion& q : loop_questions())
        n = n * q.answers.size() + q.get(a);
    return n;
}

} // namespace

bool Route::open(std::uint32_t running) const
{
    return std::all_of(valves.begin(), valves.end(), [running](const Valve& v) { return ((running >> v.output & 1U) != 0) == v.when; });
}

int Arrangement::output_of(Driver driver) const
{
    const auto it = std::find(drivers.begin(), drivers.end(), driver);
    return it == drivers.end() ? -1 : static_cast<int>(it - drivers.begin());
}

const Arrangement& arrangement_of(const LoopAnswers& answers)
{
    // Whoever asks asks again and again for the same.
    thread_local const Arrangement* last = nullptr;
    if (last && last->answers == answers)
        return *last;
    static std::shared_mutex guard;
    static std::map<std::size_t, const Arrangement> made; // its entries stay where they are
    const std::size_t number = number_of(answers);
    {
        const std::shared_lock lock(guard);
        if (const auto it = made.find(number); it != made.end())
            return *(last = &it->second);
    }
    const std::unique_lock lock(guard);
    return *(last = &made.try_emplace(number, joined(answers)).first->second);
}

const std::vector<Arrangement>& presets()
{
    static const std::vector<Arrangement> table = [] {
        std::vector<Arrangement> out;
        for (const Named& n : named())
            out.push_back(arrangement_of(n.answers));
        return out;
    }();
    return table;
}

const Arrangement* find_preset(const std::string& key)
{
    for (const Arrangement& a : presets())
        if (key == a.key)
            return &a;
    return nullptr;
}

const LoopAnswers& preset_answers(const std::string& key) { return find_preset(key)->answers; }

} // namespace vernal
