// A unit's log of weeks and months: how it went from week to week, and what changed when.
#pragma once

#include "log_view.h"
#include "trend.h"

#include <optional>

namespace vernal {

// What is looked at of a day; NaN where the log does not show it.
enum class SeasonMeasure : std::uint8_t { first_start_h, // of the clock
    run_h,
    starts,
    rise_k,       // of the source over the store while it has run ten minutes
    heat_per_sun, // heat by the stated flow over what the sun gave the array, 0…1
    cold_bar };   // the gauge before sunrise
inline constexpr std::size_t season_measures = 6;
struct SeasonMeasureInfo {
    const char* key;
    const char* name;
    const char* unit;
};
const SeasonMeasureInfo& season_measure(SeasonMeasure m);

struct SeasonDay {
    long day = 0; // since 1970, or since the log's first
    std::array<double, season_measures> value{};
};

struct SeasonWeek {
    long first_day = 0;
    std::array<double, season_measures> value{}; // medians of its days
};

struct SeasonTrend : Trend { // over the weeks
    SeasonMeasure measure = SeasonMeasure::run_h;
};

struct Seasons {
    std::vector<SeasonDay> days;
    std::vector<SeasonWeek> weeks;
    std::vector<SeasonTrend> trends; // of measures with at least five weeks
};

// Of the loop's pump; empty where the log has no output of it.
Seasons seasons(const LogView& log, const Variant& v);

} // namespace vernal
