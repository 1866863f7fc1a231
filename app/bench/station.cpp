#include "station.h"

#include "bench_station.h"

namespace vernal {

QWidget* make_bench_station(const StationContext& c)
{
    auto* station = new BenchStation(c.session, c.dialogs);
    add_command(*station, QObject::tr("Bench: every switch on AUTO, no bypass"), {}, [station] {
        if (Rig* rig = station->model().rig())
            rig->all_automatic();
        station->model().touched();
    });
    add_command(*station, QObject::tr("Bench: unit sheet"), {}, [station] { station->show_unit(true); });
    add_command(*station, QObject::tr("Bench: rig"), {}, [station] { station->show_unit(false); });
    return station;
}

} // namespace vernal
