#include "sentence.h"

#include "core/job/field_lists.h"

#include <cctype>
#include <map>

namespace vernal {
namespace {

// What stands for each field of the rule.
struct Words : FieldVisitor {
    Words(const Variant& variant, const Units& u) : v(variant), units(u) {}
    const Variant& v;
    const Units& units;
    std::map<std::string, std::string> of;
    void number(const NumberField& f, double x) { of[f.key] = field_text(f, x, units); }
    void temperature(const NumberField& f, Temperature t) { number(f, t.in_celsius()); }
    void difference(const NumberField& f, TempDiff d) { number(f, d.in_kelvin()); }
    void boolean(const SwitchField& f, bool on) { of[f.key] = on ? "yes" : "no"; }
    void probe(const ProbeField& f, const std::string& key)
    {
        std::string name = key.empty() ? f.nothing : key;
        for (const Probe& p : v.probes)
            if (p.key == key)
                name = p.name;
        of[f.key] = within_sentence(std::move(name));
    }
    void output(const OutputField& f, const std::string& key) { of[f.key] = key.empty() ? f.nothing : key; }
    template <class Names, class E>
    void choice(const char* key, const Names& names, E x) { of[key] = names[static_cast<std::size_t>(x)]; }
};

} // namespace

std::string within_sentence(std::string name)
{
    if (name.size() > 1 && std::islower(static_cast<unsigned char>(name[1])) != 0)
        name[0] = static_cast<char>(std::tolower(static_cast<unsigned char>(name[0])));
    return name;
}

std::string sentence(const Variant& v, const Rule& rule, const Units& units)
{
    Words words(v, units);
    std::visit([&](const auto& body) { fields(words, body); }, rule.body);
    words.of["output"] = rule.output;
    std::string s = kind_of(rule).sentence;
    for (std::size_t open = s.find('{'); open != std::string::npos; open = s.find('{', open)) {
        const std::size_t close = s.find('}', open);
        const auto it = words.of.find(s.substr(open + 1, close - open - 1));
        const std::string word = it == words.of.end() ? "" : it->second;
        s.replace(open, close - open + 1, word);
        open += word.size();
    }
    return s;
}

} // namespace vernal
