// Whatever a reader accepts is written so that it reads back the same. Texts are made
// of what files of the kind hold, then bitten into.
#include "core/job/field_path.h"
#include "files/csv_trace.h"
#include "files/curve_file.h"
#include "files/disk.h"
#include "files/job_file.h"
#include "files/points_csv.h"
#include "files/timestamp.h"

#include <gtest/gtest.h>
#include <nlohmann/json.hpp>
#include <rapidcheck/gtest.h>

#include <cmath>
#include <filesystem>
#include <sys/stat.h>

using namespace vernal;
namespace fs = std::filesystem;

namespace {

template <class T>
T one_of(const std::vector<T>& from) { return from[*rc::gen::inRange<std::size_t>(0, from.size())]; }

// Some pieces replaced, doubled, left out or changed in a byte.
std::string bitten(std::string text, const std::vector<std::string>& pieces)
{
    const int bites = *rc::gen::inRange(0, 4);
    for (int i = 0; i < bites && !text.empty(); ++i) {
        const std::size_t at = *rc::gen::inRange<std::size_t>(0, text.size());
        const std::size_t n = *rc::gen::inRange<std::size_t>(0, std::min<std::size_t>(12, text.size() - at));
        switch (*rc::gen::inRange(0, 4)) {
        case 0: text.insert(at, one_of(pieces)); break;
        case 1: text.insert(at, text.substr(at, n)); break;
        case 2: text.erase(at, n); break;
        default: text[at] = static_cast<char>(*rc::gen::inRange(1, 256));
        }
    }
    return text;
}

bool same(double a, double b) { return a == b || (std::isnan(a) && std::isnan(b)); }

bool same(const Trace& a, const Trace& b)
{
    bool out = a.start == b.start && a.time_s == b.time_s && a.columns.size() == b.columns.size();
    for (std::size_t i = 0; out && i < a.columns.size(); ++i) {
        const TraceColumn &x = a.columns[i], &y = b.columns[i];
        out = x.name == y.name && x.quantity == y.quantity && x.unit == y.unit && std::equal(x.values.begin(), x.values.end(), y.values.begin(), y.values.end(), [](double p, double q) { return same(p, q); });
    }
    return out;
}

const std::vector<std::string> log_headers{"time", "collector [°C]", "collector", "tank top (°F)", "tank_bottom[K]", "P1", "P1_decided_by", "air", "irradiance [W/m2]", "supply [mV]", "pressure [bar]", "a;b", "\"a,\"\"b\"", "x [1]", "y)", "z]", "flow (gpm)", "odd [furlong]", "distrusted", "made_up", "date", "", "[°C]", "w [q] [%]", "\"two\nlines\"", "\xb0"
                                                                                                                                                                                                                                                                                                                                                               "C"};
const std::vector<std::string> log_cells{"0", "1", "-12.5", "1e3", "1e308", "on", "OFF", "", "-", "nan", "NaN", "+5", "\"7,5\"", " 3 ", "2,5", "-0", "5e-324", "0.1", "word", "1e999", "inf", "0x10"};
const std::vector<std::string> log_stamps{"2026-05-07T08:00", "2026-05-07 08:00:00.25", "2026-02-29T00:00", "2024-02-29T23:59:59.999999", "2026-05-07T24:00", "2026-05-07T08:00:00Z", "2026-05-07T08:00:00+02:00 x", "2026-05-07T09:30:00-05:30", "1900-01-01T00:00", "2999-12-31T23:59:59", "08:00"};

std::string some_log()
{
    const std::string separator = one_of<std::string>({",", ",", ",", ";", "\t"});
    const int columns = *rc::gen::inRange(1, 5), rows = *rc::gen::inRange(0, 6);
    const bool stamped = *rc::gen::arbitrary<bool>();
    std::string text = "time";
    for (int c = 0; c < columns; ++c)
        text += separator + one_of(log_headers);
    for (int r = 0; r < rows; ++r) {
        text += one_of<std::string>({"\n", "\r\n"}) + (*rc::gen::inRange(0, 12) == 0 ? one_of(log_cells) : stamped ? one_of(log_stamps)
                                                                                                                   : std::to_string(r * 10) + one_of<std::string>({"", "", ".5", "e0"}));
        for (int c = 0; c < columns; ++c)
            text += separator + one_of(log_cells);
    }
    return bitten(text, log_cells);
}

RC_GTEST_PROP(Readers, a_log_reads_back_the_same, ())
{
    for (int i = 0; i < 40; ++i) {
        const std::string text = some_log();
        const auto first = read_trace_csv(text, "log");
        if (!first)
            continue;
        const auto again = read_trace_csv(write_trace_csv(*first), "written");
        RC_ASSERT(static_cast<bool>(again));
        RC_ASSERT(same(*first, *again));
    }
}

// Whole days, seconds and fractions of any size.
RC_GTEST_PROP(Readers, a_time_reads_back_the_same, ())
{
    Timestamp t;
    t.day = std::chrono::sys_days{std::chrono::year{1970} / 1 / 1} + std::chrono::days{*rc::gen::inRange(-25000, 300000)};
    t.second = *rc::gen::inRange(0, 86400);
    t.fraction = std::ldexp(*rc::gen::inRange(0, 1 << 30), -30 - *rc::gen::inRange(0, 40));
    const auto again = read_timestamp(timestamp_text(t));
    RC_ASSERT(again.has_value());
    RC_ASSERT(timestamp_text(*again) == timestamp_text(t));
    RC_ASSERT(again->fraction == t.fraction);
    const double s = *rc::gen::inRange(-1'000'000'000, 1'000'000'000) / 64.0;
    RC_ASSERT(elapsed_s({t.day, t.second, 0, {}}, later({t.day, t.second, 0, {}}, s)) == s);
}

RC_GTEST_PROP(Readers, points_are_such_as_a_job_keeps, ())
{
    static const std::vector<std::string> pieces{"25", "10000", "70 °F", "5.0 kΩ", "-3", "1e9", "1e12", "900", "-200", "°C", "k", "ohm", ";", ",", "\t", " ", "\n", "#", "nan", "1e999", "R kΩ; temp_f", "\xef\xbb\xbf"};
    std::string text = "25, 10000\n50, 3602\n";
    for (int i = *rc::gen::inRange(0, 5); i > 0; --i)
        text += one_of(pieces) + one_of<std::string>({", ", ";", " ", "\t"}) + one_of(pieces) + "\n";
    const auto points = read_points(bitten(text, pieces), "points");
    if (!points)
        return;
    Job job = new_job("glycol-coil");
    job.variants[0].probes[0].points = *points;
    const auto again = read_job_json(write_job_json(job), "written");
    RC_ASSERT(static_cast<bool>(again));
    RC_ASSERT(again->variants[0].probes[0].points == *points);
}

const std::vector<std::string> json_pieces{"1e999", "-1e-400", "null", "true", "[]", "{}", "\"\"", "\"\\u0000\"", "\"kind\": \"freeze\",", "\"id\": \"a1\",", "99999999999999999999", "-0.0", "5e-324", "\"../x\"", "\"a/b\"", ",", "}", "]"};

// Values of the text exchanged for others of its values, so that most still fits.
std::string shuffled(const std::string& text)
{
    nlohmann::ordered_json j = nlohmann::ordered_json::parse(text);
    const auto flat = j.flatten();
    std::vector<std::string> keys;
    for (const auto& [k, v] : flat.items())
        keys.push_back(k);
    for (int i = *rc::gen::inRange(0, 8); i > 0; --i) {
        const auto to = nlohmann::ordered_json::json_pointer(one_of(keys)), from = nlohmann::ordered_json::json_pointer(one_of(keys));
        if (j.contains(to) && j.contains(from))
            j[to] = nlohmann::ordered_json(j[from]);
    }
    return bitten(j.dump(), json_pieces);
}

RC_GTEST_PROP(Readers, a_job_reads_back_the_same, ())
{
    static const std::string whole = *read_file(VERNAL_DEMO "/job.json");
    const auto first = read_job_json(shuffled(whole), "job");
    if (!first)
        return;
    const auto again = read_job_json(write_job_json(*first), "written");
    RC_ASSERT(static_cast<bool>(again));
    RC_ASSERT(*again == *first);
    const auto packed = pack_job(*first);
    RC_ASSERT(static_cast<bool>(packed));
    const auto unpacked = unpack_job(*packed, "packed");
    RC_ASSERT(static_cast<bool>(unpacked));
    RC_ASSERT(unpacked->job == *first);
}

RC_GTEST_PROP(Readers, a_curve_file_reads_back_the_same, ())
{
    static const std::string whole = write_curves(shipped_curves());
    const auto first = read_curves(shuffled(whole), "curves");
    if (!first)
        return;
    const auto again = read_curves(write_curves(*first), "written");
    RC_ASSERT(static_cast<bool>(again));
    RC_ASSERT(*again == *first);
}

// A setting as it is read from a job is one that it can be set to.
RC_GTEST_PROP(Readers, a_setting_reads_back_the_same, ())
{
    Job job = new_job(one_of<std::string>({"glycol-coil", "two-stores", "pv-battery", "drainback"}));
    const auto all = settings_of(job, 0);
    const Setting& s = all[*rc::gen::inRange<std::size_t>(0, all.size())];
    const std::string text = one_of<std::string>({"0", "1", "12.5", "3 K", "20 °C", "70 °F", "5 min", "1e999", "nan", "AUTO", "on", "true", "06:30", "-4,5", "300 L", s.value, s.value + "x", ""});
    if (!set_setting(job, 0, s.path, text))
        return;
    const auto now = setting_at(job, 0, s.path);
    if (!now) // the path itself may have changed with what was set
        return;
    Job again = job;
    RC_ASSERT(static_cast<bool>(set_setting(again, 0, s.path, now->value)));
    RC_ASSERT(again == job);
}

std::string refusal(const std::string& text)
{
    const auto log = read_trace_csv(text, "log");
    EXPECT_FALSE(log) << text;
    return log ? "" : log.error().text();
}

TEST(Readers, refuse_what_would_be_read_otherwise)
{
    EXPECT_NE(refusal("time,collector [furlong]\n0,1\n").find("the unit “furlong” is not known"), std::string::npos);
    EXPECT_NE(refusal("time,collector [bar]\n0,1\n").find("A temperature is expected"), std::string::npos);
    EXPECT_NE(refusal("time,a,a\n0,1,2\n").find("two columns are named"), std::string::npos);
    EXPECT_NE(refusal("time,date,time\n0,1,2\n").find("two columns are named"), std::string::npos);
    for (const char* time : {"2026-02-30T08:00", "2026-05-07T08:00:00 about", "2026-13-01T00:00", "2026-05-07T25:00", "nan", "1e999", "2026-05-07", "5e12"})
        EXPECT_NE(refusal(std::string("time,P1\n") + time + ",1\n").find("is not a time"), std::string::npos) << time;
    EXPECT_NE(refusal("time,P1\n0,1\n2026-05-07T08:00,1\n").find("use one of them"), std::string::npos);
    EXPECT_NE(refusal("time,P1,\n0,1,5\n").find("no name"), std::string::npos);
    EXPECT_TRUE(read_trace_csv("time,P1,\n0,1,\n", "log")) << "an empty column without a name is passed over";
}

TEST(Readers, a_clock_put_back_by_its_offset_runs_on)
{
    const auto t = read_trace_csv("time,P1\n2026-10-25T02:59:30+02:00,1\n2026-10-25T02:00:00+01:00,0\n", "log");
    ASSERT_TRUE(t) << t.error().text();
    EXPECT_EQ(t->time_s, (std::vector<double>{0, 30}));
}

TEST(Readers, latin_1_and_millivolt)
{
    const auto t = read_trace_csv("time;collector [\xb0"
                                  "C];supply [mV]\n0;20,5;12600\n",
        "log");
    ASSERT_TRUE(t) << t.error().text();
    EXPECT_EQ(t->find("collector")->values[0], 20.5);
    EXPECT_NEAR(t->find("supply")->values[0], 12.6, 1e-12);
    EXPECT_EQ(t->notes.size(), 1U);
}

std::string job_refusal(const std::string& text)
{
    const auto job = read_job_json(text, "job");
    EXPECT_FALSE(job) << text;
    return job ? "" : job.error().text();
}

TEST(Readers, a_job_with_slips_is_refused_with_the_place)
{
    const std::string head = R"({"format":"vrelay-job","version":2,)", tail = R"("variants":[{"name":"a"}],"days":[{"name":"d"}]})";
    EXPECT_NE(job_refusal(head + R"("title":"x","title":"y",)" + tail).find("this key stands twice"), std::string::npos);
    EXPECT_NE(job_refusal(R"({"format":"vrelay-job","version":1.5,"variants":[{}],"days":[{}]})").find("version"), std::string::npos);
    EXPECT_NE(job_refusal(R"({"format":"vrelay-job","version":4294967298,"variants":[{}],"days":[{}]})").find("there is no version 4294967298"), std::string::npos);
    EXPECT_NE(job_refusal(head + R"("site":{"place":{"latitude_deg":1e999}},)" + tail).find("larger than any"), std::string::npos);
    EXPECT_NE(job_refusal(R"({"format":"vrelay-job","version":2,"variants":[{"name":"a"},{"name":"a"}],"days":[{"name":"d"}]})").find("variants[1].name: the name “a” is there twice"), std::string::npos);
    EXPECT_NE(job_refusal(head + std::string(100000, '[') + std::string(100000, ']') + tail).find("not valid JSON"), std::string::npos);
    EXPECT_NE(job_refusal(head + R"("x":)" + std::string(100, '[') + std::string(100, ']') + "," + tail).find("nested too deep"), std::string::npos);
}

TEST(Readers, a_job_with_more_than_a_unit_holds_is_refused_with_the_number)
{
    Job job = new_job("glycol-coil");
    while (job.variants[0].unit.rules.size() < 65)
        job.variants[0].unit.rules.push_back(Rule{"P1", true, Exercise{}});
    EXPECT_NE(job_refusal(write_job_json(job)).find("room for 64 rules; these are 65"), std::string::npos);
    job.variants[0].unit.rules.pop_back();
    EXPECT_TRUE(read_job_json(write_job_json(job), "job"));
}

TEST(Container, a_log_named_out_of_its_folder_is_refused)
{
    for (const char* name : {"../evil.csv", "a/b.csv", "..", "/etc/x.csv", "a\nb"}) {
        Job job = new_job("glycol-coil");
        job.traces[name] = std::make_shared<const Trace>(Trace{{0, 1}, "", {}, {}});
        const auto packed = pack_job(job);
        EXPECT_FALSE(packed) << name;
    }
    Job job = new_job("glycol-coil");
    job.days[0].trace = "../../up.csv";
    const auto read = read_job_json(write_job_json(job), "job");
    ASSERT_TRUE(read);
    EXPECT_EQ(read->days[0].trace, "up.csv") << "reduced to the file's name";
}

TEST(Container, what_packs_too_well_goes_in_as_it_is_and_comes_back)
{
    Job job = new_job("glycol-coil");
    job.attachments.push_back({"blank.bmp", std::string(64, '0'), std::make_shared<const std::string>(std::string(20 << 20, '\0'))});
    Trace flat{{}, "", {{"wide", Quantity::number, {}, ""}}, {}};
    for (int i = 0; i < 1000; ++i) {
        flat.time_s.push_back(i);
        flat.columns[0].values.push_back(1);
    }
    for (int c = 0; c < 4000; ++c)
        flat.columns.push_back({"c" + std::to_string(c), Quantity::number, flat.columns[0].values, ""});
    job.traces["flat.csv"] = std::make_shared<const Trace>(std::move(flat));
    const auto packed = pack_job(job);
    ASSERT_TRUE(packed) << packed.error().text();
    const auto back = unpack_job(*packed, "packed");
    ASSERT_TRUE(back) << back.error().text();
    EXPECT_TRUE(same(*back->job.traces.at("flat.csv"), *job.traces.at("flat.csv")));
}

struct Scratch {
    fs::path path = fs::path(testing::TempDir()) / ("vernal-readers-" + std::to_string(::getpid()));
    Scratch() { fs::create_directories(path); }
    ~Scratch() { fs::remove_all(path); }
};

TEST(Disk, keeps_the_mode_and_follows_the_link)
{
    const Scratch s;
    ASSERT_TRUE(write_file_atomically(s.path / "real", "old"));
    fs::permissions(s.path / "real", fs::perms::owner_read | fs::perms::owner_write | fs::perms::group_write);
    fs::create_symlink("real", s.path / "link");
    ASSERT_TRUE(write_file_atomically(s.path / "link", "new"));
    EXPECT_TRUE(fs::is_symlink(s.path / "link"));
    EXPECT_EQ(*read_file(s.path / "real"), "new");
    EXPECT_EQ(fs::status(s.path / "real").permissions(), fs::perms::owner_read | fs::perms::owner_write | fs::perms::group_write);
    fs::create_symlink("later", s.path / "ahead");
    ASSERT_TRUE(write_file_atomically(s.path / "ahead", "made"));
    EXPECT_EQ(*read_file(s.path / "later"), "made");
}

TEST(Disk, devices_pipes_and_folders_are_refused)
{
    const Scratch s;
    ASSERT_EQ(::mkfifo((s.path / "pipe").c_str(), 0600), 0);
    for (const fs::path& p : {fs::path("/dev/null"), s.path / "pipe", s.path}) {
        EXPECT_FALSE(write_file_atomically(p, "x")) << p;
        EXPECT_FALSE(read_file(p)) << p;
    }
}

} // namespace
