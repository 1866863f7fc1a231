#include "job_check.h"

#include "core/rules/rule_set.h"
#include "core/units/calendar.h"
#include "core/weather/zone.h"

#include <algorithm>
#include <set>

namespace vernal {
namespace {

std::string entry(const std::string& list, std::size_t i) { return list + "[" + std::to_string(i) + "]"; }

// name: how it is told apart; called `as` in the file.
template <class Items, class Name>
std::optional<JobProblem> twice(const Items& items, const std::string& at, const char* as, Name name)
{
    std::set<std::string> seen;
    for (std::size_t i = 0; i < items.size(); ++i)
        if (const std::string& n = name(items[i]); !seen.insert(n).second)
            return JobProblem{entry(at, i) + "." + as, std::string("the ") + as + " “" + n + "” is there twice", std::string("Give each entry a ") + as + " of its own"};
    return {};
}

template <class Items>
std::optional<JobProblem> without_key(const Items& items, const std::string& at)
{
    for (std::size_t i = 0; i < items.size(); ++i)
        if (items[i].key.empty())
            return JobProblem{entry(at, i) + ".key", "the key is missing", "A short word, by which the rules name it"};
    return {};
}

std::optional<JobProblem> problem_of(const Variant& v, const std::string& at)
{
    const auto key = [](const auto& x) -> const std::string& { return x.key; };
    if (const std::string reason = cannot_combine(v.loop.answers); !reason.empty())
        return JobProblem{at + ".loop.answers", "these answers cannot go together: " + reason, "Choose another answer"};
    if (v.unit.outputs.empty())
        return JobProblem{at + ".unit.outputs", "a unit has at least one output", ""};
    if (v.probes.empty())
        return JobProblem{at + ".probes", "a unit has at least one probe", ""};
    for (const auto& problem : {without_key(v.probes, at + ".probes"), without_key(v.unit.outputs, at + ".unit.outputs"), twice(v.probes, at + ".probes", "key", key), twice(v.unit.outputs, at + ".unit.outputs", "key", key)})
        if (problem)
            return problem;
    if (const auto full = capacity_problem(v.unit, probe_keys(v), probe_reads(v)))
        return JobProblem{at + ".unit", *full, "Remove what is not needed"};
    if (v.horizon.size() > most_horizon_points)
        return JobProblem{at + ".horizon", "a horizon has room for " + std::to_string(most_horizon_points) + " points", "A point at each bend of the line is enough"};
    return {};
}

std::optional<JobProblem> problem_of(const Visit& v, const std::string& at)
{
    if (!is_moment(v.when))
        return JobProblem{at + ".when", "“" + v.when + "” is no date with a time", "A moment like 2026-05-12T09:30"};
    if (v.found.size() > 1 || v.left.size() > 1)
        return JobProblem{at + (v.found.size() > 1 ? ".found" : ".left"), "a visit finds and leaves one state", "Remove all but one"};
    for (const auto* seen : {&v.found, &v.left})
        for (const Variant& x : *seen)
            if (auto problem = problem_of(x, at + (seen == &v.found ? ".found[0]" : ".left[0]")))
                return problem;
    if (v.readings.size() > most_of_a_visit || v.work.size() > most_of_a_visit || v.photos.size() > most_of_a_visit || v.ticks.size() > most_of_a_visit || v.amendments.size() > most_of_a_visit)
        return JobProblem{at, "a visit has room for " + std::to_string(most_of_a_visit) + " entries of a kind", "Begin another visit"};
    if (const std::string& date = v.first_day.date; !date.empty() && !is_date(date))
        return JobProblem{at + ".first_day.date", "“" + date + "” is no date", "A date like 2026-05-12"};
    for (std::size_t i = 0; i < v.next.size(); ++i)
        if (const std::string& by = v.next[i].by; !by.empty() && !is_date(by))
            return JobProblem{entry(at + ".next", i) + ".by", "“" + by + "” is no date", "A date like 2026-05-12, or none"};
    return {};
}

std::optional<JobProblem> problem_of(const Logbook& l)
{
    if (l.visits.size() > most_visits)
        return JobProblem{"logbook.visits", "a logbook has room for " + std::to_string(most_visits) + " visits", "Begin another job for what comes next"};
    for (std::size_t i = 0; i < l.visits.size(); ++i)
        if (auto problem = problem_of(l.visits[i], entry("logbook.visits", i)))
            return problem;
    for (std::size_t i = 0; i < l.due.size(); ++i)
        if (const std::string& last = l.due[i].last; !last.empty() && !is_date(last))
            return JobProblem{entry("logbook.due", i) + ".last", "“" + last + "” is no date", "A date like 2026-05-12, or none"};
    return {};
}

} // namespace

bool is_plain_name(const std::string& name)
{
    constexpr std::size_t longest = 200;
    return !name.empty() && name != "." && name != ".." && name.size() <= longest && std::none_of(name.begin(), name.end(), [](char c) { return c == '/' || c == '\\' || static_cast<unsigned char>(c) < 0x20 || c == 0x7F; });
}

std::optional<JobProblem> job_problem(const Job& job)
{
    const auto name = [](const auto& x) -> const std::string& { return x.name; };
    if (job.variants.empty() || job.days.empty())
        return JobProblem{job.variants.empty() ? "variants" : "days", "a job needs at least one entry here", ""};
    if (job.variants.size() > most_variants || job.days.size() > most_days)
        return JobProblem{job.variants.size() > most_variants ? "variants" : "days", "a job has room for " + std::to_string(most_variants) + " variants and " + std::to_string(most_days) + " days", "Split the job"};
    if (const std::string& zone = job.site.place.zone; !zone.empty() && !zone_known(zone))
        return JobProblem{"site.place.zone", "“" + zone + "” is no time zone", "A name like Europe/Oslo, or none"};
    if (auto problem = twice(job.variants, "variants", "name", name))
        return problem;
    if (auto problem = twice(job.days, "days", "name", name))
        return problem;
    for (std::size_t i = 0; i < job.variants.size(); ++i)
        if (auto problem = problem_of(job.variants[i], entry("variants", i)))
            return problem;
    for (std::size_t i = 0; i < job.days.size(); ++i)
        if (const std::string& trace = job.days[i].trace; !trace.empty() && !is_plain_name(trace))
            return JobProblem{entry("days", i) + ".trace", "“" + trace + "” is no name of a log", "The name of a file in the folder of logs, without folders"};
    for (std::size_t i = 0; i < job.days.size(); ++i)
        if (job.days[i].shades.size() > most_shades)
            return JobProblem{entry("days", i) + ".shades", "a day has room for " + std::to_string(most_shades) + " shades", "Join those that follow one another"};
    for (std::size_t i = 0; i < job.days.size(); ++i)
        if (job.days[i].faults.size() > most_faults)
            return JobProblem{entry("days", i) + ".faults", "a day has room for " + std::to_string(most_faults) + " faults", "Remove those that are no longer looked at"};
    for (std::size_t i = 0; i < job.attachments.size(); ++i)
        if (!is_plain_name(job.attachments[i].name))
            return JobProblem{entry("attachments", i) + ".name", "“" + job.attachments[i].name + "” is no name of a file", "A name without folders"};
    if (job.bench.size() > most_bench_records)
        return JobProblem{"bench", "a job has room for " + std::to_string(most_bench_records) + " tests", "Remove the oldest"};
    return problem_of(job.logbook);
}

std::string free_trace_name(const Job& job, const std::string& file)
{
    std::string plain;
    for (const char c : file)
        if (static_cast<unsigned char>(c) >= 0x20 && c != '/' && c != '\\' && c != 0x7F)
            plain += c;
    if (!plain.ends_with(".csv"))
        plain += ".csv";
    if (!is_plain_name(plain))
        plain = "log.csv";
    std::string name = plain;
    for (int n = 2; job.traces.count(name) != 0; ++n)
        name = std::to_string(n) + "-" + plain;
    return name;
}

} // namespace vernal
