#pragma once

#include "app/shell/station.h"

namespace vernal {

QWidget* make_visits_station(const StationContext& context);

} // namespace vernal
