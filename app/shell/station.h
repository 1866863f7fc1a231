// What a station is to the window: an entry of the registry. A new station is a
// room with a function that makes it, and a line in stations.cpp.
#pragma once

#include "core/findings/findings.h"
#include "dialogs.h"
#include "session.h"

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

int station_of(const Finding& f);   // index in stations()
int station_index(const char* key); // a key of stations()

} // namespace vernal
