#include "check_verb.h"
#include "core/setup/possible.h"

#include "core/findings/findings.h"
#include "files/job_file.h"
#include "files/job_json.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <chrono>
#include <ostream>

namespace vernal {
namespace {

// Says how far a long check has come, once a second.
class Progress {
public:
    Progress(std::ostream& to, std::size_t days) : to_(to), of_(days) {}
    void day_done()
    {
        ++done_;
        const auto now = std::chrono::steady_clock::now();
        if (now - told_ < std::chrono::seconds(1))
            return;
        told_ = now;
        to_ << "checked " << done_ << " of " << of_ << " days\n"
            << std::flush;
    }

private:
    std::ostream& to_;
    std::size_t done_ = 0, of_;
    std::chrono::steady_clock::time_point told_ = std::chrono::steady_clock::now();
};

// Findings over all generated days, each kind with the day that shows it first.
Result<std::vector<std::pair<Finding, std::string>>> over_days(const Job& job, const Variant& v, const Units& units, Progress& progress)
{
    std::vector<std::pair<Finding, std::string>> out;
    const auto merge = [&](const std::vector<Finding>& found, const std::string& day) {
        for (const Finding& f : found)
            if (std::none_of(out.begin(), out.end(), [&](const auto& x) { return std::string(x.first.kind) == f.kind; }))
                out.emplace_back(f, day);
    };
    merge(findings({job, v, nullptr, units}), "");
    for (const Day& day : job.days) {
        if (day.kind != DayKind::generated)
            continue;
        const auto setup = coupled_setup(job, v, day);
        if (!setup)
            return setup.error();
        CoupledOptions options;
        options.keep_records = false;
        const Figures figures = run_with_possible(v, *setup, options).figures;
        merge(findings({job, v, &figures, units, &day}), day.name);
        progress.day_done();
    }
    std::stable_sort(out.begin(), out.end(), [](const auto& a, const auto& b) { return a.first.severity < b.first.severity; });
    return out;
}

nlohmann::ordered_json changes(const Job& job, const Variant& v, const Finding& f)
{
    auto out = nlohmann::ordered_json::array();
    if (f.remedy)
        for (const RemedyChange& c : changes_of(job, static_cast<std::size_t>(&v - job.variants.data()), *f.remedy))
            out.push_back({{"path", c.path}, {"value", c.value}});
    return out;
}

} // namespace

CLI::App* CheckVerb::add_to(CLI::App& app)
{
    CLI::App* c = app.add_subcommand("check", "Findings of a job; exit 1 when one is serious");
    c->add_option("job", job_, "job file, .vrelay or job.json")->required();
    c->add_option("--variant", variant_, "only this variant");
    c->add_flag("--json", json_, "answer as JSON");
    return c;
}

Result<int> CheckVerb::run(const Streams& s)
{
    const auto job = open_job(job_);
    if (!job)
        return job.error();
    if (!variant_.empty() && !find_variant(*job, variant_))
        return Error{"there is no variant “" + variant_ + "”", job_, ""};
    bool serious = false;
    auto list = nlohmann::ordered_json::array();
    const auto generated = static_cast<std::size_t>(std::count_if(job->days.begin(), job->days.end(), [](const Day& d) { return d.kind == DayKind::generated; }));
    Progress progress(s.err, generated * (variant_.empty() ? job->variants.size() : 1));
    for (const Variant& v : job->variants) {
        if (!variant_.empty() && v.name != variant_)
            continue;
        const auto found = over_days(*job, v, json_ ? Units::metric() : s.units, progress);
        if (!found)
            return found.error();
        for (const auto& [f, day] : *found) {
            serious = serious || f.severity == Severity::serious;
            if (json_)
                list.push_back({{"variant", v.name}, {"kind", f.kind}, {"severity", severity_text(f.severity)}, {"title", f.title}, {"reason", f.reason}, {"day", day}, {"remedy", f.remedy ? f.remedy->label : ""}, {"changes", changes(*job, v, f)}});
            else
                s.out << severity_text(f.severity) << " · " << v.name << (day.empty() ? "" : " · " + day) << "\n  " << f.title << "\n  " << f.reason << "\n";
        }
    }
    if (json_)
        s.out << nlohmann::ordered_json{{"job", job->title}, {"findings", list}}.dump(2) << "\n";
    else if (!serious)
        s.out << "nothing serious\n";
    return serious ? exit_serious : exit_fine;
}

CLI::App* SchemaVerb::add_to(CLI::App& app) { return app.add_subcommand("schema", "JSON Schema of the job file"); }

Result<int> SchemaVerb::run(const Streams& s)
{
    s.out << job_schema();
    return exit_fine;
}

} // namespace vernal
