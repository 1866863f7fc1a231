// A solar loop as the technician describes it: parts with their few numbers,
// put together as the answers say.
#pragma once

#include "answers.h"

#include <algorithm>
#include <array>
#include <cstdint>
#include <string>
#include <vector>

namespace vernal {

// Efficiency in the form of ISO 9806 on the area given.
struct Collector {
    double area_m2 = 6.0;
    double eta0 = 0.76;
    double a1_w_m2k = 3.6;
    double a2_w_m2k2 = 0.014;
    double sky_exchange = 0.08;     // a4 of ISO 9806:2017, share of σ(Ta⁴ − Tsky⁴) lost; 0 by covered collectors' reports
    double capacity_j_m2k = 7000.0; // effective, with its fluid
    double iam_b0 = 0.12;
    double iam_diffuse = 0.9;
    double tilt_deg = 45.0;
    double azimuth_deg = 0.0;     // from south, west positive
    double content_m3 = 0.004;    // fluid in it
    double drop_pa = 4000.0;      // pressure drop, with that of the coil or exchanger …
    double drop_flow_m3_s = 1e-4; // … at this flow; goes with its square
    bool operator==(const Collector&) const = default;
};

// Round pipe, or a duct of the same section.
struct Pipe {
    double length_m = 12.0;
    double outdoor_m = 4.0; // the part next to the collector that lies in the open
    double bore_m = 0.016;
    double loss_w_mk = 0.22;
    double fittings = 8.0;       // sum of the loss coefficients of bends, tees and valves
    double roughness_m = 1.5e-6; // of the wall
    double bears_c = 0.0;        // by its label; 0: copper, or not stated
    bool operator==(const Pipe&) const = default;
};

struct Tank {
    double volume_m3 = 0.3;
    double loss_w_k = 2.5;    // whole tank
    double room_c = 16.0;     // air around it and around the indoor pipe
    double coil_w_k = 380.0;  // coil at the usual flow; not used where the tank feeds the collector
    double coil_top = 0.45;   // share of the height that the coil reaches up to
    bool heat_trap = true;    // its upper connections fall away, so that no water circles in them
    bool dip_swapped = false; // the dip pipe sits in the hot port: cold water enters at the top
    bool operator==(const Tank&) const = default;
};

struct Pump {
    double flow_m3_s = 1e-4; // of air where it is a blower
    double power_w = 38.0;
    double head_m = 0.0;         // at no flow; 0: not known
    double free_flow_m3_s = 0.0; // at no head; 0: not known
    double speed = 1.0;          // it is set to, share of that at which the rest is stated
    bool by_curve = false;       // flow from the curve, the pipe's friction and the lift instead of the measured one
    bool shut = false;           // a valve in its line is closed
    bool operator==(const Pump&) const = default;
};

// Outside heat exchanger, counterflow.
struct Exchanger {
    double ua_w_k = 500.0;
    double content_m3 = 0.001; // of each side
    double loss_w_k = 0.6;     // to the room
    bool operator==(const Exchanger&) const = default;
};

struct Pool {
    double volume_m3 = 50.0;
    double area_m2 = 32.0;
    bool covered = false;
    double absorptance = 0.8;      // of the sun on the water
    double air_speed_m_s = 1.0;    // over the water
    double humidity = 0.6;         // of the air
    double still_loss_w_m2k = 5.0; // walls, ground and dry air over the water
    bool operator==(const Pool&) const = default;
};

// Heated slab with pipe in it.
struct Slab {
    double area_m2 = 40.0;
    double thickness_m = 0.1;
    double pipe_w_m2k = 12.0; // pipe to slab, per floor area
    double room_w_m2k = 8.0;  // slab to room
    double room_c = 18.0;
    bool operator==(const Slab&) const = default;
};

// A room warmed by air, with what stores in it: furniture and walls, or a bed of rocks.
struct Room {
    double air_m3 = 120.0;
    double loss_w_k = 90.0;  // to the outside
    double mass_j_k = 6.0e6; // walls and things, or rocks
    double mass_w_k = 400.0; // between them and the air
    bool operator==(const Room&) const = default;
};

// Emergency cooler in the open, or a loop through the house used as one.
struct Cooler {
    double ua_w_k = 150.0;
    double content_m3 = 0.002;
    bool indoors = false; // a loop through the house
    bool operator==(const Cooler&) const = default;
};

// Into which a drain-back array empties.
struct Reservoir {
    double volume_m3 = 0.04;
    double loss_w_k = 0.6;
    bool operator==(const Reservoir&) const = default;
};

// PV panel by its label, at 1000 W/m² and 25 °C.
struct Panel {
    double isc_a = 3.3, voc_v = 21.8;  // short circuit, open circuit
    double imp_a = 3.05, vmp_v = 17.6; // at the greatest power
    double isc_a_k = 0.0016, voc_v_k = -0.074;
    double tilt_deg = 45.0;
    double azimuth_deg = 0.0;
    bool booster = false; // a linear current booster between panel and pump
    bool operator==(const Panel&) const = default;
};

// DC motor of a pump: what it takes at the flow stated for the pump.
struct Motor {
    double volt_v = 15.0;
    double current_a = 1.5;
    double start_a = 0.6; // to break loose
    double resistance_ohm = 2.2;
    double label_a = 0.0; // the most by its label; 0: not known
    bool swapped = false; // its two leads
    bool operator==(const Motor&) const = default;
};

// Lead-acid battery with its charge controller; voltages at the terminals.
struct Battery {
    double capacity_ah = 70.0;
    double resistance_ohm = 0.02;
    double full_v = 12.8, empty_v = 11.4;    // at rest
    double cut_v = 11.5, reconnect_v = 12.5; // low-voltage cut-out of the pump
    double charge_limit_v = 14.4;
    double other_load_w = 0.5; // the unit itself and what else hangs on it
    double start_charge = 0.8; // 0…1, before the first day
    double cut_delay_s = 2.0;  // a dip shorter than this does not cut off
    bool operator==(const Battery&) const = default;
};

// Height and water of an array that empties when the pump rests.
struct DrainBack {
    double lift_m = 5.0;         // from the resting water to the top of the array
    double pitch = 0.03;         // fall over length of what must drain
    double drain_s = 150.0;      // until it has emptied
    bool siphon = true;          // the return pipe can run full
    bool fill_boost = true;      // full speed while it fills and sweeps the return, the pump's set speed after that
    bool check_valve = false;    // in the return: the array cannot drain
    bool vented = false;         // the reservoir is open to the air; an open tank always is
    bool ports_swapped = false;  // the return enters where the pump draws
    double suction_m = -0.3;     // height of the pump's inlet or dip pipe over the water; negative: flooded
    double suction_need_m = 1.0; // head the pump needs over the vapour pressure (NPSH)
    bool holds_prime = true;     // the dip pipe keeps its water: a U or a foot valve
    bool operator==(const DrainBack&) const = default;
};

// Element in the tank, on its own thermostat.
struct HeatingWindow {
    double start_h = 0, end_h = 0; // of the day; equal: none; end before start: over midnight
    bool operator==(const HeatingWindow&) const = default;
};
enum class ElementMode : std::uint8_t { off,
    always,
    windows };
struct Element {
    double power_w = 2000.0;
    double height = 0.65; // share of the tank's height; it heats what lies above
    double set_c = 55.0;
    ElementMode mode = ElementMode::off;
    std::array<HeatingWindow, 3> windows{};
    bool operator==(const Element&) const = default;
};

// Expansion vessel and relief valve of a closed loop; pressures above the air's.
struct Vessel {
    double volume_m3 = 0.018;
    double precharge_pa = 1.5e5;
    double fill_pa = 1.8e5;   // cold, at the vessel
    double relief_pa = 6.0e5; // opens
    double boils_k = 6.0;     // how far the fluid boils above water
    bool operator==(const Vessel&) const = default;
};

// What keeps warm fluid from rising to a cold collector at night.
struct CheckValve {
    double leak = 0.0;   // share of the free thermosiphon it lets through: 0 holds, 1 there is none
    double rise_m = 4.0; // of the collector's middle over the store's
    bool operator==(const CheckValve&) const = default;
};

// Cable and protection between supply and pump.
struct Wiring {
    double cable_m = 6.0; // one way
    double section_m2 = 2.5e-6;
    double breaker_a = 10.0;
    double output_a = 12.0; // rating of the unit's output
    double bears_v = 0.0;   // highest supply the unit is made for; 0: not known
    bool plug = false;      // the unit hangs on a plug
    bool operator==(const Wiring&) const = default;
};

// Rocks that the warm air is led through before the room.
struct RockBed {
    double volume_m3 = 0.0; // 0: none
    double voids = 0.4;     // share of air
    double loss_w_k = 3.0;
    bool operator==(const RockBed&) const = default;
};

struct Loop {
    LoopAnswers answers; // what it is put together from; says which of the parts below it has
    Collector collector;
    Pipe supply; // to the collector
    Pipe back;   // from the collector; "return" in the job file
    Tank tank;
    Pump pump;
    double glycol_fraction = 0.4; // by mass; used where glycol runs through the collector
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
    bool operator==(const Loop&) const = default;
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
    room_air };
inline constexpr std::array place_keys{"collector", "tank_bottom", "tank_middle", "tank_top", "return_pipe", "supply_pipe", "collector_2", "tank_2_bottom", "tank_2_top", "pool_water", "slab_return", "room_air"};
inline constexpr std::size_t probe_places = place_keys.size();
inline constexpr std::array<const char*, probe_places> place_names{"Collector", "Tank bottom", "Tank middle", "Tank top", "Return pipe", "Supply pipe", "Second collector", "Second tank bottom", "Second tank top", "Pool", "Slab return", "Room"};

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
    cooler_valve };
inline constexpr std::size_t part_count = 28;

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
    tank_2_down };
inline constexpr std::size_t segments = 18;

// What an output drives by its place in the unit's list: the loop's drivers in their order.
enum class Driver : std::uint8_t { pump,
    pump_2,
    exchanger_pump,
    valve,
    cooler_valve };

// A ring that fluid runs round while its pump runs and its valves stand so.
inline constexpr std::size_t max_routes = 6;
struct Route {
    std::size_t pump = 0;      // index of the output that drives it
    std::vector<Segment> ring; // in the order of the flow
    struct Valve {
        std::size_t output = 0; // index of the output that moves it
        bool when = false;      // the position in which this route is open
    };
    std::vector<Valve> valves;                                        // all of them stand so
    Driver turns = Driver::pump;                                      // the pump in it
    bool open(std::uint32_t running) const;                           // bit o: output o is on
    bool collects() const { return turns != Driver::exchanger_pump; } // an array is in it
};

// A loop as its answers join it: which parts, rings and places for probes it has.
struct Arrangement {
    LoopAnswers answers;
    std::string key; // of the preset with these answers; empty: none has
    std::string title, about;
    Carrier carrier;             // in the collector ring; a second ring behind an exchanger holds water
    bool drains;                 // the array empties when the pump rests
    std::vector<Part> parts;     // in the order in which they are shown
    std::vector<Driver> drivers; // by output, in the unit's order
    std::vector<Route> routes;
    std::vector<ProbePlace> places; // where probes can sit, the first two: collector and store
    bool has(Part part) const;
    // Index of the output of its own that drives this; −1: it has none.
    int output_of(Driver driver) const;
    // Index of the output that drives this pump: its own, or the loop pump's.
    std::size_t driven_by(Driver pump) const { return static_cast<std::size_t>(std::max(0, output_of(pump))); }
};

// What these answers join; for answers that cannot go together (cannot_combine()) some loop
// that runs all the same. Made once and kept; may be called from any thread.
const Arrangement& arrangement_of(const LoopAnswers& answers);
inline const Arrangement& arrangement_of(const Loop& loop) { return arrangement_of(loop.answers); }

// Sets of answers that are met most, with a name.
const std::vector<Arrangement>& presets();
const Arrangement* find_preset(const std::string& key); // nullptr: unknown
// Of a preset that exists.
const LoopAnswers& preset_answers(const std::string& key);

} // namespace vernal
