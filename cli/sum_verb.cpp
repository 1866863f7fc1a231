#include "sum_verb.h"

#include "chosen_variant.h"
#include "core/job/field_walk.h"
#include "core/plant/parts.h"
#include "core/study/reserve.h"
#include "core/sums/field_sums.h"

#include <nlohmann/json.hpp>

#include <cmath>
#include <ostream>

namespace vernal {
namespace {

// The first part of the loop at which the sum is offered.
Result<Part> part_for(const FieldSum& sum, const Loop& loop)
{
    if (sum.page != ProbePage::none)
        return Part::collector; // it is about a probe
    const Arrangement& a = arrangement_of(loop);
    for (Part part : sum.parts) {
        const auto here = sums_at(part, a);
        if (std::find(here.begin(), here.end(), &sum) != here.end())
            return part;
    }
    return Error{"this sum does not belong to this loop, " + a.title, sum.key, ""};
}

} // namespace

CLI::App* SumVerb::add_to(CLI::App& app)
{
    CLI::App* c = app.add_subcommand("sum", "Field arithmetic: flow, heat, wire, vessel …; without a name, the list");
    c->add_option("name", name_, "one of the list");
    c->add_option("inputs", inputs_, "name=value in the unit the name ends in, or with its own: volume_m3=\"12 L\"");
    c->add_option("--job", job_, "job file whose loop the sum is about; default: a new glycol loop");
    c->add_option("--variant", variant_, "a variant of the job; default: its first");
    c->add_option("--probe", probe_, "the probe a probe's sum is about, S1; default: the first");
    return c;
}

Result<int> SumVerb::run(const Streams& s)
{
    const Units& units = s.units;
    if (name_.empty()) {
        for (const FieldSum& sum : field_sums())
            s.out << "  " << sum.key << std::string(16 - std::string(sum.key).size(), ' ') << (sum.parts.empty() ? "Probe" : part_text(sum.parts.front()).title) << ": " << sum.title << "\n";
        return exit_fine;
    }
    const FieldSum* sum = find_sum(name_);
    if (!sum)
        return Error{"there is no sum “" + name_ + "”", "", "vernal-relay-cli sum lists them"};
    const auto job = chosen_variant(job_, variant_);
    if (!job)
        return job.error();
    const Variant& v = job->first.variants[job->second];
    const auto part = part_for(*sum, v.loop);
    if (!part)
        return part.error();
    std::size_t probe = 0;
    while (!probe_.empty() && probe < v.probes.size() && v.probes[probe].key != probe_)
        ++probe;
    if (probe == v.probes.size())
        return Error{"there is no probe “" + probe_ + "”", job_, ""};
    if (!probe_.empty() && !reads_temperature(v.probes[probe]))
        return Error{probe_ + " reads " + name_of(reads_at(v.probes[probe].place)) + ", and this sum is about a temperature probe", job_, "Name another probe"};
    const SumContext context{job->first, v, *part, units, probe};
    std::vector<double> x;
    for (const SumInput& i : sum->inputs)
        x.push_back(i.from(context));
    for (const std::string& typed : inputs_) {
        const std::size_t equals = typed.find('=');
        const std::string key = typed.substr(0, equals);
        std::size_t at = 0;
        while (at < sum->inputs.size() && key != sum->inputs[at].field.key)
            ++at;
        if (equals == std::string::npos || at == sum->inputs.size())
            return Error{"“" + typed + "” is no input of this sum", sum->key, "Write name=value"};
        const NumberField& f = sum->inputs[at].field;
        const std::string text = typed.substr(equals + 1);
        auto value = paths::number_in(text, f.quantity); // without a unit in the one its name ends in, as with `set`
        if (value && !std::isfinite(*value))
            value = parse(text, f.quantity, units); // says what is wrong with it
        if (!value)
            return value.error();
        if (*value < f.min || *value > f.max)
            return Error{std::string(f.label) + " must lie between " + to_text(f.min, f.quantity, units) + " and " + to_text(f.max, f.quantity, units), key, ""};
        x[at] = *value;
    }
    s.out << sum->title << "\n";
    for (std::size_t i = 0; i < x.size(); ++i)
        s.out << "  " << sum->inputs[i].field.key << " = " << to_text(x[i], sum->inputs[i].field.quantity, units) << "\n";
    s.out << sum->work(x, context).text << "\n";
    return exit_fine;
}

CLI::App* ReserveVerb::add_to(CLI::App& app)
{
    CLI::App* c = app.add_subcommand("reserve", "How long the heat lasts without sun, and what the element changes");
    c->add_option("job", job_, "job file, .vrelay or job.json")->required();
    c->add_option("--day", day_, "a generated day of the job; default: its first");
    c->add_option("--variant", variant_, "a variant of the job; default: its first");
    c->add_flag("--json", json_, "answer as JSON");
    return c;
}

Result<int> ReserveVerb::run(const Streams& s)
{
    const auto job = chosen_variant(job_, variant_);
    if (!job)
        return job.error();
    const Day* day = day_.empty() ? &job->first.days.front() : find_day(job->first, day_);
    if (!day || day->kind != DayKind::generated)
        return Error{"there is no generated day “" + day_ + "”", job_, ""};
    const Variant& v = job->first.variants[job->second];
    const auto reserve = reserve_of(job->first, v, *day);
    if (!reserve)
        return reserve.error();
    const auto cases = backup_cases(job->first, v, *day);
    if (!cases)
        return cases.error();
    static constexpr const char* modes[] = {"off", "always", "windows"};
    const auto days = [](double seconds) { return std::isnan(seconds) ? nlohmann::ordered_json(nullptr) : nlohmann::ordered_json(seconds / 86400); };
    if (json_) {
        auto list = nlohmann::ordered_json::array();
        for (const BackupCase& c : *cases)
            list.push_back({{"element", modes[static_cast<std::size_t>(c.mode)]}, {"solar_fraction", c.figures.solar_fraction()}, {"element_j", c.figures.heat.backup()}, {"missing_j", c.figures.short_j}});
        s.out << nlohmann::ordered_json{{"warm_days", days(reserve->hot_s)}, {"battery_days", days(reserve->battery_s)}, {"element", list}}.dump(2) << "\n";
        return exit_fine;
    }
    const auto text = [](double seconds) { return std::isnan(seconds) ? "more than " + std::to_string(most_dark_days) + " days" : to_text(seconds / 86400, Quantity::number, {}) + " days"; };
    s.out << day->name << "; then no sun\n  taps stay warm for " << text(reserve->hot_s) << "\n";
    if (reserve->battery)
        s.out << "  the battery holds for " << text(reserve->battery_s) << "\n";
    for (const BackupCase& c : *cases)
        s.out << "  element " << modes[static_cast<std::size_t>(c.mode)] << ": solar fraction " << to_text(c.figures.solar_fraction(), Quantity::ratio, s.units) << ", it takes " << to_text(c.figures.heat.backup(), Quantity::electricity, s.units) << "\n";
    return exit_fine;
}

} // namespace vernal
