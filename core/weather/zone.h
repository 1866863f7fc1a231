// What a clock on a wall shows: zones of the world and their daylight-saving.
#pragma once

#include "sun.h"

namespace vernal {

// Whether the system's zone table (IANA) has this name, "Europe/Oslo". Without a table: false.
bool zone_known(const std::string& zone);

// Local clock minus UTC, hours, as it stands at noon of a day; the night on which clocks
// are changed counts with the day that follows. Without a zone, or with one that the table
// lacks, the place's own offset.
double clock_ahead_h(const Place& place, int year, int month, int day);

} // namespace vernal
