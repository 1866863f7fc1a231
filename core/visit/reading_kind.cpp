#include "reading_kind.h"

#include "core/units/exact_text.h"

#include <algorithm>
#include <cmath>
#include <sstream>

namespace vernal {
namespace {

using Q = Quantity;
using Of = ReadingKind::Of;

template <class T>
std::string name_of(const std::vector<T>& all, const std::string& key)
{
    const auto it = std::find_if(all.begin(), all.end(), [&](const T& x) { return x.key == key; });
    return it == all.end() ? key : key + " " + it->name;
}

std::vector<std::string> things(const ReadingKind& k, const Variant& v)
{
    std::vector<std::string> out;
    std::vector<std::string> probes;
    for (const Probe& p : v.probes)
        if (reads_temperature(p))
            probes.push_back(p.key);
    switch (k.of) {
    case Of::loop: out.emplace_back(); break;
    case Of::probe: out = probes; break;
    case Of::two_probes:
        for (std::size_t i = 1; i < probes.size(); ++i)
            out.push_back(probes[0] + " " + probes[i]);
        break;
    case Of::output:
        for (const Output& o : v.unit.outputs)
            out.push_back(o.key);
        break;
    }
    return out;
}

} // namespace

const std::vector<ReadingKind>& reading_kinds()
{
    static const std::vector<ReadingKind> all{
        {"ohm", "resistance", Q::resistance, 0, 1e8, Of::probe, "", Loops::all, "meter, probe off the unit"},
        {"reading", "reading", Q::temperature, -60, 400, Of::probe, "", Loops::all, "the unit's own"},
        {"apart", "side by side, apart", Q::small_difference, -100, 100, Of::two_probes, "", Loops::all, "in one cup, 5 min"},
        {"flow", "flow", Q::flow, 0, 1, Of::loop, "flow", Loops::pumped_liquid, "bucket, meter"},
        {"rise", "rise over the array", Q::difference, -100, 200, Of::loop, "rise", Loops::pumped, "both gauges"},
        {"store", "store, at its top", Q::temperature, -20, 150, Of::loop, "store", Loops::all, "thermometer"},
        {"air", "air", Q::temperature, -60, 60, Of::loop, "air"},
        {"sun", "sun on the array", Q::irradiance, 0, 1600, Of::loop, "sun", Loops::all, "pyranometer in its plane"},
        {"pressure", "pressure", Q::pressure, 0, 2e6, Of::loop, "pressure", Loops::closed, "gauge", true},
        {"gas", "gas of the vessel", Q::pressure, 0, 2e6, Of::loop, "gas", Loops::closed, "tyre gauge, its water side empty"},
        {"freezes", "fluid freezes at", Q::temperature, -60, 10, Of::loop, "freezes", Loops::glycol, "refractometer"},
        {"acidity", "fluid's pH", Q::number, 0, 14, Of::loop, "ph", Loops::glycol, "strips"},
        {"fills", "fills within", Q::duration, 0, 86400, Of::loop, "fills", Loops::draining, "watch"},
        {"drains", "drains within", Q::duration, 0, 86400, Of::loop, "drains", Loops::draining, "watch"},
        {"first_start", "first start", Q::time_of_day, 0, 24, Of::loop, "first start", Loops::pumped, "the unit's memory, or there"},
        {"starts_a_day", "starts a day", Q::count, 0, 1e5, Of::loop, "starts a day", Loops::pumped, "the unit's memory"},
        {"heat", "heat since the last visit", Q::energy, 0, 1e13, Of::loop, "heat", Loops::pumped, "heat meter"},
        {"supply", "supply at the unit", Q::voltage, 0, 1000, Of::loop, "supply", Loops::all, "meter"},
        {"battery", "battery", Q::voltage, 0, 200, Of::loop, "battery", Loops::battery, "meter, at its posts"},
        {"panel", "panel", Q::voltage, 0, 1000, Of::loop, "panel", Loops::panel, "meter"},
        {"tap", "tap, tempered", Q::temperature, 0, 100, Of::loop, "tap", Loops::tank, "thermometer, after 2 min"},
        {"circulation", "circulation comes back with", Q::temperature, 0, 100, Of::loop, "circulation", Loops::circulating, "thermometer"},
        {"clearance", "clearance at the electrical panel", Q::length, 0, 20, Of::loop, "clearance", Loops::all, "tape"},
        {"current", "current", Q::current, 0, 200, Of::output, "", Loops::all, "clamp meter"},
        {"watt", "power", Q::small_power, 0, 20000, Of::output, "", Loops::all, "meter"},
        {"hours", "run hours", Q::hours, 0, 1e6, Of::output, "", Loops::all, "the unit's counter"},
        {"starts", "starts", Q::count, 0, 1e8, Of::output, "starts", Loops::all, "the unit's counter"},
    };
    return all;
}

const ReadingKind* find_reading_kind(const std::string& key)
{
    const auto& all = reading_kinds();
    const auto it = std::find_if(all.begin(), all.end(), [&](const ReadingKind& k) { return key == k.key; });
    return it == all.end() ? nullptr : &*it;
}

std::vector<AskedReading> asked_readings(const Variant& v)
{
    std::vector<AskedReading> out;
    const Arrangement& a = arrangement_of(v.loop);
    for (const ReadingKind& k : reading_kinds())
        if (holds_for(k.loops, a))
            for (std::string& of : things(k, v))
                out.push_back({&k, std::move(of)});
    return out;
}

bool is_asked(const Variant& v, const VisitReading& r)
{
    const ReadingKind* k = find_reading_kind(r.kind);
    if (!k || !holds_for(k->loops, arrangement_of(v.loop)))
        return false;
    const auto has = [](const auto& all, const std::string& key) { return std::any_of(all.begin(), all.end(), [&](const auto& x) { return x.key == key; }); };
    switch (k->of) {
    case Of::loop: return r.of.empty();
    case Of::probe: return has(v.probes, r.of);
    case Of::two_probes: {
        const std::size_t at = r.of.find(' ');
        return at != std::string::npos && has(v.probes, r.of.substr(0, at)) && has(v.probes, r.of.substr(at + 1));
    }
    case Of::output: return has(v.unit.outputs, r.of);
    }
    return false;
}

std::string reading_label(const ReadingKind& k, const std::string& of, const Variant* v)
{
    if (of.empty())
        return k.label;
    if (k.of == Of::two_probes) {
        const std::size_t at = of.find(' ');
        return of.substr(0, at) + " against " + of.substr(std::min(of.size(), at + 1));
    }
    const std::string name = !v ? of : k.of == Of::probe ? name_of(v->probes, of)
                                                         : name_of(v->unit.outputs, of);
    return name + ", " + k.label;
}

std::string reading_text(const VisitReading& r, const Units& units)
{
    const ReadingKind* k = find_reading_kind(r.kind);
    const std::string value = r.kind == "hours" ? std::to_string(std::lround(r.value)) + "\u202fh" : to_text(r.value, k ? k->quantity : Q::number, units);
    return r.with_temperature ? value + " at " + std::to_string(std::lround(to_display(r.at_c, Q::temperature, units))) + "\u202f" + unit_name(Q::temperature, units) : value;
}

std::string exact_value_text(double inside, Quantity q)
{
    const Units u = Units::metric();
    const double shown = to_display(inside, q, u);
    const std::string unit = unit_name(q, u);
    constexpr int most_digits = 17;
    for (int digits = 1; digits <= most_digits; ++digits) {
        std::ostringstream out;
        out.imbue(std::locale::classic());
        out.precision(digits);
        out << shown;
        const std::string text = out.str() + (unit.empty() ? "" : " " + unit);
        if (out.str().find('e') == std::string::npos)
            if (const auto back = parse(text, q, u); back && *back == inside)
                return text;
    }
    return "=" + exact_text(inside);
}

Result<double> parse_exact(const std::string& text, Quantity q, const Units& units)
{
    if (text.starts_with("="))
        return parse(text.substr(1), Quantity::number, Units::metric());
    return parse(text, q, units);
}

} // namespace vernal
