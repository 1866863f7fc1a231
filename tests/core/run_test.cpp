#include "core/setup/job_setup.h"
#include "core/wording/disagreement.h"
#include "core/wording/why.h"
#include "days.h"

#include "rule_of.h"

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

// A share of so many starts; one start at least: rounding of another optimisation
// decides a start that hangs on the edge of a cloud.
double share_of(double share, int starts) { return std::max(1.0, share * starts); }

class Halved : public testing::TestWithParam<const char*> {};
TEST_P(Halved, the_step_changes_little)
{
    const Sums fixed = sums(GetParam(), [](CoupledSetup&s) { s.step_s = 1; }), half = sums(GetParam(), [](CoupledSetup&s) { s.step_s = 0.5; });
    const Sums free = sums(GetParam(), [](CoupledSetup&) {}), tight = sums(GetParam(), [](CoupledSetup&s) { s.tolerance_k /= 4; }); // a quarter of the error is half the step
    std::printf("%s: starts %d %d, stretched %d %d; heat %.4f %.4f, stretched %.4f %.4f kWh\n", GetParam(), fixed.starts, half.starts, free.starts, tight.starts, fixed.heat / 3.6e6, half.heat / 3.6e6, free.heat / 3.6e6, tight.heat / 3.6e6);
    EXPECT_NEAR(half.starts, fixed.starts, share_of(0.02, fixed.starts));
    EXPECT_NEAR(half.heat, fixed.heat, 0.005 * fixed.heat);
    EXPECT_NEAR(tight.starts, free.starts, share_of(0.02, free.starts));
    EXPECT_NEAR(tight.heat, free.heat, 0.005 * free.heat);
    EXPECT_NEAR(free.starts, half.starts, share_of(0.02, half.starts));
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
    const double share = std::string(GetParam()) == "air" ? 0.09 : 0.05; // a blower's few starts under racing clouds hang on little
    EXPECT_NEAR(twice.starts, once.starts, share_of(share, once.starts));
}

TEST_P(Arranged, replay_of_the_runs_own_samples_decides_the_same)
{
    Job job = new_job(GetParam());
    job.variants[0].loop.wiring.unit_feed = UnitFeed::mains; // one that sleeps at night keeps no log
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
    ASSERT_EQ(replay->size(), coupled.size());
    for (std::size_t i = 0; i < coupled.size(); ++i)
        ASSERT_EQ(replay->decisions(i), coupled[i]) << i;
    EXPECT_EQ(replay->by_rules[0].starts, r.figures.starts());
}

// What the layers of a tank leave out, docs/plant.md.
TEST_P(Arranged, doubling_the_layers_of_a_tank_stays_within_what_is_said_of_it)
{
    const Sums once = sums(GetParam(), [](CoupledSetup&) {}), twice = sums(GetParam(), [](CoupledSetup&s) { s.fine.tank = 2; });
    std::printf("%s: starts %d, doubled layers %d; heat %.3f %.3f kWh\n", GetParam(), once.starts, twice.starts, once.heat / 3.6e6, twice.heat / 3.6e6);
    EXPECT_NEAR(twice.starts, once.starts, share_of(0.1, once.starts));
    EXPECT_NEAR(twice.heat, once.heat, 0.035 * once.heat);
}

std::vector<const char*> every_key()
{
    std::vector<const char*> keys;
    for (const Arrangement& a : presets())
        keys.push_back(a.key.c_str());
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

// Whether or not a rule keeps to it.
TEST(Coupled, time_above_the_limit_counts_without_a_rule_in_use)
{
    Job job = new_job("glycol-coil");
    job.days[0].draws.clear();
    Variant& v = job.variants[0];
    v.loop.tank.volume_m3 = 0.15;
    rule_of<StoreLimit>(v).limit = Temperature::celsius(55);
    const double kept = run_coupled(*coupled_setup(job, v, job.days[0])).figures.above_limit_s;
    for (Rule& r : v.unit.rules)
        if (std::holds_alternative<StoreLimit>(r.body))
            r.enabled = false;
    const double off = run_coupled(*coupled_setup(job, v, job.days[0])).figures.above_limit_s;
    EXPECT_GT(off, 3600);
    EXPECT_GE(off, kept);
}

TEST(Coupled, a_slow_sampling_unit_still_runs_the_day)
{
    const Figures fast = day("glycol-coil", 1).figures, slow = day("glycol-coil", 1, [](CoupledSetup&s) { s.program.sample_ms = 10000; }).figures;
    EXPECT_NEAR(slow.heat.to_store, fast.heat.to_store, 0.05 * fast.heat.to_store);
}

TEST(Coupled, frost_is_counted_in_wet_outdoor_pipe_of_water)
{
    const Job job = new_job("direct");
    EXPECT_GT(run_coupled(*coupled_setup(job, undrained(job.variants[0]), job.days[2])).figures.freezing_s, 3600);
    EXPECT_LT(day("direct", 2).figures.freezing_s, 60) << "its own valve has drained it";
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
    const auto r = run_replay(*replay_setup(without<RunTimes>(new_job("glycol-coil").variants[0])), logger({0, 30, 60, 90, 120, 150}, {20, 40, 41, 41, 25, 25}, {0, 0, 1, 1, 1, 0}));
    ASSERT_TRUE(r);
    ASSERT_EQ(r->disagreements.size(), 2U);
    EXPECT_EQ(r->disagreements[0].from_s, 30);
    EXPECT_EQ(r->disagreements[0].to_s, 60);
    EXPECT_FALSE(r->disagreements[0].recorded_on);
    EXPECT_EQ(r->disagreements[1].from_s, 120);
    EXPECT_TRUE(r->disagreements[1].recorded_on);
    EXPECT_FALSE(r->disagreements[0].from_before);
    EXPECT_EQ(r->recorded[0].starts, 1);
}

// Between stop and start the log's pump ran from its first row on: of a run begun before it
// the rules cannot know, unless they are told.
TEST(Replay, a_disagreement_from_the_first_row_on_may_come_from_before_it)
{
    const Variant v = without<RunTimes>(new_job("glycol-coil").variants[0]);
    const Trace trace = logger({0, 30, 60, 90}, {36, 36, 36, 25}, {1, 1, 1, 0});
    const auto r = run_replay(*replay_setup(v), trace);
    ASSERT_TRUE(r);
    ASSERT_EQ(r->disagreements.size(), 1U);
    EXPECT_TRUE(r->disagreements[0].from_before && r->disagreements[0].recorded_on);
    EXPECT_NE(disagreement_text(v, *r, r->disagreements[0], {}).find("from before"), std::string::npos);
    EngineState running = power_up(r->program);
    Inputs in = r->inputs(0);
    in.readings[0].mk = in_milli(60);
    step(r->program, in, running);
    EXPECT_TRUE(run_replay(*replay_setup(v), trace, &running)->disagreements.empty());
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
    std::size_t broken = 0;
    while (broken < r->size() && r->decision(broken, 0).priority != Priority::fault)
        ++broken;
    ASSERT_LT(broken, r->size());
    EXPECT_EQ(r->time_s(broken), 270 + 90); // the first sample after two held ones
    EXPECT_TRUE(r->made_up(broken));
    EXPECT_TRUE(r->decision(r->size() - 1, 0).on);
}

// docs/engine-semantics.md, 20: k intervals lack k − 1 samples; restated sample by
// sample. The log ends `late` intervals after its fourth row.
class Gap : public testing::TestWithParam<double> {};

TEST_P(Gap, is_so_many_samples_held_and_then_invalid)
{
    const Variant v = new_job("glycol-coil").variants[0];
    const ReplaySetup setup = *replay_setup(v);
    std::vector<double> t;
    for (int i = 0; i < 10; ++i)
        t.push_back(30.0 * i + (i > 3 ? 30 * (GetParam() - 1) : 0));
    const Trace trace = logger(t, {20, 50, 50, 50, 28, 50, 50, 50, 50, 50}, std::vector<double>(10, 1));
    const auto r = run_replay(setup, trace);
    ASSERT_TRUE(r);
    Program p = setup.program;
    p.sample_ms = 30000;
    EngineState s = power_up(p);
    const int k = static_cast<int>(std::floor(GetParam() + 0.5));
    std::vector<Decision> expected;
    std::vector<double> times;
    Inputs in;
    const auto row = [&](double c, double at) {
        in.readings[0] = {quantised(c, 0), true};
        in.readings[1] = {30000, true};
        in.readings[2] = {40000, true};
        expected.push_back(step(p, in, s)[0]);
        times.push_back(at);
    };
    for (std::size_t i = 0; i < t.size(); ++i) {
        if (i == 4)
            for (int lacking = 1; lacking < k; ++lacking) {
                if (lacking == 3) {
                    expected.emplace_back();
                    times.push_back(t[3] + 90);
                }
                for (std::size_t probe = 0; lacking >= 3 && probe < 3; ++probe)
                    in.readings[probe] = {0, false};
                const Decision d = step(p, in, s)[0];
                if (lacking >= 3)
                    expected.back() = d;
            }
        row(trace.columns[0].values[i], t[i]);
    }
    ASSERT_EQ(r->size(), expected.size());
    for (std::size_t i = 0; i < expected.size(); ++i) {
        EXPECT_EQ(r->time_s(i), times[i]) << i;
        EXPECT_EQ(r->decision(i, 0), expected[i]) << i;
        EXPECT_EQ(r->made_up(i), k > 3 && i == 4) << i;
    }
    EXPECT_EQ(r->state(r->size() - 1), s);
    ASSERT_EQ(r->gaps.size(), k > 1 ? 1U : 0U);
    if (k > 1) {
        EXPECT_EQ(r->gaps[0].lacking, k - 1);
        EXPECT_EQ(r->gaps[0].held(), std::min(k - 1, 2));
    }
}
INSTANTIATE_TEST_SUITE_P(Intervals, Gap, testing::Values(1.0, 1.4, 1.5, 2.0, 2.4, 2.5, 2.9, 3.0, 3.4, 3.5, 4.0, 5.0, 6.6, 200.0));

TEST(Replay, an_empty_cell_holds_as_a_lacking_sample_does)
{
    const auto r = run_replay(*replay_setup(new_job("glycol-coil").variants[0]), logger({0, 10, 20, 30, 40, 50}, {50, NAN, NAN, NAN, 51, NAN}, {0, 0, 0, 0, 0, 0}));
    ASSERT_TRUE(r);
    const bool valid[] = {true, true, true, false, true, true};
    for (std::size_t i = 0; i < 6; ++i)
        EXPECT_EQ(r->inputs(i).readings[0].valid, valid[i]) << i;
    EXPECT_EQ(r->inputs(2).readings[0].mk, 50000);
    EXPECT_EQ(r->columns[0].held, 3U);
    EXPECT_EQ(r->columns[0].invalid, 1U);
}

// The state at a row is worked out anew from the nearest that is kept.
TEST(Replay, the_state_at_any_row_is_that_of_the_run)
{
    std::vector<double> t, c;
    for (int i = 0; i < 3000; ++i) {
        t.push_back(i * 10.0 + (i > 700 ? 95 : 0) + (i > 2000 ? 500 : 0));
        c.push_back(30 + 12 * std::sin(i * 0.07));
    }
    Variant v = new_job("glycol-coil").variants[0];
    v.unit.rules.push_back({"P1", true, RunTimes{40, 70, 20}});
    const auto r = run_replay(*replay_setup(v), logger(t, c, c));
    ASSERT_TRUE(r);
    EngineState s = power_up(r->program);
    for (std::size_t i = 0; i < r->size(); ++i)
        if (r->made_up(i) || i % 37 == 0 || i > r->size() - 3) {
            const EngineState at = r->state(i);
            EXPECT_EQ(at.running & 1U, r->decision(i, 0).on ? 1U : 0U) << i;
            if (i > 0 && !r->made_up(i) && !r->made_up(i - 1) && r->time_s(i) - r->time_s(i - 1) < 15) {
                s = r->state(i - 1);
                step(r->program, r->inputs(i), s);
                EXPECT_EQ(s, at) << i;
            }
        }
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
    const Program program = compile(v).program;
    EngineState state = power_up(program);
    Inputs in;
    in.readings[0] = {85000, true}; // the collector, 10 K below the limit
    Decisions d = step(program, in, state);
    EXPECT_EQ(why(v, program, in, state, d[1], 1, {}).margin, "Starts when the collector rises by " + to_text(10, Quantity::difference, {}) + ".");
    in.readings[0].mk = 96000;
    d = step(program, in, state);
    EXPECT_TRUE(d[1].on);
    EXPECT_EQ(d[1].priority, Priority::dump);
    EXPECT_EQ(why(v, program, in, state, d[1], 1, {}).margin, "Stops when the collector falls by " + to_text(19, Quantity::difference, {}) + ".");
}

// The pump must run for the cooler although the tank is full: the dump stands above the limits.
TEST(Divert, overrules_a_full_tank_and_not_the_cut_out)
{
    const Variant v = new_job("dump").variants[0];
    const Program program = compile(v).program;
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
    const Program p = compile(v).program;
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
