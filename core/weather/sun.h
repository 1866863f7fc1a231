// Where the sun stands and how strongly it shines.
#pragma once

#include <string>

namespace vernal {

struct Place {
    double latitude_deg = 45.0; // north positive, −90…90
    double longitude_deg = 0.0; // east positive, −180…180
    double altitude_m = 0.0;
    double utc_offset_h = 0.0;   // local clock minus UTC, where no zone is stated
    std::string zone = {};       // IANA's name; see clock_ahead_h()
    bool daylight_saving = true; // the clock is put forward in summer where its zone does
    bool operator==(const Place&) const = default;
};

// Azimuth from south, west positive (Duffie & Beckman's convention), degrees.
struct SunPosition {
    double zenith_deg = 90.0;
    double azimuth_deg = 0.0;
};

// Days since 2000-01-01 12:00 UTC of a civil date and clock time (Gregorian).
double days_since_j2000(int year, int month, int day, double hours_utc);

// Day number in the year, 1…366, and its inverse for one year.
int day_of_year(int year, int month, int day);

struct Equatorial {
    double declination_deg = 0.0;
    double equation_of_time_min = 0.0; // apparent minus mean solar time
};

// Low-precision solar coordinates of the Astronomical Almanac, section C
// (as in Michalsky, Solar Energy 40 (1988) 227): 0.01° for 1950–2050.
Equatorial solar_coordinates(double days_j2000);

// From declination and hour angle (afternoon positive); all degrees.
// Duffie & Beckman, Solar Engineering of Thermal Processes, eq. 1.6.5 and 1.6.6.
SunPosition sun_position(double latitude_deg, double declination_deg, double hour_angle_deg);

// Geometric position, no refraction, for a place at a UTC instant.
SunPosition sun_position(const Place& place, double days_j2000);

// Incidence angle on a plane, degrees (Duffie & Beckman, eq. 1.6.3).
double incidence_deg(const SunPosition& sun, double tilt_deg, double plane_azimuth_deg);

// Relative air mass (Kasten & Young, Applied Optics 28 (1989) 4735), zenith < 96°.
double air_mass(double zenith_deg);

struct Irradiance {
    double beam_normal_w_m2 = 0.0;
    double diffuse_horizontal_w_m2 = 0.0;
};

// Cloudless sky by Ineichen & Perez (Solar Energy 73 (2002) 151). turbidity: Linke's, of
// two air masses, 1…10; altitude 0…4000 m, beyond as at the ends. Zero when the sun is down.
Irradiance clear_sky(const SunPosition& sun, double altitude_m, int day_of_year, double turbidity = 3.0);

struct PlaneIrradiance {
    double beam_w_m2 = 0.0;
    double diffuse_w_m2 = 0.0; // sky and ground
    double incidence_deg = 90.0;
};

// On a tilted plane; isotropic sky, ground reflectance 0.2 unless told.
PlaneIrradiance on_plane(const Irradiance& sky, const SunPosition& sun, double tilt_deg, double plane_azimuth_deg, double ground_reflectance = 0.2);

// Effective temperature of a cloudless sky, °C (Swinbank 1963: T_sky = 0.0552 T_a^1.5, kelvin).
double clear_sky_temperature_c(double air_c);

} // namespace vernal
