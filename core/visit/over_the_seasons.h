// How a loop went from visit to visit: what trends, what stepped, each with its uncertainty and
// its reading in words. Nothing is claimed from noise (core/audit/trend.h).
#pragma once

#include "core/audit/trend.h"
#include "measured.h"

namespace vernal {

struct SeasonPoint {
    double day = 0; // since 1970
    double value = 0;
    std::string from; // id of the visit; empty: of a log's week
};

struct SeasonCourse {
    const char* key; // "pressure"
    std::string title, unit;
    std::vector<SeasonPoint> points;
    Trend trend; // of points in their order
    std::string says;
    Tone tone = Tone::plain;
    double usual_low = NAN, usual_high = NAN; // a band in which it lay at first
};

// Those with at least two points, of visits, and of logs of the job (weeks).
std::vector<SeasonCourse> over_the_seasons(const Job& job, const Units& units);

// Of each output with a counter: how far it has come, against what those before it lived.
std::vector<std::string> life_lines(const Job& job);

// The gauge as it would stand at 20 °C, Pa.
double gauge_at_20_pa(const Job& job, const Loop& loop, double pa, double at_c);
// Hour of the clock at which the arrays of a clear day come so far over a store of 40 °C that the pair starts;
// NaN: never. The air is that of a mild day.
double clear_start_h(const Job& job, const Variant& v, const std::string& date);
// Sun's azimuth from south and height at an hour of the clock, degrees.
SunPosition sun_at(const Place& place, const std::string& date, double hour);

} // namespace vernal
