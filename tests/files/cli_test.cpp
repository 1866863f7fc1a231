#include "cli/program.h"
#include "core/wording/why.h"
#include "files/csv_trace.h"
#include "files/disk.h"
#include "files/job_file.h"
#include "files/job_json.h"

#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <sstream>

using namespace vernal;

namespace {

struct Ran {
    int code;
    std::string out, err;
    nlohmann::json json() const { return nlohmann::json::parse(out); }
};

Ran cli(const std::vector<std::string>& arguments)
{
    std::ostringstream out, err;
    const int code = run_cli(arguments, {out, err});
    return {code, out.str(), err.str()};
}

const std::string demo = VERNAL_DEMO "/job.json";

std::string temp(const std::string& name) { return (std::filesystem::path(testing::TempDir()) / ("vernal-cli-" + std::to_string(::getpid()) + name)).string(); }

TEST(Cli, says_its_version)
{
    const Ran r = cli({"--version"});
    EXPECT_EQ(r.code, 0);
    EXPECT_EQ(r.out.rfind("vernal-relay-cli 0.", 0), 0U) << r.out;
}

// What "-" writes is what the file would hold, and is read again from standard input.
TEST(Cli, a_dash_is_standard_output_and_input)
{
    const Ran job = cli({"new", "--preset", "glycol-coil", "--out", "-"});
    ASSERT_EQ(job.code, 0) << job.err;
    const std::string file = temp("dash.json");
    ASSERT_EQ(cli({"new", "--preset", "glycol-coil", "--out", file}).code, 0);
    nlohmann::json written = nlohmann::json::parse(*read_file(file)), piped = job.json();
    EXPECT_EQ(piped["variants"][0]["loop"], written["variants"][0]["loop"]);
    EXPECT_EQ(piped["version"], written["version"]);

    const Ran csv = cli({"run", file, "--csv", "-"});
    ASSERT_EQ(csv.code, 0) << csv.err;
    EXPECT_EQ(csv.out.rfind("time,", 0), 0U) << csv.out.substr(0, 80);
    EXPECT_EQ(std::count(csv.out.begin(), csv.out.end(), '\n'), 86401) << "a header and a row a second, no word beside them";

    std::istringstream in(csv.out);
    std::ostringstream out, err;
    EXPECT_EQ(run_cli({"run", file, "--trace", "-", "--json"}, {out, err, {}, &in}), 0) << err.str();
    const auto replayed = nlohmann::json::parse(out.str());
    const Ran coupled = cli({"run", file, "--json"});
    EXPECT_EQ(replayed["by_rules"][0]["starts"], coupled.json()["figures"]["outputs"][0]["starts"]);
    const Ran none = cli({"run", file, "--trace", "-"});
    EXPECT_EQ(none.code, exit_bad_input);
    EXPECT_NE(none.err.find("no standard input"), std::string::npos) << none.err;
    EXPECT_FALSE(std::filesystem::exists("-")) << "no file of that name";
    std::filesystem::remove(file);
}

TEST(Cli, run_gives_the_figures)
{
    const Ran r = cli({"run", demo, "--day", "Clear day, 19 June", "--variant", "proposed", "--json"});
    ASSERT_EQ(r.code, 0) << r.err;
    EXPECT_GT(r.json()["figures"]["heat_to_store_j"], 10 * 3.6e6);
    EXPECT_EQ(r.json()["figures"]["outputs"].size(), 1U);
    EXPECT_NE(cli({"run", demo}).out.find("starts"), std::string::npos);
}

TEST(Cli, settings_are_read_and_written_by_path)
{
    const std::string file = temp("-set.vrelay"), other = temp("-set-other.vrelay");
    ASSERT_TRUE(save_job(*open_job(demo), file));
    EXPECT_EQ(cli({"get", file, "loop/tank/volume_m3", "--variant", "proposed"}).out, "0.42\n");
    ASSERT_EQ(cli({"set", file, "loop/tank/volume_m3", "500 L", "--variant", "proposed", "--out", other}).code, 0);
    EXPECT_EQ(cli({"get", file, "loop/tank/volume_m3", "--variant", "proposed"}).out, "0.42\n");
    EXPECT_EQ(cli({"get", other, "loop/tank/volume_m3", "--variant", "proposed"}).out, "0.5\n");
    EXPECT_EQ(cli({"get", other, "loop/tank/volume_m3"}).out, "0.42\n") << "the other variant stays";
    ASSERT_EQ(cli({"set", file, "output/P1/mode", "ON"}).code, 0);
    EXPECT_EQ(cli({"get", file, "output/P1/mode"}).out, "ON\n");
    EXPECT_EQ(cli({"set", file, "site/place/latitude_deg", "-12.5"}).code, 0) << "a value may begin with a minus";
    const Ran bad = cli({"set", file, "loop/tank/volume_m3", "7000"});
    EXPECT_EQ(bad.code, 2);
    EXPECT_NE(bad.err.find("between 0.02 and 50"), std::string::npos);
    EXPECT_EQ(cli({"get", file, "no/such"}).code, 2);
    EXPECT_EQ(cli({"get", file, "loop/tank/volume_m3", "--variant", "nobody"}).code, 2);
}

TEST(Cli, fields_lists_every_path_with_value_unit_range_and_default)
{
    const Ran r = cli({"fields", demo, "--json"});
    ASSERT_EQ(r.code, 0) << r.err;
    int numbers = 0;
    const auto all = r.json();
    for (const auto& f : all["fields"]) {
        const std::string path = f["path"];
        EXPECT_TRUE(f.contains("default") && f.contains("unit")) << path;
        const Ran got = cli({"get", demo, path});
        ASSERT_EQ(got.code, 0) << path;
        if (f["value"].is_number()) {
            ++numbers;
            EXPECT_LE(f["min"], f["value"]) << path;
            EXPECT_GE(f["max"], f["value"]) << path;
            EXPECT_DOUBLE_EQ(std::stod(got.out), f["value"]) << path;
        }
    }
    EXPECT_GT(numbers, 200);
    const Ran table = cli({"fields", demo});
    EXPECT_EQ(table.out.rfind("path,value,unit,range,default,label\r\n", 0), 0U);
    EXPECT_NE(table.out.find("loop/tank/volume_m3,0.42,m3,0.02 … 50,"), std::string::npos);
}

TEST(Cli, csv_has_a_row_per_sample_and_reads_back_as_it_ran)
{
    const std::string file = temp(".csv");
    const Ran r = cli({"run", demo, "--csv", file, "--json"});
    ASSERT_EQ(r.code, 0);
    const auto text = read_file(file);
    const auto trace = read_trace_csv(*text, file);
    ASSERT_TRUE(trace) << trace.error().text();
    EXPECT_EQ(trace->time_s.size(), 86400U);
    EXPECT_EQ(text->substr(0, text->find("\r\n")), "time,collector [°C],tank_bottom [°C],tank_top [°C],air [°C],irradiance_plane [W/m²],pressure [bar],P1,P1_decided_by,P1_rule,distrusted");
    const Ran replay = cli({"run", demo, "--trace", file, "--json"});
    ASSERT_EQ(replay.code, 0) << replay.err;
    EXPECT_EQ(replay.json()["disagreements"].size(), 0U);
    EXPECT_EQ(replay.json()["by_rules"][0]["starts"], r.json()["figures"]["outputs"][0]["starts"]);
    std::filesystem::remove(file);
}

TEST(Cli, fixed_step_and_sampling_period_are_taken)
{
    const double free = cli({"run", demo, "--json"}).json()["figures"]["heat_to_store_j"];
    const double fixed = cli({"run", demo, "--step", "5", "--sample", "5", "--json"}).json()["figures"]["heat_to_store_j"];
    EXPECT_NE(free, fixed);
    EXPECT_NEAR(free, fixed, 0.02 * free);
}

// Every arrangement goes the whole way: saved, opened, run, its rows read back and replayed to the same decisions.
TEST(Cli, every_arrangement_goes_from_file_to_figures)
{
    const std::string file = temp("-each.vrelay"), rows = temp("-each.csv");
    for (const Arrangement& a : presets()) {
        SCOPED_TRACE(a.key);
        ASSERT_TRUE(save_job(new_job(a.key), file));
        const Ran r = cli({"run", file, "--day", "Racing clouds", "--csv", rows, "--json"});
        ASSERT_EQ(r.err, "");
        const auto f = r.json()["figures"];
        EXPECT_GT(f["absorbed_j"], 1e7);
        EXPECT_LT(std::fabs(f["energy_residual_j"].get<double>()), 1e-6 * f["absorbed_j"].get<double>());
        EXPECT_EQ(f["drain_back"]["fills"] > 0, a.drains);
        EXPECT_EQ(f["battery"]["charge"].is_number(), a.has(Part::battery));
        const Ran replay = cli({"run", file, "--trace", rows, "--json"});
        ASSERT_EQ(replay.err, "");
        const auto differ = replay.json()["disagreements"];
        for (const auto& d : differ) // the day before the rows left a drain valve open
            EXPECT_TRUE(d["from_before_the_log"].get<bool>() && d["to_s"] < 600.0) << d;
    }
    std::filesystem::remove(file);
    std::filesystem::remove(rows);
}

TEST(Cli, the_words_of_a_drain_back_and_a_battery)
{
    const std::string file = temp("-words.vrelay");
    ASSERT_TRUE(save_job(new_job("drainback"), file));
    EXPECT_NE(cli({"run", file}).out.find("fills of the array"), std::string::npos);
    ASSERT_TRUE(save_job(new_job("pv-battery"), file));
    EXPECT_NE(cli({"run", file}).out.find("lowest battery"), std::string::npos);
    EXPECT_EQ(cli({"run", demo}).out.find("battery"), std::string::npos);
    std::filesystem::remove(file);
}

TEST(Cli, a_recorded_day_replays)
{
    const Ran r = cli({"run", demo, "--day", "Recorded, 7 May", "--json"});
    ASSERT_EQ(r.code, 0) << r.err;
    EXPECT_EQ(r.json()["way"], "replay");
    EXPECT_GT(r.json()["disagreements"].size(), 0U);
    EXPECT_FALSE(r.json().contains("figures")) << "a replay has no heat";
}

TEST(Cli, bad_input_is_two_with_the_reason)
{
    for (const auto& [arguments, reason] : std::vector<std::pair<std::vector<std::string>, std::string>>{
             {{"run", "nowhere.vrelay"}, "No such file"},
             {{"run", demo, "--day", "Doomsday"}, "there is no day"},
             {{"run", demo, "--variant", "worse"}, "there is no variant"},
             {{"run", demo, "--step", "-1"}, "--step"},
             {{"probe", "convert", "--curve", "pt1000", "--ohm", "99999"}, "outside this curve"},
             {{"probe", "convert", "--curve", "pt1000"}, "one of --ohm and --temp"},
             {{"probe", "convert", "--curve", "x", "--ohm", "5"}, "is not a probe curve"},
             {{"fly"}, "“fly” is no verb"},
             {{"run", demo, "--sample", "nan"}, "is not a number to work with"},
             {{"run", demo, "--step", "1e999"}, "--step"},
             {{"sum", "flow", "volume_m3=inf"}, "is not a number"},
             {{}, "subcommand"}}) {
        const Ran r = cli(arguments);
        EXPECT_EQ(r.code, 2);
        EXPECT_NE(r.err.find(reason), std::string::npos) << r.err;
    }
}

TEST(Cli, prints_in_us_units_where_they_are_asked_for_and_json_stays)
{
    const std::string job = VERNAL_DEMO "/job.json";
    const auto si = cli({"run", job}), us = cli({"run", job, "--us"}), before = cli({"--us", "run", job});
    EXPECT_NE(si.out.find("kWh"), std::string::npos);
    EXPECT_NE(us.out.find("BTU"), std::string::npos);
    EXPECT_NE(us.out.find("°F"), std::string::npos);
    EXPECT_EQ(us.out, before.out) << "it stands before the verb or behind it";
    EXPECT_EQ(cli({"run", job, "--json"}).out, cli({"run", job, "--json", "--us"}).out);
    EXPECT_EQ(cli({"check", job, "--json"}).out, cli({"check", job, "--json", "--us"}).out);
    EXPECT_NE(cli({"check", job}).out, cli({"check", job, "--us"}).out);
    EXPECT_NE(cli({"choose", job, "--us"}).out.find("°F"), std::string::npos);
    EXPECT_NE(cli({"settings", job, "--us"}).out.find("°F"), std::string::npos);
}

TEST(Cli, check_is_one_when_serious)
{
    EXPECT_EQ(cli({"check", demo}).code, 0);
    Job job = *open_job(demo);
    job.variants[0].unit.outputs[0].mode = Mode::on;
    const std::string file = temp(".vrelay");
    ASSERT_TRUE(save_job(job, file));
    const Ran r = cli({"check", file, "--json"});
    EXPECT_EQ(r.code, 1);
    EXPECT_EQ(r.json()["findings"][0]["kind"], "switch_left");
    EXPECT_EQ(cli({"check", file, "--variant", "proposed"}).code, 0);
    EXPECT_EQ(cli({"run", file}).code, 1);
    std::filesystem::remove(file);
}

TEST(Cli, probe_converts_both_ways)
{
    EXPECT_EQ(cli({"probe", "convert", "--curve", "pt1000", "--temp", "25"}).out, "1097.35 Ω = 25.00 °C = 77.00 °F, 3.879 Ω/K\n");
    EXPECT_NEAR(cli({"probe", "convert", "--curve", "pt1000", "--ohm", "1385.055", "--json"}).json()["temp_c"], 100, 1e-3);
    EXPECT_NEAR(cli({"probe", "convert", "--curve", "ntc:r25=10000,beta=3950", "--temp", "77F", "--json"}).json()["ohm"], 10000, 1e-6);
}

TEST(Cli, probe_knows_the_curve_file)
{
    EXPECT_NE(cli({"probe", "curves"}).out.find("ni1000-6180"), std::string::npos);
    EXPECT_GE(cli({"probe", "curves", "--json"}).json()["curves"].size(), 20U);
    EXPECT_NEAR(cli({"probe", "convert", "--curve", "4-20ma-0-100", "--ohm", "12", "--json"}).json()["temp_c"], 50, 1e-9);
    const std::string own = temp("curves.json");
    ASSERT_TRUE(write_file_atomically(own, R"({"format":"vrelay-curves","version":1,"curves":[{"key":"barn","curve":"ntc:r25=4300,beta=3440"}]})"));
    EXPECT_NEAR(cli({"probe", "convert", "--curve", "barn", "--curves", own, "--temp", "25", "--json"}).json()["ohm"], 4300, 1e-6);
    std::filesystem::remove(own);
    EXPECT_EQ(cli({"probe", "convert", "--curve", "barn", "--temp", "25"}).code, 2);
}

TEST(Cli, probe_fits_and_identifies_measured_points)
{
    const std::string file = temp("points.csv");
    // The trade's 5 kΩ service chart; common practice, no source.
    ASSERT_TRUE(write_file_atomically(file, "temp_f; r\n70; 5.0 k\n90; 3.3 k\n110; 2.2k\n130; 1.4k\n"));
    const auto fit = cli({"probe", "fit", "--points", file, "--json"}).json();
    EXPECT_EQ(fit["suspect"], 4);
    EXPECT_EQ(fit["law"], "beta");
    EXPECT_NE(cli({"probe", "fit", "--points", file}).out.find("← suspect"), std::string::npos);
    const auto which = cli({"probe", "identify", "--points", file, "--json"}).json();
    EXPECT_FALSE(which["matches"].empty());
    ASSERT_TRUE(write_file_atomically(file, "25, 10000\n25, 9990\n"));
    const Ran same = cli({"probe", "identify", "--points", file});
    EXPECT_EQ(same.code, 2);
    EXPECT_NE(same.err.find("only 1 different temperature"), std::string::npos);
    EXPECT_EQ(cli({"probe", "fit", "--points", file + ".not"}).code, 2);
    ASSERT_TRUE(write_file_atomically(file, "0, 1000\n100, 1385\n"));
    EXPECT_NE(cli({"probe", "fit", "--points", file}).err.find("no NTC"), std::string::npos);
    std::filesystem::remove(file);
}

TEST(Cli, probe_budget_and_chart_of_a_job)
{
    const auto b = cli({"probe", "budget", demo, "--store", "104F", "--json"}).json();
    EXPECT_NEAR(b["store_c"], 40, 1e-9);
    ASSERT_EQ(b["rules"].size(), 1U);
    EXPECT_EQ(b["rules"][0]["on"]["lines"].size(), 7U);
    EXPECT_LE(b["rules"][0]["on"]["rss_k"], b["rules"][0]["on"]["worst_k"]);
    EXPECT_NE(cli({"probe", "budget", demo}).out.find("at worst"), std::string::npos);
    EXPECT_EQ(cli({"probe", "budget", demo, "--store", "warm"}).code, 2);
    EXPECT_EQ(cli({"probe", "chart", demo}).out.substr(0, 14), "temp_c,temp_f,");
    EXPECT_GT(cli({"probe", "chart", demo, "--json"}).json()["rows"].size(), 40U);
}

TEST(Cli, sums_are_listed_worked_out_and_refused)
{
    const Ran list = cli({"sum"});
    EXPECT_EQ(list.code, 0);
    EXPECT_NE(list.out.find("glycol_mix"), std::string::npos);
    EXPECT_NE(cli({"sum", "ice", "ohm=1003.9"}).out.find("1.00 K off"), std::string::npos);
    EXPECT_EQ(cli({"sum", "ice", "--probe", "S9"}).code, 2);
    // 10 L in 35 s = 17.1 L/min (common practice, no source)
    EXPECT_NE(cli({"sum", "flow", "volume_m3=10 L", "time_s=35"}).out.find("10 L in 35 s = 17.1 L/min"), std::string::npos);
    EXPECT_NE(cli({"sum", "flow", "volume_m3=0.01", "time_s=35"}).out.find("10 L in 35 s"), std::string::npos) << "in the unit its name ends in";
    EXPECT_NE(cli({"sum", "flow", "volume_m3=2.5 gal", "time_s=60", "--us"}).out.find("2.50 gal/min"), std::string::npos);
    for (const auto& [wrong, says] : {std::pair{std::vector<std::string>{"sum", "nothing"}, "no sum"}, {{"sum", "flow", "time=35"}, "no input"}, {{"sum", "flow", "time_s=-3"}, "must lie between"}, {{"sum", "pool"}, "does not belong"}, {{"sum", "flow", "time_s=3 kg"}, "not a unit"}}) {
        const Ran r = cli(wrong);
        EXPECT_EQ(r.code, 2);
        EXPECT_NE(r.err.find(says), std::string::npos) << r.err;
    }
}

TEST(Cli, reserve_counts_the_dark_days)
{
    const Ran r = cli({"reserve", demo, "--day", "Clear day, 19 June", "--json"});
    ASSERT_EQ(r.code, 0) << r.err;
    EXPECT_GT(r.json()["warm_days"], 0.2);
    ASSERT_EQ(r.json()["element"].size(), 3U);
    EXPECT_EQ(r.json()["element"][0]["element_j"], 0);
    EXPECT_GE(r.json()["element"][1]["element_j"], r.json()["element"][2]["element_j"]);
    EXPECT_NE(cli({"reserve", demo}).out.find("taps stay warm"), std::string::npos);
    EXPECT_EQ(cli({"reserve", demo, "--day", "Recorded, 7 May"}).code, 2);
}

// Every loop of the demo opens, keeps its schema and runs on each of its days.
TEST(Cli, every_demo_loop_runs)
{
    int loops = 0;
    for (const auto& folder : std::filesystem::directory_iterator(std::filesystem::path(VERNAL_DEMO).parent_path())) {
        SCOPED_TRACE(folder.path().filename().string());
        const std::string file = (folder.path() / "job.json").string();
        const auto job = open_job(file);
        ASSERT_TRUE(job) << job.error().text();
        ++loops;
        EXPECT_GE(job->variants.size(), 2U);
        for (const Day& d : job->days)
            EXPECT_NE(cli({"run", file, "--day", d.name}).code, 2) << d.name;
    }
    EXPECT_EQ(loops, 4);
}

// What the demo proposes passes the program's own check.
TEST(Cli, what_the_demo_proposes_is_clean)
{
    for (const auto& folder : std::filesystem::directory_iterator(std::filesystem::path(VERNAL_DEMO).parent_path())) {
        const Ran r = cli({"check", (folder.path() / "job.json").string(), "--variant", "proposed", "--json"});
        ASSERT_EQ(r.code, 0) << folder.path() << r.err << r.out;
        const auto found = r.json()["findings"];
        for (const auto& f : found)
            EXPECT_EQ(f["severity"], "note") << folder.path() << f["title"];
    }
}

// A log with gaps: what was held is said, and the rows written are a log that decides the same.
TEST(Cli, a_replay_writes_rows_that_replay_the_same)
{
    const std::string log = temp("-gaps.csv"), rows = temp("-rows.csv"), again = temp("-again.csv");
    std::string text = "time,collector [°C],tank_bottom [°C],tank_top [°C],P1\n";
    double t = 0;
    for (int i = 0; i < 400; ++i) {
        t += i % 37 == 5 ? 80 : i % 53 == 7 ? 25
                            : i % 61 == 9   ? 4000
                                            : 10;
        text += std::to_string(t) + "," + std::to_string(30 + 12 * std::sin(i * 0.1)) + ",25,40," + (i % 20 < 10 ? "1" : "0") + "\n";
    }
    ASSERT_TRUE(write_file_atomically(log, text));
    const Ran first = cli({"run", demo, "--trace", log, "--csv", rows, "--json"}), second = cli({"run", demo, "--trace", rows, "--csv", again, "--json"});
    ASSERT_EQ(first.code, 0) << first.err;
    ASSERT_EQ(second.code, 0) << second.err;
    EXPECT_EQ(*read_file(rows), *read_file(again));
    EXPECT_EQ(first.json()["interval_s"], 10);
    EXPECT_GT(first.json()["gaps"].size(), 10U);
    EXPECT_EQ(first.json()["gaps"], second.json()["gaps"]);
    EXPECT_NE(read_file(rows)->find("made_up"), std::string::npos);
    EXPECT_NE(cli({"run", demo, "--trace", log}).out.find("lacking samples held"), std::string::npos);
    for (const std::string& f : {log, rows, again})
        std::filesystem::remove(f);
}

TEST(Cli, rules_out_of_action_are_named_by_run_and_replay)
{
    Job job = *open_job(demo);
    for (Rule& r : job.variants[0].unit.rules)
        if (auto* d = std::get_if<Differential>(&r.body))
            d->off = d->on;
    const std::string file = temp("-idle.vrelay");
    ASSERT_TRUE(save_job(job, file));
    const Ran run = cli({"run", file, "--json"});
    ASSERT_EQ(run.json()["out_of_action"].size(), 1U);
    EXPECT_EQ(run.json()["out_of_action"][0]["kind"], "differential");
    EXPECT_NE(cli({"run", file}).out.find("out of action: Difference for P1"), std::string::npos);
    EXPECT_EQ(cli({"run", file, "--trace", VERNAL_DEMO "/traces/cheese-room-7-may.csv", "--json"}).json()["out_of_action"].size(), 1U);
    std::filesystem::remove(file);
}

// Every key that a row can be decided by stands in the documents.
TEST(Cli, what_decides_is_documented)
{
    const std::string text = *read_file(VERNAL_DOCS "/job-file.md");
    for (const RuleKind& k : rule_kinds())
        EXPECT_NE(text.find("`" + std::string(k.key) + "`"), std::string::npos) << k.key;
    const RuleSet none;
    for (int p = 0; p <= static_cast<int>(Priority::nothing); ++p)
        EXPECT_NE(text.find("`" + decider_key(none, static_cast<Priority>(p), -1) + "`"), std::string::npos) << p;
}

TEST(Cli, schema_is_the_files)
{
    EXPECT_EQ(cli({"schema"}).out, job_schema());
}

// A new job runs and passes check, whichever arrangement; nothing is written over.
TEST(Cli, new_writes_a_job_that_passes_check)
{
    for (const char* preset : {"drainback", "pool", "air"}) {
        const std::string file = temp(std::string("-new-") + preset + ".vrelay");
        std::filesystem::remove(file);
        const Ran r = cli({"new", "--preset", preset, "--title", "A roof", "--place", "Somewhere", "--latitude", "40", "--altitude", "900", "--out", file});
        ASSERT_EQ(r.code, 0) << r.err;
        const auto job = open_job(file);
        ASSERT_TRUE(job);
        EXPECT_EQ(job->title, "A roof");
        EXPECT_EQ(job->site.name, "Somewhere");
        EXPECT_EQ(job->site.place.latitude_deg, 40);
        EXPECT_EQ(job->variants[0].loop.answers, preset_answers(preset));
        EXPECT_EQ(cli({"check", file}).code, 0) << preset;
        EXPECT_EQ(cli({"new", "--preset", preset, "--out", file}).code, 2) << "it is there";
    }
    const std::string listed = temp("-listed.vrelay");
    std::filesystem::remove(listed);
    EXPECT_NE(cli({"new", "--place", "ulm, germany", "--customer", "A dairy", "--out", listed}).out.find("Ulm"), std::string::npos);
    EXPECT_EQ(open_job(listed)->site.place.zone, "Europe/Berlin");
    EXPECT_EQ(open_job(listed)->site.customer, "A dairy");
    std::filesystem::remove(listed);
    EXPECT_NE(cli({"new", "--place", "No such town", "--out", listed}).err.find("--latitude"), std::string::npos);
    EXPECT_EQ(cli({"set", listed, "site/place/zone", "Nowhere/Land"}).code, 2);
    EXPECT_EQ(cli({"set", listed, "site/place/zone", "America/Denver"}).code, 0);
    const std::string file = temp("-new.vrelay");
    std::filesystem::remove(file);
    EXPECT_EQ(cli({"new", "--store", "pool", "--transfer", "exchanger", "--exchanger-pumps", "two", "--power", "battery", "--out", file}).code, 0) << "no preset has these";
    EXPECT_EQ(cli({"check", file}).code, 0);
    EXPECT_EQ(cli({"set", file, "loop/answers/transfer", "coil"}).code, 2) << "a pool has no coil";
    std::filesystem::remove(file);
    EXPECT_EQ(cli({"new", "--preset", "glycol-coil", "--probes", "2", "--out", file}).code, 0);
    EXPECT_EQ(open_job(file)->variants[0].probes.size(), 2U);
    EXPECT_EQ(cli({"check", file}).code, 0);
    EXPECT_EQ(cli({"new", "--probes", "1", "--power", "mains", "--out", temp("-none.vrelay")}).code, 2) << "a pump wants two";
    std::filesystem::remove(file);
    EXPECT_EQ(cli({"new", "--probes", "1", "--backup", "element", "--out", file}).code, 0) << "the water circulates by itself";
    EXPECT_EQ(open_job(file)->variants[0].loop.answers.power, PoweredBy::none);
    EXPECT_EQ(open_job(file)->variants[0].probes.size(), 1U);
    EXPECT_EQ(cli({"check", file}).code, 0);
    std::filesystem::remove(file);
    EXPECT_EQ(cli({"new", "--excess", "circulation", "--probes", "2", "--out", file}).code, 0);
    EXPECT_EQ(open_job(file)->variants[0].loop.answers.circulation, Circulates::taps) << "it is there to be run longer";
    EXPECT_EQ(cli({"check", file}).code, 0);
    EXPECT_EQ(cli({"new", "--excess", "circulation", "--backup", "heater-after", "--out", temp("-none.vrelay")}).code, 2);
    std::filesystem::remove(file);
    EXPECT_EQ(cli({"new", "--carrier", "glycol", "--store", "two-tanks", "--backup", "element", "--out", file}).code, 0);
    EXPECT_EQ(open_job(file)->variants[0].loop.element.mode, ElementMode::windows);
    const Ran refused = cli({"new", "--carrier", "air", "--store", "tank", "--out", temp("-none.vrelay")});
    EXPECT_EQ(refused.code, 2);
    EXPECT_NE(refused.err.find("Air heats a room"), std::string::npos) << refused.err;
    EXPECT_EQ(cli({"new", "--preset", "castle", "--out", temp("-none.vrelay")}).code, 2);
    EXPECT_EQ(cli({"new", "--latitude", "400", "--out", temp("-none.vrelay")}).code, 2);
    EXPECT_FALSE(std::filesystem::exists(temp("-none.vrelay")));
}

} // namespace
