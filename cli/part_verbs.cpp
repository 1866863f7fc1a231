#include "part_verbs.h"

#include "chosen_variant.h"
#include "core/job/field_path.h"
#include "core/job/fresh_rule.h"
#include "core/job/ids.h"
#include "core/job/job_check.h"
#include "files/job_file.h"
#include "in_out.h"

#include <algorithm>
#include <ostream>

namespace vernal {
namespace {

const std::vector<std::string> part_words{"rule", "output", "probe"};
constexpr std::array drive_words{"loop", "element", "drain valve", "check valve", "other"};

struct OpenedVariant {
    Job job;
    std::size_t variant = 0;
};

Result<OpenedVariant> opened_for_change(const std::string& file, const std::string& variant)
{
    auto opened = open_job_file(file);
    if (!opened)
        return opened.error();
    if (opened->newer())
        return Error{opened->notices.front(), file, "Change it with a newer Vernal Relay"};
    const auto at = variant_index(opened->job, variant, file);
    if (!at)
        return at.error();
    return OpenedVariant{std::move(opened->job), *at};
}

// Nothing is written where the job would be wrong afterwards.
Result<int> kept(const Streams& s, Job& job, const std::string& file)
{
    give_ids(job, NewFrom::edit);
    if (const auto problem = job_problem(job))
        return Error{problem->what, problem->at, problem->remedy};
    if (const auto done = write_job(s, job, file); !done)
        return done.error();
    return exit_fine;
}

template <class Items>
std::string keys_text(const Items& items)
{
    std::string out;
    for (const auto& x : items)
        out += (out.empty() ? "" : ", ") + x.key;
    return out;
}

template <class Items>
bool has_key(const Items& items, const std::string& key)
{
    return std::any_of(items.begin(), items.end(), [&](const auto& x) { return x.key == key; });
}

Result<std::string> add_rule(Variant& v, const std::string& kind, const std::string& output)
{
    const auto& kinds = rule_kinds();
    const auto it = std::find_if(kinds.begin(), kinds.end(), [&](const RuleKind& k) { return kind == k.key; });
    if (it == kinds.end()) {
        std::string all;
        for (const RuleKind& k : kinds)
            all += (all.empty() ? "" : ", ") + std::string(k.key);
        return Error{"there is no kind of rule “" + kind + "”", "", "One of " + all};
    }
    Rule rule = fresh_rule(v, static_cast<std::size_t>(it - kinds.begin()));
    if (!output.empty()) {
        if (!has_key(v.unit.outputs, output))
            return Error{"there is no output “" + output + "”", "", "One of " + keys_text(v.unit.outputs)};
        rule.output = output;
    }
    v.unit.rules.push_back(rule);
    if (const auto problem = capacity_problem(v.unit, probe_keys(v), probe_reads(v)))
        return Error{*problem, "", "Remove what is not needed"};
    sort_by_priority(v.unit.rules);
    const auto at = std::find_if(v.unit.rules.begin(), v.unit.rules.end(), [](const Rule& r) { return r.id.empty(); });
    return "rules/" + std::to_string(at - v.unit.rules.begin());
}

} // namespace

CLI::App* AddVerb::add_to(CLI::App& app)
{
    CLI::App* c = app.add_subcommand("add", "Adds a rule, an output or a probe to a unit");
    c->add_option("job", job_, "job file, .vrelay or job.json")->required();
    c->add_option("what", what_, "rule, output or probe")->required()->check(CLI::IsMember(part_words));
    c->add_option("name", name_, "of a rule its kind (differential, timer …); of an output or a probe its key (P2, S4)")->required();
    c->add_option("--output", output_, "rule: of this output; else of the one it usually has");
    c->add_option("--drives", drives_, "output: what it drives")->check(CLI::IsMember(std::vector<std::string>(drive_words.begin(), drive_words.end())));
    c->add_option("--place", place_, "probe: where it sits")->check(CLI::IsMember(std::vector<std::string>(place_keys.begin(), place_keys.end())));
    c->add_option("--title", title_, "output or probe: its name in sentences");
    c->add_option("--curve", curve_, "probe: its curve, as \"probe\" writes it; else that of the first thermometer");
    c->add_option("--variant", variant_, "this variant; else the first");
    c->add_option("--out", out_, "writes the changed job here; else in place");
    return c;
}

Result<std::string> AddVerb::add(Variant& v) const
{
    if (what_ == "rule")
        return add_rule(v, name_, output_);
    if (has_key(v.unit.outputs, name_) || has_key(v.probes, name_))
        return Error{"“" + name_ + "” is there already", "", "Outputs " + keys_text(v.unit.outputs) + "; probes " + keys_text(v.probes)};
    if (what_ == "output") {
        if (v.unit.outputs.size() >= max_outputs)
            return Error{"a unit has room for " + std::to_string(max_outputs) + " outputs", "", "Remove what is not needed"};
        Output o{name_, title_.empty() ? "Another output" : title_};
        o.drives = v.unit.outputs.size() >= arrangement_of(v.loop).drivers.size() ? Drives::other : Drives::loop;
        if (!drives_.empty())
            o.drives = static_cast<Drives>(std::find(drive_words.begin(), drive_words.end(), drives_) - drive_words.begin());
        v.unit.outputs.push_back(o);
        return "outputs/" + std::to_string(v.unit.outputs.size() - 1);
    }
    if (v.probes.size() >= max_probes)
        return Error{"a unit has room for " + std::to_string(max_probes) + " probes", "", "Remove what is not needed"};
    const auto& places = arrangement_of(v.loop).places;
    const auto place = place_.empty() ? ProbePlace::return_pipe : static_cast<ProbePlace>(std::find(place_keys.begin(), place_keys.end(), place_) - place_keys.begin());
    if (reads_at(place) == Reads::temperature && std::find(places.begin(), places.end(), place) == places.end()) {
        std::string all;
        for (const ProbePlace p : places)
            all += (all.empty() ? "" : ", ") + std::string(place_key(p));
        return Error{"this loop has no place “" + std::string(place_key(place)) + "”", "", "One of " + all};
    }
    Probe p;
    for (const Probe& other : v.probes)
        if (reads_temperature(other)) {
            p.curve = other.curve;
            p.sensor = other.sensor;
            break;
        }
    if (!curve_.empty()) {
        const auto curve = parse_curve(curve_);
        if (!curve)
            return curve.error();
        p.curve = *curve;
    }
    p.key = name_;
    p.place = place;
    p.name = title_.empty() ? place_names[static_cast<std::size_t>(place)] : title_;
    v.probes.push_back(p);
    return "probes/" + std::to_string(v.probes.size() - 1);
}

Result<int> AddVerb::run(const Streams& s)
{
    auto opened = opened_for_change(job_, variant_);
    if (!opened)
        return opened.error();
    const auto where = add(opened->job.variants[opened->variant]);
    if (!where)
        return Error{where.error().what, job_, where.error().remedy};
    const std::string file = out_.empty() ? job_ : out_;
    const auto done = kept(s, opened->job, file);
    if (done)
        words_beside(s, file) << *where << "\n";
    return done;
}

CLI::App* RemoveVerb::add_to(CLI::App& app)
{
    CLI::App* c = app.add_subcommand("remove", "Removes a rule, an output with its rules, or a probe that no rule names");
    c->add_option("job", job_, "job file, .vrelay or job.json")->required();
    c->add_option("what", what_, "rule, output or probe")->required()->check(CLI::IsMember(part_words));
    c->add_option("name", name_, "of a rule its id, or its kind where there is one of it; of an output or a probe its key")->required();
    c->add_option("--variant", variant_, "this variant; else the first");
    c->add_option("--out", out_, "writes the changed job here; else in place");
    return c;
}

Result<int> RemoveVerb::run(const Streams& s)
{
    auto opened = opened_for_change(job_, variant_);
    if (!opened)
        return opened.error();
    Variant& v = opened->job.variants[opened->variant];
    if (what_ == "rule") {
        const auto is = [&](const Rule& r) { return r.id == name_ || kind_of(r).key == name_; };
        const auto n = std::count_if(v.unit.rules.begin(), v.unit.rules.end(), is);
        if (n != 1) {
            std::string all;
            for (const Rule& r : v.unit.rules)
                all += (all.empty() ? "" : ", ") + r.id + " (" + kind_of(r).key + " of " + r.output + ")";
            return Error{n == 0 ? "there is no rule “" + name_ + "”" : "there are " + std::to_string(n) + " rules “" + name_ + "”", job_, "By its id: " + all};
        }
        std::erase_if(v.unit.rules, is);
    } else if (what_ == "output") {
        if (!has_key(v.unit.outputs, name_))
            return Error{"there is no output “" + name_ + "”", job_, "One of " + keys_text(v.unit.outputs)};
        // The loop's pumps and valves are told by their place in the list.
        if (v.unit.outputs.size() == 1 || v.unit.outputs.back().key != name_)
            return Error{"only the last output can be removed, and not the only one", job_, "The last is " + v.unit.outputs.back().key};
        v.unit.outputs.pop_back();
        std::erase_if(v.unit.rules, [&](const Rule& r) { return r.output == name_; });
    } else {
        if (!has_key(v.probes, name_))
            return Error{"there is no probe “" + name_ + "”", job_, "One of " + keys_text(v.probes)};
        if (v.probes.size() == 1)
            return Error{"a unit has at least one probe", job_, "Add another one first"};
        std::string users;
        for (Rule& r : v.unit.rules)
            for (const KeyOf& k : keys_of(r))
                if (k.of == KeyOf::Of::probe && *k.key == name_)
                    users += (users.empty() ? "" : ", ") + r.id + " (" + std::string(kind_of(r).key) + ")";
        if (!users.empty())
            return Error{"rules name the probe “" + name_ + "”", job_, "Give them another probe or remove them first: " + users};
        std::erase_if(v.probes, [&](const Probe& p) { return p.key == name_; });
    }
    return kept(s, opened->job, out_.empty() ? job_ : out_);
}

} // namespace vernal
