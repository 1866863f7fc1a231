// Questions that take several runs: how long the heat lasts without sun, and
// what the element changes.
#pragma once

#include "core/job/job.h"
#include "core/run/figures.h"

namespace vernal {

inline constexpr int most_dark_days = 14;

// After the chosen day the sun stays away, the draws go on.
struct Reserve {
    double hot_s = NAN;     // from that day's end until a draw stays below its target; NaN: it holds for 14 days
    double battery_s = NAN; // until the battery is cut off; NaN: it holds, or there is none
    bool battery = false;
    double tank_c = NAN; // top of the store in the end
};
Result<Reserve> reserve_of(const Job& job, const Variant& variant, const Day& day);

// The day with the element off, always, and in its windows; each follows upon
// the same day, so that what it stores it has paid for.
struct BackupCase {
    ElementMode mode;
    Figures figures;
};
Result<std::vector<BackupCase>> backup_cases(const Job& job, const Variant& variant, const Day& day);

} // namespace vernal
