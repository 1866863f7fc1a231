// One suite for the files of every version of the job format, in
// tests/data/jobs/version-N; a new version adds a folder and nothing here.
#include "cli/program.h"
#include "core/job/field_path.h"
#include "core/job/ids.h"
#include "files/attachment.h"
#include "files/disk.h"
#include "files/job_file.h"

#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include <filesystem>
#include <set>
#include <sstream>

using namespace vernal;
namespace fs = std::filesystem;

namespace {

using Json = nlohmann::ordered_json;
const fs::path jobs = fs::path(VERNAL_TEST_DATA) / "jobs";

std::vector<fs::path> files_of(int version)
{
    std::vector<fs::path> out;
    for (const auto& entry : fs::directory_iterator(jobs / ("version-" + std::to_string(version))))
        out.push_back(entry.path());
    return out;
}

class VersionsFolder {
public:
    VersionsFolder() : path(fs::path(testing::TempDir()) / ("vernal-versions-" + std::to_string(::getpid()) + "-" + testing::UnitTest::GetInstance()->current_test_info()->name())) { fs::create_directories(path); }
    ~VersionsFolder() { fs::remove_all(path); }
    fs::path path;
};

class Versions : public testing::TestWithParam<int> {};

TEST_P(Versions, every_file_opens_is_written_as_today_and_reads_back_equal)
{
    for (const fs::path& file : files_of(GetParam())) {
        const auto opened = open_job_file(file);
        ASSERT_TRUE(opened) << opened.error().text();
        EXPECT_EQ(opened->version, GetParam());
        EXPECT_TRUE(opened->notices.empty()) << file;
        const std::string text = write_job_json(opened->job);
        EXPECT_EQ(Json::parse(text)["version"], job_format_version);
        const auto back = read_job_json(text, "again");
        ASSERT_TRUE(back) << back.error().text();
        EXPECT_EQ(*back, opened->job) << file;
        EXPECT_EQ(write_job_json(*back), text);
    }
}

TEST_P(Versions, every_setting_has_its_path)
{
    for (const fs::path& file : files_of(GetParam())) {
        const auto job = open_job(file);
        ASSERT_TRUE(job);
        for (std::size_t v = 0; v < job->variants.size(); ++v)
            for (const Setting& s : settings_of(*job, v))
                EXPECT_TRUE(setting_at(*job, v, s.path)) << s.path;
    }
}

// The same job in two versions is the same job, its ids with it.
TEST_P(Versions, says_the_same_as_its_next_version)
{
    if (GetParam() == job_format_version)
        return;
    for (const fs::path& file : files_of(GetParam())) {
        const fs::path next = jobs / ("version-" + std::to_string(GetParam() + 1)) / file.filename();
        ASSERT_TRUE(fs::exists(next)) << next;
        EXPECT_EQ(*open_job(file), *open_job(next)) << file;
    }
}

INSTANTIATE_TEST_SUITE_P(All, Versions, testing::Range(1, job_format_version + 1));

TEST(JobVersions, the_first_called_the_resolution_of_an_output_grain)
{
    const auto job = open_job(jobs / "version-1" / "every-rule.json");
    ASSERT_TRUE(job);
    int seen = 0;
    for (const Variant& v : job->variants)
        for (const Rule& r : v.unit.rules)
            if (const auto* s = std::get_if<SpeedByDifference>(&r.body)) {
                EXPECT_DOUBLE_EQ(s->range.resolution, 0.07);
                ++seen;
            }
    EXPECT_EQ(seen, 1);
}

// The arrangements of the second version are presets of answers; what an element was
// said about makes it one, and the pump behind an exchanger keeps its numbers.
TEST(JobVersions, the_second_named_an_arrangement)
{
    Json j = Json::parse(*read_file(jobs / "version-2" / "parlour-wash.json"));
    for (const Arrangement& a : presets()) {
        Json& loop = j["variants"][0]["loop"];
        loop["arrangement"] = a.key;
        loop["pump_2"] = {{"power_w", 61}};
        loop.erase("element");
        const auto plain = read_job_text(j.dump(), "x.json");
        ASSERT_TRUE(plain) << a.key << plain.error().text();
        EXPECT_EQ(plain->job.variants[0].loop.answers, a.answers) << a.key;
        EXPECT_EQ((a.has(Part::exchanger) ? plain->job.variants[0].loop.exchanger_pump : plain->job.variants[0].loop.pump_2).power_w, 61) << a.key;
        loop["element"] = {{"mode", "always"}};
        const auto heated = read_job_text(j.dump(), "x.json");
        ASSERT_TRUE(heated) << a.key;
        EXPECT_EQ(arrangement_of(heated->job.variants[0].loop).has(Part::element), a.has(Part::tank)) << a.key;
        EXPECT_EQ(arrangement_of(heated->job.variants[0].loop).key, a.key);
    }
    j["variants"][0]["loop"]["arrangement"] = "castle";
    const auto none = read_job_text(j.dump(), "x.json");
    ASSERT_FALSE(none);
    EXPECT_NE(none.error().text().find("arrangement"), std::string::npos);
}

TEST(JobVersions, ids_of_a_file_are_told_twice_or_wrong)
{
    const std::string text = *read_file(jobs / "version-2" / "parlour-wash.json");
    const auto reason = [&](auto spoil) {
        Json j = Json::parse(text);
        spoil(j["variants"][0]["unit"]["rules"]);
        const auto r = read_job_json(j.dump(), "x.json");
        return r ? std::string() : r.error().text();
    };
    EXPECT_NE(reason([](Json& rules) { rules[1]["id"] = rules[0]["id"]; }).find("variants[0].unit.rules[1].id: the id"), std::string::npos);
    EXPECT_NE(reason([](Json& rules) { rules[1]["id"] = "a/b"; }).find("is no id"), std::string::npos);
    EXPECT_EQ(reason([](Json& rules) { rules[1].erase("id"); }), "") << "an entry without one is given one";
}

fs::path newest() { return jobs / ("version-" + std::to_string(job_format_version)); }

std::string newer_text()
{
    Json j = Json::parse(*read_file(newest() / "parlour-wash.json"));
    j["version"] = job_format_version + 1;
    j["weather_station"] = "north";
    j["variants"][0]["loop"]["tank"]["anode"] = true;
    return j.dump();
}

TEST(JobVersions, a_newer_file_opens_for_reading_and_is_never_written_over)
{
    const auto opened = read_job_text(newer_text(), "newer.json");
    ASSERT_TRUE(opened) << opened.error().text();
    EXPECT_TRUE(opened->newer());
    ASSERT_EQ(opened->notices.size(), 1U);
    for (const char* part : {"weather_station", "variants[0].loop.tank.anode", "left as it is"})
        EXPECT_NE(opened->notices[0].find(part), std::string::npos) << opened->notices[0];
    EXPECT_EQ(opened->job.variants, open_job(newest() / "parlour-wash.json")->variants);
    VersionsFolder f;
    const fs::path file = f.path / "newer.json";
    ASSERT_TRUE(write_file_atomically(file, newer_text()));
    std::ostringstream out, err;
    EXPECT_EQ(run_cli({"set", file.string(), "loop/tank/volume_m3", "0.5"}, {out, err}), exit_bad_input);
    EXPECT_NE(err.str().find("newer"), std::string::npos);
    EXPECT_EQ(*read_file(file), newer_text());
    EXPECT_EQ(run_cli({"get", file.string(), "loop/tank/volume_m3"}, {out, err}), exit_fine);
}

TEST(JobVersions, what_a_newer_file_needs_and_this_program_lacks_is_told)
{
    Json j = Json::parse(newer_text());
    j["variants"][0]["unit"]["rules"][0]["kind"] = "weather_forecast";
    const auto r = read_job_text(j.dump(), "newer.json");
    ASSERT_FALSE(r);
    for (const char* part : {"newer program", "weather_forecast", "variants[0].unit.rules[0].kind"})
        EXPECT_NE(r.error().text().find(part), std::string::npos) << r.error().text();
}

// FIPS 180-4, the example of one block (from memory) and of no bits.
TEST(Attachments, are_known_by_their_sha256)
{
    EXPECT_EQ(sha256_hex("abc"), "ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad");
    EXPECT_EQ(sha256_hex(""), "e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855");
    EXPECT_EQ(make_attachment("/home/me/roof.jpg", "x").name, "roof.jpg");
}

Job with_photos()
{
    Job job = new_job("drainback");
    const std::string photo(200000, '\x7f');
    job.attachments = {make_attachment("roof.jpg", photo), make_attachment("the same again.jpg", photo), make_attachment("unit sheet.pdf", std::string("%PDF\0binary", 11))};
    return job;
}

TEST(Attachments, come_back_whole_from_both_forms)
{
    VersionsFolder f;
    const Job job = with_photos();
    for (const char* name : {"a.vrelay", "job.json"}) {
        ASSERT_TRUE(save_job(job, f.path / name));
        const auto back = open_job_file(f.path / name);
        ASSERT_TRUE(back) << back.error().text();
        EXPECT_EQ(back->job, job);
        EXPECT_TRUE(back->notices.empty());
        for (std::size_t i = 0; i < job.attachments.size(); ++i)
            EXPECT_EQ(*back->job.attachments[i].bytes, *job.attachments[i].bytes);
        EXPECT_EQ(back->job.attachments[0].bytes, back->job.attachments[1].bytes) << "one content, kept once";
    }
    EXPECT_EQ(std::distance(fs::directory_iterator(f.path / "attachments"), fs::directory_iterator()), 2);
}

TEST(Attachments, stay_out_of_the_recovery_copy_and_lie_beside_it)
{
    VersionsFolder f;
    Job job = with_photos();
    job.attachments.push_back(make_attachment("noise.bin", [] {
        std::string noise(300000, 0);
        std::uint32_t x = 1;
        for (char& c : noise)
            c = static_cast<char>((x = x * 1664525 + 1013904223) >> 24);
        return noise;
    }()));
    const std::string copy = *pack_recovery(job, {});
    EXPECT_LT(copy.size(), 30000U);
    EXPECT_GT(pack_job(job)->size(), 300000U);
    auto back = unpack_job(copy, "copy");
    ASSERT_TRUE(back);
    EXPECT_EQ(back->job.attachments, job.attachments);
    EXPECT_EQ(back->notices.size(), job.attachments.size());
    ASSERT_TRUE(save_attachments(job, f.path / "beside"));
    const auto written = fs::last_write_time(f.path / "beside" / job.attachments[0].sha256);
    ASSERT_TRUE(save_attachments(job, f.path / "beside"));
    EXPECT_EQ(fs::last_write_time(f.path / "beside" / job.attachments[0].sha256), written) << "written once";
    const auto from = [&](const std::string& sha256) -> std::optional<std::string> {
        const auto content = read_file(f.path / "beside" / sha256);
        return content ? std::optional(*content) : std::nullopt;
    };
    EXPECT_TRUE(fill_attachments(back->job, from).empty());
    EXPECT_EQ(*back->job.attachments[3].bytes, *job.attachments[3].bytes);
}

TEST(Attachments, one_that_is_lost_or_damaged_costs_nothing_else)
{
    VersionsFolder f;
    const Job job = with_photos();
    ASSERT_TRUE(save_job(job, f.path / "job.json"));
    ASSERT_TRUE(write_file_atomically(f.path / "attachments" / job.attachments[2].sha256, "not what it was"));
    const auto back = open_job_file(f.path / "job.json");
    ASSERT_TRUE(back);
    ASSERT_EQ(back->notices.size(), 1U);
    EXPECT_NE(back->notices[0].find("unit sheet.pdf"), std::string::npos);
    EXPECT_EQ(back->job, job) << "its entry stays";
    Json j = Json::parse(*read_file(f.path / "job.json"));
    j["attachments"][0]["sha256"] = "../../somewhere";
    EXPECT_FALSE(read_job_json(j.dump(), "x.json")) << "a hash is no way out of the folder";
}

} // namespace
