#include "audit_verb.h"
#include "in_out.h"

#include "chosen_variant.h"

#include "core/audit/audit.h"
#include "core/job/ids.h"
#include "core/job/job_check.h"
#include "core/job/trace_edit.h"
#include "core/units/in_units.h"
#include "core/units/instant_text.h"
#include "files/any_log.h"
#include "files/disk.h"
#include "files/job_file.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <chrono>
#include <cmath>
#include <cstdio>
#include <filesystem>
#include <ostream>

namespace vernal {
namespace {

using Json = nlohmann::ordered_json;

Json json_of(const std::optional<Estimate>& e)
{
    return e ? Json{{"value", e->value}, {"low", e->low}, {"high", e->high}, {"points", e->points}} : Json(nullptr);
}

std::string date_text(long day)
{
    const std::chrono::year_month_day d{std::chrono::sys_days{std::chrono::days{day}}};
    char b[32];
    std::snprintf(b, sizeof b, "%04d-%02u-%02u", static_cast<int>(d.year()), static_cast<unsigned>(d.month()), static_cast<unsigned>(d.day()));
    return b;
}

std::string number(double x)
{
    char b[32];
    std::snprintf(b, sizeof b, std::fabs(x) < 1 ? "%.3f" : "%.2f", x);
    return b;
}

const char* pair_key(FoundSettings::Pair p) { return p == FoundSettings::Pair::fixed ? "fixed" : p == FoundSettings::Pair::moves ? "moves"
                                                                                                                                 : "not_told"; }

Json json_of(const FoundSettings& f, const Variant& v)
{
    Json j{{"output", v.unit.outputs[f.output].key}, {"source", v.probes[f.source].key}, {"store", v.probes[f.store].key}, {"on_k", json_of(f.on_k)}, {"off_k", json_of(f.off_k)}, {"limit_c", json_of(f.limit_c)}, {"limit_probe", f.limit_c ? Json(v.probes[f.limit_probe].key) : Json(nullptr)}, {"cut_out_c", json_of(f.cut_out_c)}, {"min_run_s", json_of(f.min_run_s)}, {"min_rest_s", json_of(f.min_rest_s)}, {"pair", pair_key(f.pair)}, {"on_moves_k_per_k", json_of(f.on_moves)}, {"latch", !f.no_latch}};
    j["speeds"] = f.speeds ? Json{{"least_share", json_of(f.speeds->least_share)}, {"per_k", json_of(f.speeds->per_k)}, {"steps", f.speeds->steps}} : Json(nullptr);
    Json& points = j["switchings"] = Json::array();
    for (const Switching& s : f.switchings)
        points.push_back({{"row", s.row}, {"on", s.on}, {"difference_k", s.difference_k}, {"store_c", s.store_c}});
    return j;
}

Json json_of(const Audit& a, const Variant& v)
{
    Json j;
    j["found"] = Json::array();
    for (const FoundSettings& f : a.found)
        j["found"].push_back(json_of(f, v));
    j["heating"] = Json::array();
    for (const FoundHeating& h : a.heating) {
        Json windows = Json::array();
        for (const FoundHeating::Window& w : h.windows)
            windows.push_back({{"from_h", w.from_h}, {"to_h", w.to_h}, {"days", w.days}});
        j["heating"].push_back({{"output", v.unit.outputs[h.output].key}, {"probe", v.probes[h.probe].key}, {"on_c", json_of(h.on_c)}, {"off_c", json_of(h.off_c)}, {"windows", std::move(windows)}, {"run_h_a_day", h.run_h_a_day}, {"longest_below_60_days", h.longest_below_60_days}});
    }
    j["disagreements"] = Json::array();
    for (const CostedDisagreement& d : a.disagreements)
        j["disagreements"].push_back({{"output", v.unit.outputs[d.what.output].key}, {"from", d.what.from_s}, {"to", d.what.to_s}, {"log_on", d.what.recorded_on}, {"heat_j", d.heat_j}, {"pump_j", d.pump_j}, {"cause", d.cause}});
    j["no_replay"] = a.no_replay.empty() ? Json(nullptr) : Json(a.no_replay);
    j["troubles"] = Json::array();
    for (const AuditTrouble& t : a.troubles) {
        Json at = Json::array();
        for (const TroubleStretch& s : t.evidence)
            at.push_back({s.from_s, s.to_s});
        j["troubles"].push_back({{"key", t.key}, {"from", t.from_s}, {"to", t.to_s}, {"sure", t.sure}, {"serious", t.serious}, {"what", t.what}, {"reason", t.reason}, {"test", t.test}, {"looks_like", find_trouble(t.key)->looks_like}, {"evidence", std::move(at)}});
    }
    j["weeks"] = Json::array();
    for (const SeasonWeek& w : a.seasons.weeks) {
        Json week{{"first_day", date_text(w.first_day)}};
        for (std::size_t m = 0; m < season_measures; ++m)
            week[season_measure(static_cast<SeasonMeasure>(m)).key] = std::isfinite(w.value[m]) ? Json(w.value[m]) : Json(nullptr);
        j["weeks"].push_back(std::move(week));
    }
    j["trends"] = Json::array();
    for (const SeasonTrend& t : a.seasons.trends)
        j["trends"].push_back({{"measure", season_measure(t.measure).key}, {"per_30_days", t.per_30_days}, {"low", t.low}, {"high", t.high}, {"weeks", t.points}, {"claimed", t.claimed}, {"step", t.step ? Json{{"day", date_text(t.step->day)}, {"before", t.step->before}, {"after", t.step->after}} : Json(nullptr)}});
    return j;
}

void print_heating(std::ostream& out, const FoundHeating& h, const Variant& v, const Units& u)
{
    out << v.unit.outputs[h.output].key << ", heating by the " << v.probes[h.probe].name << "\n";
    if (h.on_c)
        out << "  on at       " << estimate_text(*h.on_c, "°C", u) << "\n";
    if (h.off_c)
        out << "  off at      " << estimate_text(*h.off_c, "°C", u) << "\n";
    for (const FoundHeating::Window& w : h.windows)
        out << "  on between  " << clock_text(w.from_h * 3600) << " and " << clock_text(w.to_h * 3600) << ", on " << w.days << (w.days == 1 ? " day\n" : " days\n");
}

void print_seasons(std::ostream& out, const Seasons& s)
{
    for (const SeasonTrend& t : s.trends) {
        const SeasonMeasureInfo& m = season_measure(t.measure);
        if (t.step)
            out << m.name << ": " << number(t.step->before) << " " << m.unit << " before " << date_text(t.step->day) << ", " << number(t.step->after) << " after\n";
        else if (t.claimed)
            out << m.name << ": " << number(t.per_30_days) << " " << m.unit << " each 30 days (" << number(t.low) << " to " << number(t.high) << "), over " << t.points << " weeks\n";
    }
    if (!s.trends.empty() && std::none_of(s.trends.begin(), s.trends.end(), [](const SeasonTrend& t) { return t.claimed || t.step; }))
        out << "Over " << s.weeks.size() << " weeks nothing changes that chance does not explain.\n";
}

void print_found(std::ostream& out, const FoundSettings& f, const Variant& v, const Units& u)
{
    out << v.unit.outputs[f.output].key << ", " << v.probes[f.source].name << " against " << v.probes[f.store].name << "\n";
    const auto line = [&](const char* what, const std::optional<Estimate>& e, const char* unit) {
        if (e)
            out << "  " << what << estimate_text(*e, unit, u) << "\n";
    };
    line("starts at   ", f.on_k, "K");
    line("stops at    ", f.off_k, "K");
    line("limit at    ", f.limit_c, "°C");
    line("cut-out at  ", f.cut_out_c, "°C");
    line("runs at least ", f.min_run_s, "s");
    line("rests at least ", f.min_rest_s, "s");
    if (!f.on_k && !f.off_k)
        out << "  too few switchings show its pair\n";
    if (f.pair == FoundSettings::Pair::moves)
        out << "  its pair moves with the temperature: " << estimate_text(*f.on_moves, "K per K") << "\n";
    if (f.speeds)
        out << "  " << speeds_text(*f.speeds) << "\n";
    if (f.no_latch)
        out << "  it has no latch: start and stop are one point\n";
}

} // namespace

CLI::App* AuditVerb::add_to(CLI::App& app)
{
    CLI::App* c = app.add_subcommand("audit", "What a real unit did, from its log: settings, disagreements, troubles; exit 1 on a serious one");
    c->add_option("job", job_, "job file")->required();
    c->add_option("--log", logs_, "log file; several are joined; - is standard input")->required();
    c->add_option("--variant", variant_, "else the first one");
    c->add_option("--layout", layout_, "how the log is read, as JSON; else as it looks");
    c->add_flag("--json", json_, "for programs");
    c->add_option("--out", out_, "writes the job here, with what was found as a variant of its own and the log as a day");
    return c;
}

Result<int> AuditVerb::run(const Streams& s)
{
    auto chosen = chosen_variant(job_, variant_);
    if (!chosen)
        return chosen.error();
    Job& job = chosen->first;
    const Variant v = job.variants[chosen->second];
    std::optional<LogLayout> layout;
    if (!layout_.empty()) {
        const auto text = read_file(layout_);
        if (!text)
            return text.error();
        const auto read = read_layout(*text);
        if (!read)
            return Error{read.error().what, layout_ + (read.error().where.empty() ? "" : ", " + read.error().where), read.error().remedy};
        layout = *read;
    }
    std::vector<Trace> logs;
    Json files = Json::array();
    for (const std::string& file : logs_) {
        const auto text = read_input(s, file);
        if (!text)
            return text.error();
        auto log = read_any_log(*text, file, v, job.site.place, layout ? &*layout : nullptr);
        if (!log)
            return log.error();
        if (log->drops_many())
            s.err << file << ": " << log->trace.notes.front() << "\n";
        files.push_back({{"file", file}, {"rows", log->rows}, {"dropped", log->dropped}, {"notes", log->trace.notes}});
        logs.push_back(std::move(log->trace));
    }
    const auto log = logs.size() == 1 ? Result<Trace>(std::move(logs.front())) : join(logs);
    if (!log)
        return log.error();
    const auto a = audit(job, v, *log);
    if (!a)
        return Error{a.error().what, logs_.front(), a.error().remedy};
    if (!out_.empty()) {
        job.variants.push_back(with_found(job, v, a->found));
        // The log goes with it, so that the audit's paper can be made from the job.
        const std::string name = free_trace_name(job, is_standard(logs_.front()) ? "log.csv" : std::filesystem::path(logs_.front()).filename().string());
        Day day = job.days.front();
        day.id.clear();
        day.kind = DayKind::recorded;
        day.faults.clear();
        day.name = free_name(job.days, std::filesystem::path(name).stem().string());
        day.trace = name;
        job.traces[name] = std::make_shared<const Trace>(*log);
        job.days.push_back(day);
        give_ids(job, NewFrom::file);
        if (const auto done = write_job(s, job, out_); !done)
            return done.error();
    }
    if (json_) {
        Json j{{"logs", std::move(files)}};
        j.update(json_of(*a, v));
        words_beside(s, out_) << j.dump(2) << "\n";
        return a->serious() ? exit_serious : exit_fine;
    }
    for (const std::string& n : log->notes)
        s.out << n << "\n";
    for (const FoundSettings& f : a->found)
        print_found(s.out, f, v, s.units);
    for (const FoundHeating& h : a->heating)
        print_heating(s.out, h, v, s.units);
    if (a->found.empty() && a->heating.empty())
        s.out << "No output of a difference rule is in the log.\n";
    const auto at = [&](double t) { return instant_text(t + log->clock_s(), true); };
    double length = 0, heat = 0;
    for (const CostedDisagreement& d : a->disagreements) {
        length += d.length_s;
        heat += d.heat_j;
    }
    if (!a->no_replay.empty())
        s.out << "The rules could not be replayed: " << a->no_replay << "\n";
    else
        s.out << "Disagreements with the rules: " << a->disagreements.size() << ", " << to_text(length / 3600, Quantity::hours, s.units) << " in all, " << to_text(heat, Quantity::energy, s.units) << "\n";
    for (const AuditTrouble& t : a->troubles)
        s.out << (t.serious ? "! " : "- ") << in_units(t.what, s.units) << "\n  " << at(t.from_s) << " to " << at(t.to_s) << ", sure to " << std::lround(100 * t.sure) << " %. " << in_units(t.reason, s.units) << "\n  " << in_units(t.test, s.units) << "\n";
    print_seasons(s.out, a->seasons);
    if (a->troubles.empty())
        s.out << "No trouble shows.\n";
    return a->serious() ? exit_serious : exit_fine;
}

} // namespace vernal
