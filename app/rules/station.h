#pragma once

#include "app/shell/station.h"

namespace vernal {

QWidget* make_rules_station(const StationContext& context);

} // namespace vernal
