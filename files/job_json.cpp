#include "job_json.h"

#include "core/job/job_check.h"

#include "job_migration.h"
#include "json_fields.h"

#include <set>

namespace vernal {
namespace {

constexpr const char* format_name = "vrelay-job";
// Draft 7. Every field may be left out: it then has the value of a new job.
class Schema {
public:
    explicit Schema(Json& json) : json_(json)
    {
        json_["type"] = "object";
        json_["additionalProperties"] = false;
        json_["properties"] = Json::object();
    }
    void number(const NumberField& f, double x) { property(f.key) = {{"type", "number"}, {"minimum", f.min}, {"maximum", f.max}, {"default", x}, {"title", f.label}}; }
    template <class I>
    void integer(const char* key, int min, int max, I x) { property(key) = {{"type", "integer"}, {"minimum", min}, {"maximum", max}, {"default", x}}; }
    void text(const char* key, const std::string& x) { property(key) = {{"type", "string"}, {"default", x}}; }
    void id(const char* key, const std::string&) { property(key) = {{"type", "string"}, {"pattern", "^[A-Za-z0-9_-]{1,32}$"}}; }
    void text_choice(const char* key, const std::vector<const char*>& names, const std::string& x) { property(key) = {{"enum", names}, {"default", x}}; }
    void probe(const ProbeField& f, const std::string& x) { text(f.key, x); }
    void output(const OutputField& f, const std::string& x) { text(f.key, x); }
    void boolean(const SwitchField& f, bool x) { property(f.key) = {{"type", "boolean"}, {"default", x}, {"title", f.label}}; }
    template <class Names, class E>
    void choice(const char* key, const Names& names, E x) { property(key) = {{"enum", names}, {"default", names[static_cast<std::size_t>(x)]}}; }
    template <class Names, class E>
    void spare_choice(const char* key, const Names& names, E x) { choice(key, names, x); }
    void temperature(const NumberField& f, Temperature t) { number(f, t.in_celsius()); }
    void difference(const NumberField& f, TempDiff d) { number(f, d.in_kelvin()); }
    void curve(const char* key, const ProbeCurve& c)
    {
        property(key) = {{"type", "string"}, {"pattern", "^(pt100|pt1000|pt:|ntc:|abc:|table:|poly:|line:)"}, {"default", curve_text(c)}};
    }
    template <class T>
    void object(const char* key, const T& x)
    {
        Schema s(property(key));
        fields(s, x);
    }
    template <class T>
    void spare_object(const char* key, const T& x) { object(key, x); }
    template <class T>
    void list(const char* key, const std::vector<T>&)
    {
        Json& p = property(key);
        p["type"] = "array";
        const T item{};
        Schema s(p["items"]);
        fields(s, item);
    }
    template <class T>
    void spare_list(const char* key, const std::vector<T>& x) { list(key, x); }
    void words(const char* key, const std::vector<std::string>&) { property(key) = {{"type", "array"}, {"items", {{"type", "string"}}}}; }
    template <class... A>
    void alternatives(const char* key, const std::vector<const char*>& names, const std::variant<A...>&)
    {
        const Json common = json_["properties"];
        Json all = Json::array();
        std::size_t i = 0;
        const auto one = [&](const auto& alternative) {
            Json a;
            Schema s(a);
            a["properties"] = common;
            fields(s, alternative);
            a["properties"][key] = {{"const", names[i++]}};
            a["required"] = {key};
            all.push_back(a);
        };
        (one(A{}), ...);
        json_ = {{"oneOf", all}};
    }

private:
    Json& property(const char* key) { return json_["properties"][key]; }
    Json& json_;
};

template <class Item>
void check_ids(const std::vector<Item>& items, const std::string& at)
{
    std::set<std::string> seen;
    for (std::size_t i = 0; i < items.size(); ++i)
        if (!items[i].id.empty() && !seen.insert(items[i].id).second)
            bad(at + "[" + std::to_string(i) + "].id", "the id “" + items[i].id + "” is there twice", "Remove this line; the entry then gets an id of its own");
}

// Logs and attachments are named, not placed.
void reduce_names(Job& job)
{
    const auto last_part = [](std::string& name) { name = name.substr(name.find_last_of('/') + 1); };
    for (Day& d : job.days)
        last_part(d.trace);
    for (Attachment& a : job.attachments)
        last_part(a.name);
}

// What the field ranges cannot say.
void check_job(const Job& job)
{
    if (const auto problem = job_problem(job))
        bad(problem->at, problem->what, problem->remedy);
    check_ids(job.variants, "variants");
    for (std::size_t i = 0; i < job.attachments.size(); ++i)
        if (const std::string& hash = job.attachments[i].sha256; hash.size() != 64 || hash.find_first_not_of("0123456789abcdef") != std::string::npos)
            bad("attachments[" + std::to_string(i) + "].sha256", "this is no SHA-256", "It has 64 hex digits in lower case");
    check_ids(job.days, "days");
    check_ids(job.logbook.visits, "logbook.visits");
    check_ids(job.logbook.due, "logbook.due");
    for (std::size_t i = 0; i < job.variants.size(); ++i) {
        const std::string at = "variants[" + std::to_string(i) + "]";
        check_ids(job.variants[i].probes, at + ".probes");
        check_ids(job.variants[i].unit.outputs, at + ".unit.outputs");
        check_ids(job.variants[i].unit.rules, at + ".unit.rules");
    }
}

std::string newer_notice(int version, const std::vector<std::string>& unknown)
{
    std::string out = "This file was written by a newer program (version " + std::to_string(version) + " of the format; this one writes " + std::to_string(job_format_version) + "). It is open for reading: the file itself is left as it is";
    if (unknown.empty())
        return out + ".";
    constexpr std::size_t most = 4;
    out += ", and a copy saved here would lack ";
    for (std::size_t i = 0; i < std::min(most, unknown.size()); ++i)
        out += (i == 0 ? "" : ", ") + unknown[i];
    return out + (unknown.size() > most ? " and " + std::to_string(unknown.size() - most) + " more." : ".");
}

} // namespace

Result<OpenedJob> read_job_text(const std::string& text, const std::string& file_name)
{
    int version = 0;
    try {
        Json j = parse_json(text);
        version = take_head(j, format_name, "a Vernal Relay job");
        migrate_job(j, version);
        OpenedJob out;
        std::vector<std::string> unknown;
        JsonReader r(j, "", version > job_format_version ? &unknown : nullptr);
        fields(r, out.job);
        r.finish();
        reduce_names(out.job);
        check_job(out.job);
        for (Variant& v : out.job.variants)
            sort_by_priority(v.unit.rules);
        for (Visit& visit : out.job.logbook.visits)
            for (std::vector<Variant>* seen : {&visit.found, &visit.left})
                for (Variant& v : *seen)
                    sort_by_priority(v.unit.rules);
        give_ids(out.job, NewFrom::file);
        out.version = version;
        if (out.newer())
            out.notices.push_back(newer_notice(version, unknown));
        return out;
    } catch (const BadFile& b) {
        if (version > job_format_version)
            return Error{"this file was written by a newer program (version " + std::to_string(version) + " of the format) and holds what this one does not know: " + b.error.what, file_name + ", " + b.error.where, "Open it with a newer Vernal Relay"};
        return Error{b.error.what, file_name + ", " + b.error.where, b.error.remedy};
    }
}

Result<Job> read_job_json(const std::string& text, const std::string& file_name)
{
    auto opened = read_job_text(text, file_name);
    if (!opened)
        return opened.error();
    return std::move(opened->job);
}

std::string write_job_json(const Job& job)
{
    Job whole = job;
    give_ids(whole, NewFrom::edit);
    Json body;
    JsonWriter w(body);
    fields(w, static_cast<const Job&>(whole));
    Json out = {{"format", format_name}, {"version", job_format_version}};
    out.update(body);
    return out.dump(2) + "\n";
}

std::string job_schema()
{
    Json out = {{"$schema", "http://json-schema.org/draft-07/schema#"}, {"title", "Vernal Relay job, version " + std::to_string(job_format_version)}};
    Json body;
    Schema s(body);
    const Job job;
    fields(s, job);
    out.update(body);
    out["properties"]["format"] = {{"const", format_name}};
    out["properties"]["version"] = {{"const", job_format_version}};
    out["required"] = {"format", "version", "variants", "days"};
    return out.dump(2) + "\n";
}

} // namespace vernal
