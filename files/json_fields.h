// JSON by the field lists: one reader and one writer for every file of ours.
#pragma once

#include "core/job/fields.h"
#include "core/job/ids.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <cmath>
#include <cstdio>

namespace vernal {

using Json = nlohmann::ordered_json;

struct BadFile {
    Error error;
};

[[noreturn]] inline void bad(const std::string& path, std::string what, std::string remedy = "") { throw BadFile{{std::move(what), path, std::move(remedy)}}; }

inline std::string range_text(double min, double max)
{
    char b[80];
    std::snprintf(b, sizeof b, "It must lie between %g and %g", min, max);
    return b;
}

class JsonReader {
public:
    // unknown: fields nobody asks for are put there instead of refused, for files of a newer version.
    JsonReader(const Json& json, std::string path, std::vector<std::string>* unknown = nullptr) : json_(json), path_(std::move(path)), unknown_(unknown)
    {
        if (!json.is_object())
            bad(path_, "an object { … } is expected here");
    }
    // Keys nobody asked for: a slip of the pen would otherwise be lost in silence.
    void finish() const
    {
        for (const auto& [key, value] : json_.items())
            if (std::find(seen_.begin(), seen_.end(), key) == seen_.end()) {
                if (!unknown_)
                    bad(at(key.c_str()), "this field is not known", "Remove it, or check its spelling");
                unknown_->push_back(at(key.c_str()));
            }
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
        if (!j->is_number_integer() || (j->is_number_unsigned() && j->get<std::uint64_t>() > static_cast<std::uint64_t>(std::max(max, 0))) || j->get<std::int64_t>() < min || j->get<std::int64_t>() > max)
            bad(at(key), "a whole number is expected here", range_text(min, max));
        x = static_cast<I>(j->get<std::int64_t>());
    }
    void text(const char* key, std::string& x)
    {
        if (const Json* j = get(key)) {
            if (!j->is_string())
                bad(at(key), "a text in quotes is expected here");
            x = j->get<std::string>();
        }
    }
    void id(const char* key, std::string& x)
    {
        text(key, x);
        if (!x.empty() && !is_id(x))
            bad(at(key), "“" + x + "” is no id", "An id is 1 to 32 letters, digits, - or _");
    }
    void probe(const ProbeField& f, std::string& x) { text(f.key, x); }
    void output(const OutputField& f, std::string& x) { text(f.key, x); }
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
    template <class Names, class E>
    void spare_choice(const char* key, const Names& names, E& x) { choice(key, names, x); }
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
            JsonReader r(*j, at(key), unknown_);
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
            JsonReader r((*j)[i], at(key) + "[" + std::to_string(i) + "]", unknown_);
            fields(r, x.emplace_back());
            r.finish();
        }
    }
    template <class T>
    void spare_list(const char* key, std::vector<T>& x) { list(key, x); }
    void words(const char* key, std::vector<std::string>& x)
    {
        const Json* j = get(key);
        if (!j)
            return;
        if (!j->is_array() || !std::all_of(j->begin(), j->end(), [](const Json& w) { return w.is_string(); }))
            bad(at(key), "a list of texts [ \"…\" ] is expected here");
        x = j->get<std::vector<std::string>>();
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
    std::vector<std::string>* unknown_;
    std::vector<std::string> seen_;
};

class JsonWriter {
public:
    explicit JsonWriter(Json& json) : json_(json) { json_ = Json::object(); }
    void number(const NumberField& f, double x) { json_[f.key] = x; }
    template <class I>
    void integer(const char* key, int, int, I x) { json_[key] = x; }
    void text(const char* key, const std::string& x) { json_[key] = x; }
    void text_choice(const char* key, const std::vector<const char*>&, const std::string& x) { json_[key] = x; }
    void id(const char* key, const std::string& x) { json_[key] = x; }
    void probe(const ProbeField& f, const std::string& x) { json_[f.key] = x; }
    void output(const OutputField& f, const std::string& x) { json_[f.key] = x; }
    void boolean(const SwitchField& f, bool x) { json_[f.key] = x; }
    template <class Names, class E>
    void choice(const char* key, const Names& names, E x) { json_[key] = names[static_cast<std::size_t>(x)]; }
    // Left out while it is the first of its names.
    template <class Names, class E>
    void spare_choice(const char* key, const Names& names, E x)
    {
        if (x != E{})
            choice(key, names, x);
    }
    void temperature(const NumberField& f, Temperature t) { json_[f.key] = t.in_celsius(); }
    void difference(const NumberField& f, TempDiff d) { json_[f.key] = d.in_kelvin(); }
    void curve(const char* key, const ProbeCurve& c) { json_[key] = curve_text(c); }
    template <class T>
    void object(const char* key, const T& x)
    {
        JsonWriter w(json_[key]);
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
            JsonWriter w(array.emplace_back());
            fields(w, item);
        }
    }
    template <class T>
    void spare_list(const char* key, const std::vector<T>& x)
    {
        if (!x.empty())
            list(key, x);
    }
    void words(const char* key, const std::vector<std::string>& x)
    {
        if (!x.empty())
            json_[key] = x;
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

// The two lines every file of ours begins with; taken off. Gives the version.
inline int take_head(Json& j, const char* format, const char* what)
{
    if (!j.is_object() || !j.contains("format") || j["format"] != format)
        bad("format", std::string("this is not ") + what, std::string("It begins with \"format\": \"") + format + "\"");
    if (!j.contains("version") || !j["version"].is_number_integer())
        bad("version", "the version of the format is missing");
    constexpr std::int64_t last = 1'000'000;
    const Json& given = j["version"];
    const auto version = given.is_number_unsigned() && given.get<std::uint64_t>() > last ? last + 1 : given.get<std::int64_t>();
    if (version < 1 || version > last)
        bad("version", "there is no version " + given.dump() + " of this format", "Versions are whole numbers from 1 on");
    j.erase("format");
    j.erase("version");
    return static_cast<int>(version);
}

// Parses text; a slip is told with its line and column. A key that stands twice in one
// object, a number too large for any and nesting deeper than any file of ours are refused.
Json parse_json(const std::string& text);

} // namespace vernal
