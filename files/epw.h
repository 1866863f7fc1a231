// Typical-weather files (EPW) as the EnergyPlus documentation publishes them (Auxiliary Programs,
// "EnergyPlus Weather File (EPW) Data Dictionary"; from memory): eight lines of header, then a row an hour.
#pragma once

#include "core/job/job.h"

namespace vernal {

struct WeatherFile {
    std::string name; // "Town, Region, Country" of its LOCATION line
    Place place;      // its clock is standard time all year: utc_offset_h, no zone
    Trace trace;      // air and sky [°C], irradiance, beam_normal and diffuse [W/m²], wind [m/s], by half hours
};

// Sun is given over the hour before, air at its end: a row stands at the half hour, with the mean air of
// both its ends. Rows of several years are a typical year and get one of 365 days. What is missing (9999,
// 99.9) is empty. Error: names file, line and column.
Result<WeatherFile> read_epw(const std::string& text, const std::string& file_name);

bool is_epw(const std::string& file_name); // by its ending

// Puts a generated day like the one at `like` on the shelf, with the file's weather of its date, and the
// job to the file's place, name and clock, for which its sun was measured. The day's index.
std::size_t put_weather(Job& job, const WeatherFile& weather, const std::string& file_name, std::size_t like = 0);

} // namespace vernal
