// Sentences that were written in SI, read in the units that a person has chosen.
#pragma once

#include "quantity.h"

#include <string>

namespace vernal {

// Each number with °C, K, m, bar, L or L/min behind it, also of "3 to 4 K" and "3 ± 0.2 K", in its
// place the same in `u`. With °C what stands behind "±" is a difference. As many decimals as
// were written; of gallons one more, of psi one fewer. Else the text as it is.
std::string in_units(const std::string& text, const Units& u);

} // namespace vernal
