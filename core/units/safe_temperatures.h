// Temperatures that people and materials bear, stated once.
#pragma once

namespace vernal {

inline constexpr double legionella_c = 60.0;       // a store kept at it; WHO, Legionella and the prevention of legionellosis (2007)
inline constexpr double tempered_c = 49.0;         // 120 °F at a tap people use (US CPSC, from memory)
inline constexpr double collector_steam_c = 110.0; // of a pressurised loop: hotter than its fluid is handled (estimate)
inline constexpr double open_steam_c = 100.0;      // water boils at the pressure of the air at sea level

} // namespace vernal
