// Quantities as a person reads and types them: unit names, conversion, text.
#pragma once

#include "result.h"

#include <string>

namespace vernal {

enum class Quantity {
    number,           // no unit
    ratio,            // 0…1, shown as percent
    temperature,      // inside: °C
    difference,       // inside: K
    length,           // m
    bore,             // m, shown as mm or in
    area,             // m²
    volume,           // m³, shown as L or US gal
    flow,             // m³/s, shown as L/min or US gal/min
    power,            // W
    conductance,      // W/K
    energy,           // J of heat, shown as kWh or kBTU
    duration,         // s
    minutes,          // s, shown as minutes
    hours,            // h of the day
    angle,            // degrees
    irradiance,       // W/m²
    loss_linear,      // W/(m² K)
    loss_square,      // W/(m² K²)
    area_capacity,    // J/(m² K), shown as kJ
    line_loss,        // W/(m K)
    resistance,       // Ω
    altitude,         // m, never converted
    speed,            // m/s
    heat_capacity,    // J/K, shown as kJ/K
    large_volume,     // m³ of a pool, shown as m³ or US gal
    space,            // m³ of a room, shown as m³ or ft³
    voltage,          // V
    current,          // A
    charge,           // Ah
    small_power,      // W, with a decimal
    pressure,         // Pa, shown as bar or psi
    pressure_drop,    // Pa, shown as kPa or psi
    wire,             // m² of copper, shown as mm² or AWG
    roughness,        // m, shown as µm
    grams,            // kg, shown as g
    small_number,     // no unit, four decimals
    small_difference, // K, two decimals: errors
    signal_voltage,   // V, three decimals
    dissipation,      // W/K, shown as mW/K
    fine_ratio,       // shown as percent with a decimal
    time_of_day,      // h of the day, shown as 04:30
    days,             // d
    count,            // whole, no unit
    date,             // day of a year of 366, 1…366, shown as 1 Nov
    electricity,      // J, shown as kWh everywhere
    heat_rate,        // W of heat, shown as W or BTU/h
    irradiation,      // J/m², shown as kWh/m² or kBTU/ft²
    area_content      // m³/m², shown as L/m² or US gal/ft²
};

// What the person reads. Inside everything stays SI.
struct Units {
    bool fahrenheit = false;
    bool us_gallons = false; // of fluids; ounces
    bool feet = false;       // lengths, bores, areas, rooms, speeds
    bool psi = false;
    bool gauge = false; // of wire: AWG
    bool btu = false;   // energies, irradiance, losses and heat capacities
    static constexpr Units metric() { return {}; }
    static constexpr Units us() { return {true, true, true, true, true, true}; }
    bool operator==(const Units&) const = default;
};

// Display value of an inside value and back. Total functions on finite numbers.
double to_display(double inside, Quantity q, const Units& u);
double from_display(double shown, Quantity q, const Units& u);

// Unit text, "°C", "L/min"; empty for plain numbers.
std::string unit_name(Quantity q, const Units& u);

// Unit of an inside value, as keys of fields end in: "m3", "m3/s", "°C"; empty for plain numbers.
const char* inside_unit(Quantity q);

// Decimals that suit the quantity in these units, 0…4.
int decimals(Quantity q, const Units& u);

// "8.0 K": number with a true minus sign, space, unit. Energies have three
// figures or more, grouped by narrow spaces: "9.79 kWh", "12 345 kWh".
std::string to_text(double inside, Quantity q, const Units& u);

// Reads "8", "8.0 K", "14.4 °F", "8,5" in the quantity's shown unit, or in the
// unit written behind the number where it is one of the same quantity.
// Error: not a number, or a unit of another quantity.
Result<double> parse(const std::string& text, Quantity q, const Units& u);

// Day of a year of 366, so that a date has one number whatever the year.
int day_of_leap_year(int month, int day); // 1…366

// "07:46" for seconds since midnight, any day.
std::string clock_text(double seconds);

} // namespace vernal
