// Ready days, skies, and days of several days.
#include "core/job/day_shelf.h"
#include "core/job/ids.h"
#include "core/job/job_check.h"
#include "core/setup/job_setup.h"

#include <gtest/gtest.h>

#include <cmath>
#include <numeric>

using namespace vernal;

namespace {

const Place alps{46.5, 9.0, 600.0, 1.0};

double kwh_m2(const SkyDay& d)
{
    double sum = 0;
    for (std::size_t m = 0; m < d.sun.size(); ++m)
        sum += d.beam_normal_w_m2[m] * std::max(0.0, std::cos(d.sun[m].zenith_deg * M_PI / 180)) + d.diffuse_horizontal_w_m2[m];
    return sum / 60000;
}

SkySpec sky(Clouds clouds, std::uint32_t seed = 5)
{
    SkySpec s;
    s.month = 9;
    s.day = 20;
    s.clouds = clouds;
    s.seed = seed;
    return s;
}

TEST(Sky, kinds_are_ordered_by_what_they_let_through)
{
    for (std::uint32_t seed : {1U, 2U, 3U, 40U}) {
        const double clear = kwh_m2(generate(sky(Clouds::clear, seed), alps)), thin = kwh_m2(generate(sky(Clouds::thin, seed), alps)), overcast = kwh_m2(generate(sky(Clouds::overcast, seed), alps));
        EXPECT_GT(thin, 0.6 * clear) << seed;
        EXPECT_LT(thin, 0.97 * clear) << seed;
        EXPECT_LT(overcast, 0.5 * thin) << seed;
    }
}

TEST(Sky, fog_takes_the_beam_until_it_lifts_and_nothing_after)
{
    const SkyDay fog = generate(sky(Clouds::fog), alps), clear = generate(sky(Clouds::clear), alps);
    for (std::size_t m = 0; m < fog.sun.size(); ++m) {
        EXPECT_LE(fog.beam_normal_w_m2[m], m <= 570 ? 0.0 : clear.beam_normal_w_m2[m] + 1e-9) << m;
        if (m >= 600) {
            EXPECT_DOUBLE_EQ(fog.diffuse_horizontal_w_m2[m], clear.diffuse_horizontal_w_m2[m]) << m;
        }
    }
    EXPECT_GT(fog.diffuse_horizontal_w_m2[9 * 60], 30) << "it is light in fog";
    EXPECT_NEAR(fog.sky_c[8 * 60], fog.air_c[8 * 60] - 1, 1e-9) << "and it keeps the night's cold off";
}

TEST(Sky, a_thunderstorm_goes_dark_and_cools_the_air)
{
    SkySpec s = sky(Clouds::thunder);
    s.thunder_at_h = 15;
    const SkyDay storm = generate(s, alps), clear = generate(sky(Clouds::clear), alps);
    for (std::size_t m = 15 * 60; m < 990; ++m)
        EXPECT_EQ(storm.beam_normal_w_m2[m], 0) << m;
    EXPECT_DOUBLE_EQ(storm.beam_normal_w_m2[12 * 60], clear.beam_normal_w_m2[12 * 60]) << "the noon is clear";
    EXPECT_NEAR(clear.air_c[16 * 60] - storm.air_c[16 * 60], 6, 1e-9);
    EXPECT_DOUBLE_EQ(storm.air_c[14 * 60], clear.air_c[14 * 60]);
    for (std::size_t m = 1; m < storm.air_c.size(); ++m)
        EXPECT_LT(std::fabs(storm.air_c[m] - storm.air_c[m - 1]), 0.5) << "no jump at " << m;
}

TEST(Sky, snow_lies_on_arrays_and_panel_and_slides_off)
{
    Job job = new_job("pv-battery");
    Day snowy = job.days.front();
    snowy.sky.snow_until_h = 11;
    const auto bare = weather_of(job, job.variants[0], job.days.front()).days.front(), under = weather_of(job, job.variants[0], snowy).days.front();
    for (std::size_t plane : {0U, 3U}) {
        EXPECT_NEAR(under->sun_w_m2[plane][600], 0.05 * bare->sun_w_m2[plane][600], 1e-9);
        EXPECT_DOUBLE_EQ(under->sun_w_m2[plane][690], bare->sun_w_m2[plane][690]);
    }
    EXPECT_EQ(under->air_c, bare->air_c);
}

TEST(SeveralDays, go_on_by_date_with_other_clouds_of_their_kind)
{
    const Job job = new_job("glycol-coil");
    Day d = job.days[1];
    d.sky.year = 2026;
    d.sky.month = 2;
    d.sky.day = 27;
    d.length_days = 4;
    d.sky.snow_until_h = 9;
    d.outage_start_h = 12;
    d.outage_h = 2;
    const Weather w = weather_of(job, job.variants[0], d);
    ASSERT_EQ(w.days.size(), 4U);
    for (std::size_t n = 1; n < 4; ++n) {
        EXPECT_EQ(w.days[n]->date, w.days[0]->date + static_cast<std::int32_t>(n)) << "over the end of February";
        EXPECT_NE(w.days[n]->sun_w_m2[0], w.days[n - 1]->sun_w_m2[0]);
        EXPECT_EQ(w.days[n]->outage_end_s, w.days[n]->outage_start_s) << "the mains fail once";
    }
    EXPECT_EQ(w.before, nullptr);
}

TEST(SeveralDays, who_is_away_draws_nothing_and_guests_draw_more)
{
    Job job = new_job("glycol-coil");
    Day d = job.days[0];
    d.length_days = 4;
    d.away_from = 1;
    d.away_days = 2;
    d.guests_from = 4;
    d.guests_days = 3;
    d.guests_times = 3;
    const Weather w = weather_of(job, job.variants[0], d);
    EXPECT_TRUE(w.days[0]->draws.empty());
    EXPECT_TRUE(w.days[1]->draws.empty());
    EXPECT_EQ(w.days[2]->draws, d.draws);
    ASSERT_EQ(w.days[3]->draws.size(), d.draws.size());
    EXPECT_DOUBLE_EQ(w.days[3]->draws[0].flow_m3_s, 3 * d.draws[0].flow_m3_s);
    ASSERT_NE(w.before, nullptr) << "stores begin as they are left by days at home";
    EXPECT_EQ(w.before->draws, d.draws);
}

// Four days in one run are what four runs, each begun where the last ended, would be: nothing
// is lost between them.
TEST(SeveralDays, balance_and_are_counted_as_a_whole)
{
    Job job = new_job("glycol-coil");
    Day d = job.days[1];
    d.length_days = 4;
    const CoupledResult r = run_coupled(*coupled_setup(job, job.variants[0], d));
    const Figures& f = r.figures;
    EXPECT_LT(std::fabs(f.residual_j()), 1e-9 * f.heat.absorbed);
    EXPECT_NEAR(r.records.back().time_s, 4 * 86400, 301);
    EXPECT_LT(r.records.size(), 20000U) << "of many days less is kept";
    double alone = 0;
    for (int n = 0; n < 4; ++n) {
        Day one = job.days[1];
        one.sky.day += n;
        one.sky.seed += static_cast<std::uint32_t>(n);
        alone += run_coupled(*coupled_setup(job, job.variants[0], one)).figures.heat.absorbed;
    }
    EXPECT_NEAR(f.heat.absorbed, alone, 1e-5 * alone) << "the same suns";
}

// A fortnight without a draw, begun as on a day at home: cooler at its start than after it.
TEST(SeveralDays, a_fortnight_away_begins_at_home)
{
    Job job = new_job("glycol-coil");
    Day d = ready_day(*find_ready_day("fortnight-away"), job);
    d.away_from = 1;
    d.length_days = 6;
    d.draws = draw_profiles()[1].draws; // more than the sun gives
    const CoupledSetup s = *coupled_setup(job, job.variants[0], d);
    Simulation sim(s);
    sim.spin_up();
    const double at_home = sim.network().store_mean_c(sim.temperatures());
    ASSERT_TRUE(sim.advance(6 * 86400.0));
    EXPECT_GT(sim.network().store_mean_c(sim.temperatures()), at_home + 10);
}

TEST(ReadyDays, each_runs_and_passes_the_jobs_own_check)
{
    for (const char* preset : {"glycol-coil", "pv-battery"}) {
        Job job = new_job(preset);
        for (const ReadyDay& r : ready_days()) {
            Day d = ready_day(r, job);
            EXPECT_EQ(d.draws, job.days.front().draws);
            d.name = free_name(job.days, d.name);
            job.days.push_back(d);
        }
        give_ids(job, NewFrom::file);
        EXPECT_FALSE(job_problem(job));
        for (std::size_t i = 3; i < job.days.size(); ++i) {
            Day d = job.days[i];
            d.length_days = std::min(d.length_days, 2);
            const auto setup = coupled_setup(job, job.variants[0], d);
            ASSERT_TRUE(setup) << d.name;
            CoupledOptions o;
            o.keep_records = false;
            const Figures f = run_coupled(*setup, o).figures;
            EXPECT_LT(std::fabs(f.residual_j()), 1e-9 * std::max(1e6, f.heat.absorbed)) << d.name;
            EXPECT_GT(f.heat.absorbed, 0) << d.name;
        }
    }
}

TEST(ReadyDays, are_half_a_year_later_in_the_south)
{
    Job job = new_job("glycol-coil");
    const ReadyDay& frost = *find_ready_day("hard-frost");
    EXPECT_EQ(ready_day(frost, job).sky.month, 1);
    job.site.place.latitude_deg = -40;
    EXPECT_EQ(ready_day(frost, job).sky.month, 7);
    EXPECT_EQ(find_ready_day("none of these"), nullptr);
}

} // namespace
