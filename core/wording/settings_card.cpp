#include "settings_card.h"

#include "core/job/fields.h"

namespace vernal {
namespace {

// Collects what a rule, an output or the unit is set to, in words.
struct CardFields : FieldVisitor {
    CardFields(const Variant& variant, const Units& u) : v(variant), units(u) {}
    const Variant& v;
    const Units& units;
    std::vector<std::pair<std::string, std::string>> rows;
    void add(const char* name, std::string value) { rows.emplace_back(name, std::move(value)); }
    void number(const NumberField& f, double x) { add(f.label, to_text(x, f.quantity, units)); }
    void temperature(const NumberField& f, Temperature t) { number(f, t.in_celsius()); }
    void difference(const NumberField& f, TempDiff d) { number(f, d.in_kelvin()); }
    void boolean(const SwitchField& f, bool on) { add(f.label, on ? "yes" : "no"); }
    void probe(const ProbeField& f, const std::string& key)
    {
        for (const Probe& p : v.probes)
            if (p.key == key)
                return add(f.label, key + " " + p.name);
        if (!key.empty())
            add(f.label, key);
    }
    void output(const OutputField& f, const std::string& key)
    {
        for (const Output& o : v.unit.outputs)
            if (o.key == key)
                return add(f.label, key + " " + o.name);
        if (!key.empty())
            add(f.label, key);
    }
    template <class Names, class E>
    void choice(const char* key, const Names& names, E x)
    {
        if (std::string(key) == "mode" || std::string(key) == "drive" || std::string(key) == "drives")
            add(std::string(key) == "mode" ? "Switch" : std::string(key) == "drive" ? "Drive"
                                                                                    : "Drives",
                names[static_cast<std::size_t>(x)]);
    }
};

// Windows that are not in use would fill the card with nothing.
bool idle_window(const std::vector<std::pair<std::string, std::string>>& rows, std::size_t i)
{
    return rows[i].first == "From" && i + 1 < rows.size() && rows[i].second == rows[i + 1].second;
}

template <class T>
void put(std::vector<CardRow>& out, const std::string& group, const T& value, const Variant& v, const Units& units, bool used = true)
{
    CardFields f(v, units);
    fields(f, value);
    for (std::size_t i = 0; i < f.rows.size(); ++i) {
        if (idle_window(f.rows, i)) {
            const bool thermal = i + 3 < f.rows.size() && f.rows[i + 2].first == "On at" && f.rows[i + 3].first == "Off at";
            i += thermal ? 3 : 1;
            continue;
        }
        out.push_back({group, f.rows[i].first, f.rows[i].second, used});
    }
}

} // namespace

std::vector<CardRow> settings_card(const Variant& v, const Units& units)
{
    std::vector<CardRow> out;
    for (const Rule& r : v.unit.rules)
        std::visit([&](const auto& body) { put(out, std::string(kind_of(r).title) + " · " + r.output, body, v, units, r.enabled); }, r.body);
    for (const Output& o : v.unit.outputs) {
        put(out, "Output " + o.key + " · " + o.name, o, v, units);
        for (const FaultChoice& f : o.faults)
            out.push_back({"Output " + o.key + " · " + o.name, "While " + f.probe + " fails", f.does == OnFault::off ? "off" : f.does == OnFault::on ? "on"
                                                                                                                                                     : "carry on",
                true});
    }
    put(out, "Unit", v.unit, v, units);
    return out;
}

} // namespace vernal
