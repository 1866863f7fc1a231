#include "core/setup/job_setup.h"
#include "core/wording/why.h"
#include "days.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

using namespace vernal;

namespace {

CoupledResult day(const char* arrangement, std::size_t which, const std::function<void(CoupledSetup&)>& change = {})
{
    const Job job = new_job(arrangement);
    CoupledSetup s = *coupled_setup(job, job.variants[0], job.days[which]);
    if (change)
        change(s);
    return run_coupled(s);
}

class Arranged : public testing::TestWithParam<const char*> {};

TEST_P(Arranged, energy_balances)
{
    double heat = 0;
    for (std::size_t d = 0; d < 3; ++d) {
        const Figures f = day(GetParam(), d).figures;
        heat += f.heat.to_store;
        EXPECT_LT(std::fabs(f.residual_j()), 1e-9 * f.heat.absorbed); // asked: 1e-3
        EXPECT_NEAR(f.heat.absorbed, f.heat.all_losses() + f.heat.drawn + f.stored_change_j, 1e-9 * f.heat.absorbed);
    }
    EXPECT_GT(heat, 3.6e7); // a room wants it in winter, a pool in summer
}

struct Sums {
    int starts = 0;
    double heat = 0;
};
Sums sums(const char* arrangement, const std::function<void(CoupledSetup&)>& change)
{
    Sums out;
    for (CoupledSetup s : testing_days::twenty(arrangement)) {
        change(s);
        CoupledOptions o;
        o.keep_records = false;
        const Figures f = run_coupled(s, o).figures;
        out.starts += f.starts();
        out.heat += f.heat.to_store;
    }
    return out;
}

class Halved : public testing::TestWithParam<const char*> {};
TEST_P(Halved, the_step_changes_little)
{
    const Sums fixed = sums(GetParam(), [](CoupledSetup&s) { s.step_s = 1; }), half = sums(GetParam(), [](CoupledSetup&s) { s.step_s = 0.5; });
    const Sums free = sums(GetParam(), [](CoupledSetup&) {}), tight = sums(GetParam(), [](CoupledSetup&s) { s.tolerance_k /= 4; }); // a quarter of the error is half the step
    std::printf("%s: starts %d %d, stretched %d %d; heat %.4f %.4f, stretched %.4f %.4f kWh\n", GetParam(), fixed.starts, half.starts, free.starts, tight.starts, fixed.heat / 3.6e6, half.heat / 3.6e6, free.heat / 3.6e6, tight.heat / 3.6e6);
    EXPECT_NEAR(half.starts, fixed.starts, 0.02 * fixed.starts);
    EXPECT_NEAR(half.heat, fixed.heat, 0.005 * fixed.heat);
    EXPECT_NEAR(tight.starts, free.starts, 0.02 * free.starts);
    EXPECT_NEAR(tight.heat, free.heat, 0.005 * free.heat);
    EXPECT_NEAR(free.starts, half.starts, 0.02 * half.starts);
    EXPECT_NEAR(free.heat, half.heat, 0.005 * half.heat);
}

// A quarter of the error a step may have is about half the step.
TEST_P(Arranged, half_the_step_changes_little)
{
    const Sums once = sums(GetParam(), [](CoupledSetup&) {}), half = sums(GetParam(), [](CoupledSetup&s) { s.tolerance_k /= 4; });
    std::printf("%s: starts %d, half the step %d; heat %.4f %.4f kWh\n", GetParam(), once.starts, half.starts, once.heat / 3.6e6, half.heat / 3.6e6);
    EXPECT_NEAR(half.starts, once.starts, std::max(2.0, 0.02 * once.starts));
    EXPECT_NEAR(half.heat, once.heat, 0.005 * once.heat);
}

TEST_P(Arranged, doubling_the_nodes_changes_starts_by_less_than_five_percent)
{
    const Sums once = sums(GetParam(), [](CoupledSetup&) {}), twice = sums(GetParam(), [](CoupledSetup&s) { s.fine = {2, 2}; });
    std::printf("%s: starts %d, doubled nodes %d\n", GetParam(), once.starts, twice.starts);
    EXPECT_NEAR(twice.starts, once.starts, 0.05 * once.starts);
}

TEST_P(Arranged, replay_of_the_runs_own_samples_decides_the_same)
{
    const Job job = new_job(GetParam());
    const Variant& v = job.variants[0];
    const CoupledSetup s = *coupled_setup(job, v, job.days[1]);
    Trace trace;
    for (const Probe& p : v.probes)
        trace.columns.push_back({place_key(p.place), Quantity::temperature, {}});
    std::vector<Decisions> coupled;
    CoupledOptions o;
    o.each_sample = [&](const SampleRow& row) {
        trace.time_s.push_back(row.time_s);
        for (std::size_t p = 0; p < v.probes.size(); ++p)
            trace.columns[p].values.push_back(row.inputs.readings[p].mk / 1000.0);
        coupled.push_back(row.decisions);
    };
    const CoupledResult r = run_coupled(s, o);
    ASSERT_EQ(coupled.size(), 86400U);
    const auto replay = run_replay(*replay_setup(v), trace, &r.first_state);
    ASSERT_TRUE(replay);
    ASSERT_EQ(replay->rows.size(), coupled.size());
    for (std::size_t i = 0; i < coupled.size(); ++i)
        ASSERT_EQ(replay->rows[i].decisions, coupled[i]) << i;
    EXPECT_EQ(replay->by_rules[0].starts, r.figures.starts());
}

std::vector<const char*> every_key()
{
    std::vector<const char*> keys;
    for (const Arrangement& a : arrangements())
        keys.push_back(a.key);
    return keys;
}
const auto key_name = [](const auto& info) {
    std::string s = info.param;
    std::replace(s.begin(), s.end(), '-', '_');
    return s;
};
INSTANTIATE_TEST_SUITE_P(All, Arranged, testing::ValuesIn(every_key()), key_name);
INSTANTIATE_TEST_SUITE_P(All, Halved, testing::Values("glycol-coil", "direct"), key_name);

// What a new job brings must do no harm by itself: no pump carries heat to a dark roof.
TEST_P(Arranged, first_settings_do_not_run_at_night)
{
    for (std::size_t d = 0; d < 2; ++d) {
        const CoupledResult r = day(GetParam(), d);
        double night_s = 0, last = 0;
        for (const Record& record : r.records) {
            const bool dark = record.plane_w_m2 <= 0;
            night_s += dark && (record.state.running & 1U) != 0 ? record.time_s - last : 0;
            last = record.time_s;
        }
        EXPECT_LT(night_s, 900) << "day " << d; // the end of the evening's last run
    }
}

TEST(Coupled, a_wider_band_starts_less_often)
{
    const auto with_on = [](double on) {
        Job job = new_job("direct");
        std::get<Differential>(job.variants[0].unit.rules.back().body).on = TempDiff::kelvin(on);
        return run_coupled(*coupled_setup(job, job.variants[0], job.days[1])).figures.starts();
    };
    EXPECT_GT(with_on(5), with_on(14));
}

TEST(Coupled, the_limit_holds_the_store)
{
    Job job = new_job("glycol-coil");
    for (Rule& r : job.variants[0].unit.rules)
        if (auto* l = std::get_if<StoreLimit>(&r.body))
            l->limit = Temperature::celsius(45);
    job.days[0].draws.clear();
    const Figures f = run_coupled(*coupled_setup(job, job.variants[0], job.days[0])).figures;
    EXPECT_LT(f.highest_store_c, 47);
    EXPECT_GT(f.above_limit_s, 600);
}

TEST(Coupled, switch_off_leaves_the_pump_still)
{
    const Figures f = day("direct", 0, [](CoupledSetup& s) { s.modes[0] = Mode::off; }).figures;
    EXPECT_EQ(f.starts(), 0);
    EXPECT_EQ(f.pump_energy_j, 0);
    EXPECT_TRUE(std::isnan(f.heat_per_pump()));
    EXPECT_GT(f.highest_collector_c, 100);
}

TEST(Coupled, a_slow_sampling_unit_still_runs_the_day)
{
    const Figures fast = day("glycol-coil", 1).figures, slow = day("glycol-coil", 1, [](CoupledSetup&s) { s.program.sample_ms = 10000; }).figures;
    EXPECT_NEAR(slow.heat.to_store, fast.heat.to_store, 0.05 * fast.heat.to_store);
}

TEST(Coupled, frost_is_counted_in_wet_outdoor_pipe_of_water)
{
    EXPECT_GT(day("direct", 2).figures.freezing_s, 3600);
    EXPECT_EQ(day("glycol-coil", 2).figures.freezing_s, 0);
}

TEST(Coupled, a_cancelled_run_says_so)
{
    const Job job = new_job("direct");
    std::stop_source stop;
    stop.request_stop();
    CoupledOptions o;
    o.stop = stop.get_token();
    EXPECT_TRUE(run_coupled(*coupled_setup(job, job.variants[0], job.days[0]), o).cancelled);
}

Trace logger(const std::vector<double>& t, const std::vector<double>& collector, const std::vector<double>& pump)
{
    Trace trace;
    trace.time_s = t;
    trace.columns = {{"collector", Quantity::temperature, collector}, {"tank_bottom", Quantity::temperature, std::vector<double>(t.size(), 30)},
        {"tank_top", Quantity::temperature, std::vector<double>(t.size(), 40)}, {"P1", Quantity::number, pump}};
    return trace;
}

TEST(Replay, lists_disagreements_with_their_times)
{
    const auto r = run_replay(*replay_setup(new_job("glycol-coil").variants[0]), logger({0, 30, 60, 90, 120, 150}, {20, 40, 41, 41, 25, 25}, {0, 0, 1, 1, 1, 0}));
    ASSERT_TRUE(r);
    ASSERT_EQ(r->disagreements.size(), 2U);
    EXPECT_EQ(r->disagreements[0].from_s, 30);
    EXPECT_EQ(r->disagreements[0].to_s, 60);
    EXPECT_FALSE(r->disagreements[0].recorded_on);
    EXPECT_EQ(r->disagreements[1].from_s, 120);
    EXPECT_TRUE(r->disagreements[1].recorded_on);
    EXPECT_EQ(r->recorded[0].starts, 1);
}

TEST(Replay, a_gap_holds_for_two_intervals_and_is_then_invalid)
{
    std::vector<double> t, c, p;
    for (int i = 0; i < 20; ++i) {
        t.push_back(i < 10 ? 30 * i : 30 * i + 600);
        c.push_back(50);
        p.push_back(1);
    }
    const auto r = run_replay(*replay_setup(new_job("glycol-coil").variants[0]), logger(t, c, p));
    ASSERT_TRUE(r);
    const auto broken = std::find_if(r->rows.begin(), r->rows.end(), [](const ReplayRow& row) { return row.decisions[0].priority == Priority::fault; });
    ASSERT_NE(broken, r->rows.end());
    EXPECT_EQ(broken->time_s, 270 + 90); // the first sample after two held ones
    EXPECT_TRUE(r->rows.back().decisions[0].on);
}

TEST(Replay, a_missing_column_is_an_error)
{
    Trace t = logger({0, 30}, {20, 20}, {0, 0});
    t.columns.erase(t.columns.begin());
    const auto r = run_replay(*replay_setup(new_job("glycol-coil").variants[0]), t);
    ASSERT_FALSE(r);
    EXPECT_NE(r.error().text().find("collector"), std::string::npos);
}

TEST(Why, a_valve_turns_when_its_probe_rises_and_back_when_it_falls)
{
    const Variant v = new_job("dump").variants[0];
    const Program program = compile(v.unit, probe_keys(v)).program;
    EngineState state = power_up(program);
    Inputs in;
    in.readings[0] = {80000, true}; // the collector, 10 K below the limit
    Decisions d = step(program, in, state);
    EXPECT_EQ(why(v, program, in, state, d[1], 1, {}).margin, "Starts when the collector rises by " + to_text(10, Quantity::difference, {}) + ".");
    in.readings[0].mk = 95000;
    d = step(program, in, state);
    EXPECT_TRUE(d[1].on);
    EXPECT_EQ(d[1].priority, Priority::dump);
    EXPECT_EQ(why(v, program, in, state, d[1], 1, {}).margin, "Stops when the collector falls by " + to_text(13, Quantity::difference, {}) + ".");
}

// The pump must run for the cooler although the tank is full: the dump stands above the limits.
TEST(Divert, overrules_a_full_tank_and_not_the_cut_out)
{
    const Variant v = new_job("dump").variants[0];
    const Program program = compile(v.unit, probe_keys(v)).program;
    EngineState state = power_up(program);
    Inputs in;
    in.readings[0] = {95000, true};
    in.readings[2] = {75000, true}; // the tank's top above its limit
    EXPECT_TRUE(step(program, in, state)[0].on);
    in.readings[0].mk = 130000;
    const Decision cut = step(program, in, state)[0];
    EXPECT_FALSE(cut.on);
    EXPECT_EQ(cut.priority, Priority::cut_out);
}

TEST(Why, says_what_decides_and_how_far_it_is)
{
    const Variant v = new_job("glycol-coil").variants[0];
    const Program p = compile(v.unit, probe_keys(v)).program;
    EngineState s = power_up(p);
    Inputs in;
    in.readings[0].mk = 26600;
    in.readings[1].mk = 20000;
    in.readings[2].mk = 40000;
    Decisions d = step(p, in, s);
    EXPECT_EQ(why(v, p, in, s, d[0], 0, {}).headline, "P1 rests: no demand.");
    EXPECT_EQ(why(v, p, in, s, d[0], 0, {}).margin, "Starts when the collector rises by 1.4 K against the tank bottom.");
    in.readings[0].mk = 60000;
    in.readings[2].mk = 71000;
    d = step(p, in, s);
    const WhyText w = why(v, p, in, s, d[0], 0, {});
    EXPECT_EQ(w.headline, "P1 rests: Store limit holds it off.");
    EXPECT_EQ(w.margin, "Starts when the tank top falls by 5.0 K.");
    ASSERT_EQ(w.overruled.size(), 1U);
    EXPECT_EQ(w.overruled[0], "Difference asks for on");
    ASSERT_EQ(w.why_not.size(), 1U);
    EXPECT_EQ(w.why_not[0], "Difference would run it if Store limit let go.");
}

} // namespace
