// What comes due on a loop: by date, by hours or starts of an output, or after an event.
#pragma once

#include "core/findings/findings.h"
#include "core/units/calendar.h"

namespace vernal {

// What is usual for loops of a kind. Intervals are estimates; the maker's manual and local codes go before them.
struct DueKind {
    const char* key;
    const char* title;
    Loops loops;
    double every_months; // 0: not by date
    double every_starts = 0;
    const char* event = ""; // words of a fault or note after which it is due at once; parted by "|"
    bool licensed = false;
    const char* reading = ""; // kind of reading that proves it was looked at: a visit with one has done it
};
const std::vector<DueKind>& due_kinds();

// Those of this loop with what the logbook says otherwise, and those of its own.
std::vector<DueItem> due_items(const Job& job);
void change_due(Job& job, const DueItem& item); // what differs from the usual is kept in the logbook

// "Seal of the pump | every 12 months | every 4000 h of P1 | every 20000 starts of P1 | after steam |
// last 2025-05-01 | by the licensed person | not here". Error: what is not understood.
Result<DueItem> due_in_line(const std::string& line);
std::string due_line(const DueItem& item); // reads back equal but for id and kind

struct DueNow {
    std::string title, why; // why: "every 12 months, last on 3 May 2025"
    Day1970 date{};         // by which
    bool licensed = false;
    std::string id, visit; // of the due item, or of the visit whose "next" it is
};
// What visits up to this moment left to be done and no visit up to it did, the oldest first. A later
// visit did it where its work has the same words (however written large or small) or names it.
struct OpenNext {
    const Visit* visit = nullptr;
    const VisitNext* next = nullptr;
};
std::vector<OpenNext> open_next(const Job& job, const std::string& until = "9999");

// In the order of their dates; what was never done counts from the first visit, without any from today.
std::vector<DueNow> due_list(const Job& job, Day1970 today);

} // namespace vernal
