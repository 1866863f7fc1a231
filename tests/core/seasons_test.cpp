// Weeks, trends and steps: found where they are, not claimed from noise.
#include "audit_log.h"
#include "core/audit/seasons.h"

#include <gtest/gtest.h>

#include <cmath>

namespace vernal {
namespace {

struct Series {
    std::vector<double> x, y;
};

// White noise, or noise whose neighbours are alike by `alike`, about a course.
template <class Course>
Series series(unsigned seed, std::size_t weeks, double sigma, double alike, Course course)
{
    std::mt19937 random(seed);
    std::normal_distribution<double> noise(0, sigma);
    Series s;
    double now = noise(random);
    for (std::size_t w = 0; w < weeks; ++w) {
        now = alike * now + std::sqrt(1 - alike * alike) * noise(random);
        s.x.push_back(7.0 * static_cast<double>(w));
        s.y.push_back(course(static_cast<double>(w)) + now);
    }
    return s;
}

double claimed_share(double alike, std::size_t weeks)
{
    constexpr unsigned n = 400;
    int claimed = 0;
    for (unsigned seed = 1; seed <= n; ++seed) {
        const Series s = series(seed, weeks, 1, alike, [](double) { return 5.0; });
        const Trend t = trend_of(s.x, s.y);
        claimed += t.claimed || t.step;
    }
    return static_cast<double>(claimed) / n;
}

} // namespace

TEST(Seasons, claim_no_trend_from_noise)
{
    for (const std::size_t weeks : {8U, 20U, 52U}) {
        EXPECT_LE(claimed_share(0, weeks), 0.05) << weeks;
        EXPECT_LE(claimed_share(0.5, weeks), 0.05) << weeks;
    }
}

TEST(Seasons, find_a_trend_within_its_uncertainty)
{
    int inside = 0, claimed = 0;
    for (unsigned seed = 1; seed <= 100; ++seed) {
        const Series s = series(seed, 26, 0.3, 0.2, [](double w) { return 5 - 0.1 * w; });
        const Trend t = trend_of(s.x, s.y);
        inside += t.low <= -0.1 * 30 / 7 && t.high >= -0.1 * 30 / 7;
        claimed += t.claimed;
    }
    EXPECT_GE(inside, 92);
    EXPECT_GE(claimed, 95);
}

TEST(Seasons, tell_a_step_from_a_slope)
{
    int stepped = 0, right = 0, sloped = 0;
    for (unsigned seed = 1; seed <= 100; ++seed) {
        const Series step = series(seed, 20, 0.2, 0, [](double w) { return w < 12 ? 5.0 : 3.5; });
        if (const Trend t = trend_of(step.x, step.y); t.step) {
            ++stepped;
            right += t.step->day == 12 * 7;
        }
        const Series slope = series(seed, 20, 0.2, 0, [](double w) { return 5.0 - 0.1 * w; });
        sloped += !trend_of(slope.x, slope.y).step;
    }
    EXPECT_GE(stepped, 95);
    EXPECT_GE(right, 90);
    EXPECT_GE(sloped, 95);
}

TEST(Seasons, of_a_log_by_week)
{
    TruthCase c = truth_case("glycol-coil", 8, 42);
    Logger logger;
    logger.every_s = 120;
    const Trace log = logged(c.job, c.job.variants.front(), c.day, logger);
    const Seasons s = seasons(LogView(log, c.job.variants.front()), c.job.variants.front());
    EXPECT_EQ(s.days.size(), 42U);
    ASSERT_EQ(s.weeks.size(), 6U);
    EXPECT_GE(s.trends.size(), 5U);
    for (const SeasonWeek& w : s.weeks) {
        EXPECT_GT(w.value[static_cast<std::size_t>(SeasonMeasure::first_start_h)], 4);
        EXPECT_LT(w.value[static_cast<std::size_t>(SeasonMeasure::first_start_h)], 14);
        EXPECT_GT(w.value[static_cast<std::size_t>(SeasonMeasure::heat_per_sun)], 0.1);
        EXPECT_LT(w.value[static_cast<std::size_t>(SeasonMeasure::heat_per_sun)], 0.9);
    }
    Trace without = log;
    std::erase_if(without.columns, [](const TraceColumn& column) { return column.name == "P1"; });
    EXPECT_TRUE(seasons(LogView(without, c.job.variants.front()), c.job.variants.front()).days.empty());
}

} // namespace vernal
