// Fields of probes, leads, curves and the unit's input.
#pragma once

#include "core/probe/identify.h"
#include "job.h"

#include <array>

namespace vernal {

template <class V, OneOf<Tolerance> T>
void fields(V& v, T& t)
{
    static constexpr std::array kinds{"none", "class AA", "class A", "class B", "class C", "percent", "kelvin"};
    v.choice("kind", kinds, t.kind);
    v.number({"r_share", "of R at 25 °C", Quantity::fine_ratio, 0, 0.5, "Label; 1 to 5 % of thermistors"}, t.r_share);
    v.number({"b_share", "of beta", Quantity::fine_ratio, 0, 0.2, "Label; 0.5 to 3 %"}, t.b_share);
    v.number({"kelvin", "in kelvin, everywhere", Quantity::small_difference, 0, 20, "Label of a transmitter"}, t.kelvin);
}

template <class V, OneOf<NamedCurve> T>
void fields(V& v, T& c)
{
    v.text("key", c.key);
    v.text("name", c.name);
    v.text("origin", c.origin);
    v.curve("curve", c.curve);
    v.object("tolerance", c.tolerance);
    v.number({"dissipation_w_k", "Heat it gives off", Quantity::dissipation, 0, 0.2, ""}, c.dissipation_w_k);
}

template <class V, OneOf<Sensor> T>
void fields(V& v, T& e)
{
    v.object("tolerance", e.tolerance);
    v.number({"share", "Lies in its tolerance at", Quantity::ratio, -1, 1, "−100 % reads lowest, 100 % highest: try both on the strip"}, e.share);
    v.number({"dissipation_w_k", "Heat it gives off", Quantity::dissipation, 0, 0.2, "Data sheet; a bead 1 to 2 mW/K in still air, 5 to 10 in a pocket (estimate)", "not stated"}, e.dissipation_w_k);
    v.number({"rated_c", "It bears up to", Quantity::temperature, 0, 600, "Data sheet", "not stated"}, e.rated_c);
}

template <class V, OneOf<Lead> T>
void fields(V& v, T& l)
{
    v.number({"length_m", "Lead, one way", Quantity::length, 0, 2000, "As it runs, not as the crow flies", "not stated"}, l.length_m);
    v.number({"section_m2", "Wire", Quantity::wire, 2e-8, 1e-5, "0.25 to 1.5 mm² (estimate), shielded"}, l.section_m2);
    static constexpr std::array strands{"drawn", "solid", "fine"};
    v.choice("strands", strands, l.strands);
    v.boolean({"three_wire", "Three wires", "The unit measures the third and takes it off; both ends must be made for it"}, l.three_wire);
    v.number({"temp_c", "The wire's temperature", Quantity::temperature, -60, 150, ""}, l.temp_c);
    v.number({"leak_ohm", "Moisture between the wires", Quantity::resistance, 0, 1e9, "A wet joint has 10 kΩ to 1 MΩ (estimate)", "dry"}, l.leak_ohm);
    v.number({"cable_c", "The cable bears up to", Quantity::temperature, 0, 400, "Printed on it: PVC 70 °C (IEC 60227), silicone 180 °C (IEC 60245; both from memory)", "not stated"}, l.cable_c);
}

template <class V, OneOf<Condition> T>
void fields(V& v, T& c)
{
    static constexpr std::array kinds{"sound", "open", "shorted", "stuck", "drifted", "in sun", "swapped"};
    v.choice("kind", kinds, c.kind);
    v.number({"stuck_c", "Stuck at", Quantity::temperature, -60, 350, "Also a fixed resistor in place of a probe"}, c.stuck_c);
    v.number({"drift_share", "Drifted by, of its ohms", Quantity::fine_ratio, -0.9, 9, ""}, c.drift_share);
    v.number({"sun_k", "Warmed by full sun", Quantity::difference, 0, 80, "10 to 30 K on a bare pipe clamp (estimate)"}, c.sun_k);
}

template <class V, OneOf<CurvePoint> T>
void fields(V& v, T& p)
{
    v.number({"temp_c", "Temperature", Quantity::temperature, -200, 850, ""}, p.temp_c);
    v.number({"ohm", "Resistance", Quantity::resistance, 1e-6, 1e9, "Disconnected from the unit"}, p.ohm);
}

template <class V, OneOf<ReadBy> T>
void fields(V& v, T& r)
{
    v.boolean({"other", "The unit reads it by another curve"}, r.other);
    v.curve("curve", r.curve);
}

template <class V, OneOf<InputStage> T>
void fields(V& v, T& s)
{
    static constexpr std::array kinds{"exact", "pull-up", "bridge"};
    v.choice("kind", kinds, s.kind);
    v.number({"supply_v", "Supply", Quantity::signal_voltage, 0.5, 48, "3.3 or 5 V"}, s.supply_v);
    v.number({"pull_up_ohm", "Pull-up", Quantity::resistance, 1, 1e7, "Measure it with the supply off and the probe disconnected"}, s.pull_up_ohm);
    v.number({"gain", "Gain about half the supply", Quantity::number, 0.1, 100, "1: none"}, s.gain);
    v.integer("bits", 6, 16, s.bits);
    v.number({"low_c", "A fault below", Quantity::temperature, -200, 40, "What the unit takes for an open or shorted probe"}, s.low_c);
    v.number({"high_c", "A fault above", Quantity::temperature, 60, 850, "Above what the loop can reach, or a stagnating collector counts as a fault"}, s.high_c);
    v.number({"mismatch_k", "Two inputs differ by up to", Quantity::small_difference, 0, 10, "One probe on both inputs in turn"}, s.mismatch_k);
    v.number({"scale_at_c", "Bridge: scale right at a store of", Quantity::temperature, 0, 120, ""}, s.scale_at_c);
}

template <class V, OneOf<Knob> T>
void fields(V& v, T& k)
{
    v.number({"first", "First mark of the scale", Quantity::number, -1000, 1000, ""}, k.first);
    v.number({"last", "Last mark", Quantity::number, -1000, 1000, ""}, k.last);
    v.difference({"on_first_k", "Starts at, first mark", Quantity::difference, -20, 60, "Measure or the unit's sheet"}, k.on_first);
    v.difference({"off_first_k", "Stops at, first mark", Quantity::difference, -20, 60, ""}, k.off_first);
    v.difference({"on_last_k", "Starts at, last mark", Quantity::difference, -20, 60, ""}, k.on_last);
    v.difference({"off_last_k", "Stops at, last mark", Quantity::difference, -20, 60, ""}, k.off_last);
    static constexpr std::array laws{"even", "growing"};
    v.choice("law", laws, k.law);
}

template <class V, OneOf<Instrument> T>
void fields(V& v, T& t)
{
    v.number({"full_m3_s", "Scale ends at", Quantity::flow, 0, 2, "Data sheet", "not stated"}, t.full_m3_s);
    v.number({"full_pa", "Scale ends at", Quantity::pressure, 0, 2.5e6, "Printed on it", "not stated"}, t.full_pa);
    v.number({"full_w_m2", "Scale ends at", Quantity::irradiance, 0, 3000, "Data sheet", "not stated"}, t.full_w_m2);
    v.number({"least_m3_s", "Reads nothing below", Quantity::flow, 0, 0.1, "Data sheet: the least flow that turns it"}, t.least_m3_s);
    v.number({"error_share", "Reads too much by", Quantity::fine_ratio, -0.9, 9, "Against bucket and watch, a gauge that is right, another instrument in the same plane"}, t.error_share);
    v.number({"stuck_share", "Stuck at, of its scale", Quantity::ratio, 0, 1, "Only while its condition says that it is stuck"}, t.stuck_share);
}

template <class V, OneOf<Probe> T>
void fields(V& v, T& p)
{
    v.id("id", p.id);
    v.text("key", p.key);
    v.text("name", p.name);
    v.choice("place", place_keys, p.place);
    v.curve("curve", p.curve);
    v.number({"lag_s", "Lag", Quantity::duration, 0.1, 600, "10 to 30 s in a pocket with paste (estimate)"}, p.lag_s);
    v.number({"placement", "Share of surroundings", Quantity::ratio, 0, 1, "0 in a pocket; 10 to 30 % strapped on bare (estimate)"}, p.placement);
    v.difference({"correction_k", "Correction", Quantity::small_difference, -20, 20, "As found side by side with a probe that is right"}, p.correction);
    v.spare_object("sensor", p.sensor);
    v.spare_object("lead", p.lead);
    v.spare_object("condition", p.condition);
    v.spare_object("read_by", p.read_by);
    v.spare_list("points", p.points);
    v.spare_object("instrument", p.instrument);
}

} // namespace vernal
