#include "setting_verbs.h"
#include "in_out.h"

#include "chosen_variant.h"
#include "core/job/field_path.h"
#include "core/job/job_check.h"
#include "files/csv/writer.h"
#include "files/job_file.h"

#include <nlohmann/json.hpp>

#include <ostream>

namespace vernal {
namespace {

using Json = nlohmann::ordered_json;

std::string range_of(const Setting& s)
{
    if (s.numeric())
        return exact_text(s.min) + " … " + exact_text(s.max);
    std::string out;
    for (const std::string& c : s.choices)
        out += (out.empty() ? "" : "|") + (c.empty() ? "\"\"" : c);
    return out;
}

Json value_json(const Setting& s, const std::string& value)
{
    if (s.type == Setting::Type::yes_no)
        return value == "true";
    return s.numeric() ? Json::parse(value) : Json(value);
}

Json setting_json(const Setting& s, const std::string* usual)
{
    Json j{{"path", s.path}, {"value", value_json(s, s.value)}, {"unit", inside_unit(s.quantity)}, {"label", s.label}};
    if (s.numeric())
        j.update({{"min", s.min}, {"max", s.max}});
    if (!s.choices.empty())
        j["choices"] = s.choices;
    j["default"] = usual ? value_json(s, *usual) : Json(nullptr);
    j["fixed"] = s.fixed;
    return j;
}

void add_common(CLI::App& c, std::string& job, std::string& variant)
{
    c.add_option("job", job, "job file, .vrelay or job.json")->required();
    c.add_option("--variant", variant, "this variant; else the first");
}

} // namespace

CLI::App* GetVerb::add_to(CLI::App& app)
{
    CLI::App* c = app.add_subcommand("get", "One setting by its path, in the unit its name ends in");
    add_common(*c, job_, variant_);
    c->add_option("path", path_, "as \"fields\" lists them, \"loop/tank/volume_m3\"")->required();
    return c;
}

Result<int> GetVerb::run(const Streams& s)
{
    const auto chosen = chosen_variant(job_, variant_);
    if (!chosen)
        return chosen.error();
    const auto setting = setting_at(chosen->first, chosen->second, path_);
    if (!setting)
        return setting.error();
    s.out << setting->value << "\n";
    return exit_fine;
}

CLI::App* SetVerb::add_to(CLI::App& app)
{
    CLI::App* c = app.add_subcommand("set", "Changes one setting by its path and saves the job");
    add_common(*c, job_, variant_);
    c->add_option("path", path_, "as \"fields\" lists them")->required();
    c->add_option("value", value_, "a number in the unit the path ends in, or with its unit behind it, \"300 L\"")->required();
    c->add_option("--out", out_, "writes the changed job here; else in place");
    return c;
}

Result<int> SetVerb::run(const Streams& s)
{
    auto opened = open_job_file(job_);
    if (!opened)
        return opened.error();
    if (opened->newer())
        return Error{opened->notices.front(), job_, "Change it with a newer Vernal Relay"};
    const auto variant = variant_index(opened->job, variant_, job_);
    if (!variant)
        return variant.error();
    if (const auto done = set_setting(opened->job, *variant, path_, value_); !done)
        return done.error();
    if (const auto problem = job_problem(opened->job))
        return Error{problem->what, path_, problem->remedy};
    if (const auto done = write_job(s, opened->job, out_.empty() ? job_ : out_); !done)
        return done.error();
    return exit_fine;
}

CLI::App* FieldsVerb::add_to(CLI::App& app)
{
    CLI::App* c = app.add_subcommand("fields", "Every setting with its path, value, unit, range and default, as CSV");
    add_common(*c, job_, variant_);
    c->add_flag("--json", json_, "answer as JSON");
    return c;
}

Result<int> FieldsVerb::run(const Streams& s)
{
    const auto chosen = chosen_variant(job_, variant_);
    if (!chosen)
        return chosen.error();
    const auto usual = default_settings(chosen->first, chosen->second);
    Json list = Json::array();
    CsvWriter csv([&](std::string_view text) { s.out << text; });
    if (!json_)
        csv.row({"path", "value", "unit", "range", "default", "label"});
    for (const Setting& x : settings_of(chosen->first, chosen->second)) {
        const auto it = usual.find(x.path);
        if (json_)
            list.push_back(setting_json(x, it == usual.end() ? nullptr : &it->second));
        else
            csv.row({x.path, x.value, inside_unit(x.quantity), range_of(x), it == usual.end() ? std::string() : it->second, x.label});
    }
    csv.finish();
    if (json_)
        s.out << Json{{"job", chosen->first.title}, {"variant", chosen->first.variants[chosen->second].name}, {"fields", list}}.dump(2) << "\n";
    return exit_fine;
}

} // namespace vernal
