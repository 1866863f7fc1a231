#include "sun.h"

#include "core/units/constants.h"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <numbers>

namespace vernal {
namespace {

double wrap_degrees(double d) { return d - 360.0 * std::floor(d / 360.0); }
double wrap_signed(double d) { return wrap_degrees(d + 180.0) - 180.0; }

long days_from_civil(int year, int month, int day)
{
    const std::chrono::sys_days d{std::chrono::year{year} / month / day};
    return d.time_since_epoch().count();
}

} // namespace

double days_since_j2000(int year, int month, int day, double hours_utc)
{
    return static_cast<double>(days_from_civil(year, month, day) - days_from_civil(2000, 1, 1)) + (hours_utc - 12.0) / 24.0;
}

int day_of_year(int year, int month, int day) { return static_cast<int>(days_from_civil(year, month, day) - days_from_civil(year, 1, 1)) + 1; }

Equatorial solar_coordinates(double n)
{
    const double mean_longitude = wrap_degrees(280.460 + 0.9856474 * n);
    const double g = wrap_degrees(357.528 + 0.9856003 * n) * degree_rad;
    const double lambda = (mean_longitude + 1.915 * std::sin(g) + 0.020 * std::sin(2 * g)) * degree_rad;
    const double epsilon = (23.439 - 4e-7 * n) * degree_rad;
    const double right_ascension = std::atan2(std::cos(epsilon) * std::sin(lambda), std::cos(lambda)) / degree_rad;
    Equatorial e;
    e.declination_deg = std::asin(std::sin(epsilon) * std::sin(lambda)) / degree_rad;
    e.equation_of_time_min = 4.0 * wrap_signed(mean_longitude - right_ascension);
    return e;
}

SunPosition sun_position(double latitude_deg, double declination_deg, double hour_angle_deg)
{
    const double phi = latitude_deg * degree_rad, delta = declination_deg * degree_rad, omega = hour_angle_deg * degree_rad;
    const double cos_zenith = std::cos(phi) * std::cos(delta) * std::cos(omega) + std::sin(phi) * std::sin(delta);
    SunPosition s;
    s.zenith_deg = std::acos(std::clamp(cos_zenith, -1.0, 1.0)) / degree_rad;
    const double south = std::cos(omega) * std::cos(delta) * std::sin(phi) - std::sin(delta) * std::cos(phi);
    s.azimuth_deg = std::atan2(std::cos(delta) * std::sin(omega), south) / degree_rad;
    return s;
}

SunPosition sun_position(const Place& place, double days_j2000)
{
    const Equatorial e = solar_coordinates(days_j2000);
    const double utc_h = (days_j2000 + 0.5 - std::floor(days_j2000 + 0.5)) * 24.0;
    const double solar_h = utc_h + place.longitude_deg / 15.0 + e.equation_of_time_min / 60.0;
    return sun_position(place.latitude_deg, e.declination_deg, wrap_signed((solar_h - 12.0) * 15.0));
}

double incidence_deg(const SunPosition& sun, double tilt_deg, double plane_azimuth_deg)
{
    const double z = sun.zenith_deg * degree_rad, b = tilt_deg * degree_rad;
    const double c = std::cos(z) * std::cos(b) + std::sin(z) * std::sin(b) * std::cos((sun.azimuth_deg - plane_azimuth_deg) * degree_rad);
    return std::acos(std::clamp(c, -1.0, 1.0)) / degree_rad;
}

double air_mass(double zenith_deg) { return 1.0 / (std::cos(zenith_deg * degree_rad) + 0.50572 * std::pow(96.07995 - zenith_deg, -1.6364)); }

Irradiance clear_sky(const SunPosition& sun, double altitude_m, int day, double turbidity)
{
    if (sun.zenith_deg >= 89.9)
        return {};
    const double altitude = std::clamp(altitude_m, 0.0, 4000.0), linke = std::clamp(turbidity, 1.0, 10.0);
    const double f1 = std::exp(-altitude / 8000), f2 = std::exp(-altitude / 1250);
    const double c1 = 5.09e-5 * altitude + 0.868, c2 = 3.92e-5 * altitude + 0.0387;
    const double mass = air_mass(sun.zenith_deg) * std::pow(1 - 2.25577e-5 * altitude, 5.25588); // thinner air (ISO 2533)
    const double extraterrestrial = 1367.0 * (1.0 + 0.033 * std::cos(360.0 * day / 365.0 * degree_rad));
    const double cos_z = std::cos(sun.zenith_deg * degree_rad);
    const double global = c1 * extraterrestrial * cos_z * std::exp(-c2 * mass * (f1 + f2 * (linke - 1)));
    // The beam's own form, and never more than global and diffuse leave to it (the authors' correction).
    const double beam = extraterrestrial * (0.664 + 0.163 / f1) * std::exp(-0.09 * mass * (linke - 1));
    const double most = global * (1 - (0.1 - 0.2 * std::exp(-linke)) / (0.1 + 0.882 / f1)) / cos_z;
    const double normal = std::clamp(beam, 0.0, most);
    return {normal, global - normal * cos_z};
}

PlaneIrradiance on_plane(const Irradiance& sky, const SunPosition& sun, double tilt_deg, double plane_azimuth_deg, double ground_reflectance)
{
    PlaneIrradiance p;
    p.incidence_deg = incidence_deg(sun, tilt_deg, plane_azimuth_deg);
    const double cos_tilt = std::cos(tilt_deg * degree_rad);
    const double cos_z = std::max(0.0, std::cos(sun.zenith_deg * degree_rad));
    p.beam_w_m2 = sky.beam_normal_w_m2 * std::max(0.0, std::cos(p.incidence_deg * degree_rad));
    const double horizontal = sky.beam_normal_w_m2 * cos_z + sky.diffuse_horizontal_w_m2;
    p.diffuse_w_m2 = sky.diffuse_horizontal_w_m2 * 0.5 * (1 + cos_tilt) + ground_reflectance * horizontal * 0.5 * (1 - cos_tilt);
    return p;
}

double clear_sky_temperature_c(double air_c) { return 0.0552 * std::pow(air_c + 273.15, 1.5) - 273.15; }

} // namespace vernal
