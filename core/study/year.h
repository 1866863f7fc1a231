// A year of days one after the other: what each did, what the months add up to, and which days are
// worth looking at.
#pragma once

#include "core/job/job.h"
#include "core/run/figures.h"

#include <functional>
#include <stop_token>

namespace vernal {

struct YearDay {
    int year = 0, month = 1, day = 1;
    Figures figures; // first_start_s and the like from its own midnight
    double coldest_air_c = INFINITY;
    double irradiation_j_m2 = 0;   // on the first array
    Clouds clouds = Clouds::clear; // of a generated year
};

struct YearMonth {
    int month = 1, days = 0, starts = 0;
    double heat_j = 0, backup_j = 0, needed_j = 0, short_j = 0, pump_energy_j = 0; // J
    double hottest_collector_c = -INFINITY, hottest_store_c = -INFINITY, coldest_air_c = INFINITY;
    double above_limit_s = 0, freezing_s = 0;
    double irradiation_j_m2 = 0; // on the first array
    double frost_j = 0;          // sent from the store against frost
    double possible_j = 0;       // to the store by a plain perfect controller, see core/setup/possible.h; NaN: not worked out
    double collected_share() const { return possible_j > 0 ? (heat_j + frost_j) / possible_j : NAN; }
    // As of a day's figures; NaN without a draw.
    double solar_share() const { return needed_j > 0 ? 1 - (backup_j + short_j) / needed_j : NAN; }
    void add(const YearDay& day);
};

struct Year {
    std::vector<YearDay> days;     // as far as it got
    std::vector<YearMonth> months; // those that have days
    YearMonth whole;               // month: 0
    bool measured = false;         // its weather is a file's; else it was made up
    bool cancelled = false;
};

// From 1 January of the day's year. Draws, cold water and shade are the day's; where its trace holds a year
// of weather that is used. Else the sky of each day is drawn by the day's seed (a third clear, a quarter
// racing clouds, a fifth each broken and overcast; estimates), and the air swings between the coldest
// and the warmest of the job's generated days. progress: days done of all.
Result<Year> run_year(const Job& job, const Variant& variant, const Day& like, const std::function<void(std::size_t, std::size_t)>& progress = {}, std::stop_token stop = {});

struct WorthALook {
    const char* key; // "most_starts"
    const char* title;
    std::size_t day; // of the year's days
};
// Most starts, hottest store and collector, coldest air, most missing at the tap or least heat.
std::vector<WorthALook> worth_a_look(const Year& year);

// That day alone, to be put on the shelf.
Day day_of_year_run(const Job& job, const Day& like, const Year& year, std::size_t day);

} // namespace vernal
