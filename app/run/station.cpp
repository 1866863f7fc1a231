#include "station.h"

#include "run_station.h"

namespace vernal {

QWidget* make_run_station(const StationContext& c) { return new RunStation(c.session); }

} // namespace vernal
