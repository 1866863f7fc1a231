#include "station.h"

#include "bench_station.h"

namespace vernal {

QWidget* make_bench_station(const StationContext& c)
{
    auto* station = new BenchStation(c.session);
    add_command(*station, QObject::tr("Bench: every switch on AUTO, no bypass"), {}, [station] {
        if (Rig* rig = station->model().rig())
            rig->all_automatic();
        station->model().touched();
    });
    return station;
}

} // namespace vernal
