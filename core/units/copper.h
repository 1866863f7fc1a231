// Resistance of copper wire.
#pragma once

#include <cstdint>

namespace vernal {

// How a conductor is made; it says which table its resistance is from.
//  drawn: by gauge, resistivity over section (ASTM B258 sizes, IACS copper)
//  solid: IEC 60228 classes 1 and 2, one wire or a few strands
//  fine:  IEC 60228 class 5, fine strands: 13 to 16 % above drawn copper
enum class Strands : std::uint8_t { drawn,
    solid,
    fine };

// One conductor, Ω/m, at a temperature of its own, °C. Between and below the
// sections of the tables by 1/section. section_m2 > 0.
double copper_ohm_m(double section_m2, Strands strands, double temp_c = 20.0);

// American wire gauge n and section, m²: d = 0.127 mm · 92^((36 − n)/39) (ASTM B258).
double awg_section_m2(double n);
double awg_of(double section_m2);

} // namespace vernal
