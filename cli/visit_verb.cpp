#include "visit_verb.h"
#include "in_out.h"

#include "chosen_variant.h"

#include "core/job/job_check.h"
#include "core/units/calendar.h"
#include "core/visit/dictation.h"
#include "core/visit/keeping.h"
#include "core/visit/measured.h"
#include "core/visit/reading_kind.h"
#include "core/visit/settings_seen.h"
#include "files/disk.h"
#include "files/ical.h"
#include "files/job_file.h"
#include "files/job_folder.h"
#include "files/json_fields.h"
#include "files/report/paper_data.h"
#include "files/report/paper_html.h"
#include "files/unit_file.h"

#include <algorithm>
#include <filesystem>
#include <ostream>

namespace vernal {
namespace {

const Visit* chosen_visit(const Job& job, const std::string& id)
{
    if (id.empty())
        return job.logbook.visits.empty() ? nullptr : &job.logbook.visits.back();
    for (const Visit& v : job.logbook.visits)
        if (v.id == id || v.when == id || v.when.substr(0, 10) == id)
            return &v;
    return nullptr;
}

Json json_of(const Visit& v)
{
    Json j;
    JsonWriter w(j);
    fields(w, v);
    return j;
}

void show(const Streams& s, const Job& job, const Visit& v)
{
    s.out << moment_words(v.when) << "  " << purpose_keys[static_cast<std::size_t>(v.purpose)] << (v.title.empty() ? "" : ", " + v.title) << (v.closed ? "  closed" : "  open") << "\n";
    if (!v.found.empty() && !v.left.empty())
        for (const SettingLine& l : settings_seen(v.found.front(), v.left.front(), s.units).lines)
            s.out << "  " << plain_text(l) << "\n";
    for (const MeasuredRow& m : measured_rows(job, v, s.units))
        s.out << "  " << m.what << ": " << m.value << (m.last.empty() ? "" : "  (last time " + m.last + ")") << (m.how.empty() ? "" : ", " + m.how) << (m.says.empty() ? "" : "  " + m.says) << "\n";
    for (const std::string& line : dictated(v))
        if (!line.starts_with("when") && !line.starts_with("purpose") && !line.starts_with("title") && line.find(':') != std::string::npos && line.find(": ") == line.find(':'))
            s.out << "  " << line << "\n";
    for (const Amendment& a : v.amendments)
        s.out << "  amended " << moment_words(a.when) << ": " << a.text << " (" << a.reason << ")\n";
}

} // namespace

CLI::App* VisitVerb::add_to(CLI::App& app)
{
    CLI::App* c = app.add_subcommand("visit", "The logbook of a job: lists, adds or shows visits");
    c->add_option("job", job_, "job file")->required();
    c->add_option("act", act_, "list, add or show")->required()->check(CLI::IsMember({"list", "add", "show"}));
    c->add_option("--visit", visit_, "show: by its id or date; add: goes on with an open one; else the last, or a new one");
    c->add_option("--when", when_, "add: 2026-05-12T09:30; else now");
    c->add_option("--purpose", purpose_, "add: of a new one")->check(CLI::IsMember(std::vector<std::string>(purpose_keys.begin(), purpose_keys.end())));
    c->add_option("--persons", persons_, "add: who is there");
    c->add_option("--say", say_, "add: a line as it is dictated, \"S1 1106 ohm\"; may be given several times");
    c->add_flag("--sure", sure_, "add: keeps a reading that no sky gives; else it is refused");
    c->add_flag("--close", close_, "add: closes it; what is closed is amended, not changed");
    c->add_option("--out", out_, "add: writes the job here; else in place");
    c->add_flag("--json", json_, "for programs");
    return c;
}

Result<int> VisitVerb::run(const Streams& s)
{
    auto opened = open_job_file(job_);
    if (!opened)
        return opened.error();
    Job& job = opened->job;
    if (act_ == "list") {
        Json all = Json::array();
        for (const Visit& v : job.logbook.visits) {
            all.push_back({{"id", v.id}, {"when", v.when}, {"purpose", purpose_keys[static_cast<std::size_t>(v.purpose)]}, {"title", v.title}, {"closed", v.closed}, {"readings", v.readings.size()}, {"next", v.next.size()}});
            if (!json_)
                s.out << v.id << "  " << v.when << "  " << purpose_keys[static_cast<std::size_t>(v.purpose)] << (v.title.empty() ? "" : "  " + v.title) << (v.closed ? "  closed" : "  open") << "\n";
        }
        if (json_)
            s.out << all.dump(2) << "\n";
        return exit_fine;
    }
    if (act_ == "show") {
        const Visit* v = chosen_visit(job, visit_);
        if (!v)
            return Error{visit_.empty() ? "this job has no visit" : "there is no visit “" + visit_ + "”", job_, visit_.empty() ? "visit JOB add begins one" : "visit JOB list names them"};
        if (json_)
            s.out << json_of(*v).dump(2) << "\n";
        else
            show(s, job, *v);
        return exit_fine;
    }
    if (opened->newer())
        return Error{opened->notices.front(), job_, "Change it with a newer Vernal Relay"};
    const Visit* was = visit_.empty() ? nullptr : chosen_visit(job, visit_);
    if (!visit_.empty() && !was)
        return Error{"there is no visit “" + visit_ + "”", job_, "visit JOB list names them"};
    if (was && was->closed)
        return Error{"the visit of " + date_words(was->when) + " is closed", job_, "It is amended in the window, with date and reason"};
    const auto purpose = static_cast<Purpose>(std::find(purpose_keys.begin(), purpose_keys.end(), purpose_) - purpose_keys.begin());
    Visit v = was ? *was : new_visit(job, when_.empty() ? clock_text_now("%Y-%m-%dT%H:%M") : when_, purpose, job.variants.front().id);
    if (!persons_.empty())
        v.persons = persons_;
    for (const std::string& line : say_) {
        const auto said = dictate(v, line, variant_of(job, v), s.units);
        if (!said)
            return Error{said.error().what, "“" + line + "”", said.error().remedy};
        if (!json_)
            s.out << *said << "\n";
    }
    if (const auto doubts = doubts_of(job, v, s.units); !doubts.empty() && !sure_ && !say_.empty())
        return Error{doubts.front(), job_, "Say it again with --sure to keep it all the same"};
    if (close_) {
        if (const std::string why = cannot_close(v); !why.empty())
            return Error{why, job_, "--persons, or --say \"persons: …\""};
        v.closed = true;
    }
    if (Visit* at = was ? find_visit(job, v.id) : nullptr)
        *at = v;
    else
        job.logbook.visits.push_back(v);
    sort_visits(job);
    if (const auto problem = job_problem(job))
        return Error{problem->what, problem->at, problem->remedy};
    if (const auto saved = write_job(s, job, out_.empty() ? job_ : out_); !saved)
        return saved.error();
    if (json_)
        s.out << json_of(v).dump(2) << "\n";
    else
        s.out << v.id << "\n";
    return exit_fine;
}

CLI::App* DueVerb::add_to(CLI::App& app)
{
    CLI::App* c = app.add_subcommand("due", "What is due at the jobs of a folder");
    c->add_option("folder", folder_, "with job files, three folders deep")->required();
    c->add_option("--ical", ical_, "writes it for a calendar here");
    c->add_option("--find", words_, "only jobs in which these words are");
    c->add_option("--today", today_, "a date; else today");
    c->add_flag("--json", json_, "for programs");
    return c;
}

Result<int> DueVerb::run(const Streams& s)
{
    const std::string today = today_.empty() ? clock_text_now("%Y-%m-%d") : today_;
    if (!is_date(today))
        return Error{"“" + today + "” is no date", "--today", "2026-05-12"};
    const auto read = read_job_folder(folder_, index_path(std::filesystem::weakly_canonical(folder_)), today);
    if (!read)
        return read.error();
    std::vector<CalendarEntry> all;
    for (const JobSummary* j : found_jobs(read->jobs, words_)) {
        if (!j->error.empty())
            s.err << j->file << ": " << j->error << "\n";
        for (const DueNow& d : j->due)
            all.push_back({d, j->title, j->customer, j->place});
    }
    std::stable_sort(all.begin(), all.end(), [](const CalendarEntry& a, const CalendarEntry& b) { return a.due.date < b.due.date; });
    if (!ical_.empty())
        if (const auto done = write_file_atomically(ical_, due_calendar(all, clock_text_now("%Y%m%dT%H%M%SZ", true))); !done)
            return done.error();
    Json list = Json::array();
    for (const CalendarEntry& e : all) {
        const std::string date = date_text(e.due.date);
        list.push_back({{"date", date}, {"title", e.due.title}, {"why", e.due.why}, {"licensed", e.due.licensed}, {"job", e.job}, {"customer", e.customer}, {"place", e.place}});
        if (!json_)
            s.out << date << (date < today ? " ! " : "   ") << e.due.title << (e.due.licensed ? " (licensed person)" : "") << "  " << e.job << (e.customer.empty() ? "" : ", " + e.customer) << "  " << e.due.why << "\n";
    }
    if (json_)
        s.out << list.dump(2) << "\n";
    return exit_fine;
}

CLI::App* ReportVerb::add_to(CLI::App& app)
{
    CLI::App* c = app.add_subcommand("report", "What is handed over, text and tables; paper and pictures come from the window's program");
    c->add_option("job", job_, "job file")->required();
    std::vector<std::string> kinds;
    for (const PaperKind& k : paper_kinds())
        kinds.emplace_back(k.key);
    c->add_option("--kind", kind_, "which")->required()->check(CLI::IsMember(kinds));
    c->add_option("--out", out_, "FILE.html, .json, .csv or .txt")->required();
    c->add_option("--variant", variant_, "else the first");
    c->add_option("--visit", visit_, "by its id or date; else the last that suits");
    c->add_option("--sheet", sheet_, "name of a unit's sheet in the job, or north, south: the examples; else the job's first");
    c->add_option("--today", today_, "the date on it; else today");
    return c;
}

Result<int> ReportVerb::run(const Streams& s)
{
    const auto chosen = chosen_variant(job_, variant_);
    if (!chosen)
        return chosen.error();
    const auto& [job, at] = *chosen;
    PaperRequest r{job, at, "", s.units, today_.empty() ? clock_text_now("%Y-%m-%d") : today_, nullptr};
    if (!visit_.empty()) {
        const Visit* v = chosen_visit(job, visit_);
        if (!v)
            return Error{"there is no visit “" + visit_ + "”", job_, "visit JOB list names them"};
        r.visit = v->id;
    }
    const auto sheets = sheets_of(job);
    for (const UnitSheet& u : sheets)
        if (sheet_.empty() || u.name == sheet_) {
            r.sheet = &u;
            break;
        }
    if (!r.sheet && (sheet_ == "north" || sheet_ == "south"))
        r.sheet = &example_sheets()[sheet_ == "north" ? 0 : 1];
    else if (!r.sheet && !sheet_.empty())
        return Error{"there is no unit sheet “" + sheet_ + "”", job_, "north and south are the examples"};
    const auto paper = find_paper(kind_)->make(r);
    if (!paper)
        return paper.error();
    const std::string ending = std::filesystem::path(out_).extension().string();
    PaperPictures photos;
    for (const Attachment& a : job.attachments)
        if (a.bytes && (a.name.ends_with(".jpg") || a.name.ends_with(".png")))
            photos["photo/" + a.sha256] = {a.name.ends_with(".png") ? "image/png" : "image/jpeg", *a.bytes, 90};
    if (ending != ".html" && ending != ".json" && ending != ".csv" && ending != ".txt")
        return Error{"“" + ending + "” is not written here", out_, "Give it a name that ends in .html, .json, .csv or .txt; PDF by vernal-relay --report"};
    const std::string text = ending == ".html" ? paper_html(*paper, {}, photos) : ending == ".json" ? paper_json(*paper)
                                                                              : ending == ".csv"    ? paper_csv(*paper)
                                                                                                    : paper_text(*paper);
    if (const auto done = write_file_atomically(out_, text); !done)
        return done.error();
    return exit_fine;
}

} // namespace vernal
