// Sentences in the reader's units; the figures are worked out by hand from the definitions.
#include "core/units/in_units.h"

#include <gtest/gtest.h>

namespace vernal {
namespace {

TEST(InUnits, numbers_of_a_sentence_are_in_the_readers_units)
{
    const Units us = Units::us();
    for (const auto& [si, shown] : {std::pair{"tempered to 49 °C or less", "tempered to 120 °F or less"}, {"Store at 60 °C or heat there", "Store at 140 °F or heat there"}, {"−11 °C at night", "12 °F at night"}, {"some 10 to 20 K above", "some 18 to 36 °F above"},
             {"8.0 ± 0.3 K", "14.4 ± 0.5 °F"}, {"60 ± 2 °C", "140 ± 4 °F"}, {"return pipe, 3.6 m from the collector", "return pipe, 11.8 ft from the collector"}, {"1.8 bar cold", "26 psi cold"}, {"8 L/min", "2.1 gal/min"}, {"12 L", "3.2 gal"},
             {"1000 W/m² and 30 °C air", "1000 W/m² and 86 °F air"}, {"0.5 K/min", "0.5 K/min"}, {"3 kWh, 12 mm, 4 m², 5 min, 20 kPa", "3 kWh, 12 mm, 4 m², 5 min, 20 kPa"}, {"K2 and Model 5 m", "K2 and Model 16 ft"}})
        EXPECT_EQ(in_units(si, us), shown);
    EXPECT_EQ(in_units("49 °C", Units::metric()), "49 °C");
    EXPECT_EQ(in_units("", us), "");
}

} // namespace
} // namespace vernal
