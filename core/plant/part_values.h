// The few numbers by which a technician describes each part of a loop.
#pragma once

#include <array>
#include <cstdint>

namespace vernal {

// Which wind a report's eta0, a1, a3 and a6 count from: ISO 9806:2013 takes the wind u
// itself, ISO 9806:2017 takes u - 3 m/s (from memory).
enum class WindFrom : std::uint8_t { still_air,
    three_m_s };

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
    double wind_loss_j_m3k = 0.0; // a3 of ISO 9806, loss per kelvin and m/s of wind
    double wind_gain_s_m = 0.0;   // a6, what a wind of 1 m/s takes from eta0
    WindFrom wind_from = WindFrom::still_air;
    double wetted_at_m3_s = 0.0; // down an open absorber: flow from which on it is wet all over; 0: always
    bool operator==(const Collector&) const = default;
};

// The same collector with eta0 and a1 of still air, which everything computes with.
Collector in_still_air(const Collector& report);

// Round pipe, or a duct of the same section.
struct Pipe {
    double length_m = 12.0;
    double outdoor_m = 4.0; // the part next to the collector that lies in the open
    double bore_m = 0.016;
    double loss_w_mk = 0.22;
    double fittings = 8.0;       // sum of the loss coefficients of bends, tees and valves
    double roughness_m = 1.5e-6; // of the wall
    double bears_c = 0.0;        // by its label; 0: copper, or not stated
    double sunlit = 0.0;         // share of its outdoor part in the sun
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
    double above_m = 0.7;     // over the collector, middle to middle, where the water circulates by itself
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
    double activity = 0.5;         // of evaporation: 1 of a public pool in use, less the quieter it lies
    double still_loss_w_m2k = 4.0; // walls, ground and dry air over the water; what it radiates comes on top
    double start_c = 22.0;         // of its water, when the day begins
    bool operator==(const Pool&) const = default;
};

// Heated slab with pipe in it.
struct Slab {
    double area_m2 = 40.0;
    double thickness_m = 0.1;
    double pipe_w_m2k = 12.0; // pipe to slab, per floor area
    double room_w_m2k = 8.0;  // slab to room
    double room_c = 18.0;
    double start_c = 20.0; // when the day begins
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

// A heater fed by the solar tank, between it and the taps, on its own thermostat.
enum class HeaterKind : std::uint8_t { storage,
    through_flow }; // heats only while water is drawn
enum class HeaterEnergy : std::uint8_t { electric,
    gas };
// How the valves round tank and heater stand.
enum class HeaterWay : std::uint8_t { series, // through both
    tank_only,                                // past the heater, which is off
    heater_only };                            // past the tank
struct Heater {
    HeaterKind kind = HeaterKind::storage;
    HeaterEnergy energy = HeaterEnergy::electric;
    HeaterWay way = HeaterWay::series;
    double volume_m3 = 0.1; // of a storage heater
    double power_w = 2000.0;
    double set_c = 60.0;
    double loss_w_k = 1.2;
    double bears_c = 0.0; // at its inlet, by its label; 0: not known
    bool operator==(const Heater&) const = default;
};

// Where hot water is mixed down to what does not scald.
enum class Tempering : std::uint8_t { nowhere,
    at_tank, // one valve before the circulation
    at_taps };
// Tap circulation: a pipe past the taps and back, and its pump.
struct Circulation {
    double length_m = 30.0; // there and back
    double outdoor_m = 0.0; // of it in the open
    double bore_m = 0.016;
    double loss_w_mk = 0.2;
    double flow_m3_s = 4e-5;
    double power_w = 7.0;
    double enters_at = 0.6; // share of the tank's height at which it comes back
    Tempering tempering = Tempering::at_taps;
    bool by_cold_line = false; // it comes back through the cold line
    double bears_c = 0.0;      // the pipe, by its label; 0: copper, or not stated
    bool operator==(const Circulation&) const = default;
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
enum class Charging : std::uint8_t { direct, // the panel is joined to the battery
    tracking };                              // and kept at its most power
enum class ControllerFault : std::uint8_t { none,
    no_charge,
    feeds_through }; // it does not hold the charge limit
struct Battery {
    double capacity_ah = 70.0;
    double resistance_ohm = 0.02;
    double full_v = 12.8, empty_v = 11.4;    // at rest
    double cut_v = 11.5, reconnect_v = 12.5; // low-voltage cut-out of the pump
    double charge_limit_v = 14.4;
    double other_load_w = 0.5; // the unit itself and what else hangs on it
    double start_charge = 0.8; // 0…1, before the first day
    double cut_delay_s = 2.0;  // a dip shorter than this does not cut off
    Charging charging = Charging::direct;
    ControllerFault fault = ControllerFault::none;
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

// What the unit itself lives on.
enum class UnitFeed : std::uint8_t { mains,
    panel,
    battery,
    load_output, // of the charge controller, which the low-voltage cut-out switches
    panel_and_mains };
// Cable and protection between supply and pump.
struct Wiring {
    double cable_m = 6.0; // one way
    double section_m2 = 2.5e-6;
    double breaker_a = 10.0;
    double output_a = 12.0; // rating of the unit's output
    double bears_v = 0.0;   // highest supply the unit is made for; 0: not known
    bool plug = false;      // the unit hangs on a plug
    UnitFeed unit_feed = UnitFeed::mains;
    bool operator==(const Wiring&) const = default;
};

// Rocks that the warm air is led through before the room.
struct RockBed {
    double volume_m3 = 0.0; // 0: none
    double voids = 0.4;     // share of air
    double loss_w_k = 3.0;
    bool operator==(const RockBed&) const = default;
};

} // namespace vernal
