#include "core/job/job.h"
#include "core/setup/job_setup.h"
#include "files/csv_trace.h"
#include "files/disk.h"

#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <cmath>

using namespace vernal;

namespace {

Trace good(const std::string& text)
{
    const auto t = read_trace_csv(text, "log.csv");
    EXPECT_TRUE(t) << t.error().text();
    return t ? *t : Trace{};
}

std::string bad(const std::string& text)
{
    const auto t = read_trace_csv(text, "log.csv");
    EXPECT_FALSE(t);
    return t ? "" : t.error().text();
}

TEST(TraceCsv, plain)
{
    const Trace t = good("time,collector [°C],P1\n0,20.5,0\n30,21,1\n");
    EXPECT_EQ(t.time_s, (std::vector<double>{0, 30}));
    EXPECT_EQ(t.find("collector")->values, (std::vector<double>{20.5, 21}));
    EXPECT_EQ(t.find("P1")->values[1], 1);
    EXPECT_EQ(t.interval_s(), 30);
}

TEST(TraceCsv, bom_semicolons_decimal_commas_crlf_quotes_and_fahrenheit)
{
    const Trace t = good("\xef\xbb\xbftime;collector [°F];\"tank bottom (°C)\";P1\r\n2026-05-07T08:00:00;212,0;30,25;on\r\n2026-05-07T08:00:30;32;\"31,5\";off\r\n");
    EXPECT_EQ(t.start, "2026-05-07T08:00:00");
    EXPECT_EQ(t.time_s[1], 30);
    EXPECT_NEAR(t.find("collector")->values[0], 100, 1e-12);
    EXPECT_NEAR(t.find("tank_bottom")->values[1], 31.5, 1e-12);
    EXPECT_EQ(t.find("P1")->values[0], 1);
}

TEST(TraceCsv, tabs_and_kelvin)
{
    EXPECT_NEAR(good("time\tair [K]\n0\t273.15\n").find("air")->values[0], 0, 1e-12);
}

TEST(TraceCsv, the_last_of_duplicates_wins_and_gaps_are_noted)
{
    const Trace t = good("time,collector [°C]\n0,1\n30,2\n30,3\n60,\n90,4\n600,5\n");
    EXPECT_EQ(t.time_s.size(), 5U);
    EXPECT_EQ(t.find("collector")->values[1], 3);
    EXPECT_TRUE(std::isnan(t.find("collector")->values[2]));
    ASSERT_EQ(t.notes.size(), 3U);
    EXPECT_NE(t.notes[0].find("repeats a time"), std::string::npos);
}

TEST(TraceCsv, errors_name_file_line_and_column)
{
    EXPECT_NE(bad("time,collector\n0,1\n30,oops\n").find("log.csv, line 3, column 2: “oops” is not a number"), std::string::npos);
    EXPECT_NE(bad("time,collector\n60,1\n30,2\n").find("line 3, column 1: the time runs backwards"), std::string::npos);
    EXPECT_NE(bad("time,a\n0,1,5\n").find("3 cells, the header has 2"), std::string::npos);
    EXPECT_NE(bad("a,b\n1,2\n").find("no column named “time”"), std::string::npos);
    EXPECT_NE(bad("time,a\nyesterday,2\n").find("is not a time"), std::string::npos);
    EXPECT_NE(bad("time,a,a\n0,1,2\n").find("two columns"), std::string::npos);
    EXPECT_NE(bad("").find("the file is empty"), std::string::npos);
    EXPECT_NE(bad("time,a\n").find("no row"), std::string::npos);
    EXPECT_NE(bad("time,a\n0,\"1\n").find("not closed"), std::string::npos);
    EXPECT_NE(bad("time,a\n2026-02-30T00:00,1\n").find("is not a time"), std::string::npos);
}

RC_GTEST_PROP(TraceCsv, written_numbers_read_back_exactly, ())
{
    Trace t;
    double at = 0;
    t.columns = {{"collector", Quantity::temperature, {}}, {"P1", Quantity::number, {}}};
    for (int n = *rc::gen::inRange(1, 40); n-- > 0;) {
        t.time_s.push_back(at += *rc::gen::inRange(1, 100000) / 7.0);
        t.columns[0].values.push_back(*rc::gen::arbitrary<double>());
        t.columns[1].values.push_back(*rc::gen::inRange(0, 2));
        RC_PRE(std::isfinite(t.columns[0].values.back()));
    }
    const auto back = read_trace_csv(write_trace_csv(t), "x");
    RC_ASSERT(back);
    RC_ASSERT(back->time_s == t.time_s);
    RC_ASSERT(back->columns == t.columns);
}

RC_GTEST_PROP(TraceCsv, any_bytes_give_a_trace_or_a_reason, (const std::string& text))
{
    const auto t = read_trace_csv("time,a\n" + text, "x");
    RC_ASSERT(t || !t.error().what.empty());
}

TEST(TraceCsv, a_log_over_midnight_keeps_its_dates)
{
    const Trace t = good("time,a\n2026-12-31T23:59:30,1\n2027-01-01T00:00:30.5,2\n");
    EXPECT_NEAR(t.time_s[1], 60.5, 1e-9);
    const std::string out = write_trace_csv(t);
    EXPECT_NE(out.find("2027-01-01T00:00:30.5"), std::string::npos) << out;
}

// Main job on real input: hourly air temperatures of an open data set drive a coupled run.
TEST(RealInput, hourly_normals_drive_a_coupled_run)
{
    const auto text = read_file(VERNAL_TEST_DATA "/seattle-hourly-normals-july.csv");
    ASSERT_TRUE(text);
    auto trace = std::make_shared<const Trace>(good(*text));
    ASSERT_EQ(trace->time_s.size(), 96U);
    Job job = new_job("glycol-coil");
    job.site.place = {47.4, -122.3, 130, -7}; // the station's place, beside the data
    job.traces["normals.csv"] = trace;
    Day day = job.days[0];
    day.sky.month = 7;
    day.sky.day = 2;
    day.trace = "normals.csv";
    const auto setup = coupled_setup(job, job.variants[0], day);
    ASSERT_TRUE(setup);
    const auto& air = setup->days[0]->air_c;
    const auto& recorded = trace->find("temperature")->values;
    for (std::size_t h = 0; h < 24; ++h) // 2 July begins 48 hours after the file
        EXPECT_NEAR(air[60 * h], recorded[48 + h], 1e-9) << h;
    const Figures f = run_coupled(*setup).figures;
    EXPECT_GT(f.heat.to_store, 5 * 3.6e6);
    EXPECT_LT(std::fabs(f.residual_j()), 1e-3 * f.heat.absorbed);
}

// A logger's file as they come: gap, duplicates, decimal comma, a pump that stuck in the evening.
TEST(RealInput, logger_trace_replays_and_its_disagreements_are_listed)
{
    const auto text = read_file(VERNAL_DEMO "/traces/cheese-room-7-may.csv");
    ASSERT_TRUE(text);
    const Trace trace = good(*text);
    EXPECT_EQ(trace.notes.size(), 2U);
    const auto r = run_replay(*replay_setup(new_job("glycol-coil").variants[0]), trace);
    ASSERT_TRUE(r);
    EXPECT_TRUE(std::any_of(r->disagreements.begin(), r->disagreements.end(), [](const Disagreement& d) { return d.recorded_on && d.from_s > 19 * 3600 && d.to_s - d.from_s > 6000; })) << "the stuck pump";
    ASSERT_EQ(r->gaps.size(), 1U);
    ASSERT_GE(r->gaps[0].made_up, 0);
    EXPECT_EQ(r->decision(static_cast<std::size_t>(r->gaps[0].made_up), 0).priority, Priority::fault);
}

} // namespace
