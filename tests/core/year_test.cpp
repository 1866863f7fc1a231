// A year of days: what the days say adds up to what one run of it all says.
#include "core/setup/job_setup.h"
#include "core/study/year.h"

#include <gtest/gtest.h>

#include <cmath>
#include <map>
#include <set>

using namespace vernal;

namespace {

TEST(Year, days_add_up_to_months_and_to_one_run_of_it_all)
{
    Job job = new_job("glycol-coil");
    const auto year = run_year(job, job.variants[0], job.days[0]);
    ASSERT_TRUE(year) << year.error().text();
    ASSERT_EQ(year->days.size(), 365U);
    ASSERT_EQ(year->months.size(), 12U);
    EXPECT_FALSE(year->measured);
    EXPECT_EQ(year->days[59].month, 3) << "the sixtieth day is the first of March";
    EXPECT_EQ(year->days[59].day, 1);
    EXPECT_EQ(year->months[1].days, 28);
    double heat = 0;
    int starts = 0;
    std::set<Clouds> skies;
    for (const YearDay& d : year->days) {
        heat += d.figures.heat.to_store;
        starts += d.figures.starts();
        skies.insert(d.clouds);
        EXPECT_LT(std::fabs(d.figures.residual_j()), 1e-8 * std::max(1e6, d.figures.heat.absorbed)) << d.month << "-" << d.day;
        if (const double first = d.figures.pumps[0].first_start_s; std::isfinite(first)) {
            EXPECT_GE(first, 0);
            EXPECT_LT(first, 86400);
        }
    }
    EXPECT_EQ(skies.size(), 4U);
    EXPECT_NEAR(year->whole.heat_j, heat, 1e-9 * heat);
    EXPECT_EQ(year->whole.starts, starts);
    // What was possible, by day and by month; a new loop collects most of it in the sunny half.
    for (int m = 1; m <= 12; ++m) {
        double possible = 0;
        for (const YearDay& d : year->days)
            possible += d.month == m ? d.figures.possible_j : 0;
        const YearMonth& month = year->months[static_cast<std::size_t>(m - 1)];
        EXPECT_GT(possible, 0) << m;
        EXPECT_NEAR(month.possible_j, possible, 1e-9 * possible) << m;
        EXPECT_DOUBLE_EQ(month.collected_share(), (month.heat_j + month.frost_j) / month.possible_j);
        EXPECT_LT(month.collected_share(), 1.1) << m;
        if (m >= 4 && m <= 9) {
            EXPECT_GT(month.collected_share(), 0.85) << m;
        }
    }
    // The same days in one run.
    Weather w;
    for (std::size_t n = 0; n < 365; ++n)
        w.days.push_back(weather_of(job, job.variants[0], day_of_year_run(job, job.days[0], *year, n)).days.front());
    CoupledOptions o;
    o.keep_records = false;
    const Figures whole = run_coupled(*coupled_setup(job, job.variants[0], day_of_year_run(job, job.days[0], *year, 0), &w), o).figures;
    EXPECT_NEAR(whole.heat.to_store, heat, 1e-9 * heat);
    EXPECT_EQ(whole.days, 365);
    EXPECT_GT(year->months[5].heat_j, 1.5 * year->months[11].heat_j) << "June and December";
    EXPECT_LT(year->months[0].coldest_air_c, year->months[6].coldest_air_c);
}

TEST(Year, picks_the_days_that_are_worth_a_look)
{
    Year y;
    for (int i = 0; i < 4; ++i) {
        YearDay d;
        d.month = 1;
        d.day = i + 1;
        d.figures.pumps.resize(1);
        d.figures.pumps[0].starts = i == 2 ? 30 : i;
        d.figures.highest_store_c = 50 + (i == 1 ? 40 : 0);
        d.figures.highest_collector_c = 80 + i;
        d.figures.heat.to_store = 100.0 * (i + 1);
        d.coldest_air_c = i == 3 ? -20 : 5;
        y.days.push_back(d);
    }
    std::map<std::string, std::size_t> picked;
    for (const WorthALook& w : worth_a_look(y))
        picked[w.key] = w.day;
    EXPECT_EQ(picked, (std::map<std::string, std::size_t>{{"most_starts", 2}, {"hottest_store", 1}, {"hottest_collector", 3}, {"coldest", 3}, {"least_heat", 0}})) << "no frost and nothing missing: no such days";
}

TEST(Year, stops_when_it_is_told_to)
{
    Job job = new_job("direct");
    std::stop_source stop;
    const auto year = run_year(
        job, job.variants[0], job.days[0], [&](std::size_t n, std::size_t) { n >= 3 ? void(stop.request_stop()) : void(); }, stop.get_token());
    ASSERT_TRUE(year);
    EXPECT_TRUE(year->cancelled);
    EXPECT_LT(year->days.size(), 6U);
    Day log = job.days[0];
    log.kind = DayKind::recorded;
    EXPECT_FALSE(run_year(job, job.variants[0], log));
}

// In the south July is the cold month.
TEST(Year, is_turned_round_in_the_south)
{
    Job job = new_job("glycol-coil");
    job.site.place.latitude_deg = -44;
    const auto year = run_year(job, job.variants[0], job.days[0]);
    ASSERT_TRUE(year);
    EXPECT_LT(year->months[6].coldest_air_c, year->months[0].coldest_air_c - 5);
    EXPECT_GT(year->months[0].heat_j, year->months[6].heat_j);
}

} // namespace
