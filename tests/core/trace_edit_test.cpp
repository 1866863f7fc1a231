#include "core/job/trace_edit.h"

#include <gtest/gtest.h>

#include <cmath>

using namespace vernal;

namespace {

Trace ramp(std::size_t rows, const std::string& start = "2026-05-07T08:00:00")
{
    Trace t;
    t.start = start;
    t.columns = {{"collector", Quantity::temperature, {}}, {"P1", Quantity::number, {}}};
    for (std::size_t i = 0; i < rows; ++i) {
        t.time_s.push_back(10.0 * static_cast<double>(i));
        t.columns[0].values.push_back(static_cast<double>(i));
        t.columns[1].values.push_back(i % 4 < 2 ? 0 : 1);
    }
    return t;
}

} // namespace

TEST(TraceEdit, cuts_and_cuts_out)
{
    const Trace t = ramp(10);
    EXPECT_EQ(cut(t, 20, 40)->time_s, (std::vector<double>{20, 30, 40}));
    EXPECT_EQ(cut(t, 20, 40)->columns[0].values, (std::vector<double>{2, 3, 4}));
    EXPECT_EQ(cut_out(t, 20, 40)->time_s.size(), 7U);
    EXPECT_FALSE(cut(t, 41, 49));
    EXPECT_FALSE(cut_out(t, 0, 1000));
}

TEST(TraceEdit, joins_by_date_and_the_later_log_holds)
{
    Trace a = ramp(4), b = ramp(3, "2026-05-07T08:00:20");
    b.columns[0].values = {100, 101, 102};
    b.columns.push_back({"air", Quantity::temperature, {5, 6, 7}});
    const auto j = join({b, a}); // in any order
    ASSERT_TRUE(j);
    EXPECT_EQ(j->start, "2026-05-07T08:00:00");
    EXPECT_EQ(j->time_s, (std::vector<double>{0, 10, 20, 30, 40}));
    EXPECT_EQ(j->find("collector")->values, (std::vector<double>{0, 1, 100, 101, 102}));
    EXPECT_TRUE(std::isnan(j->find("air")->values[0]));
    EXPECT_EQ(j->find("air")->values[4], 7);
    EXPECT_EQ(j->notes.size(), 1U);
    b.columns[0].quantity = Quantity::irradiance;
    EXPECT_FALSE(join({a, b}));
    EXPECT_FALSE(join({a, ramp(2, "")}));
    EXPECT_EQ(join({ramp(2, ""), ramp(2, "")})->time_s, (std::vector<double>{0, 10, 20, 30}));
}

TEST(TraceEdit, shifts_with_the_date)
{
    const Trace t = shifted(ramp(3), -3600 * 9.0);
    EXPECT_EQ(t.start, "2026-05-06T23:00:00");
    EXPECT_EQ(t.time_s, ramp(3).time_s);
    EXPECT_EQ(shifted(ramp(3), 0.5).time_s[0], 0.5);
    EXPECT_EQ(shifted(ramp(3, ""), -15).time_s, (std::vector<double>{5}));
}

TEST(TraceEdit, scales_and_smooths_what_is_marked)
{
    const Trace t = scaled(ramp(5), {"collector", "nothing"}, {10, 20}, 2, 0.5);
    EXPECT_EQ(t.columns[0].values, (std::vector<double>{0, 2.5, 4.5, 3, 4}));
    EXPECT_EQ(t.columns[1].values, ramp(5).columns[1].values);
    Trace noisy = ramp(7);
    noisy.columns[0].values = {0, 3, 0, NAN, 0, 3, 0};
    const Trace s = smoothed(noisy, {"collector"}, {0, 1000}, 20);
    EXPECT_EQ(s.columns[0].values[1], 1);
    EXPECT_TRUE(std::isnan(s.columns[0].values[3]));
    EXPECT_EQ(s.columns[0].values[2], 1.5);
}

TEST(TraceEdit, resamples_finer_and_coarser_and_leaves_gaps)
{
    const auto fine = resampled(ramp(5), 5);
    ASSERT_TRUE(fine);
    EXPECT_EQ(fine->time_s.size(), 9U);
    EXPECT_EQ(fine->columns[0].values[1], 0.5);
    EXPECT_EQ(fine->columns[1].values[3], 0) << "a switch keeps its last row";
    const auto coarse = resampled(ramp(13), 30);
    ASSERT_TRUE(coarse);
    EXPECT_EQ(coarse->time_s, (std::vector<double>{0, 30, 60, 90, 120}));
    EXPECT_EQ(coarse->columns[0].values[1], 3); // of rows 2, 3 and 4
    Trace gap = ramp(4);
    gap.time_s[3] = 1000;
    EXPECT_EQ(resampled(gap, 10)->time_s, (std::vector<double>{0, 10, 20, 1000}));
    EXPECT_FALSE(resampled(ramp(5), 1e-9));
}
