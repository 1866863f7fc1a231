// What an input of the unit reads: most a temperature, an instrument a flow, a pressure or
// the sun. The engine compares thousandths of °C, L/min, bar and W/m².
#pragma once

#include "quantity.h"

#include <array>
#include <cstdint>
#include <optional>
#include <string_view>

namespace vernal {

enum class Reads : std::uint8_t { temperature,
    flow,
    pressure, // above the air's
    irradiance };

inline constexpr std::array what_is_read{"a temperature", "a flow", "a pressure", "the sun"};
inline const char* name_of(Reads r) { return what_is_read[static_cast<std::size_t>(r)]; }

inline Quantity quantity_of(Reads r)
{
    constexpr std::array quantities{Quantity::temperature, Quantity::flow, Quantity::pressure, Quantity::irradiance};
    return quantities[static_cast<std::size_t>(r)];
}

// Of what is 1 where readings are told (°C, L/min, bar, W/m²): in the inside unit.
inline double inside_per_reading(Reads r)
{
    constexpr std::array inside{1.0, 1e-3 / 60, 1e5, 1.0};
    return inside[static_cast<std::size_t>(r)];
}

// Readings for a 1 of a log's column; without a unit it is in the reading's own. Nothing:
// it holds something else.
inline std::optional<double> readings_per(Reads reads, Quantity column, std::string_view unit)
{
    if (reads == Reads::irradiance || reads == Reads::temperature)
        return column == quantity_of(reads) || (column == Quantity::number && unit.empty()) ? std::optional(1.0) : std::nullopt;
    struct Known {
        Reads reads;
        const char* unit;
        double readings;
    };
    constexpr double us_gallon = 3.785411784, psi_bar = 0.0689475729; // L, bar
    constexpr std::array known{Known{Reads::flow, "L/min", 1}, Known{Reads::flow, "l/min", 1}, Known{Reads::flow, "L/h", 1.0 / 60}, Known{Reads::flow, "l/h", 1.0 / 60}, Known{Reads::flow, "m3/h", 1000.0 / 60}, Known{Reads::flow, "m³/h", 1000.0 / 60},
        Known{Reads::flow, "gpm", us_gallon}, Known{Reads::flow, "gal/min", us_gallon}, Known{Reads::pressure, "bar", 1}, Known{Reads::pressure, "mbar", 1e-3}, Known{Reads::pressure, "Pa", 1e-5}, Known{Reads::pressure, "kPa", 1e-2}, Known{Reads::pressure, "psi", psi_bar}};
    if (column != Quantity::number)
        return std::nullopt;
    if (unit.empty() || unit == "1")
        return 1.0;
    for (const Known& k : known)
        if (k.reads == reads && unit == k.unit)
            return k.readings;
    return std::nullopt;
}

} // namespace vernal
