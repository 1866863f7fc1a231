#include "job_json.h"

#include "json_fields.h"

namespace vernal {
namespace {

constexpr const char* format_name = "vrelay-job";
constexpr int format_version = 1;

// Draft 7. Every field may be left out: it then has the value of a new job.
class Schema {
public:
    explicit Schema(Json& json) : json_(json)
    {
        json_["type"] = "object";
        json_["additionalProperties"] = false;
        json_["properties"] = Json::object();
    }
    void number(const NumberField& f, double) { property(f.key) = {{"type", "number"}, {"minimum", f.min}, {"maximum", f.max}, {"title", f.label}}; }
    template <class I>
    void integer(const char* key, int min, int max, I) { property(key) = {{"type", "integer"}, {"minimum", min}, {"maximum", max}}; }
    void text(const char* key, const std::string&) { property(key) = {{"type", "string"}}; }
    void text_choice(const char* key, const std::vector<const char*>& names, const std::string&) { property(key) = {{"enum", names}}; }
    void probe(const ProbeField& f, const std::string&) { property(f.key) = {{"type", "string"}}; }
    void output(const OutputField& f, const std::string&) { property(f.key) = {{"type", "string"}}; }
    void boolean(const SwitchField& f, bool) { property(f.key) = {{"type", "boolean"}, {"title", f.label}}; }
    template <class Names, class E>
    void choice(const char* key, const Names& names, E) { property(key) = {{"enum", names}}; }
    void temperature(const NumberField& f, Temperature) { number(f, 0); }
    void difference(const NumberField& f, TempDiff) { number(f, 0); }
    void curve(const char* key, const ProbeCurve&)
    {
        property(key) = {{"type", "string"}, {"pattern", "^(pt100|pt1000|pt:|ntc:|abc:|table:|poly:|line:)"}};
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

// What the field ranges cannot say.
void check_job(const Job& job)
{
    if (job.variants.empty() || job.days.empty())
        bad(job.variants.empty() ? "variants" : "days", "a job needs at least one entry here");
    for (std::size_t i = 0; i < job.variants.size(); ++i) {
        const Variant& v = job.variants[i];
        const std::string at = "variants[" + std::to_string(i) + "]";
        if (v.unit.outputs.empty() || v.unit.outputs.size() > max_outputs)
            bad(at + ".unit.outputs", "a unit has one to four outputs");
        if (v.probes.empty() || v.probes.size() > max_probes)
            bad(at + ".probes", "a unit has one to eight probes");
    }
}

} // namespace

Result<Job> read_job_json(const std::string& text, const std::string& file_name)
{
    try {
        Json j = parse_json(text);
        take_head(j, format_name, format_version, "a Vernal Relay job");
        Job job;
        JsonReader r(j, "");
        fields(r, job);
        r.finish();
        check_job(job);
        for (Variant& v : job.variants)
            sort_by_priority(v.unit.rules);
        return job;
    } catch (const BadFile& b) {
        return Error{b.error.what, file_name + ", " + b.error.where, b.error.remedy};
    }
}

std::string write_job_json(const Job& job)
{
    Json body;
    JsonWriter w(body);
    fields(w, job);
    Json out = {{"format", format_name}, {"version", format_version}};
    out.update(body);
    return out.dump(2) + "\n";
}

std::string job_schema()
{
    Json out = {{"$schema", "http://json-schema.org/draft-07/schema#"}, {"title", "Vernal Relay job, version 1"}};
    Json body;
    Schema s(body);
    const Job job;
    fields(s, job);
    out.update(body);
    out["properties"]["format"] = {{"const", format_name}};
    out["properties"]["version"] = {{"const", format_version}};
    out["required"] = {"format", "version", "variants", "days"};
    return out.dump(2) + "\n";
}

} // namespace vernal
