// What a station is to the window: an entry of the registry. A new station is a
// room with a function that makes it, and a line in stations.cpp.
#pragma once

#include "core/findings/findings.h"
#include "dialogs.h"
#include "session.h"

#include <functional>

namespace vernal {

// What every station is made with; outlives it.
struct StationContext {
    Session& session;
    const Dialogs& dialogs;
    QString own_curves; // path of the person's own curve file
};

struct Station {
    const char* key;
    const char* title;
    Cause cause;     // of the findings that are set right here
    bool with_strip; // the day strip stays below it
    QWidget* (*make)(const StationContext& context);
};
const std::vector<Station>& stations(); // in the order of the rail

// What a station can do besides its buttons: found by its name and done by its key
// while a job is open, whichever station is shown.
void add_command(QWidget& station, const QString& name, const QKeySequence& key, const std::function<void()>& act);

int station_of(const Finding& f);   // index in stations()
int station_index(const char* key); // a key of stations()

} // namespace vernal
