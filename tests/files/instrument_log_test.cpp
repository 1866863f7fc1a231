// Logs of probes that read a flow, a pressure or the sun.
#include "files/csv_trace.h"
#include "files/sample_csv.h"
#include "tests/core/instruments.h"

#include <gtest/gtest.h>

#include <cmath>

namespace vernal {
namespace {

using namespace testing_instruments;

// A run's own samples, written and read again, decide the same.
TEST(InstrumentLogs, a_written_run_replays_to_the_same_decisions)
{
    const Job job = with_instruments();
    const Variant& v = job.variants[0];
    std::string csv;
    CoupledResult run;
    const std::vector<Row> rows = rows_of(job, &run);
    SampleCsv out(v, SampleCsv::Of::run, [&](std::string_view part) { csv += part; });
    for (const Row& r : rows)
        out.add({r.time_s, r.inputs, r.decisions, 10, r.plane_w_m2, r.pressure_pa});
    out.finish();
    EXPECT_NE(csv.find("flow_meter [L/min]"), std::string::npos);
    EXPECT_NE(csv.find("pressure_sensor [bar]"), std::string::npos);
    EXPECT_NE(csv.find("sun_sensor [W/m²]"), std::string::npos);
    const auto trace = read_trace_csv(csv, "run.csv");
    ASSERT_TRUE(trace) << trace.error().text();
    const auto replay = run_replay(*replay_setup(v), *trace, &run.first_state);
    ASSERT_TRUE(replay) << replay.error().text();
    EXPECT_EQ(replay->disagreements.size(), 0U);
    ASSERT_EQ(replay->size(), rows.size());
    for (std::size_t i = 0; i < replay->size(); ++i)
        ASSERT_EQ(replay->decision(i, 0), rows[i].decisions[0]) << i;
}

// A logger's own units, and the column names that a run has beside its probes.
TEST(InstrumentLogs, a_logs_units_are_converted)
{
    const Variant v = with_instruments().variants[0];
    const auto reading = [&](const std::string& column, const std::string& cell, std::size_t probe) {
        const auto trace = read_trace_csv("time,collector,tank_bottom,tank_top,flow_meter,sun_sensor," + column + "\n0,40,30,30,3,500," + cell + "\n1,40,30,30,3,500," + cell + "\n", "log.csv");
        EXPECT_TRUE(trace) << trace.error().text();
        const auto r = run_replay(*replay_setup(v), *trace);
        EXPECT_TRUE(r) << r.error().text();
        return r ? r->reading(0, probe) : NAN;
    };
    EXPECT_NEAR(reading("pressure_sensor [psi]", "14.5037738", 4), 1.0, 1e-3); // NIST SP 811, 2008, B.8: 1 psi = 6.894 757 kPa
    EXPECT_NEAR(reading("pressure_sensor [kPa]", "150", 4), 1.5, 1e-3);
    EXPECT_NEAR(reading("pressure [bar]", "1.5", 4), 1.5, 1e-3) << "as a run writes it";
    EXPECT_NEAR(reading("pressure_sensor", "1.5", 4), 1.5, 1e-3) << "without a unit in the reading's own";
    const auto of_flow = [&](const std::string& column, const std::string& cell) {
        const auto trace = read_trace_csv("time,collector,tank_bottom,tank_top,pressure_sensor,sun_sensor," + column + "\n0,40,30,30,1,500," + cell + "\n", "log.csv");
        const auto r = run_replay(*replay_setup(v), *trace);
        return r ? r->reading(0, 3) : NAN;
    };
    EXPECT_NEAR(of_flow("flow_meter [L/h]", "360"), 6, 1e-3);
    EXPECT_NEAR(of_flow("flow_meter [m³/h]", "0.36"), 6, 1e-3);
    EXPECT_NEAR(of_flow("flow_meter [gal/min]", "2"), 7.571, 1e-3); // NIST SP 811, 2008, B.8: 1 US gal = 3.785 412 L
    EXPECT_TRUE(std::isnan(of_flow("flow_meter [kPa]", "2"))) << "that is no flow";
    EXPECT_TRUE(std::isnan(of_flow("flow_meter [°C]", "2")));
}

} // namespace
} // namespace vernal
