#include "core/weather/horizon_text.h"

#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <cmath>
#include <numeric>

using namespace vernal;

namespace {

SunPosition at(double height_deg, double azimuth_deg) { return {90 - height_deg, azimuth_deg}; }

TEST(Horizon, lies_on_straight_lines_between_its_points_and_closes_round_the_back)
{
    const std::vector<HorizonPoint> line{{90, 30}, {-90, 10}, {0, 20}};
    EXPECT_DOUBLE_EQ(horizon_at(line, 0), 20);
    EXPECT_DOUBLE_EQ(horizon_at(line, 45), 25);
    EXPECT_DOUBLE_EQ(horizon_at(line, -45), 15);
    EXPECT_DOUBLE_EQ(horizon_at(line, 180), 20) << "half way from west to east through the north";
    EXPECT_DOUBLE_EQ(horizon_at(line, -135), 15);
    EXPECT_DOUBLE_EQ(horizon_at({}, 12), 0);
    EXPECT_DOUBLE_EQ(horizon_at({{10, 7}}, -120), 7) << "a single point is a line of one height";
    EXPECT_DOUBLE_EQ(horizon_at({{-30, 0}, {-30, 12}, {30, 12}, {30, 0}}, 0), 12) << "a wall with two upright edges";
    EXPECT_DOUBLE_EQ(horizon_at({{-30, 0}, {-30, 12}, {30, 12}, {30, 0}}, 60), 0);
}

// Half of the disc stands above a line through its middle; half its width above, all of it.
TEST(Horizon, the_suns_disc_goes_down_behind_it_by_and_by)
{
    const std::vector<HorizonPoint> line{{0, 20}};
    EXPECT_DOUBLE_EQ(disc_above(at(20, 40), line), 0.5);
    EXPECT_DOUBLE_EQ(disc_above(at(20.3, 40), line), 1);
    EXPECT_DOUBLE_EQ(disc_above(at(19.7, 40), line), 0);
    const double quarter = disc_above(at(20 + 0.265 * 0.5, 40), line); // half a radius: 1 − (acos ½ − ½ √¾)/π
    EXPECT_NEAR(quarter, 1 - (std::acos(0.5) - 0.5 * std::sqrt(0.75)) / M_PI, 1e-9);
}

// A ring of one height h hides sin² h of an even sky from a level surface (by hand: ∫₀ʰ 2 sin e cos e de).
TEST(Horizon, takes_its_share_of_an_even_sky)
{
    for (double h : {0.0, 10.0, 30.0, 90.0})
        EXPECT_NEAR(sky_seen({{0, h}}), 1 - std::pow(std::sin(h * M_PI / 180), 2), 1e-9);
    EXPECT_NEAR(sky_seen({{-90, 0}, {-90, 30}, {90, 30}, {90, 0}}), 1 - 0.5 * 0.25, 1e-9) << "half way round";
}

RC_GTEST_PROP(Horizon, whatever_stands_there_adds_no_light, ())
{
    Skyline s;
    const auto any = [](double lo, double hi) { return lo + (hi - lo) * *rc::gen::inRange(0, 1001) / 1000.0; };
    for (int i = *rc::gen::inRange(0, 6); i > 0; --i)
        s.horizon.push_back({any(-400, 400), any(0, 90)});
    for (int i = *rc::gen::inRange(0, 3); i > 0; --i)
        s.shades.push_back({any(0, 24), any(0, 24), any(0, 1)});
    const SkyDay day = generate({.month = *rc::gen::inRange(1, 13)}, {45, 10}), seen = seen_from(day, s);
    for (std::size_t m = 0; m < day.sun.size(); ++m) {
        RC_ASSERT(seen.beam_normal_w_m2[m] >= 0 && seen.beam_normal_w_m2[m] <= day.beam_normal_w_m2[m]);
        RC_ASSERT(seen.diffuse_horizontal_w_m2[m] >= 0 && seen.diffuse_horizontal_w_m2[m] <= day.diffuse_horizontal_w_m2[m] + 1e-12);
        RC_ASSERT(seen.sky_c[m] >= day.sky_c[m] - 1e-12 && seen.sky_c[m] <= seen.air_c[m] + 1e-12);
    }
}

// The first sun over a ridge of 25° in the east comes when the sun has climbed 25°, not before.
TEST(Horizon, the_sun_comes_when_it_has_climbed_the_ridge)
{
    const SkyDay day = generate({.month = 6, .day = 21}, {45, 0}), seen = seen_from(day, {{{-180, 25}, {0, 25}, {0, 0}, {180, 0}}, {}});
    const auto first = [](const SkyDay& d) { return std::find_if(d.beam_normal_w_m2.begin(), d.beam_normal_w_m2.end(), [](double w) { return w > 50; }) - d.beam_normal_w_m2.begin(); };
    EXPECT_GT(first(seen), first(day) + 60);
    EXPECT_NEAR(90 - day.sun[static_cast<std::size_t>(first(seen))].zenith_deg, 25, 0.3);
    EXPECT_DOUBLE_EQ(seen.beam_normal_w_m2[17 * 60], day.beam_normal_w_m2[17 * 60]) << "the west is open";
}

// What is written is read back; what a person may type besides is taken; what is wrong is named.
TEST(Horizon, is_typed_as_a_line_of_words)
{
    const std::vector<HorizonPoint> line{{-90, 12}, {-30.5, 25}, {40, 0}};
    EXPECT_EQ(horizon_text(line), "-90 12, -30.5 25, 40 0");
    EXPECT_EQ(*parse_horizon(horizon_text(line)), line);
    EXPECT_EQ(*parse_horizon("−90°:12°; -30.5 25\n 40\t0 ,"), line);
    EXPECT_TRUE(parse_horizon("  ")->empty());
    for (const auto& [typed, about] : {std::pair{"-90", "point 1"}, {"-90 12, 30 91", "“91”"}, {"-190 3", "“-190”"}, {"east 3", "“east”"}, {"1 2 3", "point 1"}, {"1 nan", "“nan”"}}) {
        const auto bad = parse_horizon(typed);
        ASSERT_FALSE(bad) << typed;
        EXPECT_NE(bad.error().text().find(about), std::string::npos) << bad.error().text();
    }
}

RC_GTEST_PROP(Horizon, any_line_reads_back_as_it_was_written, ())
{
    std::vector<HorizonPoint> line;
    for (int i = *rc::gen::inRange(0, 20); i > 0; --i)
        line.push_back({*rc::gen::inRange(-180000, 180001) / 1000.0, *rc::gen::inRange(0, 90001) / 1000.0});
    RC_ASSERT(*parse_horizon(horizon_text(line)) == line);
}

TEST(Horizon, a_near_object_takes_its_hours)
{
    const SkyDay day = generate({}, {45, 0}), seen = seen_from(day, {{}, {{15, 16.5, 0.25}}});
    EXPECT_DOUBLE_EQ(seen.beam_normal_w_m2[15 * 60 + 30], 0.25 * day.beam_normal_w_m2[15 * 60 + 30]);
    EXPECT_DOUBLE_EQ(seen.beam_normal_w_m2[14 * 60 + 59], day.beam_normal_w_m2[14 * 60 + 59]);
    EXPECT_DOUBLE_EQ(seen.beam_normal_w_m2[16 * 60 + 30], day.beam_normal_w_m2[16 * 60 + 30]);
    EXPECT_EQ(seen.diffuse_horizontal_w_m2, day.diffuse_horizontal_w_m2);
}

} // namespace
