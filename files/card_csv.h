// The settings card as a table.
#pragma once

#include "core/wording/settings_card.h"

namespace vernal {

// With a heading; the last two columns, for the unit's own code and for what was found, are empty.
std::string card_csv(const std::vector<CardRow>& rows);

} // namespace vernal
