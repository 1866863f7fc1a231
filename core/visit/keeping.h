// Records are not lost and not silently changed: drafts, closed visits, what two computers wrote.
#pragma once

#include "core/job/job.h"

namespace vernal {

// A visit that begins at this moment: with the settings of the variant as found, if it was read.
Visit new_visit(const Job& job, const std::string& when, Purpose purpose, const std::string& variant);

Visit* find_visit(Job& job, const std::string& id); // nullptr: unknown
const Visit* find_visit(const Job& job, const std::string& id);
void sort_visits(Job& job); // by their beginning

// Why a visit cannot be closed as it is; empty: it can.
std::string cannot_close(const Visit& visit);
// Error: it is still open, or says no reason.
Result<std::monostate> amend(Visit& visit, Amendment amendment);

// What of a closed visit would be changed or lost, in words; empty: every closed visit of
// before stands in after as it was, with its amendments and perhaps more.
std::string touches_closed(const Logbook& before, const Logbook& after);

// Takes over from the other file what this one lacks: visits by their id, amendments of those
// both have. Gives how many; what both changed stays as it is here and is named.
struct TakenOver {
    int visits = 0, amendments = 0;
    std::vector<std::string> differ; // "12 May 2026": an open visit that both went on with
};
TakenOver take_visits(Job& mine, const Job& theirs);

// Photos of visits that belong to a thing of this name, "Vessel and relief valve" or "S2": named so by
// their "of", from its first words on, without regard to capitals. The newest first.
struct PhotoOf {
    const Visit* visit;
    const VisitPhoto* photo;
};
std::vector<PhotoOf> photos_of(const Job& job, const std::string& name);

// Key by which a visit names a test of the bench.
std::string test_key(const BenchRecord& record);
const BenchRecord* find_test(const Job& job, const std::string& key); // nullptr: gone

} // namespace vernal
