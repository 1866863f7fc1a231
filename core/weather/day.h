// One day's weather, minute by minute.
#pragma once

#include "sun.h"

#include <cstdint>
#include <string>
#include <vector>

namespace vernal {

// How clear the air is without clouds.
enum class Haze : std::uint8_t { mountain,
    usual,
    hazy,
    smoke };
double linke_turbidity(Haze haze);

enum class Clouds : std::uint8_t { clear,
    racing,
    broken,
    overcast,
    thin,      // high haze: the disc shows, shadows are weak
    fog,       // until an hour, clear after it
    thunder }; // towers from two hours before, an hour and a half dark, broken after it

// A generated day. Temperatures in °C as the thermometer shade would read.
struct SkySpec {
    int year = 2026, month = 6, day = 21;
    Clouds clouds = Clouds::clear;
    Haze haze = Haze::usual;
    std::uint32_t seed = 1;
    double air_min_c = 8.0;                         // reached about sunrise
    double air_max_c = 20.0;                        // reached at 15:00
    double wind_m_s = 1.5;                          // over the array
    double fog_until_h = 10.0, thunder_at_h = 16.0; // of those skies, clock hours
    double snow_until_h = 0.0;                      // on the glass; 0: none
    bool operator==(const SkySpec&) const = default;
};

inline constexpr int minutes_per_day = 1440;

struct MeasuredSeries;

// 1441 points, one a minute from 00:00 to 24:00 local clock; between them straight lines.
struct SkyDay {
    std::vector<double> beam_normal_w_m2, diffuse_horizontal_w_m2, air_c, sky_c;
    std::vector<SunPosition> sun;
    double wind_m_s = 0;
    double snow_until_h = 0; // on arrays and panel
};

// What snow on the glass lets through, 0…1: next to nothing, and half an hour of sliding off.
double through_snow(double snow_until_h, double hour);

// Same spec and place, same day, on every machine.
SkyDay generate(const SkySpec& spec, const Place& place);

// Replaces the air temperature by values at the given seconds of the day
// (rising), straight lines between, held at the ends.
void override_air(SkyDay& day, const std::vector<double>& time_s, const std::vector<double>& air_c);

// Replaces the irradiance by a measured global irradiance in the horizontal
// plane, split into beam and diffuse by Erbs, Klein & Duffie, Solar Energy 28 (1982) 293.
void override_global(SkyDay& day, const SkySpec& spec, const MeasuredSeries& global_w_m2);

// What a collector plane gets, a point a minute.
struct PlaneDay {
    std::vector<double> plane_w_m2;     // on the plane
    std::vector<double> effective_w_m2; // times incidence angle modifier
};

// Incidence angle modifier 1 − b0 (1/cos θ − 1) for the beam, not below 0, and a
// constant for the diffuse part.
PlaneDay on_collector(const SkyDay& day, double tilt_deg, double azimuth_deg, double iam_b0, double iam_diffuse);

} // namespace vernal
