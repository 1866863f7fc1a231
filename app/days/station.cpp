#include "station.h"

#include "days_station.h"

namespace vernal {

QWidget* make_days_station(const StationContext& c)
{
    auto* station = new DaysStation(c.session);
    QObject::connect(station, &DaysStation::import_wanted, station, [station, c] {
        station->import_files(c.dialogs.open_logs(station));
    });
    return station;
}

} // namespace vernal
