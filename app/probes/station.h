#pragma once

#include "app/shell/station.h"

namespace vernal {

QWidget* make_probes_station(const StationContext& context);

} // namespace vernal
