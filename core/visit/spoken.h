// Lines as people say and write them, put into the form that dictation.h reads: probes by name
// or place, outputs as "pump", words for kinds of reading, dates by the reader's habit.
#pragma once

#include "core/job/job.h"

#include <optional>
#include <string>
#include <vector>

namespace vernal {

// Forms of a reading that the line may mean, the likeliest first. Empty: it begins with nothing known.
std::vector<std::string> spoken_readings(const std::string& line, const Variant& v);

// "2 gallons in 45 seconds" as "bucket 2 gal 45 s".
std::optional<std::string> spoken_bucket(const std::string& line);

// A reading that is known and that this loop does not have: its name. Empty: none is meant.
std::string spoken_elsewhere(const std::string& line, const Variant& v);

// A date in any usual form as "2026-06-30"; with a time behind it "2026-06-30T09:30". Of
// 6/7/2026 the month comes first where month_first says so; with points the day always does.
std::optional<std::string> spoken_date(const std::string& text, bool month_first);

// The key of a sky in a word or two ("partly cloudy"). Empty: none.
std::string spoken_sky(const std::string& text);

// What stands at the end of a text and is more than text.
struct SpokenTail {
    std::string text, tail; // tail: "40 min", "by 2026-10-01", "at P1"; empty: there is none
};
SpokenTail spoken_minutes(const std::string& text);                 // "…, 40 min", "… (1.5 h)"
SpokenTail spoken_due(const std::string& text, bool month_first);   // "… by June 30, 2026"
SpokenTail spoken_place(const std::string& text, const Variant& v); // "… at P1"

} // namespace vernal
