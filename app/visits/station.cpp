#include "station.h"

#include "visits_station.h"

namespace vernal {

QWidget* make_visits_station(const StationContext& c)
{
    auto* station = new VisitsStation(c.session, c.dialogs);
    add_command(*station, QObject::tr("Visits: begin a service visit"), {}, [station] { station->begin(Purpose::service); });
    add_command(*station, QObject::tr("Visits: begin commissioning"), {}, [station] { station->begin(Purpose::commissioning); });
    add_command(*station, QObject::tr("Visits: begin a survey"), {}, [station] { station->begin(Purpose::survey); });
    add_command(*station, QObject::tr("Visits: a customer calls"), {}, [station] { station->show_call(); });
    add_command(*station, QObject::tr("Visits: lists"), {}, [station] { station->show_lists(); });
    add_command(*station, QObject::tr("Visits: costs"), {}, [station] { station->show_costs(); });
    return station;
}

} // namespace vernal
