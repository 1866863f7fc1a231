#include "run_verb.h"
#include "in_out.h"

#include "core/setup/possible.h"

#include "core/findings/findings.h"
#include "core/wording/figure_table.h"
#include "core/wording/why.h"
#include "files/any_log.h"
#include "files/csv_trace.h"
#include "files/disk.h"
#include "files/job_file.h"
#include "files/sample_csv.h"

#include <nlohmann/json.hpp>

#include <cmath>
#include <optional>
#include <ostream>

namespace vernal {
namespace {

using Json = nlohmann::ordered_json;

Json number(double v, Quantity q)
{
    if (!std::isfinite(v))
        return nullptr;
    return q == Quantity::count ? Json(std::llround(v)) : Json(v == 0 ? 0.0 : v); // no "-0.0"
}

Json pump_json(const PumpFigures& p)
{
    Json out;
    for (const PumpFigure& f : pump_figure_table())
        out[f.key] = number(f.value(p), f.quantity);
    return out;
}

// A key with a slash is one of an object; those of outputs are a list of their own.
Json figures_json(const Figures& f)
{
    Json out;
    for (const Figure& figure : figure_table()) {
        const std::string key = figure.key, first = key.substr(0, key.find('/'));
        if (first == "outputs") {
            if (!out.contains(first))
                for (const PumpFigures& p : f.pumps)
                    out[first].push_back(pump_json(p));
            continue;
        }
        Json& place = first == key ? out[key] : out[first][key.substr(first.size() + 1)];
        place = figure.is_words ? Json(figure.words(f, {})) : number(figure.value(f), figure.quantity);
    }
    return out;
}

void print(std::ostream& out, const Figures& f, const Units& units)
{
    constexpr std::size_t column = 26;
    for (const Figure* row : figure_rows())
        if (const std::string value = figure_text(*row, f, units); !value.empty())
            out << "  " << row->label << std::string(column - std::string(row->label).size(), ' ') << value << "\n";
}

Json out_of_action_json(const Variant& v, const std::vector<OutOfAction>& rules)
{
    Json out = Json::array();
    for (const OutOfAction& o : rules)
        out.push_back({{"rule", v.unit.rules[o.rule].id}, {"kind", kind_of(v.unit.rules[o.rule]).key}, {"reason", o.reason}});
    return out;
}

void print_out_of_action(std::ostream& out, const Variant& v, const std::vector<OutOfAction>& rules)
{
    for (const OutOfAction& o : rules)
        out << "  out of action: " << out_of_action_text(v.unit, o) << "\n";
}

const char* on_or_off(bool on) { return on ? "on" : "off"; }

void print_replay_json(std::ostream& out, const Variant& v, const ReplaySetup& setup, const Trace& trace, const ReplayResult& r)
{
    Json list = Json::array(), gaps = Json::array(), columns = Json::array(), rules = Json::array(), recorded = Json::array();
    for (const Disagreement& d : r.disagreements)
        list.push_back({{"output", v.unit.outputs[d.output].key}, {"from_s", d.from_s}, {"to_s", d.to_s}, {"recorded", on_or_off(d.recorded_on)}, {"rules", on_or_off(!d.recorded_on)}, {"decided_by", decider_key(v.unit, d.priority, d.rule)}, {"rule", rule_id(v.unit, d.rule)}, {"from_before_the_log", d.from_before}});
    for (const LogGap& g : r.gaps)
        gaps.push_back({{"from_s", g.from_s}, {"to_s", g.to_s}, {"lacking", g.lacking}, {"held", g.held()}, {"invalid", g.lacking - g.held()}});
    for (std::size_t p = 0; p < r.columns.size(); ++p)
        columns.push_back({{"probe", v.probes[p].key}, {"column", setup.probe_columns[p]}, {"held", r.columns[p].held}, {"invalid", r.columns[p].invalid}});
    for (std::size_t o = 0; o < r.by_rules.size(); ++o) {
        rules.push_back(pump_json(r.by_rules[o]));
        recorded.push_back(pump_json(r.recorded[o]));
    }
    out << Json{{"variant", v.name}, {"way", "replay"}, {"out_of_action", out_of_action_json(v, setup.out_of_action)}, {"notes", trace.notes}, {"interval_s", number(r.interval_s, Quantity::duration)}, {"gaps", gaps}, {"columns", columns}, {"disagree_s", r.disagree_s}, {"by_rules", rules}, {"recorded", recorded}, {"disagreements", list}}.dump(2)
        << "\n";
}

void print_replay(std::ostream& out, const Variant& v, const ReplaySetup& setup, const Trace& trace, const ReplayResult& r)
{
    out << "Replay of " << trace.time_s.size() << " rows by “" << v.name << "”; decisions only, a log already holds what its own pump did\n";
    print_out_of_action(out, v, setup.out_of_action);
    for (const std::string& n : trace.notes)
        out << "  " << n << "\n";
    for (const std::string& line : replay_notes(v, r))
        out << "  " << line << "\n";
    for (std::size_t o = 0; o < r.by_rules.size(); ++o)
        out << "  " << v.unit.outputs[o].key << ": " << r.by_rules[o].starts << " starts by the rules, " << r.recorded[o].starts << " recorded\n";
    out << "  " << r.disagreements.size() << " disagreements, " << to_text(r.disagree_s, Quantity::minutes, {}) << "\n";
    for (const Disagreement& d : r.disagreements)
        out << "  " << clock_text(d.from_s) << "–" << clock_text(d.to_s) << " after the start: " << v.unit.outputs[d.output].key << " was " << on_or_off(d.recorded_on) << ", the rules say " << on_or_off(!d.recorded_on) << " ("
            << decider_name(v.unit, d.priority, d.rule) << ")" << (d.from_before ? "; the log does not hold what the unit remembered from before" : "") << "\n";
}

bool any_serious(const Job& job, const Variant& v, const Figures* f, const Day* day = nullptr)
{
    const auto found = findings({job, v, f, {}, day});
    return !found.empty() && found.front().severity == Severity::serious;
}

// Rows of a run into a file as they come; without a name nothing is written.
class RowsTo {
public:
    RowsTo(const Streams& s, const Variant& v, SampleCsv::Of of, const std::string& path)
    {
        if (path.empty())
            return;
        if (is_standard(path)) {
            csv_.emplace(v, of, [&s](std::string_view text) { s.out << text; });
            return;
        }
        file_.emplace(path);
        csv_.emplace(v, of, [this](std::string_view text) { file_->write(text); });
    }
    void add(const SampleRow& row)
    {
        if (csv_)
            csv_->add(row);
    }
    Result<std::monostate> finish()
    {
        if (!csv_)
            return std::monostate{};
        csv_->finish();
        return file_ ? file_->finish() : Result<std::monostate>(std::monostate{});
    }

private:
    std::optional<AtomicFile> file_;
    std::optional<SampleCsv> csv_;
};

} // namespace

CLI::App* RunVerb::add_to(CLI::App& app)
{
    CLI::App* c = app.add_subcommand("run", "Run a day, or replay a log; exit 1 when a finding is serious");
    c->add_option("job", job_, "job file, .vrelay or job.json")->required();
    auto* day = c->add_option("--day", day_, "a day of the job; default: its first");
    c->add_option("--trace", trace_, "a log to replay, CSV; - is standard input")->excludes(day);
    c->add_option("--variant", variant_, "a variant of the job; default: its first");
    c->add_option("--sample", sample_s_, "sampling period of the unit, s")->check(CLI::Range(0.1, 60.0));
    c->add_option("--step", step_s_, "fixed integration step, s; default: as accuracy allows")->check(CLI::Range(0.05, 60.0));
    c->add_option("--csv", csv_, "write one row per sample to this file; - is standard output");
    c->add_flag("--json", json_, "answer as JSON");
    return c;
}

Result<int> RunVerb::run(const Streams& s)
{
    auto opened = open_job(job_);
    if (!opened)
        return opened.error();
    Job& job = *opened;
    const Variant* found = variant_.empty() ? &job.variants.front() : find_variant(job, variant_);
    if (!found)
        return Error{"there is no variant “" + variant_ + "”", job_, ""};
    Variant v = *found;
    if (sample_s_ > 0)
        v.unit.sample_s = sample_s_;
    if (!trace_.empty()) {
        const auto text = read_input(s, trace_);
        if (!text)
            return text.error();
        const auto log = read_any_log(*text, trace_, v, job.site.place);
        if (!log)
            return log.error();
        if (log->drops_many())
            s.err << trace_ << ": " << log->trace.notes.front() << "\n";
        const auto code = replay(s, v, log->trace);
        return code && any_serious(job, v, nullptr) ? Result<int>(exit_serious) : code;
    }
    const Day* day = day_.empty() ? &job.days.front() : find_day(job, day_);
    if (!day)
        return Error{"there is no day “" + day_ + "”", job_, ""};
    if (day->kind == DayKind::generated)
        return coupled(s, job, v, *day);
    const auto trace = trace_of(job, v, *day);
    if (!trace)
        return Error{"the trace “" + day->trace + "” of this day is missing", job_, "Import it again"};
    const auto code = replay(s, v, *trace, day);
    return code && any_serious(job, v, nullptr) ? Result<int>(exit_serious) : code;
}

Result<int> RunVerb::coupled(const Streams& s, const Job& job, const Variant& v, const Day& day)
{
    auto setup = coupled_setup(job, v, day);
    if (!setup)
        return setup.error();
    setup->step_s = step_s_;
    RowsTo rows(s, v, SampleCsv::Of::run, csv_);
    CoupledOptions options;
    options.keep_records = false;
    if (!csv_.empty())
        options.each_sample = [&](const SampleRow& row) { rows.add(row); };
    const Figures f = run_with_possible(v, *setup, options).figures;
    if (const auto done = rows.finish(); !done)
        return done.error();
    std::ostream& out = words_beside(s, csv_);
    if (json_) {
        out << Json{{"job", job.title}, {"variant", v.name}, {"day", day.name}, {"way", "coupled"}, {"out_of_action", out_of_action_json(v, setup->out_of_action)}, {"figures", figures_json(f)}}.dump(2) << "\n";
    } else {
        out << job.title << " · " << v.name << " · " << day.name << "\n";
        print_out_of_action(out, v, setup->out_of_action);
        print(out, f, s.units);
    }
    return any_serious(job, v, &f, &day) ? exit_serious : exit_fine;
}

Result<int> RunVerb::replay(const Streams& s, const Variant& v, const Trace& trace, const Day* day)
{
    const auto setup = replay_setup(v, day);
    if (!setup)
        return setup.error();
    const auto r = run_replay(*setup, trace);
    if (!r)
        return r.error();
    RowsTo rows(s, v, SampleCsv::Of::replay, csv_);
    for (std::size_t i = 0; !csv_.empty() && i < r->size(); ++i) {
        const Inputs in = r->inputs(i);
        const Decisions d = r->decisions(i);
        rows.add({r->time_s(i), in, d, NAN, NAN, NAN, r->faults(i), r->made_up(i)});
    }
    if (const auto done = rows.finish(); !done)
        return done.error();
    std::ostream& out = words_beside(s, csv_);
    json_ ? print_replay_json(out, v, *setup, trace, *r) : print_replay(out, v, *setup, trace, *r);
    return exit_fine;
}

} // namespace vernal
