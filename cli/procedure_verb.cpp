#include "procedure_verb.h"

#include "chosen_variant.h"
#include "in_out.h"

#include "core/bench/bench_faults.h"
#include "core/bench/procedure_run.h"
#include "core/job/ids.h"
#include "core/job/job_check.h"
#include "core/units/calendar.h"
#include "core/visit/keeping.h"
#include "files/disk.h"
#include "files/job_file.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <ostream>

namespace vernal {
namespace {

using Json = nlohmann::ordered_json;

Json json_of(const ProcedureResult& r)
{
    Json steps = Json::array();
    for (const StepResult& s : r.steps) {
        Json captured = Json::array();
        for (const CapturedValue& c : s.captured)
            captured.push_back({{"name", c.name}, {"what", captured_keys[static_cast<std::size_t>(c.what)]}, {"mean", std::isfinite(c.mean()) ? Json(c.mean()) : Json(nullptr)}, {"spread", c.spread()}, {"passes", c.passes.size()}});
        steps.push_back({{"step", s.title}, {"of", s.of}, {"verdict", verdict_keys[static_cast<std::size_t>(s.verdict)]}, {"said", said_text(s, {})}, {"captured", std::move(captured)}, {"took_s", s.ended_s - s.began_s}});
    }
    return {{"procedure", r.name}, {"verdict", verdict_keys[static_cast<std::size_t>(r.verdict())]}, {"steps", std::move(steps)}};
}

void print(const Streams& to, const Procedure& p, const ProcedureResult& r)
{
    std::ostream& out = to.out;
    out << p.title << "\n";
    for (const StepResult& s : r.steps) {
        out << "  " << verdict_keys[static_cast<std::size_t>(s.verdict)] << "  " << s.title << (s.of.empty() ? "" : ", " + s.of);
        const std::string said = said_text(s, to.units);
        out << (said.empty() ? "" : ": " + said) << "\n";
        for (const CapturedValue& c : s.captured) {
            out << "          " << c.name << " ";
            constexpr std::size_t most_passes = 3; // more of them are a card: each is shown
            if (c.passes.size() > most_passes) {
                for (std::size_t i = 0; i < c.passes.size(); ++i)
                    out << (i == 0 ? "" : " | ") << captured_text(c.what, c.passes[i], to.units);
                out << "\n";
                continue;
            }
            char b[80];
            std::snprintf(b, sizeof b, ", %zu passes within %.2f", c.passes.size(), c.spread());
            out << captured_text(c.what, c.mean(), to.units) << (c.passes.size() > 1 ? b : "") << "\n";
        }
    }
}

} // namespace

CLI::App* ProcedureVerb::add_to(CLI::App& app)
{
    CLI::App* c = app.add_subcommand("procedure", "Tests the job's unit on the simulated bench; exit 1 where a step fails");
    c->add_option("job", job_, "job file")->required();
    c->add_option("name", name_, "of the procedure; else all that apply");
    c->add_flag("--list", list_, "only names what applies, and the faults");
    c->add_option("--fault", fault_, "something wrong with the unit, by key");
    c->add_option("--file", file_, "a procedure of one's own");
    c->add_option("--variant", variant_, "else the first");
    c->add_flag("--keep", keep_, "keeps the results in the job and in its open visit; begins a visit where none is open");
    c->add_option("--visit", visit_, "--keep: in this open visit, by its id or date");
    c->add_option("--out", out_, "--keep: writes the job here; else in place");
    c->add_flag("--json", json_, "for programs");
    return c;
}

Result<int> ProcedureVerb::run(const Streams& s)
{
    const auto chosen = chosen_variant(job_, variant_);
    if (!chosen)
        return chosen.error();
    const Job& job = chosen->first;
    const Variant& written = job.variants[chosen->second];
    std::vector<Procedure> procedures;
    if (!file_.empty()) {
        const auto text = read_file(file_);
        if (!text)
            return text.error();
        auto own = read_procedure(*text, file_);
        if (!own)
            return own.error();
        procedures.push_back(std::move(*own));
    } else {
        for (const Procedure& p : shipped_procedures())
            if (name_.empty() ? applies(p, written) : p.name == name_)
                procedures.push_back(p);
    }
    if (procedures.empty())
        return Error{"there is no procedure “" + name_ + "”", job_, "procedure JOB --list names them"};
    const auto faults = bench_faults(written);
    if (list_) {
        for (const Procedure& p : procedures)
            s.out << p.name << "  " << p.title << "\n";
        for (const BenchFault& f : faults)
            s.out << "--fault " << f.key << "  " << f.name << "\n";
        return exit_fine;
    }
    Variant real = written;
    Day day = job.days.front();
    OnSite on_site;
    day.faults.clear();
    if (!fault_.empty()) {
        const auto it = std::find_if(faults.begin(), faults.end(), [&](const BenchFault& f) { return f.key == fault_; });
        if (it == faults.end())
            return Error{"this unit can have no fault “" + fault_ + "”", job_, "procedure JOB --list names them"};
        it->put(real, day, on_site);
    }
    bool failed = false;
    Json all = Json::array();
    std::vector<BenchRecord> records;
    for (const Procedure& p : procedures) {
        auto rig = Rig::make(job, real, day, 12, on_site);
        if (!rig)
            return rig.error();
        ProcedureRun run(p, written, *rig);
        run.run();
        failed = failed || run.result().verdict() == StepVerdict::failed;
        records.push_back(record_of(run.result(), p.title, clock_text_now("%Y-%m-%dT%H:%M"), written.id));
        if (json_)
            all.push_back(json_of(run.result()));
        else
            print(s, p, run.result());
    }
    if (json_)
        s.out << (name_.empty() ? all : all.front()).dump(2) << "\n";
    if (keep_)
        if (const auto kept = keep(s, records); !kept)
            return kept.error();
    return failed ? exit_serious : exit_fine;
}

Result<std::monostate> ProcedureVerb::keep(const Streams& s, const std::vector<BenchRecord>& records) const
{
    auto opened = open_job_file(job_);
    if (!opened)
        return opened.error();
    if (opened->newer())
        return Error{opened->notices.front(), job_, "Change it with a newer Vernal Relay"};
    Job& job = opened->job;
    Visit* visit = nullptr;
    for (Visit& v : job.logbook.visits)
        if (visit_.empty() ? !v.closed : v.id == visit_ || v.when == visit_ || v.when.substr(0, 10) == visit_)
            visit = &v;
    if (!visit_.empty() && !visit)
        return Error{"there is no visit “" + visit_ + "”", job_, "visit JOB list names them; without --visit one is begun"};
    if (visit && visit->closed)
        return Error{"the visit of " + date_words(visit->when) + " is closed", job_, "Without --visit another one is begun"};
    const bool begun = !visit;
    if (begun) {
        job.logbook.visits.push_back(new_visit(job, clock_text_now("%Y-%m-%dT%H:%M"), Purpose::commissioning, job.variants.front().id));
        visit = &job.logbook.visits.back();
    }
    for (const BenchRecord& r : records) {
        job.bench.push_back(r);
        visit->tests.push_back(test_key(r));
    }
    const std::string id = visit->id, file = out_.empty() ? job_ : out_;
    sort_visits(job);
    give_ids(job, NewFrom::edit);
    if (const auto problem = job_problem(job))
        return Error{problem->what, problem->at, problem->remedy};
    if (const auto saved = write_job(s, job, file); !saved)
        return saved.error();
    if (!json_)
        words_beside(s, file) << (begun ? "Kept in a visit that is begun with it: " : "Kept in the visit ") << id << "\n";
    return std::monostate{};
}

} // namespace vernal
