// A solar loop as the technician describes it: parts with their few numbers,
// put together as the answers say.
#pragma once

#include "answers.h"
#include "core/units/reads.h"
#include "part_values.h"
#include "valves.h"

#include <algorithm>
#include <array>
#include <cstdint>
#include <string>
#include <vector>

namespace vernal {

struct Loop {
    LoopAnswers answers; // what it is put together from; says which of the parts below it has
    Collector collector;
    Pipe supply; // to the collector
    Pipe back;   // from the collector; "return" in the job file
    Tank tank;
    Pump pump;
    double glycol_fraction = 0.4; // by mass; ask glycol_share(), which knows whether there is any
    // Parts that only some loops have.
    Collector collector_2;
    Pipe supply_2, back_2;
    Tank tank_2;
    Pump pump_2;         // of the second array
    Pump exchanger_pump; // on the store's side of the exchanger
    Exchanger exchanger;
    Pool pool;
    Slab slab;
    Room room;
    Cooler cooler;
    Heater heater;
    Circulation circulation;
    Reservoir reservoir;
    DrainBack drain_back;
    Panel panel;
    Motor motor;
    Battery battery;
    Element element;
    Vessel vessel;
    CheckValve check_valve;
    Wiring wiring;
    RockBed rock_bed;
    HandValves valves; // as set by hand; how all stand says valve_board.h
    Loop();
    Loop(const Loop&);
    Loop(Loop&&) noexcept;
    Loop& operator=(const Loop&);
    Loop& operator=(Loop&&) noexcept;
    ~Loop();
    bool operator==(const Loop&) const;
};

// Where a probe sits. Which of them exist depends on the arrangement.
enum class ProbePlace : std::uint8_t { collector,
    tank_bottom,
    tank_middle,
    tank_top,
    return_pipe,
    supply_pipe,
    collector_2,
    tank_2_bottom,
    tank_2_top,
    pool_water,
    slab_return,
    room_air,
    circulation_return,
    flow_meter, // in the return to the store: what comes round
    pressure_sensor,
    sun_sensor }; // in the plane of the first array
inline constexpr std::array place_keys{"collector", "tank_bottom", "tank_middle", "tank_top", "return_pipe", "supply_pipe", "collector_2", "tank_2_bottom", "tank_2_top", "pool_water", "slab_return", "room_air", "circulation_return", "flow_meter", "pressure_sensor", "sun_sensor"};
inline constexpr std::size_t probe_places = place_keys.size();
inline constexpr std::array<const char*, probe_places> place_names{"Collector", "Tank bottom", "Tank middle", "Tank top", "Return pipe", "Supply pipe", "Second collector", "Second tank bottom", "Second tank top", "Pool", "Slab return", "Room", "Circulation return", "Flow meter", "Pressure sensor", "Sun sensor"};

inline Reads reads_at(ProbePlace p) { return p < ProbePlace::flow_meter ? Reads::temperature : static_cast<Reads>(1 + static_cast<int>(p) - static_cast<int>(ProbePlace::flow_meter)); }

// In what takes the heat.
inline bool in_store(ProbePlace p)
{
    switch (p) {
    case ProbePlace::tank_bottom:
    case ProbePlace::tank_middle:
    case ProbePlace::tank_top:
    case ProbePlace::tank_2_bottom:
    case ProbePlace::tank_2_top:
    case ProbePlace::pool_water:
    case ProbePlace::slab_return:
    case ProbePlace::room_air: return true;
    default: return false;
    }
}

// Parts that can be edited and drawn.
enum class Part : std::uint8_t { collector,
    supply,
    back,
    tank,
    pump,
    collector_2,
    supply_2,
    back_2,
    tank_2,
    pump_2,
    exchanger,
    pool,
    slab,
    room,
    cooler,
    reservoir,
    valve,
    drain_back,
    panel,
    motor,
    battery,
    element,
    vessel,
    check_valve,
    wiring,
    rock_bed,
    exchanger_pump,
    cooler_valve,
    heater,
    circulation };
inline constexpr std::size_t part_count = 30;

// A stretch of a route: a chain of nodes that fluid runs through.
enum class Segment : std::uint8_t { collector,
    return_pipe,
    coil,
    tank_down,
    supply_pipe,
    collector_2,
    return_2,
    supply_2,
    coil_2,
    exchanger_hot,
    exchanger_cold,
    pool,
    slab,
    room,
    cooler,
    reservoir,
    rock_bed,
    tank_2_down,
    circulation,
    tank_up, // from where the circulation comes back to the top
    heater };
inline constexpr std::size_t segments = 21;

// What an output drives by its place in the unit's list: the loop's drivers in their order.
enum class Driver : std::uint8_t { pump,
    pump_2,
    exchanger_pump,
    valve,
    cooler_valve,
    circulation,
    nothing }; // the water circulates by itself
inline constexpr std::size_t driver_count = 7;

// A ring that fluid runs round while its pump runs and its valves stand so.
inline constexpr std::size_t max_routes = 8;
struct Route {
    std::size_t pump = 0;      // index of the output that drives it
    std::vector<Segment> ring; // in the order of the flow
    struct Valve {
        std::size_t output = 0; // index of the output that moves it
        bool when = false;      // the position in which this route is open
    };
    std::vector<Valve> valves;                                                                                     // all of them stand so
    Driver turns = Driver::pump;                                                                                   // the pump in it
    bool open(std::uint32_t running) const;                                                                        // bit o: output o is on
    bool collects() const { return turns == Driver::pump || turns == Driver::pump_2 || turns == Driver::nothing; } // an array is in it
};

// A loop as its answers join it: which parts, rings and places for probes it has.
struct Arrangement {
    LoopAnswers answers;
    std::string key; // of the preset with these answers; empty: none has
    std::string title, about;
    Carrier carrier;             // in the collector ring; a second ring behind an exchanger holds water
    bool drains;                 // the array empties when the pump rests
    std::vector<Part> parts;     // in the order in which they are shown
    std::uint64_t part_bits = 0; // the same as bits: a run asks often
    std::vector<Driver> drivers; // by output, in the unit's order
    std::vector<Route> routes;
    std::vector<ProbePlace> places; // where probes can sit, the first two: collector and store
    bool has(Part part) const { return (part_bits >> static_cast<unsigned>(part) & 1U) != 0; }
    bool pumped() const { return answers.power != PoweredBy::none; } // else the water circulates by itself
    // Index of the output of its own that drives this; −1: it has none.
    int output_of(Driver driver) const;
    // Index of the output that drives this pump: its own, or the loop pump's.
    std::size_t driven_by(Driver pump) const { return static_cast<std::size_t>(std::max(0, output_of(pump))); }
    Arrangement();
    Arrangement(const Arrangement&);
    Arrangement(Arrangement&&) noexcept;
    Arrangement& operator=(const Arrangement&);
    Arrangement& operator=(Arrangement&&) noexcept;
    ~Arrangement();
};

// What these answers join; for answers that cannot go together (cannot_combine()) some loop
// that runs all the same. Made once and kept; may be called from any thread.
const Arrangement& arrangement_of(const LoopAnswers& answers);
inline const Arrangement& arrangement_of(const Loop& loop) { return arrangement_of(loop.answers); }
// By mass, in the collector's ring; 0 where water or air runs there.
inline double glycol_share(const Loop& loop) { return arrangement_of(loop).carrier == Carrier::glycol ? loop.glycol_fraction : 0.0; }

// Sets of answers that are met most, with a name.
const std::vector<Arrangement>& presets();
const Arrangement* find_preset(const std::string& key); // nullptr: unknown
// Of a preset that exists.
const LoopAnswers& preset_answers(const std::string& key);

} // namespace vernal
