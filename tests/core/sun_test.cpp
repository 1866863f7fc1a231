#include "core/weather/day.h"
#include "core/weather/measured.h"
#include "core/weather/zone.h"

#include <gtest/gtest.h>
#include <libnova/julian_day.h>
#include <libnova/precession.h>
#include <libnova/solar.h>
#include <libnova/transform.h>

#include <algorithm>
#include <cmath>

using namespace vernal;

namespace {

// Duffie & Beckman, Solar Engineering of Thermal Processes, worked examples of chapter 1
// (declination −14° on 13 February, 23.1° on 1 July, latitude 43°), after the handbook of the field.
TEST(Sun, worked_examples)
{
    const double hour_angle = -22.5; // 10:30 solar time
    EXPECT_NEAR(incidence_deg(sun_position(43, -14, hour_angle), 45, 15), 35.0, 0.5);
    EXPECT_NEAR(sun_position(43, -14, -37.5).zenith_deg, 66.5, 0.1);
    EXPECT_NEAR(sun_position(43, 23.1, 97.5).zenith_deg, 79.6, 0.1);
}

// Positions against a general astronomy library over a year and several places.
TEST(Sun, agrees_with_libnova)
{
    double worst = 0, worst_azimuth = 0;
    for (const Place& place : {Place{46.7, 9.4, 640, 1}, Place{-33.9, 18.4, 0, 2}, Place{64.1, -21.9, 0, 0}, Place{1.3, 103.8, 0, 8}})
        for (int day = 0; day < 366; day += 7)
            for (double h = 0.5; h < 24; h += 3.7) {
                const double n = days_since_j2000(2026, 1, 1, h) + day;
                const SunPosition s = sun_position(place, n);
                ln_equ_posn equatorial;
                ln_get_solar_equ_coords(n + 2451545.0, &equatorial); // of J2000
                ln_get_equ_prec(&equatorial, n + 2451545.0, &equatorial);
                ln_lnlat_posn observer{place.longitude_deg, place.latitude_deg};
                ln_hrz_posn horizontal;
                ln_get_hrz_from_equ(&equatorial, &observer, n + 2451545.0, &horizontal);
                worst = std::max(worst, std::fabs(90 - horizontal.alt - s.zenith_deg));
                if (horizontal.alt > 5 && horizontal.alt < 80) {
                    const double d = horizontal.az - s.azimuth_deg;                                                                            // both from south, west positive
                    worst_azimuth = std::max(worst_azimuth, std::fabs((d - 360 * std::round(d / 360)) * std::sin(s.zenith_deg * M_PI / 180))); // on the sphere
                }
            }
    EXPECT_LT(worst, 0.03); // degrees
    EXPECT_LT(worst_azimuth, 0.03);
}

TEST(Sun, declination_and_equation_of_time_over_the_year)
{
    // Solstices and equinox 2026; equation of time in early November is about +16.4 min (Duffie & Beckman, fig. 1.5.1).
    EXPECT_NEAR(solar_coordinates(days_since_j2000(2026, 6, 21, 12)).declination_deg, 23.44, 0.02);
    EXPECT_NEAR(solar_coordinates(days_since_j2000(2026, 3, 20, 14.75)).declination_deg, 0, 0.02);
    EXPECT_NEAR(solar_coordinates(days_since_j2000(2026, 11, 3, 12)).equation_of_time_min, 16.4, 0.1);
}

// Ineichen & Perez (2002), by hand with the sun overhead at sea level and a turbidity of 3, where
// the sun outside the air gives 1364 W/m²: 1364 × 0.868 e^(−0.0387 × 3) = 1054, beam 1364 × 0.827 e^(−0.18)
// = 942. A reference library of photovoltaics has the same numbers among its checks (from memory).
TEST(ClearSky, the_sun_overhead_by_hand)
{
    const Irradiance i = clear_sky({0, 0}, 0, 95, 3);
    EXPECT_NEAR(i.beam_normal_w_m2, 942.2, 1);
    EXPECT_NEAR(i.beam_normal_w_m2 + i.diffuse_horizontal_w_m2, 1054.2, 1);
    EXPECT_EQ(clear_sky({95, 0}, 270, 234).beam_normal_w_m2, 0);
}

// Clear-day totals on level ground at 40° north: ASHRAE Handbook of Fundamentals 1977, solar position
// and insolation (Btu/ft², from memory). Its winter air is clearer than the usual.
TEST(ClearSky, day_totals_as_published)
{
    const auto total_btu_ft2 = [](int day, double declination_deg, double turbidity) {
        double j = 0;
        for (int minute = 0; minute < minutes_per_day; ++minute) {
            const SunPosition sun = sun_position(40, declination_deg, (minute + 0.5) / 4 - 180);
            const Irradiance i = clear_sky(sun, 0, day, turbidity);
            j += 60 * (i.beam_normal_w_m2 * std::max(0.0, std::cos(sun.zenith_deg * M_PI / 180)) + i.diffuse_horizontal_w_m2);
        }
        return j / 11357; // J/m² in one Btu/ft²
    };
    const double usual = linke_turbidity(Haze::usual), clear = linke_turbidity(Haze::mountain);
    EXPECT_NEAR(total_btu_ft2(80, 0, usual) / 1852, 1, 0.05);
    EXPECT_NEAR(total_btu_ft2(172, 23.45, usual) / 2648, 1, 0.05);
    EXPECT_NEAR(total_btu_ft2(264, 0, usual) / 1788, 1, 0.05);
    EXPECT_NEAR(total_btu_ft2(355, -23.45, clear) / 782, 1, 0.05);
    EXPECT_NEAR(total_btu_ft2(21, -20.1, clear) / 948, 1, 0.05);
    EXPECT_LT(total_btu_ft2(172, 23.45, linke_turbidity(Haze::hazy)), total_btu_ft2(172, 23.45, usual));
}

TEST(ClearSky, higher_up_there_is_more_beam)
{
    for (double zenith : {0.0, 30.0, 60.0, 80.0})
        for (double turbidity : {1.5, 3.0, 7.0}) {
            const Irradiance low = clear_sky({zenith, 0}, 0, 100, turbidity), high = clear_sky({zenith, 0}, 2500, 100, turbidity);
            EXPECT_GT(high.beam_normal_w_m2, low.beam_normal_w_m2) << zenith;
            EXPECT_GE(low.diffuse_horizontal_w_m2, 0) << zenith << " " << turbidity;
            EXPECT_GE(high.diffuse_horizontal_w_m2, 0) << zenith << " " << turbidity;
        }
}

// Beside a cloud the sky throws more than a clear one for a minute or two.
TEST(ClearSky, edges_of_clouds_pass_it)
{
    const Place place{46, 8, 400, 1};
    SkySpec clear, racing;
    racing.clouds = Clouds::racing;
    const SkyDay a = generate(clear, place), b = generate(racing, place);
    int over = 0;
    for (std::size_t m = 600; m < 840; ++m) {
        const double cos_z = std::cos(a.sun[m].zenith_deg * M_PI / 180);
        const double g = b.beam_normal_w_m2[m] * cos_z + b.diffuse_horizontal_w_m2[m], most = a.beam_normal_w_m2[m] * cos_z + a.diffuse_horizontal_w_m2[m];
        over += g > 1.1 * most;
        EXPECT_LT(g, 1.35 * most);
    }
    EXPECT_GT(over, 10);
    EXPECT_LT(over, 120);
}

// Central European summer time of 2026 runs from 29 March to 25 October (EU directive 2000/84/EC).
TEST(Zone, is_put_forward_in_summer_where_the_clock_is)
{
    Place p;
    p.zone = "Europe/Oslo";
    EXPECT_EQ(clock_ahead_h(p, 2026, 3, 28), 1);
    EXPECT_EQ(clock_ahead_h(p, 2026, 3, 29), 2);
    EXPECT_EQ(clock_ahead_h(p, 2026, 10, 24), 2);
    EXPECT_EQ(clock_ahead_h(p, 2026, 10, 25), 1);
    p.daylight_saving = false;
    EXPECT_EQ(clock_ahead_h(p, 2026, 7, 1), 1);
    p.zone = "Asia/Kathmandu";
    EXPECT_EQ(clock_ahead_h(p, 2026, 7, 1), 5.75);
    p = {0, 0, 0, -3.5};
    EXPECT_EQ(clock_ahead_h(p, 2026, 7, 1), -3.5);
    EXPECT_TRUE(zone_known("America/Denver"));
    EXPECT_FALSE(zone_known("Nowhere/Land"));
    EXPECT_FALSE(zone_known(""));
}

// Noon by the sun comes an hour later on a clock that was put forward.
TEST(Zone, moves_the_sun_on_the_clock)
{
    const auto noon = [](bool forward) {
        SkySpec spec; // June
        Place p{60, 10.7, 0, 0, "Europe/Oslo", forward};
        const SkyDay d = generate(spec, p);
        const auto least = std::min_element(d.sun.begin(), d.sun.end(), [](const SunPosition& a, const SunPosition& b) { return a.zenith_deg < b.zenith_deg; });
        return least - d.sun.begin();
    };
    EXPECT_EQ(noon(true) - noon(false), 60);
}

TEST(Plane, horizontal_plane_gets_what_the_sky_gives)
{
    const SunPosition s{40, 10};
    const PlaneIrradiance p = on_plane({800, 90}, s, 0, 0);
    EXPECT_NEAR(p.beam_w_m2, 800 * std::cos(40 * M_PI / 180), 1e-9);
    EXPECT_NEAR(p.diffuse_w_m2, 90, 1e-9);
}

TEST(AirMass, kasten_and_young)
{
    EXPECT_NEAR(air_mass(0), 1.0, 1e-3);
    EXPECT_NEAR(air_mass(60), 1.994, 1e-3); // Kasten & Young 1989, table: 1.9939
}

TEST(Sky, clear_night_is_colder_than_the_air)
{
    // Swinbank 1963 as in Duffie & Beckman eq. 3.9.2: 20 °C → 3.9 °C by the formula.
    EXPECT_NEAR(clear_sky_temperature_c(20), 0.0552 * std::pow(293.15, 1.5) - 273.15, 1e-9);
    EXPECT_LT(clear_sky_temperature_c(0), -15);
}

TEST(Day, same_seed_same_day_other_seed_other_clouds)
{
    const Place place{46.7, 9.4, 640, 1};
    SkySpec spec;
    spec.clouds = Clouds::racing;
    spec.seed = 4;
    const SkyDay a = generate(spec, place), b = generate(spec, place);
    EXPECT_EQ(a.beam_normal_w_m2, b.beam_normal_w_m2);
    spec.seed = 5;
    EXPECT_NE(a.beam_normal_w_m2, generate(spec, place).beam_normal_w_m2);
    EXPECT_EQ(a.air_c.size(), 1441U);
}

TEST(Day, air_reaches_its_ends)
{
    SkySpec spec;
    spec.air_min_c = -7;
    spec.air_max_c = 4;
    const SkyDay d = generate(spec, Place{});
    EXPECT_NEAR(d.air_c[5 * 60], -7, 1e-9);
    EXPECT_NEAR(d.air_c[15 * 60], 4, 1e-9);
    EXPECT_NEAR(d.air_c.front(), d.air_c.back(), 1e-9);
}

TEST(Day, measured_global_is_split_and_kept)
{
    SkySpec spec;
    const Place place{46.7, 9.4, 640, 1};
    SkyDay d = generate(spec, place);
    override_global(d, spec, {{0, 86400}, {500, 500}});
    const std::size_t noon = 12 * 60;
    const double cos_z = std::cos(d.sun[noon].zenith_deg * M_PI / 180);
    EXPECT_NEAR(d.beam_normal_w_m2[noon] * cos_z + d.diffuse_horizontal_w_m2[noon], 500, 1e-6);
    EXPECT_GT(d.diffuse_horizontal_w_m2[noon], 100);
}

} // namespace
