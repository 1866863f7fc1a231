#include "zone.h"

#include <date/tz.h>

#include <stdexcept>

namespace vernal {
namespace {

const date::time_zone* zone_of(const std::string& name)
try {
    return name.empty() ? nullptr : date::locate_zone(name);
} catch (const std::runtime_error&) { // no such zone, or no table
    return nullptr;
}

} // namespace

bool zone_known(const std::string& zone) { return zone_of(zone) != nullptr; }

double clock_ahead_h(const Place& place, int year, int month, int day)
{
    const date::time_zone* zone = zone_of(place.zone);
    if (!zone)
        return place.utc_offset_h;
    const auto noon = date::local_days{date::year{year} / month / day} + std::chrono::hours{12};
    date::sys_info info = zone->get_info(noon).first;
    // The system's table says whether a clock is put forward, not by how much: the time before it was.
    if (!place.daylight_saving && info.save != std::chrono::minutes{0})
        info = zone->get_info(info.begin - std::chrono::seconds{1});
    return std::chrono::duration<double, std::ratio<3600>>(info.offset).count();
}

} // namespace vernal
