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
    add_command(*station, QObject::tr("Bench: every output of the unit on the wire OFF"), QKeySequence(Qt::Key_F9), [station] { station->wire_off(); });
    using Page = BenchStation::Page;
    const std::array<std::pair<QString, Page>, 5> pages{{{QObject::tr("Bench: rig"), Page::rig}, {QObject::tr("Bench: unit sheet"), Page::unit}, {QObject::tr("Bench: at the loop"), Page::loop}, {QObject::tr("Bench: drills"), Page::drills}, {QObject::tr("Bench: on the wire"), Page::wire}}};
    for (const auto& [name, page] : pages)
        add_command(*station, name, {}, [station, page = page] { station->show_page(page); });
    add_command(*station, QObject::tr("Bench: read from afar"), {}, [station] { station->show_far(); });
    return station;
}

} // namespace vernal
