#include "probe_verb.h"

#include "chosen_variant.h"
#include "core/probe/fit.h"
#include "core/sums/switching.h"
#include "core/units/quantity.h"
#include "core/wording/pocket_chart.h"
#include "files/curve_file.h"
#include "files/disk.h"
#include "files/points_csv.h"

#include <nlohmann/json.hpp>

#include <cmath>
#include <iomanip>
#include <ostream>

namespace vernal {
namespace {

using Json = nlohmann::ordered_json;

Json maybe(double v) { return std::isfinite(v) ? Json(v) : Json(nullptr); }
std::string kelvin(double v, const Units& u) { return to_text(v, Quantity::small_difference, u); }
std::string degrees(double v, const Units& u) { return to_text(v, Quantity::temperature, u); }

Json list(const std::vector<double>& values)
{
    Json out = Json::array();
    for (double v : values)
        out.push_back(maybe(v));
    return out;
}

} // namespace

CLI::App* ProbeVerb::add(CLI::App& probe, const char* name, const char* what, Result<int> (ProbeVerb::*work)(const Streams& s))
{
    CLI::App* c = probe.add_subcommand(name, what);
    c->add_flag("--json", json_, "answer as JSON");
    tasks_.push_back({c, work});
    return c;
}

CLI::App* ProbeVerb::add_to(CLI::App& app)
{
    CLI::App* probe = app.add_subcommand("probe", "Probes: ohms and degrees, fits, which curve, error budget");
    probe->require_subcommand(1);
    convert_ = add(*probe, "convert", "Ohms (mA, V) to degrees, or degrees to ohms", &ProbeVerb::convert);
    convert_->add_option("--curve", curve_, "a key of the curve file, or pt1000, ntc:r25=10000,beta=3950, abc:A,B,C, table:0=32650,25=10000, …")->required();
    auto* ohm = convert_->add_option("--ohm", ohm_, "resistance, Ω; or the signal in mA or V");
    auto* temp = convert_->add_option("--temp", temp_, "temperature, °C, or with a unit: 77F")->excludes(ohm);
    ohm->excludes(temp);
    CLI::App* curves = add(*probe, "curves", "The known curves, with where their values come from", &ProbeVerb::curves);
    CLI::App* fit = add(*probe, "fit", "Beta or three terms through measured points, with residuals and the suspect", &ProbeVerb::fit);
    fit->add_option("--law", law_, "beta, three-term, or best: three terms where there are five points")->check(CLI::IsMember({"beta", "three-term", "best"}));
    CLI::App* which = add(*probe, "identify", "Which known curve do measured points belong to?", &ProbeVerb::identify);
    which->add_option("--thermometer", thermometer_k_, "how true the thermometer is, ± K")->check(CLI::Range(0.01, 20.0));
    which->add_option("--meter", meter_percent_, "how true the meter is, ± percent")->check(CLI::Range(0.0, 50.0));
    for (CLI::App* c : {fit, which}) {
        c->add_option("--points", points_file_, "file of points, one a line, temperature first: 25, 10000")->required();
        c->add_flag("--fahrenheit", fahrenheit_, "temperatures without a unit are °F");
    }
    for (CLI::App* c : {convert_, curves, which})
        c->add_option("--curves", curve_file_, "a curve file besides the shipped one; default: your own in the settings folder");
    CLI::App* budget = add(*probe, "budget", "How far from the dial the pump really switches", &ProbeVerb::budget);
    budget->add_option("--store", store_, "temperature of the store, with a unit where wanted");
    budget->add_option("--air", air_, "temperature of the air around probes outdoors");
    CLI::App* chart = add(*probe, "chart", "Pocket chart: ohms against degrees for the job's probes, as CSV", &ProbeVerb::chart);
    for (CLI::App* c : {budget, chart}) {
        c->add_option("job", job_, "job file, .vrelay or job.json")->required();
        c->add_option("--variant", variant_, "a variant of the job; default: its first");
    }
    return probe;
}

Result<int> ProbeVerb::run(const Streams& s)
{
    for (const Task& t : tasks_)
        if (t.command->parsed())
            return (this->*t.run)(s);
    return exit_bad_input;
}

Result<CurveBook> ProbeVerb::book() const { return curve_file_.empty() ? all_curves() : all_curves(curve_file_); }

Result<std::vector<CurvePoint>> ProbeVerb::points() const
{
    const auto text = read_file(points_file_);
    if (!text)
        return text.error();
    return read_points(*text, points_file_, fahrenheit_);
}

Result<int> ProbeVerb::convert(const Streams& s)
{
    const auto known = book();
    if (!known)
        return known.error();
    const auto curve = curve_by_name(*known, curve_);
    if (!curve)
        return curve.error();
    if (convert_->count("--ohm") + convert_->count("--temp") != 1)
        return Error{"one of --ohm and --temp is needed", "", ""};
    double t = 0, r = ohm_;
    if (convert_->count("--temp") > 0) {
        const auto typed = parse(temp_, Quantity::temperature, {});
        if (!typed)
            return typed.error();
        t = *typed;
        const auto signal = signal_at(*curve, Temperature::celsius(t));
        if (!signal)
            return signal.error();
        r = *signal;
    } else {
        const auto found = temperature_at(*curve, r);
        if (!found)
            return found.error();
        t = found->in_celsius();
    }
    const std::string unit = signal_unit(*curve);
    const double slope = *slope_at(*curve, Temperature::celsius(t));
    if (json_)
        s.out << Json{{"curve", curve_text(*curve)}, {unit == "Ω" ? "ohm" : unit, r}, {"temp_c", t}, {"temp_f", Temperature::celsius(t).in_fahrenheit()}, {"slope_per_k", slope}}.dump(2) << "\n";
    else
        s.out << std::fixed << std::setprecision(2) << r << " " << unit << " = " << t << " °C = " << Temperature::celsius(t).in_fahrenheit() << " °F, " << std::setprecision(3) << slope << " " << unit << "/K\n";
    return exit_fine;
}

Result<int> ProbeVerb::curves(const Streams& s)
{
    const auto known = book();
    if (!known)
        return known.error();
    if (json_) {
        s.out << write_curves(*known);
        return exit_fine;
    }
    for (const NamedCurve& c : *known)
        s.out << "  " << c.key << std::string(c.key.size() < 18 ? 18 - c.key.size() : 1, ' ') << c.name << "\n    " << curve_text(c.curve) << ", tolerance " << tolerance_text(c.tolerance) << "\n    " << c.origin << "\n";
    return exit_fine;
}

Result<int> ProbeVerb::fit(const Streams& s)
{
    const auto measured = points();
    if (!measured)
        return measured.error();
    const bool three = law_ == "three-term" || (law_ == "best" && measured->size() >= 5);
    const auto f = fit_curve(*measured, three ? FitLaw::three_term : FitLaw::beta);
    if (!f)
        return Error{f.error().what, points_file_ + (f.error().where.empty() ? "" : ", " + f.error().where), f.error().remedy};
    if (json_) {
        Json rows = Json::array();
        for (std::size_t i = 0; i < measured->size(); ++i)
            rows.push_back({{"temp_c", (*measured)[i].temp_c}, {"ohm", (*measured)[i].ohm}, {"residual_k", f->residual_k[i]}});
        s.out << Json{{"law", three ? "three-term" : "beta"}, {"curve", curve_text(f->curve)}, {"points", rows}, {"rms_k", f->rms_k}, {"rms_ln_r", f->rms_ln_r}, {"left_out_rms_ln_r", list(f->left_out_rms)}, {"standard_errors", list(f->sigma)},
                     {"suspect", f->suspect ? Json(*f->suspect + 1) : Json(nullptr)}}
                     .dump(2)
              << "\n";
        return exit_fine;
    }
    s.out << curve_text(f->curve) << "\n";
    for (std::size_t i = 0; i < measured->size(); ++i)
        s.out << "  point " << i + 1 << ": " << degrees((*measured)[i].temp_c, s.units) << ", " << to_text((*measured)[i].ohm, Quantity::resistance, {}) << ", off by " << kelvin(f->residual_k[i], s.units) << (f->suspect == i ? "  ← suspect" : "") << "\n";
    s.out << "  together off by " << kelvin(f->rms_k, s.units) << " (rms)\n";
    if (f->suspect)
        s.out << "Without point " << *f->suspect + 1 << " the others agree far better than without any other: measure it again.\n";
    else if (f->left_out_rms.empty())
        s.out << "Too few points to name a wrong one.\n";
    return exit_fine;
}

Result<int> ProbeVerb::identify(const Streams& s)
{
    const auto known = book();
    const auto measured = points();
    if (!known || !measured)
        return !known ? known.error() : measured.error();
    const auto found = vernal::identify(*measured, *known, {thermometer_k_, meter_percent_ / 100});
    if (!found)
        return Error{found.error().what, points_file_ + (found.error().where.empty() ? "" : ", " + found.error().where), found.error().remedy};
    if (json_) {
        Json rows = Json::array();
        for (const Match& m : found->matches)
            rows.push_back({{"key", (*known)[m.curve].key}, {"name", (*known)[m.curve].name}, {"rms_k", maybe(m.rms_k)}, {"error_k", list(m.error_k)}, {"possible", m.possible}});
        s.out << Json{{"matches", rows}, {"alike", found->alike}, {"ask_c", maybe(found->ask_c)}, {"ask_k", found->ask_k}, {"advice", found->advice}}.dump(2) << "\n";
        return exit_fine;
    }
    s.out << found->advice << "\n";
    for (const Match& m : found->matches)
        if (std::isfinite(m.rms_k))
            s.out << "  " << (m.possible ? "fits   " : "differs") << "  " << (*known)[m.curve].name << ", off by " << kelvin(m.rms_k, s.units) << "\n";
    return exit_fine;
}

namespace {

Json json_of(const Budget& b)
{
    Json lines = Json::array();
    for (std::size_t i = 0; i < error_causes; ++i)
        lines.push_back({{"cause", cause_text(static_cast<ErrorCause>(i))}, {"known_k", b.lines[i].known_k()}, {"source_k", b.lines[i].source_k}, {"store_k", b.lines[i].store_k}, {"between_k", b.lines[i].between_k}});
    return {{"set_k", b.set_k}, {"real_k", b.real_k()}, {"worst_k", b.worst_k}, {"rss_k", b.rss_k}, {"lines", lines}};
}

void print(std::ostream& out, const char* what, const Budget& b, const Units& u)
{
    out << "  " << what << " set to " << kelvin(b.set_k, u) << ": really " << kelvin(b.real_k(), u) << " ± " << kelvin(b.rss_k, u) << " (root of squares), ± " << kelvin(b.worst_k, u) << " at worst\n";
    for (std::size_t i = 0; i < error_causes; ++i)
        if (const BudgetLine& l = b.lines[i]; l.known_k() != 0 || l.worst_k() != 0)
            out << "    " << cause_text(static_cast<ErrorCause>(i)) << ": " << kelvin(l.known_k(), u) << " known, ± " << kelvin(l.worst_k(), u) << "\n";
}

} // namespace

Result<int> ProbeVerb::budget(const Streams& s)
{
    const auto job = chosen_variant(job_, variant_);
    const auto store = parse(store_, Quantity::temperature, s.units), air = parse(air_, Quantity::temperature, s.units);
    if (!job)
        return job.error();
    if (!store || !air)
        return !store ? store.error() : air.error();
    const Variant& v = job->first.variants[job->second];
    Json rules = Json::array();
    for (std::size_t r = 0; r < v.unit.rules.size(); ++r) {
        const auto p = real_points(v, r, {*store, *air});
        if (!p)
            continue;
        rules.push_back({{"rule", r}, {"output", v.unit.rules[r].output}, {"source", v.probes[p->source].key}, {"store", v.probes[p->store].key}, {"on", json_of(p->on)}, {"off", json_of(p->off)}});
        if (json_)
            continue;
        s.out << v.unit.rules[r].output << ": " << v.probes[p->source].name << " above " << v.probes[p->store].name << ", store " << degrees(*store, s.units) << ", air " << degrees(*air, s.units) << "\n";
        print(s.out, "start", p->on, s.units);
        print(s.out, "stop", p->off, s.units);
    }
    if (json_)
        s.out << Json{{"store_c", *store}, {"air_c", *air}, {"rules", rules}}.dump(2) << "\n";
    else if (rules.empty())
        s.out << "no difference rule: nothing to draw up a budget for\n";
    return exit_fine;
}

Result<int> ProbeVerb::chart(const Streams& s)
{
    const auto job = chosen_variant(job_, variant_);
    if (!job)
        return job.error();
    const PocketChart chart = pocket_chart(job->first.variants[job->second]);
    if (!json_) {
        s.out << pocket_csv(chart);
        return exit_fine;
    }
    Json columns = Json::array(), rows = Json::array();
    for (const PocketColumn& c : chart.columns)
        columns.push_back({{"title", c.title}, {"unit", c.unit}, {"curve", curve_text(c.curve)}});
    for (const PocketRow& r : chart.rows)
        rows.push_back({{"temp_c", r.temp_c}, {"signal", list(r.signal)}});
    s.out << Json{{"columns", columns}, {"rows", rows}}.dump(2) << "\n";
    return exit_fine;
}

} // namespace vernal
