// The program's own integration against CVODE on the same equations.
// Tolerances: docs/engine-semantics.md, last paragraphs.
#include "core/setup/job_setup.h"
#include "core/setup/loop_answers.h"
#include "days.h"
#include "reference.h"

#include <gtest/gtest.h>

#include <cmath>
#include <cstdlib>

using namespace vernal;

namespace {

// Both ways over the same days, added up; each day's starts are compared on the way.
struct Both {
    double own_heat = 0, ref_heat = 0, own_run = 0, ref_run = 0;
    double gross = 0; // what went up and what came down again
    int own_starts = 0, ref_starts = 0;
    bool may_pair = false; // a day may have two starts that hang on an edge
    int pairs = 0;         // such days
    double a_run() const { return ref_run / std::max(1, ref_starts); }
    // share: of a day's starts that may differ, at least one start.
    void add(const CoupledSetup& s, double share = 0.02);
};

CoupledResult own(CoupledSetup s)
{
    s.spin_up_days = 0;
    return run_coupled(s);
}

void Both::add(const CoupledSetup& s, double share)
{
    const Figures f = own(s).figures;
    const reference::Result r = reference::run(s);
    const int apart = std::abs(f.starts() - r.starts);
    pairs += apart == 2 && apart > share * r.starts ? 1 : 0;
    EXPECT_NEAR(f.starts(), r.starts, std::max(may_pair ? 2.0 : 1.0, share * r.starts));
    own_starts += f.starts();
    own_run += f.pumps[0].run_time_s;
    ref_run += r.run_time_s;
    ref_starts += r.starts;
    own_heat += f.heat.to_store;
    ref_heat += r.heat_to_store_j;
    gross += f.heat.to_store + 2 * f.night_loss_j;
}

class TwentyDays : public testing::TestWithParam<const char*> {};

TEST_P(TwentyDays, agree_with_cvode)
{
    double own_heat = 0, own_run = 0, ref_heat = 0, ref_run = 0;
    int own_starts = 0, ref_starts = 0, pairs = 0;
    for (const CoupledSetup& s : testing_days::twenty(GetParam())) {
        const Figures f = own(s).figures;
        const reference::Result r = reference::run(s);
        const int apart = std::abs(f.starts() - r.starts);
        EXPECT_LE(apart, std::max(2.0, 0.02 * r.starts));
        pairs += apart == 2 && apart > 0.02 * r.starts ? 1 : 0; // where an edge is met a little otherwise two starts come or go together
        // A start won or lost at the edge takes its run and its heat with it; of a dull day's dozen that is more than 1 %.
        const double odd = std::abs(f.starts() - r.starts) / std::max(1.0, 1.0 * r.starts);
        EXPECT_NEAR(f.heat.to_store, r.heat_to_store_j, (0.005 + odd) * std::fabs(r.heat_to_store_j) + 3600);
        EXPECT_NEAR(f.pumps[0].run_time_s, r.run_time_s, std::max((0.01 + odd) * r.run_time_s, 120.0));
        own_heat += f.heat.to_store;
        own_run += f.pumps[0].run_time_s;
        own_starts += f.starts();
        ref_heat += r.heat_to_store_j;
        ref_run += r.run_time_s;
        ref_starts += r.starts;
    }
    EXPECT_GT(ref_starts, testing_days::instrumented ? 10 : 40) << "these days must cycle to be a test";
    EXPECT_LE(pairs, 1);
    EXPECT_NEAR(own_starts, ref_starts, 0.02 * ref_starts);
    EXPECT_NEAR(own_heat, ref_heat, 0.005 * ref_heat);
    EXPECT_NEAR(own_run, ref_run, 0.01 * ref_run);
    std::printf("%s: starts %d / %d, heat %.3f / %.3f kWh, run %.2f / %.2f h\n", GetParam(), own_starts, ref_starts, own_heat / 3.6e6, ref_heat / 3.6e6, own_run / 3600, ref_run / 3600);
}
INSTANTIATE_TEST_SUITE_P(Arrangements, TwentyDays, testing::Values("glycol-coil", "direct"));

// Every arrangement on five of the days; the sum over so few may be off by one start in each. Where an
// edge of a cloud is met a little otherwise, two starts come or go together: three days of seventy may.
TEST(EveryArrangement, agrees_with_cvode)
{
    int pairs = 0;
    for (const Arrangement& a : presets()) {
        SCOPED_TRACE(a.key);
        Both b;
        b.may_pair = true;
        for (int i = 1; i < 20; i += 4)
            b.add(testing_days::day_of(a.key.c_str(), i));
        pairs += b.pairs;
        EXPECT_NEAR(b.own_run, b.ref_run, 0.01 * b.ref_run); // a day may win or lose a run at the edge
        std::printf("%s: run %.2f / %.2f h, heat %.3f / %.3f kWh\n", a.key.c_str(), b.own_run / 3600, b.ref_run / 3600, b.own_heat / 3.6e6, b.ref_heat / 3.6e6);
        EXPECT_NEAR(b.own_heat, b.ref_heat, 0.005 * std::fabs(b.ref_heat) + 3600);
    }
    EXPECT_LE(pairs, 3);
}

// Twelve loops that no preset has, two days each: two pumps on one output and followers,
// valves in a row, freeze recirculation, drains, battery and panel, air in two fields.
TEST(ComposedLoops, agree_with_cvode)
{
    const std::vector<std::pair<const char*, GivenAnswers>> composed{
        {"pool", {{"transfer", "exchanger"}, {"exchanger_pumps", "two"}, {"power", "battery"}}},
        {"drainback", {{"transfer", "exchanger"}, {"store", "two-tanks"}}},
        {"dump", {{"store", "two-tanks"}, {"power", "panel"}}},
        {"two-arrays", {{"transfer", "exchanger"}, {"excess", "cooler"}, {"store", "two-tanks"}, {"backup", "element"}}},
        {"drainback", {{"store", "slab"}, {"excess", "house"}}},
        {"direct", {{"fields", "2"}, {"store", "two-tanks"}}},
        {"glycol-coil", {{"carrier", "water"}}},
        {"dump", {{"carrier", "water"}}},
        {"drainback", {{"carrier", "glycol"}, {"transfer", "exchanger"}, {"store", "pool"}}},
        {"tube-manifold", {{"transfer", "exchanger"}, {"power", "battery"}, {"backup", "element"}}},
        {"open-tank", {{"power", "battery"}, {"backup", "element"}}},
        {"air", {{"fields", "2"}}},
        {"glycol-hx", {{"excess", "circulation"}}},
        {"", {{"carrier", "glycol"}, {"power", "none"}, {"backup", "element"}}},
        {"drainback", {{"store", "two-tanks"}, {"backup", "heater-after"}, {"circulation", "taps"}}},
        {"drainback", {{"fields", "2"}}},
        {"open-tank", {{"array", "trickle"}}},
    };
    for (const auto& [preset, given] : composed) {
        const auto answers = complete(given, preset);
        ASSERT_TRUE(answers);
        const Arrangement& a = arrangement_of(*answers);
        SCOPED_TRACE(a.title);
        EXPECT_TRUE(a.key.empty()) << a.key;
        const Job job = new_job(*answers);
        Both b;
        for (int i : {2, 11}) // frost at night, and racing clouds
            b.add(testing_days::day_of(job, i));
        // Two days have few runs: one that a stop at an edge makes longer takes its heat with it.
        EXPECT_NEAR(b.own_run, b.ref_run, 0.01 * b.ref_run + std::max(60.0, b.a_run()));
        EXPECT_NEAR(b.own_heat, b.ref_heat, 0.005 * std::fabs(b.ref_heat) + std::max(3600.0, std::fabs(b.ref_heat) / std::max(1, b.ref_starts)));
        std::printf("%s: run %.2f / %.2f h, heat %.3f / %.3f kWh\n", a.title.c_str(), b.own_run / 3600, b.ref_run / 3600, b.own_heat / 3.6e6, b.ref_heat / 3.6e6);
    }
}

// A pump whose speed follows the difference, or holds a rise; over-all the same equations.
TEST(ComposedLoops, with_speed_control_agree_with_cvode)
{
    const SpeedRange range{0.4, 1, 0.1, 0.01, DriveKind::pwm};
    const std::vector<RuleBody> speeds{SpeedByDifference{"S1", "S2", TempDiff::kelvin(6), TempDiff::kelvin(2), range}, SpeedToRise{"S1", "S2", TempDiff::kelvin(12), TempDiff::kelvin(1), 30, range}};
    for (const auto& [preset, given] : std::vector<std::pair<const char*, GivenAnswers>>{{"glycol-coil", {{"store", "two-tanks"}}}, {"dump", {{"carrier", "water"}}}, {"direct", {{"fields", "2"}, {"store", "two-tanks"}}}}) {
        const auto answers = complete(given, preset);
        ASSERT_TRUE(answers);
        for (const RuleBody& speed : speeds) {
            Job job = new_job(*answers);
            job.variants[0].unit.rules.push_back({"P1", true, speed});
            sort_by_priority(job.variants[0].unit.rules);
            ASSERT_TRUE(compile(job.variants[0]).out_of_action.empty());
            Both b;
            for (int i : {2, 11})
                b.add(testing_days::day_of(job, i));
            EXPECT_NEAR(b.own_run, b.ref_run, 0.01 * b.ref_run + std::max(60.0, b.a_run()));
            EXPECT_NEAR(b.own_heat, b.ref_heat, 0.005 * std::fabs(b.ref_heat) + std::max(3600.0, std::fabs(b.ref_heat) / std::max(1, b.ref_starts)));
            std::printf("%s, speed: run %.2f / %.2f h, heat %.3f / %.3f kWh\n", arrangement_of(*answers).title.c_str(), b.own_run / 3600, b.ref_run / 3600, b.own_heat / 3.6e6, b.ref_heat / 3.6e6);
        }
    }
}

// What comes on top of an arrangement: a check valve that leaks, an element in
// windows, a pump by its curve, a cut-out that waits; the same equations again.
TEST(WithEverything, agrees_with_cvode)
{
    for (const char* key : {"glycol-coil", "direct", "glycol-hx", "pv-battery"}) {
        SCOPED_TRACE(key);
        Both b;
        auto days = testing_days::twenty(key);
        for (std::size_t i = 0; i < days.size(); i += 5) {
            Loop& l = days[i].loop;
            l.check_valve.leak = 0.6;
            l.answers.backup = Backup::element;
            l.element.mode = ElementMode::windows;
            l.element.windows = {{{4, 8}, {22, 1}, {}}};
            l.pump.by_curve = true;
            l.pump.head_m = 5;
            l.pump.free_flow_m3_s = 3.5e-4;
            b.add(days[i], 0.06); // with a leak and a cut-out a day stands at an edge for hours: one start lost moves those after it
        }
        EXPECT_NEAR(b.own_starts, b.ref_starts, std::max(1.0, 0.02 * b.ref_starts));
        std::printf("%s with everything: run %.2f / %.2f h, heat %.3f / %.3f of %.3f kWh\n", key, b.own_run / 3600, b.ref_run / 3600, b.own_heat / 3.6e6, b.ref_heat / 3.6e6, b.gross / 3.6e6);
        EXPECT_NEAR(b.own_run, b.ref_run, 0.01 * b.ref_run + b.a_run()); // a stop at the edge of a minimum run may fall a run later
        EXPECT_NEAR(b.own_heat, b.ref_heat, 0.005 * b.gross);
    }
}

// A year, day after day without a break, against the same reference: the whole of it with
// VERNAL_WHOLE_YEAR (run-tests --long), else six days of each thirty.
TEST(Year, agrees_with_cvode)
{
    CoupledSetup s = testing_days::year(new_job("glycol-coil"));
    if (testing_days::instrumented)
        s.days.resize(7);
    else if (!std::getenv("VERNAL_WHOLE_YEAR")) {
        std::vector<std::shared_ptr<const DayForcing>> kept;
        for (std::size_t n = 0; n < s.days.size(); ++n)
            if (n % 30 < 6)
                kept.push_back(s.days[n]);
        s.days = std::move(kept);
    }
    s.spin_up_days = 0;
    CoupledOptions o;
    o.keep_records = false;
    const Figures f = run_coupled(s, o).figures;
    const reference::Result r = reference::run(s);
    std::printf("year: starts %d / %d, heat %.2f / %.2f kWh, run %.2f / %.2f h\n", f.starts(), r.starts, f.heat.to_store / 3.6e6, r.heat_to_store_j / 3.6e6, f.pumps[0].run_time_s / 3600, r.run_time_s / 3600);
    EXPECT_NEAR(f.starts(), r.starts, std::max(1.0, 0.02 * r.starts));
    EXPECT_NEAR(f.heat.to_store, r.heat_to_store_j, 0.005 * r.heat_to_store_j);
    EXPECT_NEAR(f.pumps[0].run_time_s, r.run_time_s, 0.01 * r.run_time_s);
}

TEST(Undisturbed, switching_times_within_one_sample)
{
    CoupledSetup s = testing_days::day_of("glycol-coil", 4); // clouds: clear
    for (Latch& l : s.program.latches)
        if (l.minus != zero_channel) { // a wide band: starts once, stops once
            l.set_mk = 14000;
            l.clear_mk = 1500;
        }
    s.step_s = 0.5;
    auto quiet = std::make_shared<DayForcing>(*s.days.front());
    quiet->draws.clear();
    s.days = {quiet};
    const reference::Result r = reference::run(s);
    const CoupledResult o = own(s);
    std::vector<double> switches;
    for (std::size_t i = 1; i < o.records.size(); ++i)
        if (o.records[i].state.running != o.records[i - 1].state.running)
            switches.push_back(o.records[i].time_s);
    ASSERT_EQ(switches.size(), r.switches_s.size());
    ASSERT_GE(switches.size(), 2U);
    for (std::size_t i = 0; i < switches.size(); ++i)
        EXPECT_NEAR(switches[i], r.switches_s[i], 1.0) << i;
    s.step_s = 0; // stretched steps: the first start, before differences add up; two seconds are 0.02 K here
    EXPECT_NEAR(own(s).figures.pumps[0].first_start_s, r.switches_s[0], 2.0);
}

// Five of the days with probes that read off: what the unit sees is restated in
// the reference step by step.
class ReadOff : public testing::TestWithParam<int> {};
TEST_P(ReadOff, agrees_with_cvode)
{
    Both both;
    const auto days = testing_days::twenty("glycol-coil");
    for (std::size_t i = 0; i < days.size(); i += 4) {
        Variant v = new_job("glycol-coil").variants.front();
        for (Probe& p : v.probes) {
            p.curve = *parse_curve("ntc:r25=10000,beta=3660");
            p.sensor.tolerance = {ToleranceKind::percent, 0.02, 0.01, 0};
            p.lead.length_m = 40;
        }
        if (GetParam() == 0) {
            v.probes[0].sensor.share = 1;
            v.probes[1].lead.leak_ohm = 200000;
            v.probes[1].correction = TempDiff::kelvin(-0.7);
        } else {
            v.input.kind = StageKind::bridge;
            v.input.bits = 16;
        }
        CoupledSetup s = days[i];
        s.sensors = sensors(v);
        both.add(s);
    }
    EXPECT_NEAR(both.own_heat, both.ref_heat, 0.005 * both.ref_heat);
    EXPECT_NEAR(both.own_run, both.ref_run, 0.01 * both.ref_run);
}
INSTANTIATE_TEST_SUITE_P(Chains, ReadOff, testing::Range(0, 2));

} // namespace
