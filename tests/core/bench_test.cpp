// The rig and its procedures: every one passes on a sound unit and fails on what it is meant to find.
#include "core/bench/bench_faults.h"
#include "core/bench/procedure_run.h"
#include "core/rules/rule_set.h"
#include "core/setup/job_setup.h"
#include "core/setup/loop_answers.h"

#include <gtest/gtest.h>

#include <cmath>
#include <cstdio>
#include <map>

namespace vernal {
namespace {

const Procedure& procedure(const std::string& name)
{
    for (const Procedure& p : shipped_procedures())
        if (p.name == name)
            return p;
    ADD_FAILURE() << name;
    return shipped_procedures().front();
}

ProcedureResult done(const Job& job, const Procedure& p, const BenchFault* fault = nullptr)
{
    const Variant& written = job.variants.front();
    Variant real = written;
    Day day = job.days.front();
    if (fault)
        fault->put(real, day);
    auto rig = Rig::make(job, real, day);
    EXPECT_TRUE(rig) << (rig ? "" : rig.error().text());
    if (!rig)
        return {};
    ProcedureRun run(p, written, *rig);
    run.run();
    return run.result();
}

std::string told(const ProcedureResult& r)
{
    std::string out = r.name;
    for (const StepResult& s : r.steps)
        out += "\n  " + std::string(verdict_keys[static_cast<std::size_t>(s.verdict)]) + " " + s.title + " " + s.of + ": " + s.said;
    return out;
}

} // namespace

TEST(Rig, a_probe_follows_its_medium_as_slowly_as_it_is)
{
    const Job job = new_job("glycol-coil");
    auto rig = Rig::make(job, job.variants.front(), job.days.front());
    ASSERT_TRUE(rig);
    rig->put(0, Medium::ice_water);
    const double began = rig->tip_c(0), lag_s = job.variants.front().probes[0].lag_s;
    rig->advance(lag_s);
    EXPECT_NEAR(rig->tip_c(0), began * std::exp(-1), 0.05 * std::fabs(began));
    rig->advance(20 * lag_s);
    EXPECT_NEAR(rig->tip_c(0), 0, 0.01);
    EXPECT_NEAR(rig->reading(0).mk / 1000.0, 0, 0.6);
    EXPECT_NEAR(rig->signal(0), 1000, 3) << "a platinum probe of 1000 Ω (IEC 60751:2022, 0 °C)";
    rig->set_lead(0, LeadState::broken);
    EXPECT_TRUE(std::isinf(rig->signal(0)));
    rig->advance(2);
    EXPECT_FALSE(rig->reading(0).valid);
    rig->set_lead(0, LeadState::sound);
    rig->put(0, Medium::loop);
    rig->advance(2);
    EXPECT_EQ(rig->tip_c(0), rig->simulation().tip_c(0));
}

TEST(Rig, in_the_loop_it_does_as_a_run_of_the_day)
{
    const Job job = new_job("glycol-coil");
    auto rig = Rig::make(job, job.variants.front(), job.days.front(), 9);
    auto setup = coupled_setup(job, job.variants.front(), job.days.front());
    ASSERT_TRUE(rig && setup);
    Simulation day(*setup);
    day.spin_up();
    day.advance(9 * 3600);
    for (int minute = 0; minute < 240; ++minute) {
        rig->advance(60);
        day.advance(9 * 3600 + 60.0 * (minute + 1));
        ASSERT_EQ(rig->turns(0), (day.running() & 1U) != 0) << minute;
        ASSERT_NEAR(rig->tip_c(0), day.tip_c(0), 1e-9);
    }
}

TEST(Rig, switches_bypass_and_supply)
{
    const Job job = new_job("glycol-coil");
    auto rig = Rig::make(job, job.variants.front(), job.days.front(), 1);
    ASSERT_TRUE(rig);
    rig->set_mode(0, Mode::on);
    rig->advance(5);
    EXPECT_TRUE(rig->turns(0));
    EXPECT_GT(rig->watt(0), 0);
    rig->set_mode(0, Mode::off);
    rig->advance(600);
    EXPECT_FALSE(rig->turns(0));
    rig->set_bypass(0, true);
    rig->advance(5);
    EXPECT_TRUE(rig->turns(0)) << "a bypass feeds it past the unit";
    EXPECT_FALSE(rig->decision(0).on);
    rig->all_automatic();
    rig->set_powered(false);
    rig->advance(5);
    EXPECT_FALSE(rig->turns(0));
}

TEST(ProcedureText, what_ships_is_read_and_written_equal)
{
    ASSERT_EQ(shipped_procedures().size(), 9U);
    for (const Procedure& p : shipped_procedures()) {
        const auto again = read_procedure(write_procedure(p), p.name);
        ASSERT_TRUE(again) << again.error().text();
        EXPECT_EQ(*again, p);
    }
}

TEST(ProcedureText, what_is_wrong_is_told_by_line)
{
    const std::string front = "---\nname: own\ntitle: Own\nneeds: pair\n---\n";
    for (const auto& [text, what] : std::map<std::string, std::string>{
             {"", "front part"},
             {"---\nname: Own\n---\n", "line 2"},
             {"---\nname: own\n---\n", "no title"},
             {front, "no step"},
             {front + "## A\n- fly: high\n", "line 7"},
             {front + "## A\n- put: source in soup\n", "ice water"},
             {front + "## A\n- await: output runs\n", "how long"},
             {front + "## A\n- await: output runs, within 20 K\n", "has not the unit"},
             {front + "## A\n- judge: start near set start, within 1 K\n", "nothing is captured"},
             {front + "## A\n- capture: start = difference\n- judge: start near set start\n", "how near"},
             {front + "## A\n- capture: start = reading\n", "of what"},
             {front + "## A\n- passes: 0\n", "1 to 20"},
             {front + "## A\n- block: 1e99 °C\n", "no number"}}) {
        const auto p = read_procedure(text, "own.md");
        ASSERT_FALSE(p) << text;
        EXPECT_NE(p.error().text().find(what), std::string::npos) << p.error().text();
    }
}

TEST(Procedures, pass_on_a_sound_unit_of_every_loop_they_apply_to)
{
    for (const Arrangement& a : presets()) {
        const Job job = new_job(a.answers);
        for (const Procedure& p : shipped_procedures()) {
            const ProcedureResult r = done(job, p);
            EXPECT_EQ(r.verdict(), applies(p, job.variants.front()) ? StepVerdict::passed : StepVerdict::not_possible) << a.key << " " << told(r);
        }
    }
}

TEST(Procedures, can_be_left_out_with_a_reason)
{
    const Job job = new_job("glycol-coil");
    auto rig = Rig::make(job, job.variants.front(), job.days.front());
    ASSERT_TRUE(rig);
    ProcedureRun run(procedure("tank-limit"), job.variants.front(), *rig);
    EXPECT_TRUE(run.advance(30));
    EXPECT_NE(run.waits_for().find("settled"), std::string::npos);
    run.skip("The store's probe cannot be reached.");
    run.run();
    EXPECT_EQ(run.result().steps.front().verdict, StepVerdict::not_possible);
    EXPECT_EQ(run.result().steps.front().said, "The store's probe cannot be reached.");
}

// The table of docs/procedures.md.
TEST(Procedures, fail_on_what_they_are_meant_to_find)
{
    const std::map<std::string, std::vector<std::string>> meant{
        {"side-by-side", {"probe_open", "probe_shorted", "probe_stuck", "probe_offset"}},
        {"hand-warm", {"probe_open", "probe_shorted", "probe_stuck", "probes_swapped"}},
        {"outputs-by-hand", {"relay_stuck_on", "relay_stuck_off", "pump_dead"}},
        {"start-by-warming", {"probe_open", "probe_shorted", "probe_stuck", "probes_swapped", "relay_stuck_on", "relay_stuck_off", "pump_dead", "probe_offset", "other_scale", "start_high"}},
        {"stop-by-cooling", {"probe_open", "probe_shorted", "probe_stuck", "probes_swapped", "relay_stuck_on", "relay_stuck_off", "pump_dead", "probe_offset"}},
        {"tank-limit", {"probe_open", "probe_shorted", "relay_stuck_on", "relay_stuck_off", "pump_dead", "limit_high"}},
        {"cut-out", {"probe_open", "probe_shorted", "relay_stuck_on", "relay_stuck_off", "pump_dead", "cut_out_high"}},
        {"all-on-auto", {"switch_left_on", "bypass_left_closed"}},
        {"broken-and-shorted", {"probe_stuck", "probe_open", "probe_shorted", "relay_stuck_on", "relay_stuck_off", "pump_dead"}}};
    for (const char* preset : {"glycol-coil", "drainback", "direct"}) {
        const Job job = new_job(preset);
        const auto faults = bench_faults(job.variants.front());
        std::printf("%-20s", preset);
        for (const BenchFault& f : faults)
            std::printf(" %-15s", f.key.c_str());
        std::printf("\n");
        for (const Procedure& p : shipped_procedures()) {
            if (!applies(p, job.variants.front()))
                continue;
            std::printf("%-20s", p.name.c_str());
            for (const BenchFault& f : faults) {
                const ProcedureResult r = done(job, p, &f);
                const auto at = std::find_if(r.steps.begin(), r.steps.end(), [](const StepResult& s) { return s.verdict == StepVerdict::failed; });
                std::printf(" %-15s", at == r.steps.end() ? "" : ("step " + std::to_string(at - r.steps.begin() + 1)).c_str());
                const auto& of = meant.at(p.name);
                if (std::find(of.begin(), of.end(), f.key) != of.end()) {
                    EXPECT_EQ(r.verdict(), StepVerdict::failed) << preset << " " << f.key << " " << told(r);
                }
            }
            std::printf("\n");
        }
    }
}

TEST(Procedures, find_start_and_stop_within_what_is_computed)
{
    for (const double on_k : {5.0, 8.0, 12.0}) {
        Job job = new_job("glycol-coil");
        Variant& v = job.variants.front();
        for (Rule& r : v.unit.rules)
            if (difference_of(v.unit, r))
                set_difference(v.unit, r, TempDiff::kelvin(on_k), TempDiff::kelvin(on_k / 2));
        const auto near = [&](const char* name, const char* value, double set_k) {
            const ProcedureResult r = done(job, procedure(name));
            EXPECT_EQ(r.verdict(), StepVerdict::passed) << told(r);
            for (const StepResult& s : r.steps)
                for (const CapturedValue& c : s.captured)
                    if (c.name == value) {
                        EXPECT_NEAR(c.mean(), set_k, 0.2) << told(r);
                        EXPECT_LT(c.spread(), 0.2);
                    }
        };
        near("start-by-warming", "start", on_k);
        near("start-by-warming", "true start", on_k);
        near("stop-by-cooling", "stop", on_k / 2);
    }
}

} // namespace vernal
