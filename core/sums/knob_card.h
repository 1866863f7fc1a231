// The settings card with what a single knob really switches at, which no figure on the unit says.
#pragma once

#include "core/wording/settings_card.h"

namespace vernal {

// settings_card(), and behind each rule that the knob sets its real pair with the store cool and with it
// warm: a unit that compares voltages has another pair at each.
std::vector<CardRow> whole_card(const Variant& v, const Units& units);

} // namespace vernal
