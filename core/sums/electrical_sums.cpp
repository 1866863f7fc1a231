#include "shared.h"

#include "core/plant/wiring.h"

namespace vernal {

using namespace sums;

namespace {

constexpr std::array sections_m2{0.5e-6, 0.75e-6, 1e-6, 1.5e-6, 2.5e-6, 4e-6, 6e-6, 10e-6, 16e-6, 25e-6, 35e-6};

// x: cable, current, voltage, allowed drop.
SumResult wire(X x, C c)
{
    for (double section : sections_m2) {
        Wiring w = c.loop().wiring;
        w.cable_m = x[0];
        w.section_m2 = section;
        const double drop = x[1] * cable_ohm(w);
        if (drop <= x[3] * x[2] && cable_bears_a(section) >= x[1])
            return {line("2 × ", show(w.cable_m, Q::length, c), " of ", show(section, Q::wire, c), ", warm: ", show(cable_ohm(w), Q::resistance, c), "\n× ", show(x[1], Q::current, c), " = ", show(drop, Q::voltage, c), ", ", show(drop / x[2], Q::ratio, c), " of ", show(x[2], Q::voltage, c),
                        "\nit bears ", show(cable_bears_a(section), Q::current, c)),
                section};
    }
    return {"No usual section is enough: shorten the cable, or raise the voltage.", NAN};
}

SumResult breaker(X, C c)
{
    const Wiring& w = c.loop().wiring;
    const double best = breaker_for(c.loop());
    const bool dc = arrangement_of(c.loop()).has(Part::motor);
    const MotorCurrents m = motor_currents(c.loop());
    return {line("the unit bears ", show(w.output_a, Q::current, c), ", the cable ", show(cable_bears_a(w.section_m2), Q::current, c), dc ? line("\nthe motor takes ", show(m.working_a, Q::current, c), " at work, ", show(m.stalled_a, Q::current, c), " held fast") : "",
                best > 0 ? line("\nthe largest that protects the weakest: ", show(best, Q::current, c)) : "\nno breaker protects the weakest and carries the pump"),
        best > 0 ? best : NAN};
}

double mains_or_dc(C c, double mains, double dc) { return arrangement_of(c.loop()).has(Part::motor) ? dc : mains; }

SumResult panel_size(X x, C c)
{
    const Panel& p = c.loop().panel;
    const double day_wh = x[0] * x[1] * x[2], watt = day_wh / (x[3] * x[4]);
    return {line(show(x[0], Q::current, c), " × ", show(x[1], Q::voltage, c), " × ", show(x[2], Q::hours, c), " = ", std::to_string(std::lround(day_wh)), " Wh a day\n/ (", show(x[3], Q::hours, c), " of full sun × ", show(x[4], Q::ratio, c), ") = ", show(watt, Q::power, c),
                "\nthe panel has ", show(p.imp_a * p.vmp_v, Q::power, c)),
        watt};
}

SumResult battery_size(X x, C c)
{
    const double day_ah = x[0] * x[1], capacity = day_ah * x[2] / x[3];
    return {line(show(x[0], Q::current, c), " × ", show(x[1], Q::hours, c), " = ", show(day_ah, Q::charge, c), " a day\n× ", show(x[2], Q::number, c), " days / ", show(x[3], Q::ratio, c), " that may be used = ", show(capacity, Q::charge, c)), capacity};
}

} // namespace

std::vector<FieldSum> electrical_sums()
{
    using P = Part;
    return {
        {"wire", {P::wiring}, "Wire for a run of cable", "IEC 60228 class 5, IEC 60364-5-52 annex D (from memory)", {{{"cable_m", "Cable, one way", Q::length, 0.1, 300, ""}, [](C c) { return c.loop().wiring.cable_m; }}, {{"current_a", "Current", Q::current, 0.05, 100, ""}, [](C c) { return mains_or_dc(c, std::max(0.05, c.loop().pump.power_w / 230), c.loop().motor.current_a); }}, {{"volt_v", "Voltage", Q::voltage, 5, 400, ""}, [](C c) { return mains_or_dc(c, 230, c.loop().motor.volt_v); }}, {{"drop", "Allowed drop", Q::ratio, 0.005, 0.2, "3 to 5 % (IEC 60364-5-52 annex G, from memory)"}, [](C) { return 0.03; }}}, wire, "Take this wire", [](Loop& l, P, X x, double v) {
             l.wiring.cable_m = x[0];
             l.wiring.section_m2 = v;
         }},
        {"breaker", {P::wiring}, "Breaker for the weakest part", "IEC 60364-4-43: rating at most what is behind it (from memory)", {}, breaker, "Take this breaker", [](Loop& l, P, X, double v) { l.wiring.breaker_a = v; }},
        {"panel", {P::panel}, "Panel for the pump", "energy of a day; sun and yield are estimates", {{{"current_a", "Pump's current", Q::current, 0.02, 100, "At its working point, not the label's"}, [](C c) { return c.loop().motor.current_a; }}, {{"volt_v", "Pump's voltage", Q::voltage, 1, 200, ""}, [](C c) { return c.loop().motor.volt_v; }}, {{"hours", "Runs a day", Q::hours, 0.5, 24, ""}, [](C) { return 6.0; }}, {{"sun_h", "Hours of full sun", Q::hours, 0.5, 10, "2 in winter, 5 in summer"}, [](C) { return 3.0; }}, {{"yield", "Of it arrives", Q::ratio, 0.2, 1, "Heat, dust, cable, charging: 65 to 80 %"}, [](C) { return 0.7; }}}, panel_size, "Take a panel of this power", [](Loop& l, P, X, double watt) {
             const double more = watt / std::max(1e-6, l.panel.imp_a * l.panel.vmp_v);
             l.panel.imp_a *= more;
             l.panel.isc_a *= more;
             l.panel.isc_a_k *= more;
         }},
        {"battery", {P::battery}, "Battery for dark days", "charge of a day; days and share are estimates", {{{"current_a", "Mean current while it runs", Q::current, 0.02, 100, ""}, [](C c) { return c.loop().motor.current_a; }}, {{"hours", "Runs a day", Q::hours, 0.1, 24, ""}, [](C) { return 5.0; }}, {{"days", "Dark days", Q::number, 0.5, 14, "2 to 5"}, [](C) { return 3.0; }}, {{"usable", "Of it may be used", Q::ratio, 0.2, 1, "Half, for a lead-acid battery that shall last"}, [](C) { return 0.5; }}}, battery_size, "Take this battery", [](Loop& l, P, X, double v) { l.battery.capacity_ah = v; }},
    };
}

} // namespace vernal
