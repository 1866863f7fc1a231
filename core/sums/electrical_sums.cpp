#include "shared.h"

#include "core/plant/wiring.h"

namespace vernal {

using namespace sums;

namespace {

constexpr std::array sections_m2{0.5e-6, 0.75e-6, 1e-6, 1.5e-6, 2.5e-6, 4e-6, 6e-6, 10e-6, 16e-6, 25e-6, 35e-6};

// Smallest copper that may be laid: fixed wiring for power, IEC 60364-5-52, table 52.2; flexible and
// for extra-low voltage the same table's special applications (both from memory).
constexpr double least_fixed_m2 = 1.5e-6, least_low_voltage_m2 = 0.75e-6, low_voltage_v = 50;

SumInput around_the_cable()
{
    return {{"around_c", "Air at its warmest place", Q::temperature, -20, 85, "30 °C is what the tables are for; on a roof in the sun up to 70 °C (estimate)"}, [](C) { return 30.0; }};
}

// x: cable, current, voltage, allowed drop, air around it, what its insulation bears.
SumResult wire(X x, C c)
{
    const double least = x[2] > low_voltage_v ? least_fixed_m2 : least_low_voltage_m2, derating = cable_derating(x[4], x[5]);
    for (double section : sections_m2) {
        if (section < least)
            continue;
        Wiring w = c.loop().wiring;
        w.cable_m = x[0];
        w.section_m2 = section;
        const double drop = x[1] * cable_ohm(w);
        if (drop <= x[3] * x[2] && cable_bears_a(section) * derating >= x[1])
            return {line("2 × ", show(w.cable_m, Q::length, c), " of ", show(section, Q::wire, c), ", warm: ", show(cable_ohm(w), Q::resistance, c), "\n× ", show(x[1], Q::current, c), " = ", show(drop, Q::voltage, c), ", ", show(drop / x[2], Q::ratio, c), " of ", show(x[2], Q::voltage, c),
                        "\nat ", show(x[4], Q::temperature, c), " it bears ", show(cable_bears_a(section) * derating, Q::current, c), "; at least ", show(least, Q::wire, c), ". Local codes decide"),
                section};
    }
    return {derating > 0 ? "No usual section is enough: shorten the cable, raise the voltage, or lay it cooler." : "This insulation bears no load there: one that bears more, or a cooler way.", NAN};
}

SumResult breaker(X x, C c)
{
    const Wiring& w = c.loop().wiring;
    const double best = breaker_for(c.loop(), x[0]);
    const bool dc = arrangement_of(c.loop()).has(Part::motor);
    const MotorCurrents m = motor_currents(c.loop(), dc_motors(c.loop()));
    return {line("the unit bears ", show(w.output_a, Q::current, c), ", the cable at ", show(x[0], Q::temperature, c), " ", show(cable_bears_a(w.section_m2) * cable_derating(x[0]), Q::current, c), dc ? line(dc_motors(c.loop()) > 1 ? "\nthe motors take " : "\nthe motor takes ", show(m.working_a, Q::current, c), " at work, ", show(m.stalled_a, Q::current, c), " held fast") : "",
                best > 0 ? line("\nthe largest that protects the weakest: ", show(best, Q::current, c)) : "\nno breaker protects the weakest and carries the pump"),
        best > 0 ? best : NAN};
}

SumInput other_load()
{
    return {{"other_w", "The unit and what else hangs on it", Q::power, 0, 500, "Day and night; meter at the battery with the pump off"}, [](C c) { return c.loop().battery.other_load_w; }};
}

double working_a(C c) { return motor_currents(c.loop(), dc_motors(c.loop())).working_a; } // of all pumps that hang there

double mains_or_dc(C c, double mains, double dc) { return arrangement_of(c.loop()).has(Part::motor) ? dc : mains; }

SumResult panel_size(X x, C c)
{
    const Panel& p = c.loop().panel;
    const double day_wh = x[0] * x[1] * x[2] + 24 * x[5], watt = day_wh / (x[3] * x[4]);
    return {line(show(x[0], Q::current, c), " × ", show(x[1], Q::voltage, c), " × ", show(x[2], Q::hours, c), "\n+ ", show(x[5], Q::power, c), " day and night = ", std::to_string(std::lround(day_wh)), " Wh a day\n/ (", show(x[3], Q::hours, c), " of full sun × ", show(x[4], Q::ratio, c), ") = ", show(watt, Q::power, c),
                "\nthe panel has ", show(p.imp_a * p.vmp_v, Q::power, c)),
        watt};
}

// Without a battery nothing is stored: the panel must give the pump's power at the sun it shall run by.
SumResult panel_alone(X x, C c)
{
    const Panel& p = c.loop().panel;
    const double watt = x[0] * x[1] / x[3] * 1000 / x[2];
    return {line(show(x[0], Q::current, c), " × ", show(x[1], Q::voltage, c), " = ", show(x[0] * x[1], Q::power, c), "\nat ", show(x[2], Q::irradiance, c), ", ", show(x[3], Q::ratio, c), " of it arriving: ", show(watt, Q::power, c), " at ", show(1000.0, Q::irradiance, c), "\nthe panel has ", show(p.imp_a * p.vmp_v, Q::power, c)),
        watt};
}

void write_panel(Loop& l, Part, X, double watt)
{
    const double more = watt / std::max(1e-6, l.panel.imp_a * l.panel.vmp_v);
    l.panel.imp_a *= more;
    l.panel.isc_a *= more;
    l.panel.isc_a_k *= more;
}

// P = U²/R at another voltage than its label's.
SumResult element_power(X x, C c)
{
    const Wiring& w = c.loop().wiring;
    const double watt = x[0] * (x[2] / x[1]) * (x[2] / x[1]), amp = watt / x[2], bears = cable_bears_a(w.section_m2);
    std::string text = line(show(x[0], Q::power, c), " × (", show(x[2], Q::voltage, c), " / ", show(x[1], Q::voltage, c), ")² = ", show(watt, Q::power, c), "\n/ ", show(x[2], Q::voltage, c), " = ", show(amp, Q::current, c));
    const auto against = [&](const char* what, double bears_a) {
        text += line("\n", what, " ", show(bears_a, Q::current, c), amp <= bears_a ? ": enough" : ": too little, it wants a relay of its own on its own circuit");
    };
    against("the unit's output bears", w.output_a);
    against("the wire", bears);
    against("the breaker holds up to", w.breaker_a);
    return {text, watt};
}

SumResult battery_size(X x, C c)
{
    const double other_ah = 24 * x[4] / c.loop().battery.full_v, day_ah = x[0] * x[1] + other_ah, capacity = day_ah * x[2] / x[3];
    return {line(show(x[0], Q::current, c), " × ", show(x[1], Q::hours, c), " + ", show(x[4], Q::power, c), " day and night = ", show(day_ah, Q::charge, c), " a day\n× ", show(x[2], Q::number, c), " days / ", show(x[3], Q::ratio, c), " that may be used = ", show(capacity, Q::charge, c)), capacity};
}

} // namespace

std::vector<FieldSum> electrical_sums()
{
    using P = Part;
    return {
        {"wire", {P::wiring}, "Wire for a run of cable", "IEC 60228 class 5, IEC 60364-5-52 annex D (from memory)", {{{"cable_m", "Cable, one way", Q::length, 0.1, 300, ""}, [](C c) { return c.loop().wiring.cable_m; }}, {{"current_a", "Current", Q::current, 0.05, 100, ""}, [](C c) { return mains_or_dc(c, std::max(0.05, c.loop().pump.power_w / 230), working_a(c)); }}, {{"volt_v", "Voltage", Q::voltage, 5, 400, ""}, [](C c) { return mains_or_dc(c, 230, c.loop().motor.volt_v); }}, {{"drop", "Allowed drop", Q::ratio, 0.005, 0.2, "3 to 5 % (IEC 60364-5-52 annex G, from memory)"}, [](C) { return 0.03; }}, around_the_cable(), {{"insulation_c", "Its insulation bears", Q::temperature, 60, 200, "PVC 70 °C, cross-linked 90 °C (IEC 60364-5-52)"}, [](C) { return 70.0; }}}, wire, "Take this wire", [](Loop& l, P, X x, double v) {
             l.wiring.cable_m = x[0];
             l.wiring.section_m2 = v;
         }},
        {"breaker", {P::wiring}, "Breaker for the weakest part", "IEC 60364-4-43: rating at most what is behind it (from memory)", {around_the_cable()}, breaker, "Take this breaker", [](Loop& l, P, X, double v) { l.wiring.breaker_a = v; }},
        {"panel", {P::panel}, "Panel for the pump", "energy of a day; sun and yield are estimates", {{{"current_a", "Pump's current", Q::current, 0.02, 100, "At its working point, not the label's"}, working_a}, {{"volt_v", "Pump's voltage", Q::voltage, 1, 200, ""}, [](C c) { return c.loop().motor.volt_v; }}, {{"hours", "Runs a day", Q::hours, 0.5, 24, ""}, [](C) { return 6.0; }}, {{"sun_h", "Hours of full sun", Q::hours, 0.5, 10, "2 in winter, 5 in summer"}, [](C) { return 3.0; }}, {{"yield", "Of it arrives", Q::ratio, 0.2, 1, "Heat, dust, cable, charging: 65 to 80 %"}, [](C) { return 0.7; }}, other_load()}, panel_size, "Take a panel of this power", write_panel, [](const Arrangement& a) { return a.has(P::battery); }},
        {"panel_alone", {P::panel}, "Panel without a battery", "power at the sun it shall run by; yield is an estimate", {{{"current_a", "Pump's current", Q::current, 0.02, 100, "At its working point, not the label's"}, working_a}, {{"volt_v", "Pump's voltage", Q::voltage, 1, 200, ""}, [](C c) { return c.loop().motor.volt_v; }}, {{"sun_w_m2", "At a sun of", Q::irradiance, 100, 1300, "On the panel, from which the pump shall run as stated"}, [](C) { return 500.0; }}, {{"yield", "Of it arrives", Q::ratio, 0.2, 1, "Heat, dust, cable: 75 to 90 %"}, [](C) { return 0.8; }}}, panel_alone, "Take a panel of this power", write_panel, [](const Arrangement& a) { return !a.has(P::battery); }},
        {"element_power", {P::element}, "Element on another voltage", "P = U²/R; mains: isolate and prove dead", {{{"label_w", "Power on its label", Q::power, 10, 20000, ""}, [](C c) { return c.loop().element.power_w; }}, {{"label_v", "at a voltage of", Q::voltage, 5, 480, "On its label"}, [](C) { return 230.0; }}, {{"supply_v", "It hangs on", Q::voltage, 5, 480, "Half the voltage is a quarter of the power"}, [](C) { return 230.0; }}}, element_power, "Take this power", [](Loop& l, P, X, double v) { l.element.power_w = v; }},
        {"battery", {P::battery}, "Battery for dark days", "charge of a day; days and share are estimates", {{{"current_a", "Mean current while it runs", Q::current, 0.02, 100, ""}, working_a}, {{"hours", "Runs a day", Q::hours, 0.1, 24, ""}, [](C) { return 5.0; }}, {{"days", "Dark days", Q::number, 0.5, 14, "2 to 5"}, [](C) { return 3.0; }}, {{"usable", "Of it may be used", Q::ratio, 0.2, 1, "Half, for a lead-acid battery that shall last"}, [](C) { return 0.5; }}, other_load()}, battery_size, "Take this battery", [](Loop& l, P, X, double v) { l.battery.capacity_ah = v; }},
    };
}

} // namespace vernal
