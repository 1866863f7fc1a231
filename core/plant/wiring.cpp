#include "wiring.h"

#include "core/units/copper.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace vernal {
namespace {

constexpr double wire_c = 40.0;
constexpr double carried_share = 1.25; // of the working current, for what runs for hours
constexpr std::array ratings_a{1.0, 2.0, 3.0, 4.0, 5.0, 6.0, 7.5, 10.0, 13.0, 15.0, 16.0, 20.0, 25.0, 32.0, 40.0, 50.0, 63.0};

} // namespace

double cable_ohm(const Wiring& w) { return 2 * w.cable_m * copper_ohm_m(w.section_m2, Strands::fine, wire_c); }

double cable_bears_a(double section_m2) { return 15.0 * std::pow(section_m2 * 1e6, 0.625); }

double cable_derating(double around_c, double insulation_c) { return std::sqrt(std::max(0.0, insulation_c - around_c) / (insulation_c - 30)); }

std::size_t dc_motors(const Loop& l)
{
    const Arrangement& a = arrangement_of(l);
    std::size_t n = 0;
    for (const Part pump : {Part::pump, Part::pump_2, Part::exchanger_pump})
        n += a.has(Part::motor) && a.has(pump) ? 1 : 0;
    return n;
}

std::size_t dc_motors_on_an_output(const Loop& l)
{
    const Arrangement& a = arrangement_of(l);
    return a.has(Part::exchanger_pump) && a.output_of(Driver::exchanger_pump) < 0 ? std::min<std::size_t>(2, dc_motors(l)) : std::min<std::size_t>(1, dc_motors(l));
}

MotorCurrents motor_currents(const Loop& l, std::size_t motors)
{
    const Arrangement& a = arrangement_of(l);
    const auto n = static_cast<double>(std::max<std::size_t>(1, motors));
    MotorCurrents c{n * l.motor.current_a, n * l.motor.label_a, 0};
    const double line = l.motor.resistance_ohm / n + cable_ohm(l.wiring);
    c.stalled_a = a.has(Part::battery) ? l.battery.full_v / (line + l.battery.resistance_ohm) : std::min(l.panel.isc_a, l.panel.voc_v / line);
    return c;
}

double starting_dip_v(const Loop& l, double rest_v, std::size_t motors)
{
    const double around = l.motor.resistance_ohm / static_cast<double>(std::max<std::size_t>(1, motors)) + cable_ohm(l.wiring) + l.battery.resistance_ohm;
    return rest_v * (1 - l.battery.resistance_ohm / around);
}

double breaker_for(const Loop& l, double around_c)
{
    const double most = std::min(l.wiring.output_a, cable_bears_a(l.wiring.section_m2) * cable_derating(around_c));
    const double least = arrangement_of(l).has(Part::motor) ? carried_share * motor_currents(l, dc_motors(l)).working_a : 0.0;
    double best = 0;
    for (double a : ratings_a)
        if (a <= most && a >= least)
            best = a;
    return best;
}

} // namespace vernal
