#include "job_json.h"

#include "core/job/fields.h"

#include <nlohmann/json.hpp>

#include <algorithm>

#include <cmath>
#include <cstdio>

namespace vernal {
namespace {

using Json = nlohmann::ordered_json;
constexpr const char* format_name = "vrelay-job";
constexpr int format_version = 1;

struct BadFile {
    Error error;
};

[[noreturn]] void bad(const std::string& path, std::string what, std::string remedy = "") { throw BadFile{{std::move(what), path, std::move(remedy)}}; }

std::string range_text(double min, double max)
{
    char b[80];
    std::snprintf(b, sizeof b, "It must lie between %g and %g", min, max);
    return b;
}

class Reader {
public:
    Reader(const Json& json, std::string path) : json_(json), path_(std::move(path))
    {
        if (!json.is_object())
            bad(path_, "an object { … } is expected here");
    }
    // Keys nobody asked for: a slip of the pen would otherwise be lost in silence.
    void finish() const
    {
        for (const auto& [key, value] : json_.items())
            if (std::find(seen_.begin(), seen_.end(), key) == seen_.end())
                bad(at(key.c_str()), "this field is not known", "Remove it, or check its spelling");
    }

    void number(const NumberField& f, double& x)
    {
        const Json* j = get(f.key);
        if (!j)
            return;
        if (!j->is_number() || !std::isfinite(j->get<double>()))
            bad(at(f.key), "a number is expected here");
        const double v = j->get<double>();
        if (v < f.min || v > f.max)
            bad(at(f.key), "the value " + j->dump() + " is not possible", range_text(f.min, f.max));
        x = v;
    }
    template <class I>
    void integer(const char* key, int min, int max, I& x)
    {
        const Json* j = get(key);
        if (!j)
            return;
        if (!j->is_number_integer() || j->get<long>() < min || j->get<long>() > max)
            bad(at(key), "a whole number is expected here", range_text(min, max));
        x = static_cast<I>(j->get<long>());
    }
    void text(const char* key, std::string& x)
    {
        if (const Json* j = get(key)) {
            if (!j->is_string())
                bad(at(key), "a text in quotes is expected here");
            x = j->get<std::string>();
        }
    }
    void boolean(const SwitchField& f, bool& x)
    {
        if (const Json* j = get(f.key)) {
            if (!j->is_boolean())
                bad(at(f.key), "true or false is expected here");
            x = j->get<bool>();
        }
    }
    template <class Names, class E>
    void choice(const char* key, const Names& names, E& x)
    {
        std::string s = names[static_cast<std::size_t>(x)];
        text(key, s);
        for (std::size_t i = 0; i < names.size(); ++i)
            if (s == names[i])
                return void(x = static_cast<E>(i));
        unknown_choice(key, s, names);
    }
    void text_choice(const char* key, const std::vector<const char*>& names, std::string& x)
    {
        text(key, x);
        if (std::none_of(names.begin(), names.end(), [&](const char* n) { return x == n; }))
            unknown_choice(key, x, names);
    }
    void temperature(const NumberField& f, Temperature& t)
    {
        double c = t.in_celsius();
        number(f, c);
        t = Temperature::celsius(c);
    }
    void difference(const NumberField& f, TempDiff& d)
    {
        double k = d.in_kelvin();
        number(f, k);
        d = TempDiff::kelvin(k);
    }
    void curve(const char* key, ProbeCurve& c)
    {
        std::string s = curve_text(c);
        text(key, s);
        auto parsed = parse_curve(s);
        if (!parsed)
            bad(at(key), parsed.error().what, parsed.error().remedy);
        c = std::move(*parsed);
    }
    template <class T>
    void object(const char* key, T& x)
    {
        if (const Json* j = get(key)) {
            Reader r(*j, at(key));
            fields(r, x);
            r.finish();
        }
    }
    template <class T>
    void spare_object(const char* key, T& x) { object(key, x); }
    template <class T>
    void list(const char* key, std::vector<T>& x)
    {
        const Json* j = get(key);
        if (!j)
            return;
        if (!j->is_array())
            bad(at(key), "a list [ … ] is expected here");
        x.clear();
        for (std::size_t i = 0; i < j->size(); ++i) {
            Reader r((*j)[i], at(key) + "[" + std::to_string(i) + "]");
            fields(r, x.emplace_back());
            r.finish();
        }
    }
    template <class... A>
    void alternatives(const char* key, const std::vector<const char*>& names, std::variant<A...>& x)
    {
        std::string s;
        text(key, s);
        std::size_t i = 0;
        const bool found = ((s == names[i] ? (x.template emplace<A>(), true) : (++i, false)) || ...);
        if (!found)
            unknown_choice(key, s, names);
        std::visit([&](auto& alternative) { fields(*this, alternative); }, x);
    }

private:
    std::string at(const char* key) const { return path_.empty() ? key : path_ + "." + key; }
    const Json* get(const char* key)
    {
        seen_.emplace_back(key);
        const auto it = json_.find(key);
        return it == json_.end() ? nullptr : &*it;
    }
    template <class Names>
    [[noreturn]] void unknown_choice(const char* key, const std::string& s, const Names& names) const
    {
        std::string all;
        for (const char* n : names)
            all += (all.empty() ? "Use " : ", ") + std::string(n);
        bad(at(key), "“" + s + "” is not known here", all);
    }
    const Json& json_;
    std::string path_;
    std::vector<std::string> seen_;
};

class Writer {
public:
    explicit Writer(Json& json) : json_(json) { json_ = Json::object(); }
    void number(const NumberField& f, double x) { json_[f.key] = x; }
    template <class I>
    void integer(const char* key, int, int, I x) { json_[key] = x; }
    void text(const char* key, const std::string& x) { json_[key] = x; }
    void text_choice(const char* key, const std::vector<const char*>&, const std::string& x) { json_[key] = x; }
    void boolean(const SwitchField& f, bool x) { json_[f.key] = x; }
    template <class Names, class E>
    void choice(const char* key, const Names& names, E x) { json_[key] = names[static_cast<std::size_t>(x)]; }
    void temperature(const NumberField& f, Temperature t) { json_[f.key] = t.in_celsius(); }
    void difference(const NumberField& f, TempDiff d) { json_[f.key] = d.in_kelvin(); }
    void curve(const char* key, const ProbeCurve& c) { json_[key] = curve_text(c); }
    template <class T>
    void object(const char* key, const T& x)
    {
        Writer w(json_[key]);
        fields(w, x);
    }
    // A part that only some arrangements have: left out while nobody has touched it.
    template <class T>
    void spare_object(const char* key, const T& x)
    {
        if (!(x == T{}))
            object(key, x);
    }
    template <class T>
    void list(const char* key, const std::vector<T>& x)
    {
        Json& array = json_[key] = Json::array();
        for (const T& item : x) {
            Writer w(array.emplace_back());
            fields(w, item);
        }
    }
    template <class X>
    void alternatives(const char* key, const std::vector<const char*>& names, const X& x)
    {
        json_[key] = names[x.index()];
        std::visit([&](const auto& alternative) { fields(*this, alternative); }, x);
    }

private:
    Json& json_;
};

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
    void boolean(const SwitchField& f, bool) { property(f.key) = {{"type", "boolean"}, {"title", f.label}}; }
    template <class Names, class E>
    void choice(const char* key, const Names& names, E) { property(key) = {{"enum", names}}; }
    void temperature(const NumberField& f, Temperature) { number(f, 0); }
    void difference(const NumberField& f, TempDiff) { number(f, 0); }
    void curve(const char* key, const ProbeCurve&)
    {
        property(key) = {{"type", "string"}, {"pattern", "^(pt100$|pt1000$|ntc:|abc:|table:)"}};
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

void check_head(const Json& j)
{
    if (!j.is_object() || !j.contains("format") || j["format"] != format_name)
        bad("format", "this is not a Vernal Relay job", "A job file begins with \"format\": \"vrelay-job\"");
    if (!j.contains("version") || !j["version"].is_number_integer())
        bad("version", "the version of the format is missing");
    if (j["version"].get<int>() != format_version)
        bad("version", "this job is of version " + j["version"].dump() + ", which this program does not know", "Open it with a newer Vernal Relay");
}

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
        Json j = Json::parse(text);
        check_head(j);
        j.erase("format");
        j.erase("version");
        Job job;
        Reader r(j, "");
        fields(r, job);
        r.finish();
        check_job(job);
        for (Variant& v : job.variants)
            sort_by_rank(v.unit.rules);
        return job;
    } catch (const BadFile& b) {
        return Error{b.error.what, file_name + ", " + b.error.where, b.error.remedy};
    } catch (const Json::parse_error& e) {
        const std::size_t upto = std::min(e.byte, text.size());
        const auto line = std::count(text.begin(), text.begin() + static_cast<std::ptrdiff_t>(upto), '\n') + 1;
        const std::size_t last_break = text.rfind('\n', upto == 0 ? 0 : upto - 1);
        const std::size_t column = last_break == std::string::npos ? upto : upto - last_break - 1;
        return Error{"this is not valid JSON", file_name + ", line " + std::to_string(line) + ", column " + std::to_string(column), "Look for a missing comma, quote or bracket just before"};
    }
}

std::string write_job_json(const Job& job)
{
    Json body;
    Writer w(body);
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
