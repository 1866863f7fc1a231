#include "job_folder.h"

#include "attachment.h"
#include "core/findings/findings.h"
#include "core/units/ascii.h"
#include "disk.h"
#include "job_file.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <atomic>
#include <cstdlib>
#include <map>
#include <sstream>
#include <thread>

namespace vernal {
namespace {

using Json = nlohmann::ordered_json;
namespace fs = std::filesystem;

constexpr int index_version = 2, deepest = 3;

Json json_of(const JobSummary& s)
{
    Json due = Json::array();
    for (const DueNow& d : s.due)
        due.push_back({{"title", d.title}, {"why", d.why}, {"date", date_text(d.date)}, {"licensed", d.licensed}, {"id", d.id}, {"visit", d.visit}});
    return {{"file", s.file}, {"modified", s.modified}, {"size", s.size}, {"title", s.title}, {"customer", s.customer}, {"place", s.place}, {"visits", s.visits}, {"last_visit", s.last_visit}, {"verdict", s.verdict}, {"due", std::move(due)}, {"text", s.text}, {"error", s.error}};
}

JobSummary summary_from(const Json& j)
{
    JobSummary s;
    s.file = j.at("file");
    s.modified = j.at("modified");
    s.size = j.at("size");
    s.title = j.at("title");
    s.customer = j.at("customer");
    s.place = j.at("place");
    s.visits = j.at("visits");
    s.last_visit = j.at("last_visit");
    s.verdict = j.at("verdict");
    s.text = j.at("text");
    s.error = j.at("error");
    for (const Json& d : j.at("due"))
        s.due.push_back({d.at("title"), d.at("why"), date_of(d.at("date").get<std::string>()).value(), d.at("licensed"), d.at("id"), d.at("visit")});
    return s;
}

// By file; nothing where there is no index, or one that cannot be read: it is made anew.
std::map<std::string, JobSummary> read_index(const fs::path& path, const fs::path& folder, const std::string& today)
{
    std::map<std::string, JobSummary> out;
    const auto text = read_file(path);
    if (!text)
        return out;
    try {
        const Json j = Json::parse(*text);
        if (j.at("version") != index_version || j.at("folder") != folder.string() || j.at("today") != today)
            return out;
        for (const Json& e : j.at("jobs")) {
            JobSummary s = summary_from(e);
            out.emplace(s.file, std::move(s));
        }
    } catch (const std::exception&) {
        out.clear();
    }
    return out;
}

void write_index(const fs::path& path, const fs::path& folder, const std::string& today, const std::vector<JobSummary>& jobs)
{
    Json all = Json::array();
    for (const JobSummary& s : jobs)
        all.push_back(json_of(s));
    std::error_code ignored;
    fs::create_directories(path.parent_path(), ignored);
    // What cannot be kept is made again next time.
    (void)write_file_atomically(path, Json{{"version", index_version}, {"folder", folder.string()}, {"today", today}, {"jobs", std::move(all)}}.dump(-1, ' ', false, Json::error_handler_t::replace));
}

struct FoundFile {
    std::string file;
    std::int64_t modified = 0;
    std::uint64_t size = 0;
};

std::vector<FoundFile> job_files(const fs::path& folder, std::error_code& failed)
{
    std::vector<FoundFile> out;
    auto it = fs::recursive_directory_iterator(folder, fs::directory_options::skip_permission_denied, failed);
    for (; !failed && it != fs::recursive_directory_iterator(); it.increment(failed)) {
        if (it.depth() >= deepest)
            it.disable_recursion_pending();
        std::error_code gone;
        const fs::path& p = it->path();
        if ((p.extension() != ".vrelay" && p.filename() != "job.json") || !it->is_regular_file(gone))
            continue;
        const auto time = it->last_write_time(gone);
        const auto size = it->file_size(gone);
        if (!gone)
            out.push_back({fs::relative(p, folder, gone).string(), static_cast<std::int64_t>(std::chrono::duration_cast<std::chrono::nanoseconds>(time.time_since_epoch()).count()), size});
    }
    return out;
}

JobSummary read_summary(const fs::path& folder, const FoundFile& f, const std::string& today)
{
    JobSummary s;
    if (const auto job = open_job(folder / f.file))
        s = summary_of(*job, today);
    else
        s.error = job.error().text();
    s.file = f.file;
    s.modified = f.modified;
    s.size = f.size;
    if (s.title.empty())
        s.title = f.file;
    s.text += " " + lower_ascii(f.file);
    return s;
}

} // namespace

JobSummary summary_of(const Job& job, const std::string& today)
{
    JobSummary s;
    s.title = job.title;
    s.customer = job.site.customer;
    s.place = job.site.name;
    s.visits = job.logbook.visits.size();
    std::string text = job.title + " " + job.site.customer + " " + job.site.name;
    for (const Visit& v : job.logbook.visits) {
        s.last_visit = std::max(s.last_visit, v.when);
        text += " " + v.title + " " + v.persons + " " + v.notes;
        for (const VisitFault& f : v.faults)
            text += " " + f.text;
        for (const VisitWork& w : v.work)
            text += " " + w.text + " " + w.part;
        for (const VisitNext& n : v.next)
            text += " " + n.text;
        for (const Amendment& a : v.amendments)
            text += " " + a.text;
    }
    std::size_t serious = 0;
    for (const Finding& f : findings({job, job.variants.back(), nullptr, Units::metric()})) {
        text += " " + f.title;
        serious += f.severity == Severity::serious ? 1 : 0;
    }
    s.verdict = serious == 0 ? "" : std::to_string(serious) + " serious";
    if (const auto day = date_of(today); day && !job.logbook.visits.empty())
        s.due = due_list(job, *day);
    s.text = lower_ascii(text);
    return s;
}

fs::path index_path(const fs::path& folder)
{
    const char* cache = std::getenv("XDG_CACHE_HOME");
    const char* home = std::getenv("HOME");
    const fs::path base = cache && *cache ? fs::path(cache) : home && *home ? fs::path(home) / ".cache"
                                                                            : fs::temp_directory_path();
    constexpr std::size_t digits = 16;
    return base / "vernal-relay" / ("jobs-" + sha256_hex(folder.string()).substr(0, digits) + ".json");
}

Result<FolderRead> read_job_folder(const fs::path& given, const fs::path& index, const std::string& today, const FolderProgress& progress, std::stop_token stop)
{
    std::error_code failed;
    const fs::path folder = fs::weakly_canonical(given, failed);
    if (failed || !fs::is_directory(folder, failed))
        return Error{"this is no folder", given.string(), "Choose a folder in which jobs are kept"};
    auto known = read_index(index, folder, today);
    const auto files = job_files(folder, failed);
    if (failed)
        return Error{"the folder cannot be read: " + failed.message(), given.string(), "Look whether it is still there, and who may read it"};
    FolderRead out;
    out.jobs.resize(files.size());
    std::vector<std::size_t> anew;
    for (std::size_t i = 0; i < files.size(); ++i)
        if (const auto it = known.find(files[i].file); it != known.end() && it->second.modified == files[i].modified && it->second.size == files[i].size)
            out.jobs[i] = std::move(it->second);
        else
            anew.push_back(i);
    out.read = anew.size();
    std::atomic<std::size_t> next = 0, done = 0;
    const auto work = [&] {
        for (std::size_t i = next++; i < anew.size() && !stop.stop_requested(); i = next++) {
            out.jobs[anew[i]] = read_summary(folder, files[anew[i]], today);
            ++done;
        }
    };
    {
        std::vector<std::jthread> helpers;
        const unsigned cores = std::max(1U, std::thread::hardware_concurrency());
        for (unsigned i = 1; i < cores && anew.size() > cores; ++i)
            helpers.emplace_back(work);
        for (std::size_t i = next++; i < anew.size() && !stop.stop_requested(); i = next++) {
            out.jobs[anew[i]] = read_summary(folder, files[anew[i]], today);
            ++done;
            if (progress)
                progress(done, anew.size());
        }
    }
    out.cancelled = stop.stop_requested();
    if (out.cancelled)
        std::erase_if(out.jobs, [](const JobSummary& s) { return s.file.empty(); });
    else if (out.read > 0 || known.size() != files.size())
        write_index(index, folder, today, out.jobs);
    std::stable_sort(out.jobs.begin(), out.jobs.end(), [](const JobSummary& a, const JobSummary& b) { return std::tie(a.customer, a.title, a.file) < std::tie(b.customer, b.title, b.file); });
    return out;
}

std::vector<const JobSummary*> found_jobs(const std::vector<JobSummary>& jobs, const std::string& words)
{
    std::vector<const JobSummary*> out;
    std::vector<std::string> all;
    std::istringstream in(lower_ascii(words));
    for (std::string w; in >> w;)
        all.push_back(w);
    for (const JobSummary& s : jobs)
        if (std::all_of(all.begin(), all.end(), [&](const std::string& w) { return s.text.find(w) != std::string::npos; }))
            out.push_back(&s);
    return out;
}

} // namespace vernal
