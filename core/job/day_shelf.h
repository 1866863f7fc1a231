// Ready days to try a loop on. Their weather is made up for a place of middle latitude (estimates);
// everything of them can be edited.
#pragma once

#include "job.h"

namespace vernal {

struct ReadyDay {
    const char* key;   // "hard-frost"
    const char* title; // "Hard clear frost"
    const char* about; // what it is good for
    Day (*made)();
};

const std::vector<ReadyDay>& ready_days();
const ReadyDay* find_ready_day(const std::string& key); // nullptr: unknown

// For this job: drawn as on its first generated day, with that day's cold water and wish at the tap;
// half a year later on southern latitudes. Its name may be taken already.
Day ready_day(const ReadyDay& ready, const Job& job);

} // namespace vernal
