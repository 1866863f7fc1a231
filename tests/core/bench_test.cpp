// The rig and its procedures: every one passes on a sound unit and fails on what it is meant to find.
#include "core/bench/bench_faults.h"
#include "core/bench/procedure_run.h"
#include "core/job/fresh_rule.h"
#include "core/rules/rule_set.h"
#include "core/setup/job_setup.h"
#include "core/setup/loop_answers.h"
#include "core/sums/knob_card.h"

#include <gtest/gtest.h>

#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <malloc.h>
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
    OnSite on_site;
    if (fault)
        fault->put(real, day, on_site);
    auto rig = Rig::make(job, real, day, 12, on_site);
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
        out += "\n  " + std::string(verdict_keys[static_cast<std::size_t>(s.verdict)]) + " " + s.title + " " + s.of + ": " + said_text(s, {});
    return out;
}

// Loops that between them have every procedure and every fault.
std::vector<std::pair<std::string, Job>> bench_jobs()
{
    std::vector<std::pair<std::string, Job>> out;
    for (const char* preset : {"glycol-coil", "drainback", "direct", "open-tank", "glycol-hx", "pv-battery"})
        out.emplace_back(preset, new_job(preset));
    const auto add = [](Job& job, std::size_t kind) {
        Variant& v = job.variants.front();
        v.unit.rules.push_back(fresh_rule(v, kind));
        sort_by_priority(v.unit.rules);
    };
    LoopAnswers full = preset_answers("direct");
    full.empties = Empties::full;
    out.emplace_back("direct, kept full", new_job(full));
    add(out[5].second, kind_index<LowVoltage>());
    out[3].second.variants.front().loop.drain_back.suction_m = 0.8; // the pump stands over the water
    LoopAnswers together = preset_answers("glycol-hx");
    together.exchanger_pumps = together.exchanger_pumps == ExchangerPumps::one ? ExchangerPumps::two : ExchangerPumps::one;
    out.emplace_back("glycol-hx, pumps otherwise", new_job(together));
    Job knob = new_job("glycol-coil");
    RuleSet& unit = knob.variants.front().unit;
    for (Rule& r : unit.rules)
        if (std::holds_alternative<Differential>(r.body)) {
            const auto d = *difference_of(unit, r);
            LinkedDifference linked;
            linked.source = d.source;
            linked.store = d.store;
            linked.mark = 5;
            r.body = linked;
        }
    out.emplace_back("glycol-coil, one knob", std::move(knob));
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

TEST(Rig, leads_contacts_diodes_and_boards)
{
    Job job = new_job("glycol-coil");
    Probe& source = job.variants.front().probes[0];
    source.condition = {ConditionKind::in_sun, 40, 0.1, 15};
    auto rig = Rig::make(job, job.variants.front(), job.days.front());
    ASSERT_TRUE(rig);
    rig->advance(2);
    const double in_sun = rig->reading(0).mk;
    rig->shade(0, true);
    rig->advance(2);
    EXPECT_LT(rig->reading(0).mk, in_sun - 5000) << "at noon of a clear day";
    rig->shade(0, false);
    rig->open_contact(1, true);
    rig->advance(2);
    EXPECT_FALSE(rig->reading(1).valid);
    EXPECT_TRUE(std::isinf(rig->signal(1)));
    rig->open_contact(1, false);
    rig->put_diode(1, 1.1);
    rig->advance(2);
    EXPECT_NEAR(rig->signal(1), 1100, 1) << "1.1 V at 1 mA";
    EXPECT_NEAR(rig->reading(1).mk / 1000.0, 25.7, 0.2) << "1100 Ω of a platinum probe of 1000 Ω: IEC 60751:2022, 25.68 °C";
    InputStage& stage = job.variants.front().input;
    stage.kind = StageKind::pull_up;
    stage.pull_up_ohm = 4000;
    stage.supply_v = 5;
    auto other = Rig::make(job, job.variants.front(), job.days.front());
    ASSERT_TRUE(other);
    other->put_diode(1, 1);
    other->advance(2);
    EXPECT_NEAR(other->signal(1), 1000, 1) << "1 V of 5 V behind 4 kΩ";
}

TEST(Rig, supply_and_sun_are_turned)
{
    const Job job = new_job("pv-direct");
    auto rig = Rig::make(job, job.variants.front(), job.days.front());
    ASSERT_TRUE(rig);
    ASSERT_TRUE(rig->has_panel());
    rig->set_mode(0, Mode::on);
    rig->set_panel_sun(1000);
    rig->advance(30);
    const double full = rig->speed(0);
    EXPECT_GT(full, 0.5);
    rig->set_panel_sun(250);
    rig->advance(30);
    EXPECT_LT(rig->speed(0), full);
    rig->set_panel_sun(0);
    rig->advance(30);
    EXPECT_EQ(rig->speed(0), 0);
    EXPECT_NEAR(rig->supply_v(), 0, 0.01);
    rig->set_supply(12);
    rig->set_supply(10, 6);
    rig->advance(10);
    EXPECT_NEAR(rig->supply_v(), 11, 0.15) << "6 V a minute for 10 s";
    rig->advance(60);
    EXPECT_NEAR(rig->supply_v(), 10, 1e-9);
}

TEST(Rig, eight_hours_take_no_more_memory)
{
    const Job job = new_job("glycol-coil");
    auto rig = Rig::make(job, job.variants.front(), job.days.front(), 8);
    ASSERT_TRUE(rig);
    rig->put(0, Medium::block);
    rig->set_block(80, 1);
    rig->advance(600);
    const auto before = mallinfo2().uordblks;
    for (int minute = 0; minute < 8 * 60; ++minute)
        rig->advance(60);
    EXPECT_LT(mallinfo2().uordblks, before + 64 * 1024) << "bytes";
}

TEST(ProcedureText, what_ships_is_read_and_written_equal)
{
    ASSERT_EQ(shipped_procedures().size(), 23U);
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
             {front + "## A\n- block: 1e99 °C\n", "no number"},
             {front + "## A\n- await: output hot, within 5 min\n", "only the loop"},
             {front + "## A\n- capture: flow = bucket of 8 L\n", "by a person"},
             {front + "## A\n- read: flow = flow\n- judge: flow near set start, within 1 L/min\n", "a level in K"},
             {front + "## A\n- supply: 12 V at 1 K/min\n", "V/min"},
             {front + "## A\n- ask:\n", "nothing is asked"},
             {front + "## A\n- knob: halfway\n", "no number"}}) {
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
    for (const auto& [name, job] : bench_jobs())
        for (const Procedure& p : shipped_procedures())
            if (applies(p, job.variants.front())) {
                const ProcedureResult r = done(job, p);
                EXPECT_EQ(r.verdict(), StepVerdict::passed) << name << " " << told(r);
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

// Every procedure with every fault that a unit on this loop can have; printed as docs/procedures.md
// has it. With VERNAL_BENCH_TABLE all of them; else those meant to be found, each once.
TEST(Procedures, fail_on_what_they_are_meant_to_find)
{
    const std::vector<std::string> outputs_dead{"relay_stuck_on", "relay_stuck_off", "pump_dead"}, flow_gone{"relay_stuck_off", "pump_dead", "air_lock", "line_shut", "strainer_clogged"};
    const auto with = [](std::vector<std::string> a, std::vector<std::string> b) {
        a.insert(a.end(), b.begin(), b.end());
        return a;
    };
    const std::map<std::string, std::vector<std::string>> meant{
        {"side-by-side", {"probe_open", "probe_shorted", "probe_stuck", "probe_offset"}},
        {"hand-warm", {"probe_open", "probe_shorted", "probe_stuck", "probes_swapped"}},
        {"outputs-by-hand", outputs_dead},
        {"both-pumps", {"relay_stuck_off", "pump_dead", "second_pump_stands"}},
        {"seized-pump", {"relay_stuck_off", "pump_dead"}},
        {"start-by-warming", with({"probe_open", "probe_shorted", "probe_stuck", "probes_swapped", "probe_offset", "other_scale", "start_high"}, outputs_dead)},
        {"stop-by-cooling", with({"probe_open", "probe_shorted", "probe_stuck", "probes_swapped", "probe_offset"}, outputs_dead)},
        {"stop-by-warming-store", with({"probe_open", "probe_shorted", "probe_stuck", "probes_swapped", "probe_offset"}, outputs_dead)},
        {"knob-calibration", with({"probe_open", "probe_shorted", "knob_other"}, outputs_dead)},
        {"tank-limit", with({"probe_open", "probe_shorted", "limit_high"}, outputs_dead)},
        {"cut-out", with({"probe_open", "probe_shorted", "cut_out_high"}, outputs_dead)},
        {"freeze", with({"probe_open", "probe_shorted", "freeze_low"}, outputs_dead)},
        {"low-voltage", with({"low_voltage_low"}, outputs_dead)},
        {"broken-and-shorted", with({"probe_stuck", "probe_open", "probe_shorted"}, outputs_dead)},
        {"shade-at-the-sensor", {"probe_in_sun", "relay_stuck_off", "pump_dead"}},
        {"flush-fill-purge", with({"vent_left_open", "pressure_lost", "vessel_gas_lost"}, flow_gone)},
        {"first-fill", {"relay_stuck_on", "relay_stuck_off", "pump_dead", "air_lock", "line_shut", "strainer_clogged", "pitch_flat", "return_check_valve", "drains_slowly"}},
        {"prime-dip-pipe", with({"prime_lost"}, flow_gone)},
        {"bucket", flow_gone},
        {"descale", flow_gone},
        {"relief-and-vessel", {"vessel_gas_lost", "relief_stuck", "relief_drips"}},
        {"tap-temperature", {"tempering_fails"}},
        {"all-on-auto", {"switch_left_on", "bypass_left_closed"}}};
    ASSERT_EQ(meant.size(), shipped_procedures().size());
    std::map<std::string, std::map<std::string, int>> done_of; // procedure, fault: how often looked at
    const bool whole = std::getenv("VERNAL_BENCH_TABLE") != nullptr;
    for (const auto& [name, job] : bench_jobs()) {
        const auto faults = bench_faults(job.variants.front());
        std::printf("\n%-24s", name.c_str());
        for (const BenchFault& f : faults)
            std::printf(" %s", f.key.c_str());
        std::printf("\n");
        for (const Procedure& p : shipped_procedures()) {
            if (!applies(p, job.variants.front()))
                continue;
            std::printf("%-24s", p.name.c_str());
            for (const BenchFault& f : faults) {
                const auto& of = meant.at(p.name);
                const bool is_meant = std::find(of.begin(), of.end(), f.key) != of.end();
                if (!whole && (!is_meant || done_of[p.name][f.key] > 0))
                    continue;
                const ProcedureResult r = done(job, p, &f);
                const auto at = std::find_if(r.steps.begin(), r.steps.end(), [](const StepResult& s) { return s.verdict == StepVerdict::failed; });
                std::printf(whole ? " %s" : " %s %s", at == r.steps.end() ? "-" : std::to_string(at - r.steps.begin() + 1).c_str(), f.key.c_str());
                if (is_meant) {
                    ++done_of[p.name][f.key];
                    EXPECT_EQ(r.verdict(), StepVerdict::failed) << name << " " << f.key << " " << told(r);
                }
            }
            std::printf("\n");
        }
    }
    for (const auto& [name, faults] : meant)
        for (const std::string& f : faults)
            EXPECT_GT(done_of[name][f], 0) << name << " " << f << ": no loop had it";
}

TEST(Procedures, take_what_a_person_types)
{
    const Job job = new_job("glycol-coil");
    auto rig = Rig::make(job, job.variants.front(), job.days.front());
    ASSERT_TRUE(rig);
    ProcedureRun run(procedure("bucket"), job.variants.front(), *rig);
    run.attended(true, true);
    run.run();
    ASSERT_NE(run.asked(), nullptr) << told(run.result());
    EXPECT_EQ(run.asked()->captured, Captured::bucket);
    EXPECT_NEAR(run.shown(), 10 * 60 / rig->flow_l_min(), 1e-9);
    run.answer(50);
    run.advance(2);
    const StepResult& flow = run.result().steps.front();
    ASSERT_EQ(flow.captured.size(), 1U);
    EXPECT_NEAR(flow.captured.front().mean(), 12.0, 1e-12) << "volume over time: 10 L in 50 s";
    EXPECT_EQ(flow.verdict, StepVerdict::failed) << "12 L/min of 6 that are stated: " << told(run.result());
    EXPECT_TRUE(run.repeat());
    EXPECT_EQ(run.result().steps.front().verdict, StepVerdict::open);
    run.run();
    run.answer(run.shown());
    run.advance(2);
    EXPECT_EQ(run.result().steps.front().verdict, StepVerdict::passed) << told(run.result());
    run.leave();
    EXPECT_FALSE(run.asked());
    EXPECT_FALSE(rig->turns(0) && rig->mode(0) != Mode::automatic);
    const double now = rig->now_s();
    run.advance(60);
    EXPECT_EQ(rig->now_s(), now) << "nothing is awaited while it is left";
    run.resume();
    run.run();
    EXPECT_NE(run.asked(), nullptr);
}

TEST(Procedures, a_question_that_nobody_answers_is_not_possible)
{
    const Job job = new_job("direct");
    const ProcedureResult r = done(job, procedure("descale"));
    EXPECT_EQ(r.steps.back().verdict, StepVerdict::not_possible);
    EXPECT_NE(r.steps.back().said.find("rinsed"), std::string::npos);
    const ProcedureResult other = done(job, procedure("relief-and-vessel"));
    for (const StepResult& step : other.steps)
        EXPECT_EQ(step.said, "This unit has nothing of the kind.") << "a loop that is open to the mains";
}

TEST(Procedures, find_what_the_marks_of_a_knob_mean)
{
    const auto job = bench_jobs().back().second;
    const Knob& written = job.variants.front().unit.knob;
    const ProcedureResult r = done(job, procedure("knob-calibration"));
    const auto found = found_knob(r, written);
    ASSERT_TRUE(found) << told(r);
    EXPECT_NEAR(found->on_first.in_kelvin(), written.on_first.in_kelvin(), 0.3);
    EXPECT_NEAR(found->off_last.in_kelvin(), written.off_last.in_kelvin(), 0.3);
    EXPECT_EQ(found->law, written.law);
    for (const BenchFault& f : bench_faults(job.variants.front()))
        if (f.key == "knob_other") {
            const auto other = found_knob(done(job, procedure("knob-calibration"), &f), written);
            ASSERT_TRUE(other);
            EXPECT_NEAR(other->on_last.in_kelvin(), written.on_last.in_kelvin() + 3, 0.3) << "what was put in";
        }
    EXPECT_FALSE(found_knob({}, written));
}

// Of a bridge: what the unit reads stays as it is set, while the real difference drifts with the store's warmth;
// restated from the two probes' resistances and the converter's middle.
TEST(Procedures, show_how_the_pair_of_a_bridge_drifts)
{
    Job job = bench_jobs().back().second;
    Variant& v = job.variants.front();
    for (Probe& p : v.probes)
        p.curve = *parse_curve("ntc:r25=10000,beta=3950");
    v.input.kind = StageKind::bridge;
    const ProcedureResult r = done(job, procedure("knob-calibration"));
    EXPECT_EQ(r.verdict(), StepVerdict::passed) << told(r);
    std::map<std::string, std::vector<double>> real, read;
    for (const StepResult& s : r.steps)
        for (const CapturedValue& c : s.captured) {
            if (c.name == "middle start")
                real[c.name].push_back(c.mean());
            if (c.name == "middle start read")
                read[c.name].push_back(c.mean());
        }
    ASSERT_EQ(real["middle start"].size(), 2U) << told(r);
    EXPECT_GT(std::fabs(real["middle start"][1] - real["middle start"][0]), 1.0) << "the drift shows";
    EXPECT_LT(std::fabs(read["middle start read"][1] - read["middle start read"][0]), 0.5) << "what it reads does not";
    const auto card = whole_card(v, Units::metric());
    const auto pairs = std::count_if(card.begin(), card.end(), [](const CardRow& row) { return row.name.starts_with("Really, store at"); });
    EXPECT_EQ(pairs, 2);
}

bool reads_flow(const Procedure& p)
{
    return std::any_of(p.steps.begin(), p.steps.end(), [](const ProcedureStep& s) { return std::any_of(s.lines.begin(), s.lines.end(), [](const Line& l) { return l.captured == Captured::flow || l.captured == Captured::bucket; }); });
}

// Nothing comes round: whatever a procedure reads of the flow, it does not pass.
TEST(Procedures, that_read_a_flow_fail_on_none)
{
    for (const char* key : {"drainback", "glycol-coil", "open-tank"}) {
        const Job job = new_job(key);
        for (const Procedure& p : shipped_procedures())
            if (reads_flow(p) && applies(p, job.variants.front()))
                for (const char* none : {"pump_dead", "pitch_flat", "line_shut"})
                    for (const BenchFault& f : bench_faults(job.variants.front()))
                        if (f.key == none) {
                            const ProcedureResult r = done(job, p, &f);
                            for (const StepResult& s : r.steps)
                                for (const Judgement& j : s.judged)
                                    if (j.name == "flow" && !(j.seen > 0)) {
                                        EXPECT_EQ(s.verdict, StepVerdict::failed) << key << " " << none << " " << told(r);
                                        EXPECT_EQ(r.verdict(), StepVerdict::failed) << key << " " << none << " " << told(r);
                                    }
                        }
    }
}

TEST(Procedures, are_kept_as_they_were_read)
{
    const Job job = bench_jobs()[5].second;
    const ProcedureResult r = done(job, procedure("low-voltage"));
    const BenchRecord kept = record_of(r, "Low voltage", "2026-05-07T14:30", job.variants.front().id);
    ASSERT_EQ(kept.steps.size(), r.steps.size());
    int rows = 0;
    for (const BenchReading& x : kept.steps[1].readings) {
        rows += x.name == "supply";
        EXPECT_TRUE(std::isfinite(x.value));
    }
    EXPECT_EQ(rows, 8) << "a row of the card at each voltage";
    EXPECT_EQ(kept.verdict, StepVerdict::passed);
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
