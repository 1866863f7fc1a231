#include "day_verb.h"
#include "in_out.h"

#include "core/job/day_shelf.h"
#include "core/job/ids.h"
#include "core/job/job_check.h"
#include "files/disk.h"
#include "files/epw.h"
#include "files/job_file.h"

#include <algorithm>
#include <filesystem>
#include <ostream>

namespace vernal {

CLI::App* DayVerb::add_to(CLI::App& app)
{
    CLI::App* c = app.add_subcommand("day", "Puts a ready day into a job; without --add: lists what there is");
    c->add_option("job", job_, "job file");
    c->add_option("--add", add_, "key of a ready day");
    c->add_option("--weather", weather_, "typical-weather file (EPW): a day with its weather of that date, and the job at its place")->excludes("--add");
    c->add_option("--name", name_, "of the day; else its title");
    c->add_option("--out", out_, "writes the changed job here; else in place");
    return c;
}

// Put last on the job's shelf.
Result<Day> DayVerb::added(Job& job) const
{
    if (!weather_.empty()) {
        const auto text = read_file(weather_);
        if (!text)
            return text.error();
        const std::string file = std::filesystem::path(weather_).filename().string();
        const auto weather = read_epw(*text, file);
        if (!weather)
            return weather.error();
        put_weather(job, *weather, file);
    } else if (const ReadyDay* ready = find_ready_day(add_)) {
        job.days.push_back(ready_day(*ready, job));
    } else {
        return Error{"there is no ready day “" + add_ + "”", "--add", "“day” without --add lists them"};
    }
    Day day = std::move(job.days.back());
    job.days.pop_back();
    day.name = free_name(job.days, name_.empty() ? day.name : name_);
    job.days.push_back(day);
    give_ids(job, NewFrom::file);
    return day;
}

Result<int> DayVerb::run(const Streams& s)
{
    if (add_.empty() && weather_.empty()) {
        for (const ReadyDay& d : ready_days())
            s.out << d.key << std::string(std::max<std::size_t>(1, 16 - std::string(d.key).size()), ' ') << d.title << ". " << d.about << "\n";
        return exit_fine;
    }
    if (job_.empty())
        return Error{"no job is named", "day", "Name the job file that the day goes into"};
    auto opened = open_job_file(job_);
    if (!opened)
        return opened.error();
    if (opened->newer())
        return Error{opened->notices.front(), job_, "Change it with a newer Vernal Relay"};
    const auto day = added(opened->job);
    if (!day)
        return day.error();
    if (const auto problem = job_problem(opened->job))
        return Error{problem->what, job_, problem->remedy};
    if (const auto done = write_job(s, opened->job, out_.empty() ? job_ : out_); !done)
        return done.error();
    s.out << day->name << "\n";
    return exit_fine;
}

} // namespace vernal
