// What begins with a sample, what a written run says, and what a log of the same loop says:
// docs/engine-semantics.md 5, 8, 13, 19, 20, 38.
#include "core/setup/fault_setup.h"
#include "core/setup/job_setup.h"
#include "rule_of.h"

#include <gtest/gtest.h>

#include <cmath>

namespace vernal {
namespace {

struct Row {
    double time_s;
    Inputs inputs;
    Decisions decisions;
};

std::vector<Row> rows_of(const Job& job, const Day& day, double step_s = 0, CoupledResult* result = nullptr)
{
    CoupledSetup setup = *coupled_setup(job, job.variants.front(), day);
    setup.step_s = step_s;
    std::vector<Row> rows;
    CoupledOptions options;
    options.each_sample = [&](const SampleRow& r) { rows.push_back({r.time_s, r.inputs, r.decisions}); };
    CoupledResult ran = run_coupled(setup, options);
    if (result)
        *result = std::move(ran);
    return rows;
}

// As a run is written and read: what is invalid is stated.
Trace written(const Variant& v, const std::vector<Row>& rows)
{
    Trace t;
    for (std::size_t p = 0; p < v.probes.size(); ++p)
        t.columns.push_back({log_column(v, p), Quantity::temperature, {}});
    for (const Row& r : rows) {
        t.time_s.push_back(r.time_s);
        for (std::size_t p = 0; p < v.probes.size(); ++p)
            t.columns[p].values.push_back(r.inputs.readings[p].valid ? r.inputs.readings[p].mk / 1000.0 : stated_invalid);
    }
    return t;
}

double first_s(const std::vector<Row>& rows, bool on, double from_s)
{
    for (const Row& r : rows)
        if (r.time_s >= from_s && r.decisions[0].on == on)
            return r.time_s;
    return NAN;
}

Job at_night(double stuck_s, RunTimes times, double confirm_s)
{
    Job job = new_job("glycol-coil");
    Variant& v = job.variants.front();
    std::erase_if(v.unit.rules, [](const Rule& r) { return std::holds_alternative<RunTimes>(r.body); });
    v.unit.rules.push_back({"P1", true, times});
    rule_of<Differential>(v).conditioning.confirm_s = confirm_s;
    Fault f = fresh_fault(FaultKind::probe_stuck, v, 2, 2 + stuck_s / 3600);
    f.of = v.probes.front().key;
    f.stuck_c = 90;
    job.days.front().faults = {f};
    return job;
}

// A timer starts with the sample that sees the edge, however long the step was.
TEST(Edge, of_a_painted_fault_starts_timers_at_its_own_sample)
{
    for (const double step_s : {0.0, 1.0}) {
        const Job job = at_night(180, {600, 0, 0}, 0);
        const auto rows = rows_of(job, job.days.front(), step_s);
        EXPECT_EQ(first_s(rows, true, 3600), 7200) << step_s;
        EXPECT_EQ(first_s(rows, false, 7200), 7800) << step_s;
    }
    for (const double step_s : {0.0, 1.0}) {
        const Job job = at_night(360, {0, 0, 0}, 300);
        EXPECT_EQ(first_s(rows_of(job, job.days.front(), step_s), true, 3600), 7500) << step_s;
    }
}

// A switch that is moved is seen at the next sample.
TEST(Edge, a_switch_is_seen_at_the_next_sample)
{
    Job job = new_job("glycol-coil");
    Simulation s(*coupled_setup(job, job.variants.front(), job.days.front()));
    s.spin_up();
    s.advance(7200);
    s.set_mode(0, Mode::on);
    s.advance(7201);
    EXPECT_TRUE(s.decisions()[0].on);
    EXPECT_EQ(s.engine().changed_at[0], s.engine().now_ms);
}

TEST(Written, invalid_readings_replay_alike)
{
    Job job = new_job("glycol-coil");
    job.variants.front().loop.wiring.unit_feed = UnitFeed::mains;
    Fault f = fresh_fault(FaultKind::probe_open, job.variants.front(), 12, 12.5);
    f.of = job.variants.front().probes.front().key;
    job.days.front().faults = {f};
    CoupledResult ran;
    const auto rows = rows_of(job, job.days.front(), 0, &ran);
    ASSERT_EQ(rows.size(), 86400U);
    const auto replay = run_replay(*replay_setup(job.variants.front()), written(job.variants.front(), rows), &ran.first_state);
    ASSERT_TRUE(replay);
    for (std::size_t i = 0; i < rows.size(); ++i)
        ASSERT_EQ(replay->decisions(i), rows[i].decisions) << rows[i].time_s;
}

// A drain time runs from second 0, so the sample there must be in the log.
TEST(Written, a_day_that_begins_cold_replays_alike_without_a_state)
{
    Job job = new_job("glycol-coil");
    job.days.front().begins = Begins::cold;
    job.variants.front().unit.rules.push_back({"P1", true, DrainTime{3600}});
    job.variants.front().unit.outputs.front().mode = Mode::on;
    const auto rows = rows_of(job, job.days.front());
    ASSERT_EQ(rows.size(), 86401U);
    EXPECT_EQ(rows.front().time_s, 0);
    const auto replay = run_replay(*replay_setup(job.variants.front()), written(job.variants.front(), rows));
    ASSERT_TRUE(replay);
    for (std::size_t i = 0; i < rows.size(); ++i)
        ASSERT_EQ(replay->decisions(i), rows[i].decisions) << rows[i].time_s;
    EXPECT_EQ(first_s(rows, true, 0), 3600);
}

TEST(Written, a_unit_without_power_has_a_row_per_sample)
{
    Job job = new_job("glycol-coil");
    Day day = job.days.front();
    day.outage_start_h = 10;
    day.outage_h = 2;
    const auto rows = rows_of(job, day);
    ASSERT_EQ(rows.size(), 86400U);
    for (std::size_t i = 0; i < rows.size(); ++i)
        ASSERT_EQ(rows[i].time_s, static_cast<double>(i + 1));
    EXPECT_FALSE(rows[11 * 3600].decisions[0].on);
    EXPECT_TRUE(rows[11 * 3600].inputs.readings[0].valid);
}

// A cut in the night; the week it counts is over two hours after power is back.
TEST(Edge, a_disinfection_counts_through_a_power_cut)
{
    Job job = new_job("glycol-coil");
    Variant& v = job.variants.front();
    Output heater{"E1"};
    heater.drives = Drives::other;
    v.unit.outputs.push_back(heater);
    v.unit.rules.push_back({"E1", true, Disinfection{v.probes[1].key, Temperature::celsius(90), 1800, 1, 14.0 / 24}});
    Day day = job.days.front();
    day.begins = Begins::cold;
    day.outage_start_h = 2;
    day.outage_h = 6;
    const auto rows = rows_of(job, day);
    const std::size_t heats = v.unit.outputs.size() - 1;
    const auto first = std::find_if(rows.begin(), rows.end(), [&](const Row& r) { return r.decisions[heats].on; });
    ASSERT_NE(first, rows.end());
    EXPECT_NEAR(first->time_s, 10 * 3600, 1);
}

TEST(Replayed, two_probes_at_one_place_have_a_column_each)
{
    Job job = new_job("glycol-coil");
    Variant& v = job.variants.front();
    Probe second = v.probes[1];
    second.key = "S9";
    v.probes.push_back(second);
    rule_of<Differential>(v).store = "S9";
    Trace t;
    t.time_s = {0, 1, 2};
    t.columns = {{place_key(v.probes[0].place), Quantity::temperature, {60, 60, 60}}, {place_key(v.probes[1].place), Quantity::temperature, {20, 20, 20}}, {place_key(v.probes[2].place), Quantity::temperature, {30, 30, 30}}};
    const auto lacks = run_replay(*replay_setup(v), t);
    ASSERT_FALSE(lacks);
    EXPECT_NE(lacks.error().what.find("tank_bottom_S9"), std::string::npos) << lacks.error().what;
    t.columns.push_back({"tank_bottom_S9", Quantity::temperature, {59, 59, 59}});
    const auto r = run_replay(*replay_setup(v), t);
    ASSERT_TRUE(r);
    EXPECT_FALSE(r->decisions(2)[0].on); // by the first one's column it would run
    EXPECT_EQ(r->reading(2, v.probes.size() - 1), 59);
}

TEST(Replayed, faults_count_from_the_first_row_with_dates_or_without)
{
    const Job job = new_job("glycol-coil");
    const Variant& v = job.variants.front();
    Day day = job.days.front();
    Fault f = fresh_fault(FaultKind::probe_stuck, v, 1, 2);
    f.of = v.probes.front().key;
    f.stuck_c = 77;
    day.faults = {f};
    Trace dated;
    dated.start = "2026-05-07T10:00:00";
    for (int i = 0; i < 4 * 60; ++i)
        dated.time_s.push_back(60.0 * i);
    dated.columns = {{"collector", Quantity::temperature, std::vector<double>(dated.time_s.size(), 20)}};
    Trace plain = dated;
    plain.start.clear();
    for (double& s : plain.time_s)
        s += 36000;
    const Trace a = with_faults(dated, v, day), b = with_faults(plain, v, day);
    EXPECT_EQ(a.columns[0].values, b.columns[0].values);
    EXPECT_EQ(a.columns[0].values[59], 20);
    EXPECT_EQ(a.columns[0].values[60], 77);
    EXPECT_EQ(a.columns[0].values[120], 20);
}

} // namespace
} // namespace vernal
