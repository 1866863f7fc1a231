// The logbook in files: job file, papers as HTML, CSV and JSON, calendars, a folder of jobs, the verbs.
#include "cli/program.h"
#include "core/bench/procedure.h"
#include "core/report/paper.h"
#include "core/setup/loop_answers.h"
#include "core/visit/dictation.h"
#include "core/visit/keeping.h"
#include "files/attachment.h"
#include "files/disk.h"
#include "files/ical.h"
#include "files/job_file.h"
#include "files/job_folder.h"
#include "files/job_json.h"
#include "files/report/paper_data.h"
#include "files/report/paper_html.h"
#include "files/unit_file.h"

#include <gtest/gtest.h>
#include <libical/ical.h>
#include <nlohmann/json.hpp>
#include <rapidcheck/gtest.h>

#include <chrono>
#include <cstdlib>
#include <filesystem>
#include <sstream>

namespace vernal {
namespace {

namespace fs = std::filesystem;

class Folder {
public:
    Folder() : path_(fs::temp_directory_path() / ("vernal-visits-" + std::to_string(::getpid()) + "-" + std::to_string(++count_)))
    {
        fs::create_directories(path_);
    }
    Folder(const Folder&) = delete;
    Folder& operator=(const Folder&) = delete;
    ~Folder() { fs::remove_all(path_); }
    fs::path operator/(const std::string& name) const { return path_ / name; }
    const fs::path& path() const { return path_; }

private:
    fs::path path_;
    static inline int count_ = 0;
};

// With all that a logbook can hold.
Job job_with_visits(const char* preset = "glycol-coil")
{
    Job job = new_job(preset);
    job.title = "Wash <water> & \"more\"";
    job.site.customer = "Quillback Meadow Creamery";
    const Attachment photo = make_attachment("roof.jpg", "no real photo");
    job.attachments.push_back(photo);
    job.logbook.costs = {"€", 0.31, 62};
    for (const char* when : {"2024-05-12T09:30", "2025-05-14T10:00"}) {
        Visit v = new_visit(job, when, when[3] == '4' ? Purpose::commissioning : Purpose::service, job.variants.front().id);
        for (const char* line : {"persons: A. Fitter", "title: yearly | \\| <b>", "weather: sun & cloud", "sky: clear", "flow 6.9 L/min", "rise 10.5 K, by both gauges, at 11:40", "pressure 1.8 bar at 18 C", "S1 1097 ohm", "S1 25.2 C", "S1 S2 0.2 K", "P1 1200 h", "fault: Ärger <script>", "done: Strainer cleaned | 20 min | does strainer", "done: Pump | 45 min | part Pump P1 | cost 84 | after 9140 h | after 31200 starts | lasts 10 years", "next: look at the pitch | by 2026-10-01", "note: two\\nlines", "tick: commissioning/brackets | done | photo taken | 2024-05-12T10:00", "tick: commissioning/tap | not_applicable | no taps yet | 2024-05-12T10:00"})
            if (const auto said = dictate(v, line, job.variants.front(), Units::metric()); !said)
                ADD_FAILURE() << line << ": " << said.error().what;
        v.found = {job.variants.front()};
        v.left = {job.variants.front()};
        v.left.front().unit.rules.pop_back();
        v.photos.push_back({photo.sha256, "the roof", "collector"});
        v.first_day = {"2024-05-13", 58, 4e7, 7, 21000, 14, "clear"};
        v.closed = when[3] == '4';
        job.logbook.visits.push_back(v);
    }
    Amendment a{"2024-05-20T08:00", "B. Fitter", "the point was missed", "", {}};
    a.readings = {job.logbook.visits[0].readings[0]};
    job.logbook.visits[0].amendments.push_back(a);
    DueItem own;
    own.title = "Seal";
    own.every_h = 4000;
    own.of = "P1";
    job.logbook.due.push_back(own);
    Job out = job;
    return *read_job_json(write_job_json(out), "whole"); // with all its ids
}

TEST(LogbookFile, reads_back_equal)
{
    const Job job = job_with_visits();
    Folder folder;
    for (const char* name : {"a.vrelay", "job.json"}) {
        ASSERT_TRUE(save_job(job, folder / name));
        const auto back = open_job(folder / name);
        ASSERT_TRUE(back) << back.error().text();
        EXPECT_EQ(back->logbook, job.logbook) << name;
        EXPECT_EQ(*back, job) << name;
    }
    EXPECT_EQ(job.logbook.visits.size(), 2u);
    EXPECT_NE(job.logbook.visits[0].id, job.logbook.visits[1].id);
}

TEST(LogbookFile, says_where_a_slip_is)
{
    nlohmann::ordered_json j = nlohmann::ordered_json::parse(write_job_json(job_with_visits()));
    const auto refused = [&](const char* what, auto change) {
        auto bad = j;
        change(bad["logbook"]["visits"][1]);
        const auto r = read_job_json(bad.dump(), "a.json");
        EXPECT_FALSE(r) << what;
        if (!r) {
            EXPECT_NE(r.error().where.find(what), std::string::npos) << r.error().text();
        }
    };
    refused("visits[1].when", [](auto& v) { v["when"] = "2025-02-30T10:00"; });
    refused("visits[1].purpose", [](auto& v) { v["purpose"] = "fun"; });
    refused("visits[1].next[0].by", [](auto& v) { v["next"][0]["by"] = "soon"; });
    refused("visits[1].ticks[0].tick", [](auto& v) { v["ticks"][0]["tick"] = "maybe"; });
    refused("visits[1].work[1].does", [](auto& v) { v["work"][1]["does"] = 3; });
    refused("visits[1].readings[0].value", [](auto& v) { v["readings"][0]["value"] = "much"; });
    refused("visits[1].left", [](auto& v) { v["left"].push_back(v["left"][0]); });
    refused("visits[1].wether", [](auto& v) { v["wether"] = "a slip of the pen"; });
}

std::vector<Paper> all_papers(const Job& job)
{
    std::vector<Paper> out;
    static const UnitSheet sheet = example_sheets().front();
    for (const PaperKind& k : paper_kinds())
        if (const auto p = k.make({job, 0, "", Units::metric(), "2026-11-27", &sheet}))
            out.push_back(*p);
    return out;
}

TEST(Papers, can_be_made_of_what_a_job_has)
{
    const Job bare = new_job("glycol-coil");
    std::vector<std::string> lacking;
    for (const PaperKind& k : paper_kinds())
        if (const auto p = k.make({bare, 0, "", Units::metric(), "2026-11-27", nullptr}); !p) {
            lacking.emplace_back(k.key);
            EXPECT_FALSE(p.error().remedy.empty()) << k.key;
        }
    EXPECT_EQ(lacking, (std::vector<std::string>{"commissioning", "service", "keys", "wiring", "audit"}));
    const auto papers = all_papers(job_with_visits());
    EXPECT_EQ(papers.size(), 8u) << "all but the audit: there is no log";
    for (const Paper& p : papers)
        EXPECT_NE(paper_text(p).find(codes_note()), std::string::npos) << p.kind;
}

TEST(Papers, say_what_was_found_and_left)
{
    const Job job = job_with_visits();
    for (const Paper& p : all_papers(job)) {
        const std::string text = paper_text(p);
        if (p.kind == "service") {
            for (const char* said : {"6.9", "A. Fitter", "Pump P1", "84.00 €", "1 Oct 2026", "Ärger"})
                EXPECT_NE(text.find(said), std::string::npos) << said << "\n"
                                                              << text;
            EXPECT_EQ(p.pictures().size(), 2u) << "photo and loop";
        }
        if (p.kind == "commissioning") {
            EXPECT_NE(text.find("[✓] Brackets"), std::string::npos);
            EXPECT_NE(text.find("still open"), std::string::npos) << "skipped items stay visible";
            EXPECT_NE(text.find("not applicable because no taps yet"), std::string::npos) << text;
        }
        if (p.kind == "owner") {
            EXPECT_NE(text.find("Gauge in the morning"), std::string::npos);
        }
    }
}

// HTML Tidy as the judge: neither an error nor a warning.
TEST(PaperHtml, is_valid_and_escapes_what_people_write)
{
    Folder folder;
    PaperPictures pictures{{"loop", {"image/svg+xml", "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 10 10'/>", 0}}};
    for (const Paper& p : all_papers(job_with_visits())) {
        const std::string html = paper_html(p, {"Fitter & Sons\nHill <1>", PaperPicture{"image/png", "x", 0}}, pictures);
        EXPECT_EQ(html.find("<script>"), std::string::npos);
        EXPECT_EQ(html.find("<b>"), std::string::npos);
        const fs::path file = folder / (p.kind + ".html");
        ASSERT_TRUE(write_file_atomically(file, html));
        EXPECT_EQ(std::system(("tidy -q -e " + file.string() + " 2> " + (folder / "said").string()).c_str()), 0) << p.kind << ": " << *read_file(folder / "said");
    }
}

// RFC 4648, section 10.
TEST(Base64, is_as_published)
{
    for (const auto& [plain, coded] : std::vector<std::pair<const char*, const char*>>{{"", ""}, {"f", "Zg=="}, {"fo", "Zm8="}, {"foo", "Zm9v"}, {"foobar", "Zm9vYmFy"}})
        EXPECT_EQ(base64(plain), coded);
}

TEST(PaperData, is_json_and_csv)
{
    for (const Paper& p : all_papers(job_with_visits())) {
        const auto j = nlohmann::json::parse(paper_json(p));
        EXPECT_EQ(j.at("kind"), p.kind);
        EXPECT_EQ(j.at("blocks").size(), p.blocks.size());
    }
}

// Read back by libical.
TEST(Calendar, reads_back_by_another_library)
{
    DueNow d;
    d.title = "Fluid: freezing point; acidity, and a title that is so long that its line must be folded, with ümläuts";
    d.why = "every 12 months\nlast on 3 May 2025 \\ so";
    d.date = *date_of("2026-05-03");
    d.id = "fluid";
    const std::vector<CalendarEntry> entries{{d, "Wash water", "Quillback, Meadow; Creamery", "hill"}, {d, "Other loop", "", ""}};
    const std::string text = due_calendar(entries, "20260101T000000Z");
    for (std::size_t at = 0; at < text.size();) {
        const std::size_t end = text.find("\r\n", at);
        ASSERT_NE(end, std::string::npos);
        EXPECT_LE(end - at, 75u);
        at = end + 2;
    }
    icalcomponent* calendar = icalparser_parse_string(text.c_str());
    ASSERT_TRUE(calendar);
    EXPECT_EQ(icalcomponent_count_errors(calendar), 0);
    EXPECT_EQ(icalcomponent_count_components(calendar, ICAL_VEVENT_COMPONENT), 2);
    icalcomponent* event = icalcomponent_get_first_component(calendar, ICAL_VEVENT_COMPONENT);
    EXPECT_EQ(icalcomponent_get_summary(event), d.title + ": Wash water");
    EXPECT_EQ(icalcomponent_get_description(event), d.why);
    EXPECT_STREQ(icalcomponent_get_location(event), "Quillback, Meadow; Creamery, hill");
    const icaltimetype begins = icalcomponent_get_dtstart(event);
    EXPECT_TRUE(begins.is_date);
    EXPECT_EQ(begins.year * 10000 + begins.month * 100 + begins.day, 20260503);
    icalcomponent* other = icalcomponent_get_next_component(calendar, ICAL_VEVENT_COMPONENT);
    EXPECT_STRNE(icalcomponent_get_uid(event), icalcomponent_get_uid(other));
    EXPECT_EQ(icalrestriction_check(calendar), 1);
    icalcomponent_free(calendar);
}

TEST(JobFolder, lists_searches_and_keeps_an_index)
{
    Folder folder;
    Job job = job_with_visits();
    ASSERT_TRUE(save_job(job, folder / "a.vrelay"));
    fs::create_directories(folder / "deep");
    job.site.customer = "Another";
    job.logbook.visits.clear();
    ASSERT_TRUE(save_job(job, folder / "deep/job.json"));
    ASSERT_TRUE(write_file_atomically(folder / "broken.vrelay", "no job"));
    ASSERT_TRUE(write_file_atomically(folder / "other.txt", "no job"));
    const fs::path index = folder / "cache/index.json";
    const auto first = read_job_folder(folder.path(), index, "2026-11-27");
    ASSERT_TRUE(first);
    ASSERT_EQ(first->jobs.size(), 3u);
    EXPECT_EQ(first->read, 3u);
    EXPECT_FALSE(first->jobs[0].error.empty());
    EXPECT_EQ(first->jobs[1].customer, "Another");
    EXPECT_EQ(first->jobs[2].last_visit, "2025-05-14T10:00");
    EXPECT_FALSE(first->jobs[2].due.empty());
    EXPECT_EQ(found_jobs(first->jobs, "pump QUILLBACK").size(), 1u) << "a part of a visit and a customer";
    EXPECT_EQ(found_jobs(first->jobs, "pump nobody").size(), 0u);
    EXPECT_EQ(found_jobs(first->jobs, "").size(), 3u);
    const auto again = read_job_folder(folder.path(), index, "2026-11-27");
    EXPECT_EQ(again->read, 0u) << "nothing has changed";
    EXPECT_EQ(again->jobs[2].due.size(), first->jobs[2].due.size());
    job.title = "Renamed";
    ASSERT_TRUE(save_job(job, folder / "deep/job.json"));
    EXPECT_EQ(read_job_folder(folder.path(), index, "2026-11-27")->read, 1u);
    ASSERT_TRUE(write_file_atomically(index, "{ broken"));
    EXPECT_EQ(read_job_folder(folder.path(), index, "2026-11-27")->read, 3u) << "an index that cannot be read is made anew";
    fs::remove(folder / "a.vrelay");
    EXPECT_EQ(read_job_folder(folder.path(), index, "2026-11-27")->jobs.size(), 2u);
    EXPECT_FALSE(read_job_folder(folder / "nowhere", index, "2026-11-27"));
}

double seconds_of(const std::function<void()>& act)
{
    const auto from = std::chrono::steady_clock::now();
    act();
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - from).count();
}

// Five hundred jobs: asked is a second each; bounded here at ten times that.
TEST(JobFolder, holds_five_hundred_jobs)
{
    Folder folder;
    Job job = job_with_visits();
    for (int i = 0; i < 500; ++i) {
        job.site.customer = "Customer " + std::to_string(i);
        ASSERT_TRUE(save_job(job, folder / (std::to_string(i) + ".vrelay")));
    }
    const fs::path index = folder / "cache/index.json";
    Result<FolderRead> all = Error{};
    const double anew = seconds_of([&] { all = read_job_folder(folder.path(), index, "2026-11-27"); });
    ASSERT_TRUE(all);
    EXPECT_EQ(all->jobs.size(), 500u);
    const double kept = seconds_of([&] { all = read_job_folder(folder.path(), index, "2026-11-27"); });
    const double searched = seconds_of([&] { EXPECT_EQ(found_jobs(all->jobs, "customer 77").size(), 5u); });
    std::printf("500 jobs: %.2f s anew, %.3f s with the index, search %.4f s\n", anew, kept, searched);
    RecordProperty("anew_s", std::to_string(anew));
    EXPECT_LT(kept, 10);
    EXPECT_LT(searched, 10);
}

struct Ran {
    int code;
    std::string out, err;
};
Ran ran(const std::vector<std::string>& arguments)
{
    std::ostringstream out, err;
    const int code = run_cli(arguments, {out, err, Units::metric()});
    return {code, out.str(), err.str()};
}

TEST(VisitVerb, adds_lists_and_shows)
{
    Folder folder;
    const std::string file = (folder / "a.vrelay").string();
    ASSERT_TRUE(save_job(new_job("drainback"), file));
    EXPECT_EQ(ran({"visit", file, "show"}).code, 2) << "there is none yet";
    const Ran added = ran({"visit", file, "add", "--when", "2026-05-12T09:30", "--persons", "A. Fitter", "--say", "bucket 8 L 61 s", "--say", "drains 200 s"});
    EXPECT_EQ(added.code, 0) << added.err;
    EXPECT_EQ(ran({"visit", file, "add", "--visit", "2026-05-12", "--say", "S1 1106 ohm", "--close"}).code, 0);
    const Ran shown = ran({"visit", file, "show"});
    EXPECT_NE(shown.out.find("1106"), std::string::npos);
    EXPECT_NE(shown.out.find("closed"), std::string::npos);
    EXPECT_EQ(ran({"visit", file, "add", "--visit", "2026-05-12", "--say", "S1 1107 ohm"}).code, 2) << "what is closed stays";
    const Ran wrong = ran({"visit", file, "add", "--say", "S1 1106 bananas"});
    EXPECT_EQ(wrong.code, 2);
    EXPECT_NE(wrong.err.find("S1 1106 bananas"), std::string::npos);
    const auto listed = nlohmann::json::parse(ran({"visit", file, "list", "--json"}).out);
    ASSERT_EQ(listed.size(), 1u) << "a line that is not understood adds nothing";
    EXPECT_EQ(listed[0].at("closed"), true);
}

TEST(DueVerb, and_reports_are_written)
{
    Folder folder;
    ASSERT_TRUE(save_job(job_with_visits(), folder / "a.vrelay"));
    ::setenv("XDG_CACHE_HOME", (folder / "cache").c_str(), 1);
    const Ran due = ran({"due", folder.path().string(), "--today", "2026-11-27", "--ical", (folder / "due.ics").string()});
    EXPECT_EQ(due.code, 0) << due.err;
    EXPECT_NE(due.out.find("look at the pitch"), std::string::npos);
    EXPECT_TRUE(read_file(folder / "due.ics")->starts_with("BEGIN:VCALENDAR\r\n"));
    for (const char* ending : {".html", ".json", ".csv", ".txt"}) {
        const std::string out = (folder / (std::string("service") + ending)).string();
        EXPECT_EQ(ran({"report", (folder / "a.vrelay").string(), "--kind", "service", "--out", out}).code, 0) << ending;
        EXPECT_NE(read_file(out)->find("Pump P1"), std::string::npos) << ending;
    }
    EXPECT_EQ(ran({"report", (folder / "a.vrelay").string(), "--kind", "service", "--out", (folder / "x.doc").string()}).code, 2);
    EXPECT_EQ(ran({"report", (folder / "a.vrelay").string(), "--kind", "audit", "--out", (folder / "x.html").string()}).code, 2);
}

} // namespace
} // namespace vernal
