#include "core/job/ids.h"
#include "core/job/job_check.h"
#include "core/visit/dictation.h"
#include "files/disk.h"
#include "files/job_file.h"
#include "files/job_json.h"

#include <csignal>
#include <gtest/gtest.h>
#include <nlohmann/json.hpp>
#include <sys/resource.h>
#include <valijson/adapters/nlohmann_json_adapter.hpp>
#include <valijson/schema.hpp>
#include <valijson/schema_parser.hpp>
#include <valijson/validator.hpp>

#include <filesystem>

using namespace vernal;
namespace fs = std::filesystem;

namespace {

Job demo() { return *open_job(VERNAL_DEMO "/job.json"); }

bool fits_schema(const nlohmann::json& document)
{
    valijson::Schema schema;
    valijson::SchemaParser parser;
    const auto text = nlohmann::json::parse(job_schema());
    parser.populateSchema(valijson::adapters::NlohmannJsonAdapter(text), schema);
    valijson::Validator validator;
    return validator.validate(schema, valijson::adapters::NlohmannJsonAdapter(document), nullptr);
}

class Folder {
public:
    Folder() : path(fs::path(testing::TempDir()) / ("vernal-" + std::to_string(::getpid()) + "-" + testing::UnitTest::GetInstance()->current_test_info()->name())) { fs::create_directories(path); }
    ~Folder() { fs::remove_all(path); }
    fs::path path;
};

// What is dictated is saved and opened again, or refused when it is said.
TEST(JobFile, every_dictated_line_is_refused_or_opens_again)
{
    Folder f;
    Job job = demo();
    Visit visit;
    visit.when = "2026-05-12T10:00";
    for (const char* fine : {"heat 500 kWh", "heat 250000 kWh", "P1 9140 h", "done: seal | 14400 min | cost 9000000 | after 900000 h | lasts 100 years"}) {
        const auto said = dictate(visit, fine, job.variants.front(), Units::metric());
        EXPECT_TRUE(said) << fine << ": " << (said ? "" : said.error().text());
    }
    for (const char* much : {"done: seal | 20000 min", "done: seal | cost 20000000", "done: seal | lasts 150 years", "done: seal | after 2000000 h"}) {
        const auto said = dictate(visit, much, job.variants.front(), Units::metric());
        ASSERT_FALSE(said) << much;
        EXPECT_NE(said.error().what.find("is possible"), std::string::npos) << said.error().text();
    }
    job.logbook.visits = {visit};
    give_ids(job, NewFrom::file);
    ASSERT_TRUE(save_job(job, f.path / "job.json"));
    const auto back = open_job(f.path / "job.json");
    ASSERT_TRUE(back) << back.error().text();
    EXPECT_EQ(back->logbook.visits, job.logbook.visits);
}

TEST(JobFile, what_its_own_reader_refuses_is_not_saved)
{
    Folder f;
    const Job job = demo();
    ASSERT_TRUE(save_job(job, f.path / "a.vrelay"));
    const auto before = read_file(f.path / "a.vrelay");
    Job bad = job;
    while (bad.variants.size() <= most_variants) {
        bad.variants.push_back(bad.variants.front());
        bad.variants.back().name = "copy " + std::to_string(bad.variants.size());
    }
    give_ids(bad, NewFrom::file);
    const auto saved = save_job(bad, f.path / "a.vrelay");
    ASSERT_FALSE(saved);
    EXPECT_NE(saved.error().what.find("was not saved"), std::string::npos) << saved.error().text();
    EXPECT_EQ(*read_file(f.path / "a.vrelay"), *before);
}

TEST(JobFile, reads_back_equal_in_both_forms)
{
    Folder f;
    const Job job = demo();
    ASSERT_EQ(job.traces.size(), 1U);
    for (const char* name : {"a.vrelay", "job.json"}) {
        ASSERT_TRUE(save_job(job, f.path / name));
        const auto back = open_job(f.path / name);
        ASSERT_TRUE(back) << back.error().text();
        EXPECT_EQ(back->variants, job.variants);
        EXPECT_EQ(back->days, job.days);
        EXPECT_EQ(back->site, job.site);
        ASSERT_EQ(back->traces.size(), 1U);
        EXPECT_EQ(back->traces.begin()->second->time_s, job.traces.begin()->second->time_s);
        EXPECT_EQ(write_job_json(*back), write_job_json(job));
    }
}

TEST(JobFile, fits_its_schema_and_the_schema_in_docs_is_this_one)
{
    EXPECT_TRUE(fits_schema(nlohmann::json::parse(write_job_json(demo()))));
    EXPECT_TRUE(fits_schema(nlohmann::json::parse(*read_file(VERNAL_DEMO "/job.json"))));
    auto wrong = nlohmann::json::parse(write_job_json(demo()));
    wrong["variants"][0]["loop"]["collector"]["area_m2"] = -3;
    EXPECT_FALSE(fits_schema(wrong));
    EXPECT_EQ(*read_file(VERNAL_DOCS "/job.schema.json"), job_schema());
}

// Parts that only some arrangements have are written only when somebody changed them, and come back when they are.
TEST(JobFile, spare_parts_are_kept_and_not_written_for_nothing)
{
    Job job = new_job("drainback");
    EXPECT_EQ(write_job_json(job).find("battery"), std::string::npos);
    Loop& l = job.variants[0].loop;
    l.drain_back = {7.5, 0.025, 200, false};
    l.drain_back.ports_swapped = true;
    l.element = {1500, 0.5, 58, ElementMode::windows, {{{4, 8}, {23, 1}, {}}}};
    l.vessel.relief_pa = 3e5;
    l.battery.cut_v = 11.8;
    l.pool.covered = true;
    const auto back = read_job_json(write_job_json(job), "spare.json");
    ASSERT_TRUE(back) << back.error().text();
    EXPECT_EQ(back->variants[0].loop, l);
}

TEST(JobFile, a_probe_with_everything_stated_is_kept)
{
    Job job = demo();
    Probe& p = job.variants[0].probes[0];
    p.curve = *parse_curve("poly:at=25,r=2000,c=0.00788/1.937e-05;range=-40..130");
    p.correction = TempDiff::kelvin(-0.4);
    p.sensor = {{ToleranceKind::percent, 0.02, 0.015, 0.7}, -0.5, 0.0023, 180};
    p.lead = {31, 5e-7, Strands::solid, true, 35, 250000, 105};
    p.condition = {ConditionKind::in_sun, 41, 0.2, 12};
    p.read_by = {true, *parse_curve("line:V=0.5..3.5,c=0..100")};
    p.points = {{0, 1700}, {50, 2410}};
    job.variants[0].input = {StageKind::bridge, 3.3, 4700, 2, 12, -45, 220, 0.15, 37};
    job.variants[0].unit.knob = {1, 9, TempDiff::kelvin(2), TempDiff::kelvin(1), TempDiff::kelvin(15), TempDiff::kelvin(9), KnobLaw::growing};
    const std::string text = write_job_json(job);
    const auto back = read_job_json(text, "again");
    ASSERT_TRUE(back) << back.error().text();
    EXPECT_EQ(back->variants, job.variants);
    EXPECT_TRUE(fits_schema(nlohmann::json::parse(text)));
    EXPECT_EQ(write_job_json(demo()).find("\"points\""), std::string::npos) << "what nobody stated is not written";
}

TEST(JobFile, every_new_job_fits)
{
    for (const Arrangement& a : presets())
        EXPECT_TRUE(fits_schema(nlohmann::json::parse(write_job_json(new_job(a.key))))) << a.key;
}

std::string reason(const std::function<void(nlohmann::json&)>& spoil)
{
    auto j = nlohmann::json::parse(write_job_json(demo()));
    spoil(j);
    const auto r = read_job_json(j.dump(), "x.json");
    return r ? "" : r.error().text();
}

TEST(JobFile, errors_name_the_place)
{
    EXPECT_NE(reason([](auto& j) { j["variants"][0]["loop"]["collector"]["area_m2"] = -3; }).find("x.json, variants[0].loop.collector.area_m2: the value -3"), std::string::npos);
    EXPECT_NE(reason([](auto& j) { j["variants"][1]["unit"]["rules"][0]["kind"] = "magic"; }).find("variants[1].unit.rules[0].kind"), std::string::npos);
    EXPECT_NE(reason([](auto& j) { j["days"][0]["wether"] = 1; }).find("days[0].wether: this field is not known"), std::string::npos);
    EXPECT_NE(reason([](auto& j) { j["version"] = 0; }).find("no version 0"), std::string::npos);
    EXPECT_NE(reason([](auto& j) { j["format"] = "other"; }).find("not a Vernal Relay job"), std::string::npos);
    EXPECT_NE(reason([](auto& j) { j["variants"] = nlohmann::json::array(); }).find("at least one"), std::string::npos);
    EXPECT_NE(reason([](auto& j) { j["variants"][0]["probes"][0]["curve"] = "pt77"; }).find("probes[0].curve"), std::string::npos);
    EXPECT_NE(reason([](auto& j) { j["variants"][0]["unit"]["rules"][3]["on_k"] = "eight"; }).find("on_k: a number is expected"), std::string::npos);
    EXPECT_NE(read_job_json("{\n  \"format\": ,\n}", "x.json").error().text().find("line 2"), std::string::npos);
}

TEST(JobFile, a_cut_container_is_an_error)
{
    Folder f;
    const std::string whole = *pack_job(demo());
    for (std::size_t n : {std::size_t{4}, whole.size() / 2, whole.size() - 3}) {
        ASSERT_TRUE(write_file_atomically(f.path / "cut.vrelay", whole.substr(0, n)));
        EXPECT_FALSE(open_job(f.path / "cut.vrelay")) << n;
    }
    EXPECT_FALSE(open_job(f.path / "not-there.vrelay"));
    EXPECT_FALSE(open_job(f.path));
}

// A disk that fails after some bytes: the file size limit of the process.
TEST(JobFile, a_failing_disk_leaves_the_old_file_whole)
{
    Folder f;
    const fs::path path = f.path / "job.vrelay";
    ASSERT_TRUE(save_job(demo(), path));
    const std::string before = *read_file(path);
    rlimit old{};
    ::getrlimit(RLIMIT_FSIZE, &old);
    ::signal(SIGXFSZ, SIG_IGN);
    const rlimit small{1000, old.rlim_max};
    ::setrlimit(RLIMIT_FSIZE, &small);
    const auto done = save_job(demo(), path);
    ::setrlimit(RLIMIT_FSIZE, &old);
    ASSERT_FALSE(done);
    EXPECT_NE(done.error().text().find("cannot be written"), std::string::npos);
    EXPECT_EQ(*read_file(path), before);
    EXPECT_EQ(std::distance(fs::directory_iterator(f.path), fs::directory_iterator()), 1) << "no temporary left behind";
}

TEST(JobFile, a_folder_that_may_not_be_written_gives_the_systems_reason)
{
    const auto done = save_job(demo(), "/proc/vernal/job.vrelay");
    ASSERT_FALSE(done);
    EXPECT_NE(done.error().text().find("No such file"), std::string::npos);
}

} // namespace
