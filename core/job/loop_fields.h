// Fields of the loop and its parts.
#pragma once

#include "core/plant/loop.h"

#include <array>

namespace vernal {

template <class V, OneOf<Collector> T>
void fields(V& v, T& c)
{
    v.number({"area_m2", "Area", Quantity::area, 0.1, 2000, "Label; of all collectors together"}, c.area_m2);
    v.number({"tilt_deg", "Tilt", Quantity::angle, 0, 90, "Steeper gathers more in winter, flatter more in summer"}, c.tilt_deg);
    v.number({"azimuth_deg", "Azimuth, west of south", Quantity::angle, -180, 180, "0 faces south"}, c.azimuth_deg);
    v.number({"content_m3", "Fluid in it", Quantity::volume, 1e-5, 5, "Label; 0.3 to 2 L per m² (estimate)"}, c.content_m3);
    v.number({"wetted_at_m3_s", "Wet all over from", Quantity::flow, 0, 2, "0.8 to 1.5 L/min per m² (estimate): look through the pane while it runs", "always"}, c.wetted_at_m3_s);
    v.number({"eta0", "Efficiency without loss", Quantity::number, 0.05, 1, "Flat plate; test report to ISO 9806", "", {0.70, 0.82}}, c.eta0);
    v.number({"a1_w_m2k", "Heat loss coefficient a1", Quantity::loss_linear, 0.3, 40, "Tubes about a third to half of a flat plate's; test report to ISO 9806", "", {1, 4.5}}, c.a1_w_m2k);
    v.number({"a2_w_m2k2", "Heat loss coefficient a2", Quantity::loss_square, 0, 0.2, "Test report to ISO 9806", "", {0.005, 0.02}}, c.a2_w_m2k2);
    v.number({"sky_exchange", "Night sky exchange", Quantity::number, 0, 1, "Low behind glass, high unglazed; an estimate", "", {0.1, 0.8}}, c.sky_exchange);
    v.number({"capacity_j_m2k", "Heat capacity", Quantity::area_capacity, 500, 150000, "With its fluid; test report to ISO 9806", "", {5000, 12000}}, c.capacity_j_m2k);
    v.number({"iam_b0", "Incidence modifier b0", Quantity::number, 0, 0.5, "One pane (Duffie & Beckman, ch. 6)", "", {0.1, 0.1}}, c.iam_b0);
    v.number({"iam_diffuse", "Diffuse modifier", Quantity::number, 0.3, 1, "One pane, about", "", {0.9, 0.9}}, c.iam_diffuse);
    v.number({"wind_loss_j_m3k", "Loss by wind a3", Quantity::number, 0, 20, "W/(m²·K) for each m/s; none behind glass; test report to ISO 9806 of an uncovered one", "none"}, c.wind_loss_j_m3k);
    v.number({"wind_gain_s_m", "Gain lost to wind a6", Quantity::number, 0, 0.2, "s/m; none behind glass; test report to ISO 9806 of an uncovered one", "none"}, c.wind_gain_s_m);
    static constexpr std::array winds{"still_air", "three_m_s"};
    v.choice("wind_from", winds, c.wind_from);
    v.number({"drop_pa", "Pressure drop, with the coil's", Quantity::pressure_drop, 0, 1e6, "Test reports, of both"}, c.drop_pa);
    v.number({"drop_flow_m3_s", "at a flow of", Quantity::flow, 1e-6, 2, "The flow that drop is stated for"}, c.drop_flow_m3_s);
}

template <class V, OneOf<Pipe> T>
void fields(V& v, T& p)
{
    v.number({"length_m", "Length", Quantity::length, 0.5, 150, ""}, p.length_m);
    v.number({"outdoor_m", "of it outdoors", Quantity::length, 0, 150, "The part beside the collector"}, p.outdoor_m);
    v.number({"bore_m", "Bore", Quantity::bore, 0.004, 0.6, "Measure, or the pipe's table"}, p.bore_m);
    v.number({"loss_w_mk", "Loss per length", Quantity::line_loss, 0.02, 3, "Insulated; bare twice that and more (estimate)", "", {0.15, 0.3}}, p.loss_w_mk);
    v.number({"fittings", "Bends, tees, valves", Quantity::number, 0, 500, "Sum of loss coefficients: bend 0.7 to 1.5, tee 1 to 1.8, open ball valve 0.05 (handbook values, from memory)"}, p.fittings);
    v.number({"roughness_m", "Roughness", Quantity::roughness, 0, 0.003, "Drawn copper and plastic the least, steel the most (Moody 1944)", "", {1.5e-6, 45e-6}}, p.roughness_m);
    v.number({"bears_c", "The pipe bears up to", Quantity::temperature, 0, 400, "Its label; common plastic heating pipe 95 °C; none for copper", "not stated"}, p.bears_c);
    v.number({"sunlit", "of it in the sun", Quantity::ratio, 0, 1, "Of its outdoor part; insulation in the sun is warmer than the air"}, p.sunlit);
}

template <class V, OneOf<Tank> T>
void fields(V& v, T& t)
{
    v.number({"volume_m3", "Volume", Quantity::volume, 0.02, 50, "What is drawn until the sun is back; see the sum"}, t.volume_m3);
    v.number({"loss_w_k", "Standing loss", Quantity::conductance, 0, 60, "A tank of a house; label or test report", "", {1.5, 3.5}}, t.loss_w_k);
    v.number({"room_c", "Room temperature", Quantity::temperature, -20, 50, ""}, t.room_c);
    v.number({"coil_w_k", "Coil, heat per kelvin", Quantity::conductance, 10, 20000, "40 to 60 W/K per m² of collector (estimate)"}, t.coil_w_k);
    v.number({"coil_top", "Coil reaches up to", Quantity::ratio, 0.1, 1, "Share of the tank's height"}, t.coil_top);
    v.boolean({"heat_trap", "Heat trap", "Upper connections that fall away; without one water circles in them"}, t.heat_trap);
    v.boolean({"dip_swapped", "Dip pipe in the wrong port", "Cold water enters at the top"}, t.dip_swapped);
    v.number({"above_m", "Tank over collector", Quantity::length, -5, 20, "Middle to middle; from this height the water circulates by itself"}, t.above_m);
}

template <class V, OneOf<Pump> T>
void fields(V& v, T& p)
{
    v.number({"flow_m3_s", "Flow when on", Quantity::flow, 1e-6, 2, "Measure it: volume over time at the return"}, p.flow_m3_s);
    v.number({"power_w", "Power when on", Quantity::power, 0, 5000, "Meter at the pump; the label says the most"}, p.power_w);
    v.number({"head_m", "Head at no flow", Quantity::length, 0, 200, "The pump's curve or label", "not known"}, p.head_m);
    v.number({"free_flow_m3_s", "Flow at no head", Quantity::flow, 0, 0.05, "The pump's curve or label", "not known"}, p.free_flow_m3_s);
    v.number({"speed", "Set to a speed of", Quantity::ratio, 0.1, 1, "100 % at a fixed speed; slower only where the water still reaches the top"}, p.speed);
    v.boolean({"by_curve", "Flow by curve and friction", "Instead of the measured flow; needs the two points of the curve"}, p.by_curve);
    v.boolean({"shut", "A valve in its line is shut"}, p.shut);
}

template <class V, OneOf<Exchanger> T>
void fields(V& v, T& x)
{
    v.number({"ua_w_k", "Heat per kelvin", Quantity::conductance, 10, 50000, "60 to 100 W/K per m² of collector (estimate)"}, x.ua_w_k);
    v.number({"content_m3", "Content of each side", Quantity::volume, 1e-4, 0.1, "A house's, about; label", "", {0.001, 0.001}}, x.content_m3);
    v.number({"loss_w_k", "Standing loss", Quantity::conductance, 0, 60, "Insulated (estimate)", "", {0.3, 1}}, x.loss_w_k);
}

template <class V, OneOf<Pool> T>
void fields(V& v, T& p)
{
    v.number({"volume_m3", "Volume", Quantity::large_volume, 0.5, 5000, "Length × width × mean depth"}, p.volume_m3);
    v.number({"area_m2", "Water surface", Quantity::area, 1, 2500, ""}, p.area_m2);
    v.boolean({"covered", "Cover on"}, p.covered);
    v.number({"absorptance", "Sun taken up by the water", Quantity::ratio, 0, 1, "More with a dark floor (estimate)", "", {0.7, 0.9}}, p.absorptance);
    v.number({"air_speed_m_s", "Air over the water", Quantity::speed, 0, 15, "Least indoors, most in the open (estimate)", "", {0.1, 3}}, p.air_speed_m_s);
    v.number({"humidity", "Humidity of the air", Quantity::ratio, 0, 1, "By weather", "", {0.5, 0.8}}, p.humidity);
    v.number({"activity", "Activity", Quantity::ratio, 0.1, 2, "Factor of evaporation by the water's unrest: a house's pool 50 %, a public one 100 % (ASHRAE Handbook, Natatoriums, from memory)"}, p.activity);
    v.number({"start_c", "When the day begins", Quantity::temperature, 0, 45, "Its thermometer; it takes days to follow the sun"}, p.start_c);
    v.number({"still_loss_w_m2k", "Loss to ground and dry air", Quantity::loss_linear, 0, 40, "An estimate; evaporation and radiation come on top", "", {3, 8}}, p.still_loss_w_m2k);
}

template <class V, OneOf<Slab> T>
void fields(V& v, T& s)
{
    v.number({"area_m2", "Heated floor", Quantity::area, 1, 5000, ""}, s.area_m2);
    v.number({"thickness_m", "Thickness", Quantity::length, 0.02, 0.6, "Screed over its pipes", "", {0.08, 0.15}}, s.thickness_m);
    v.number({"pipe_w_m2k", "Pipe to slab", Quantity::loss_linear, 1, 60, "Per floor area (estimate)", "", {8, 15}}, s.pipe_w_m2k);
    v.number({"room_w_m2k", "Slab to room", Quantity::loss_linear, 0.5, 20, "Less under carpet (estimate)", "", {7, 10}}, s.room_w_m2k);
    v.number({"room_c", "Room temperature", Quantity::temperature, -20, 40, ""}, s.room_c);
    v.number({"start_c", "When the day begins", Quantity::temperature, -10, 50, "A slab takes days to follow"}, s.start_c);
}

template <class V, OneOf<Room> T>
void fields(V& v, T& r)
{
    v.number({"air_m3", "Volume of the room", Quantity::space, 2, 50000, ""}, r.air_m3);
    v.number({"loss_w_k", "Loss to the outside", Quantity::conductance, 1, 20000, "Heating load over its difference"}, r.loss_w_k);
    v.number({"mass_j_k", "Heat capacity inside", Quantity::heat_capacity, 1e4, 1e10, "Walls and things, or rocks at 0.85 kJ/kgK"}, r.mass_j_k);
    v.number({"mass_w_k", "between it and the air", Quantity::conductance, 1, 100000, ""}, r.mass_w_k);
}

template <class V, OneOf<Cooler> T>
void fields(V& v, T& c)
{
    v.number({"ua_w_k", "Heat per kelvin", Quantity::conductance, 1, 20000, "All the array gives, at 60 K above the air"}, c.ua_w_k);
    v.number({"content_m3", "Content", Quantity::volume, 1e-4, 1, ""}, c.content_m3);
    v.boolean({"indoors", "A loop through the house", "Heat goes to the rooms instead of the open"}, c.indoors);
}

template <class V, OneOf<Heater> T>
void fields(V& v, T& h)
{
    static constexpr std::array kinds{"storage", "through-flow"}, energies{"electric", "gas"};
    static constexpr std::array ways{"series", "tank-only", "heater-only"};
    v.choice("kind", kinds, h.kind);
    v.choice("energy", energies, h.energy);
    v.choice("way", ways, h.way);
    v.number({"volume_m3", "Volume", Quantity::volume, 0.005, 5, "Label, of a storage heater"}, h.volume_m3);
    v.number({"power_w", "Power", Quantity::power, 0, 200000, "Label; what reaches the water"}, h.power_w);
    v.number({"set_c", "Thermostat", Quantity::temperature, 10, 90, "60 °C against legionella; a tempering valve behind it"}, h.set_c);
    v.number({"loss_w_k", "Standing loss", Quantity::conductance, 0, 60, "Of a storage heater (estimate)", "", {0.8, 2.5}}, h.loss_w_k);
    v.number({"bears_c", "Its inlet bears up to", Quantity::temperature, 0, 120, "Label; many through-flow heaters want cold water", "not known"}, h.bears_c);
}

template <class V, OneOf<Circulation> T>
void fields(V& v, T& c)
{
    static constexpr std::array temperings{"nowhere", "at-tank", "at-taps"};
    v.number({"length_m", "Length, there and back", Quantity::length, 1, 2000, ""}, c.length_m);
    v.number({"outdoor_m", "of it outdoors", Quantity::length, 0, 500, "It counts for frost"}, c.outdoor_m);
    v.number({"bore_m", "Bore", Quantity::bore, 0.004, 0.3, "Measure, or the pipe's table"}, c.bore_m);
    v.number({"loss_w_mk", "Loss per length", Quantity::line_loss, 0.02, 3, "Insulated; bare twice that and more (estimate)", "", {0.15, 0.3}}, c.loss_w_mk);
    v.number({"flow_m3_s", "Flow when on", Quantity::flow, 1e-6, 0.02, "So much that it comes back at most 5 K colder (DVGW W 551, from memory)"}, c.flow_m3_s);
    v.number({"power_w", "Power when on", Quantity::power, 0, 2000, "Label of its pump"}, c.power_w);
    v.number({"enters_at", "Comes back at", Quantity::ratio, 0, 0.95, "Share of the tank's height; it stirs what lies above"}, c.enters_at);
    v.choice("tempering", temperings, c.tempering);
    v.boolean({"by_cold_line", "Back through the cold line", "Without a pipe of its own: the cold taps run warm"}, c.by_cold_line);
    v.number({"bears_c", "The pipe bears up to", Quantity::temperature, 0, 400, "Its label; none for copper", "not stated"}, c.bears_c);
}

template <class V, OneOf<Reservoir> T>
void fields(V& v, T& r)
{
    v.number({"volume_m3", "Volume", Quantity::volume, 0.001, 5, "More than the collector and all pipe above it"}, r.volume_m3);
    v.number({"loss_w_k", "Standing loss", Quantity::conductance, 0, 60, ""}, r.loss_w_k);
}

template <class V, OneOf<DrainBack> T>
void fields(V& v, T& d)
{
    v.number({"lift_m", "Lift", Quantity::length, 0, 60, "From the resting water to the top of the array"}, d.lift_m);
    v.number({"pitch", "Pitch", Quantity::ratio, 0, 0.5, "At least 2 %: what a sag of 6 mm between clips 1.2 m apart needs (computed)"}, d.pitch);
    v.number({"drain_s", "Drains within", Quantity::duration, 5, 3600, "Watch it once (estimate)", "", {60, 480}}, d.drain_s);
    v.boolean({"siphon", "The return can run full", "A full return hangs on its own weight: the pump lifts only at the start"}, d.siphon);
    v.boolean({"fill_boost", "Full speed while filling", "A pump set below full speed may not reach the top; 30 % of the speed has 9 % of the head"}, d.fill_boost);
    v.boolean({"check_valve", "A check valve in the return", "There must be none: the array could not drain"}, d.check_valve);
    v.boolean({"vented", "The reservoir has a vent", "An open tank always has; water leaves through it with the air of each filling"}, d.vented);
    v.boolean({"ports_swapped", "Ports swapped", "The return enters where the pump draws: air goes round and locks it"}, d.ports_swapped);
    v.number({"suction_m", "Pump's inlet over the water", Quantity::length, -20, 10, "Negative: flooded. An open tank's dip pipe goes up and over its rim"}, d.suction_m);
    v.number({"suction_need_m", "Suction head needed", Quantity::length, 0, 10, "The pump's data (NPSH); an estimate", "", {0.5, 2}}, d.suction_need_m);
    v.boolean({"holds_prime", "The dip pipe keeps its water", "A U in the dip pipe or a foot valve"}, d.holds_prime);
}

template <class V, OneOf<Panel> T>
void fields(V& v, T& p)
{
    v.number({"isc_a", "Short-circuit current", Quantity::current, 0.05, 50, "Label"}, p.isc_a);
    v.number({"voc_v", "Open-circuit voltage", Quantity::voltage, 1, 200, "Label; 36 cells of about 0.6 V have 21.6 V (computed), more in the cold"}, p.voc_v);
    v.number({"imp_a", "Current at most power", Quantity::current, 0.05, 50, "Label; less than the short-circuit current"}, p.imp_a);
    v.number({"vmp_v", "Voltage at most power", Quantity::voltage, 0.5, 200, "Label; less than the open-circuit voltage"}, p.vmp_v);
    v.number({"isc_a_k", "Current per kelvin", Quantity::number, -0.1, 0.1, "Label, A/K; about +0.05 % of the current"}, p.isc_a_k);
    v.number({"voc_v_k", "Voltage per kelvin", Quantity::number, -2, 0, "Label, V/K; about −0.3 % of the voltage"}, p.voc_v_k);
    v.number({"tilt_deg", "Tilt", Quantity::angle, 0, 90, "As the collector"}, p.tilt_deg);
    v.number({"azimuth_deg", "Azimuth, west of south", Quantity::angle, -180, 180, "0 faces south"}, p.azimuth_deg);
    v.boolean({"booster", "Current booster", "Turns spare voltage into current: starts the pump in weaker sun"}, p.booster);
}

template <class V, OneOf<Motor> T>
void fields(V& v, T& m)
{
    v.number({"volt_v", "Voltage at the stated flow", Quantity::voltage, 1, 200, "Measure both at the pump while the flow is measured"}, m.volt_v);
    v.number({"current_a", "Current at the stated flow", Quantity::current, 0.02, 50, ""}, m.current_a);
    v.number({"start_a", "Current to start", Quantity::current, 0.01, 50, "Less than at the stated flow"}, m.start_a);
    v.number({"resistance_ohm", "Winding", Quantity::resistance, 0.01, 200, "Ohms at its leads, at rest"}, m.resistance_ohm);
    v.number({"label_a", "Most by its label", Quantity::current, 0, 100, "More than it takes at its working point", "not known"}, m.label_a);
    v.boolean({"swapped", "Leads swapped", "It turns backwards"}, m.swapped);
}

template <class V, OneOf<Battery> T>
void fields(V& v, T& b)
{
    v.number({"capacity_ah", "Capacity", Quantity::charge, 1, 5000, "Label, at 20 h"}, b.capacity_ah);
    v.number({"resistance_ohm", "Inner resistance", Quantity::resistance, 0.0005, 2, "Drop over current when a load is switched on"}, b.resistance_ohm);
    v.number({"full_v", "Full, at rest", Quantity::voltage, 2, 60, "Lead-acid of 12 V (from memory)", "", {12.7, 12.9}}, b.full_v);
    v.number({"empty_v", "Empty, at rest", Quantity::voltage, 1, 60, "Lead-acid of 12 V (from memory)", "", {11.3, 11.9}}, b.empty_v);
    v.number({"cut_v", "Pump cut off below", Quantity::voltage, 0, 60, "Above 10.5 V, 1.75 V a cell, at which a lead-acid battery is empty (IEC 60896-11, from memory); the higher, the longer it lives"}, b.cut_v);
    v.number({"reconnect_v", "and on again above", Quantity::voltage, 0, 60, "Charged again, not only rested (12 V, estimate)", "", {12.2, 14}}, b.reconnect_v);
    v.number({"charge_limit_v", "Charge limit", Quantity::voltage, 2, 70, "By the battery's maker (12 V)", "", {14.1, 14.8}}, b.charge_limit_v);
    v.number({"other_load_w", "Other loads", Quantity::small_power, 0, 500, "The unit itself", "", {0.5, 3}}, b.other_load_w);
    v.number({"start_charge", "Charge at the start", Quantity::ratio, 0, 1, ""}, b.start_charge);
    static constexpr std::array charging{"direct", "tracking"};
    static constexpr std::array faults{"none", "no-charge", "feeds-through"};
    v.choice("charging", charging, b.charging);
    v.choice("fault", faults, b.fault);
    v.number({"cut_delay_s", "Cuts off after", Quantity::duration, 0, 600, "A few seconds, so that the dip of a starting motor does not cut off"}, b.cut_delay_s);
}

template <class V, OneOf<Element> T>
void fields(V& v, T& e)
{
    static constexpr std::array modes{"off", "always", "windows"};
    v.choice("mode", modes, e.mode);
    v.number({"power_w", "Power", Quantity::power, 0, 100000, "Label"}, e.power_w);
    v.number({"height", "Sits at", Quantity::ratio, 0, 0.95, "Share of the tank's height; it heats what lies above"}, e.height);
    v.number({"set_c", "Thermostat", Quantity::temperature, 10, 90, "60 °C against legionella; a tempering valve behind it"}, e.set_c);
    static constexpr const char* keys[][2]{{"from_1_h", "to_1_h"}, {"from_2_h", "to_2_h"}, {"from_3_h", "to_3_h"}};
    for (std::size_t i = 0; i < e.windows.size(); ++i) {
        v.number({keys[i][0], i == 0 ? "Window from" : "and from", Quantity::time_of_day, 0, 24, "Before the hours of use; the day is the sun's"}, e.windows[i].start_h);
        v.number({keys[i][1], "to", Quantity::time_of_day, 0, 24, "Equal to its start: no window"}, e.windows[i].end_h);
    }
}

template <class V, OneOf<Vessel> T>
void fields(V& v, T& x)
{
    v.number({"volume_m3", "Vessel", Quantity::volume, 0.001, 5, "Label"}, x.volume_m3);
    v.number({"precharge_pa", "Gas, when empty", Quantity::pressure, 0, 2e6, "A little below the cold fill; gauge at its gas valve"}, x.precharge_pa);
    v.number({"fill_pa", "Cold fill", Quantity::pressure, 0, 2e6, "0.1 bar for each metre up to the array and 0.5 to 1.5 bar more (estimate); mark it on the gauge"}, x.fill_pa);
    v.number({"relief_pa", "Relief valve opens", Quantity::pressure, 2e4, 2e6, "Its label; never cap or disable it"}, x.relief_pa);
    v.number({"boils_k", "Boils above water by", Quantity::difference, 0, 30, "Glycol of 30 to 50 % (estimate)", "", {2, 8}}, x.boils_k);
}

template <class V, OneOf<CheckValve> T>
void fields(V& v, T& x)
{
    v.number({"leak", "Leakage", Quantity::ratio, 0, 1, "0: holds; 100 %: there is none"}, x.leak);
    v.number({"rise_m", "Collector over store", Quantity::length, -20, 60, "Middle to middle; negative: the collector lies lower"}, x.rise_m);
}

template <class V, OneOf<Wiring> T>
void fields(V& v, T& w)
{
    v.number({"cable_m", "Cable, one way", Quantity::length, 0.1, 300, ""}, w.cable_m);
    v.number({"section_m2", "Wire", Quantity::wire, 1e-7, 1e-4, "By the drop: see the sum (estimate)", "", {1e-6, 1e-5}}, w.section_m2);
    v.number({"breaker_a", "Breaker or fuse", Quantity::current, 0.1, 125, "It must not be larger than what the weakest part behind it bears"}, w.breaker_a);
    v.number({"output_a", "The unit's output bears", Quantity::current, 0.05, 125, "Label of the unit"}, w.output_a);
    v.number({"bears_v", "The unit's supply bears", Quantity::voltage, 0, 400, "Label of the unit", "not known"}, w.bears_v);
    v.boolean({"plug", "The unit hangs on a plug", "Fixed wiring is expected"}, w.plug);
    static constexpr std::array feeds{"mains", "panel", "battery", "load-output", "panel-and-mains"};
    v.choice("unit_feed", feeds, w.unit_feed);
}

template <class V, OneOf<RockBed> T>
void fields(V& v, T& r)
{
    v.number({"volume_m3", "Bed", Quantity::space, 0, 1000, "0.15 to 0.35 m³ per m² of air collector (Duffie & Beckman, ch. 13; from memory)", "none"}, r.volume_m3);
    v.number({"voids", "Voids", Quantity::ratio, 0.2, 0.7, "Rocks of one size", "", {0.35, 0.5}}, r.voids);
    v.number({"loss_w_k", "Standing loss", Quantity::conductance, 0, 200, ""}, r.loss_w_k);
}

template <class V, OneOf<LoopAnswers> T>
void fields(V& v, T& a)
{
    v.choice("array", answer_keys("array"), a.array);
    v.choice("fields", answer_keys("fields"), a.fields);
    v.choice("carrier", answer_keys("carrier"), a.carrier);
    v.choice("empties", answer_keys("empties"), a.empties);
    v.choice("transfer", answer_keys("transfer"), a.transfer);
    v.choice("exchanger_pumps", answer_keys("exchanger_pumps"), a.exchanger_pumps);
    v.choice("store", answer_keys("store"), a.store);
    v.choice("power", answer_keys("power"), a.power);
    v.choice("excess", answer_keys("excess"), a.excess);
    v.choice("backup", answer_keys("backup"), a.backup);
    v.choice("circulation", answer_keys("circulation"), a.circulation);
}

template <class T>
concept SomeStateValves = OneOf<T, StateValves> || OneOf<T, FillValves>;
template <class V, SomeStateValves T>
void fields(V& v, T& s)
{
    static constexpr std::array stands{"usual", "open", "shut"}, lifted{"usual", "seated", "lifted"};
    for (std::size_t i = 0; i < hand_valves; ++i) {
        const auto valve = static_cast<HandValve>(i);
        if constexpr (OneOf<T, FillValves>) {
            if (is_relief(valve))
                v.spare_choice(valve_keys[i], lifted, s.relief[i]);
        }
        if (!is_relief(valve))
            v.spare_choice(valve_keys[i], stands, s.set[i]);
    }
}

template <class V, OneOf<FittedValves> T>
void fields(V& v, T& s)
{
    static constexpr std::array has{"yes", "no"};
    for (std::size_t i = 0; i < hand_valves; ++i)
        if (!is_relief(static_cast<HandValve>(i))) // a loop that needs one has it
            v.spare_choice(valve_keys[i], has, s.has[i]);
}

template <class V, OneOf<HandValves> T>
void fields(V& v, T& x)
{
    v.spare_object("run", x.run);
    v.spare_object("fill", x.fill);
    v.spare_object("flush", x.flush);
    v.spare_object("backup_only", x.backup_only);
    v.spare_object("drained", x.drained);
    v.spare_object("winter", x.winter);
    v.spare_object("fitted", x.fitted);
}

template <class V, OneOf<Loop> T>
void fields(V& v, T& l)
{
    v.object("answers", l.answers);
    v.object("collector", l.collector);
    v.object("supply", l.supply);
    v.object("return", l.back);
    v.object("tank", l.tank);
    v.object("pump", l.pump);
    v.spare_object("collector_2", l.collector_2);
    v.spare_object("supply_2", l.supply_2);
    v.spare_object("return_2", l.back_2);
    v.spare_object("tank_2", l.tank_2);
    v.spare_object("pump_2", l.pump_2);
    v.spare_object("exchanger_pump", l.exchanger_pump);
    v.spare_object("exchanger", l.exchanger);
    v.spare_object("pool", l.pool);
    v.spare_object("slab", l.slab);
    v.spare_object("room", l.room);
    v.spare_object("cooler", l.cooler);
    v.spare_object("heater", l.heater);
    v.spare_object("circulation", l.circulation);
    v.spare_object("reservoir", l.reservoir);
    v.spare_object("drain_back", l.drain_back);
    v.spare_object("panel", l.panel);
    v.spare_object("motor", l.motor);
    v.spare_object("battery", l.battery);
    v.spare_object("element", l.element);
    v.spare_object("vessel", l.vessel);
    v.spare_object("check_valve", l.check_valve);
    v.spare_object("wiring", l.wiring);
    v.spare_object("rock_bed", l.rock_bed);
    v.spare_object("valves", l.valves);
    v.number({"glycol_fraction", "Glycol, by mass", Quantity::ratio, 0, 0.6, "As the refractometer or the maker's table says"}, l.glycol_fraction);
}

} // namespace vernal
