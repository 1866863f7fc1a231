#include "station.h"

#include "days_station.h"

namespace vernal {

QWidget* make_days_station(const StationContext& c)
{
    auto* station = new DaysStation(c.session);
    QObject::connect(station, &DaysStation::import_wanted, station, [station, c] {
        if (const QString path = c.dialogs.open_log(station); !path.isEmpty())
            station->import_file(path);
    });
    return station;
}

} // namespace vernal
