// With what a day begins: stores settled, cold or after days unused; what is slow as stated;
// nothing counted of what came before.
#include "core/run/coupled.h"
#include "core/run/simulation.h"
#include "core/setup/job_setup.h"

#include <gtest/gtest.h>

#include <cmath>

namespace vernal {
namespace {

CoupledSetup setup_of(const Job& job, std::size_t day = 0) { return *coupled_setup(job, job.variants[0], job.days[day]); }

double begins_at_c(const Job& job, std::size_t day = 0)
{
    Simulation s(setup_of(job, day));
    s.spin_up();
    return s.network().store_mean_c(s.temperatures());
}

// The day after, begun where it ended, returns to about the same: three repeats leave little.
TEST(DayBegins, as_such_days_leave_the_store)
{
    for (const char* key : {"glycol-coil", "direct", "drainback", "glycol-hx", "two-arrays"}) {
        const Job job = new_job(key);
        Simulation s(setup_of(job));
        s.spin_up();
        const double begins = s.network().store_mean_c(s.temperatures());
        s.advance(86400);
        EXPECT_NEAR(s.network().store_mean_c(s.temperatures()), begins, 1.0) << key;
        EXPECT_EQ(s.now_s(), 86400);
    }
}

TEST(DayBegins, cold_at_what_the_mains_have)
{
    Job job = new_job("glycol-coil");
    job.days[0].begins = Begins::cold;
    job.days[0].mains_c = 7;
    EXPECT_NEAR(begins_at_c(job), 7, 1e-9);
}

TEST(DayBegins, after_days_unused_hotter_than_after_such_days)
{
    Job job = new_job("glycol-coil");
    const double usual = begins_at_c(job);
    job.days[0].begins = Begins::holiday;
    EXPECT_GT(begins_at_c(job), usual + 5);
}

// What takes days to follow stands as it is stated, whatever the day does before it.
TEST(DayBegins, slow_stores_and_the_battery_as_stated)
{
    Job pool = new_job("pool");
    pool.variants[0].loop.pool.start_c = 24.5;
    EXPECT_NEAR(begins_at_c(pool), 24.5, 1e-9);
    const auto in_pool = run_coupled(setup_of(pool)).records.front().inputs.readings[1];
    EXPECT_NEAR(in_pool.mk / 1000.0, 24.5, 0.01) << "no probe remembers the day before";
    Job floor = new_job("floor");
    floor.variants[0].loop.slab.start_c = 17;
    EXPECT_NEAR(begins_at_c(floor), 17, 1e-9);
    Job battery = new_job("pv-battery");
    for (const double charge : {0.3, 0.9}) {
        battery.variants[0].loop.battery.start_charge = charge;
        Simulation s(setup_of(battery));
        s.spin_up();
        EXPECT_EQ(s.hydraulics().power().charge(), charge);
        EXPECT_FALSE(s.hydraulics().power().cut());
    }
}

// What was in the battery plus what it got is no less than what it gave, of the counted day alone.
TEST(DayBegins, nothing_before_it_counts)
{
    const Job job = new_job("pv-battery");
    CoupledSetup once = setup_of(job);
    once.spin_up_days = 1;
    const Figures f = run_coupled(once).figures;
    const Figures g = run_coupled(setup_of(job)).figures;
    EXPECT_LT(f.power.offered_j, 1.01 * g.power.offered_j) << "one day's sun, however often it was repeated";
    EXPECT_GT(f.power.offered_j, 0.99 * g.power.offered_j);
    EXPECT_LT(std::fabs(g.residual_j()), 1e-6 * g.heat.absorbed);
}

} // namespace
} // namespace vernal
