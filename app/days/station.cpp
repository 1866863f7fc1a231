#include "station.h"

#include "days_station.h"
#include "log_desk.h"

namespace vernal {

QWidget* make_days_station(const StationContext& c)
{
    auto* station = new DaysStation(c.session);
    QObject::connect(station, &DaysStation::import_wanted, station, [station, c] {
        station->logs().import_files(c.dialogs.open_logs(station));
    });
    QObject::connect(station, &DaysStation::export_wanted, station, [station, c] {
        const QString name = qs(c.session.document().day().name);
        if (const QString path = c.dialogs.save_as(station, name + QStringLiteral(".csv"), QObject::tr("Logs (*.csv)")); !path.isEmpty())
            station->logs().export_to(path);
    });
    return station;
}

} // namespace vernal
