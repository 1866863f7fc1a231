#include "app/bench/station.h"
#include "app/days/station.h"
#include "app/loop/station.h"
#include "app/probes/station.h"
#include "app/rules/station.h"
#include "app/run/station.h"
#include "app/visits/station.h"

#include <QAction>

#include <algorithm>
#include <string_view>

namespace vernal {

const std::vector<Station>& stations()
{
    static const std::vector<Station> table{
        {"loop", "Loop", Cause::loop, true, make_loop_station},
        {"probes", "Probes", Cause::probes, true, make_probes_station},
        {"rules", "Rules", Cause::rules, true, make_rules_station},
        {"days", "Days", Cause::days, true, make_days_station},
        {"run", "Run", Cause::sight, false, make_run_station}, // the strip grown to full size
        {"bench", "Bench", Cause::bench, false, make_bench_station},
        {"visits", "Visits", Cause::visits, false, make_visits_station},
    };
    return table;
}

int station_index(const char* key)
{
    const auto it = std::find_if(stations().begin(), stations().end(), [&](const Station& s) { return std::string_view(s.key) == key; });
    return static_cast<int>(it - stations().begin());
}

void add_command(QWidget& station, const QString& name, const QKeySequence& key, const std::function<void()>& act)
{
    auto* a = new QAction(name, &station);
    a->setShortcut(key);
    QObject::connect(a, &QAction::triggered, &station, [act] { act(); });
    station.addAction(a);
}

int station_of(const Finding& f)
{
    const FindingKind* kind = find_kind(f.kind);
    const Cause cause = kind ? kind->cause : Cause::sight; // what a log shows is of no kind of the table
    const auto it = std::find_if(stations().begin(), stations().end(), [&](const Station& s) { return s.cause == cause; });
    return static_cast<int>(it - stations().begin());
}

} // namespace vernal
