// What a visit measured, as its page shows it: beside the last time, with its reading in words.
#pragma once

#include "core/job/job.h"

namespace vernal {

enum class Tone : std::uint8_t { plain,
    good,
    caution };

struct MeasuredRow {
    std::string what, how, value, last, says;
    Tone tone = Tone::plain;
    std::string kind, of; // of the reading; kind "heat now": worked out
};

// last: of the visit before that read the same, as amended; empty: none did.
std::vector<MeasuredRow> measured_rows(const Job& job, const Visit& visit, const Units& units);

// The readings with what amendments put in their place; an amended reading stands where the wrong one stood.
std::vector<VisitReading> valid_readings(const Visit& visit);
const VisitReading* reading_of(const std::vector<VisitReading>& all, const std::string& kind, const std::string& of = "");
// The settings it speaks about: as left, as found, else the variant it names, else the job's first.
const Variant& variant_of(const Job& job, const Visit& visit);
// W carried then by flow and rise; NaN: one of them was not read.
double heat_now_w(const Job& job, const Visit& visit);
// Of it the share of what a clear sky gives at that hour; NaN: not to be told.
double share_of_clear(const Job& job, const Visit& visit);
// What of the visit is asked about before it is kept, since no sky gives it: heat or sun far above a
// clear sky's at that hour. Empty: nothing.
std::vector<std::string> doubts_of(const Job& job, const Visit& visit, const Units& units);

} // namespace vernal
