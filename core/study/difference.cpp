#include "difference.h"

#include "core/job/field_path.h"
#include "core/plant/parts.h"
#include "figures_only.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <map>

namespace vernal {
namespace {

constexpr std::size_t told_settings = 2, told_changes = 3;
constexpr double felt_j = 0.005 * 3.6e6; // what a figure in kWh shows
constexpr double felt_s = 60;            // of the first start

template <class T>
const T* by_id(const std::vector<T>& all, const std::string& id)
{
    const auto it = std::find_if(all.begin(), all.end(), [&](const T& x) { return x.id == id; });
    return it == all.end() ? nullptr : &*it;
}

std::string value_text(const Setting& s, const Units& u)
{
    return s.type == Setting::Type::number ? to_text(std::stod(s.value), s.quantity, u) : s.type == Setting::Type::yes_no ? (s.value == "true" ? "yes" : "no")
                                                                                                                          : s.value;
}

// The settings under a path that differ, in words.
struct Told {
    std::map<std::string, Setting> before;
    std::vector<Setting> after;
    const Units& units;
    std::string operator()(const std::string& path) const
    {
        std::string out;
        std::size_t found = 0;
        for (const Setting& s : after) {
            const auto was = before.find(s.path);
            if (!s.path.starts_with(path) || was == before.end() || was->second.value == s.value)
                continue;
            if (++found <= told_settings)
                out += (found > 1 ? "; " : "") + (s.label.empty() ? s.path.substr(s.path.rfind('/') + 1) : s.label) + " " + value_text(s, units) + ", not " + value_text(was->second, units);
        }
        return found > told_settings ? out + "; and " + std::to_string(found - told_settings) + " more" : out;
    }
};

Told told(const Job& job, std::size_t mine, std::size_t other, const Units& units)
{
    Told t{{}, settings_of(job, mine), units};
    for (Setting& s : settings_of(job, other)) {
        const std::string path = s.path;
        t.before.emplace(path, std::move(s));
    }
    return t;
}

void add_rules(std::vector<VariantChange>& out, const Variant& mine, const Variant& other, const Told& words)
{
    for (const Rule& r : mine.unit.rules) {
        const Rule* was = by_id(other.unit.rules, r.id);
        if (was && *was == r)
            continue;
        const std::string title = kind_of(r).title;
        const bool switched = was && was->enabled != r.enabled;
        out.push_back({!was ? title + " added" : switched ? title + (r.enabled ? " switched on" : " switched off")
                                                          : title + ": " + words("rule/" + r.id + "/"),
            [r](Variant& v) {
                const auto it = std::find_if(v.unit.rules.begin(), v.unit.rules.end(), [&](const Rule& x) { return x.id == r.id; });
                if (it != v.unit.rules.end())
                    *it = r;
                else
                    v.unit.rules.push_back(r);
                sort_by_priority(v.unit.rules);
            }});
    }
    for (const Rule& r : other.unit.rules)
        if (!by_id(mine.unit.rules, r.id))
            out.push_back({std::string(kind_of(r).title) + " removed", [id = r.id](Variant& v) { std::erase_if(v.unit.rules, [&](const Rule& x) { return x.id == id; }); }});
}

void add_parts(std::vector<VariantChange>& out, const Variant& mine, const Variant& other, const Told& words)
{
    for (Part part : arrangement_of(mine.loop).parts)
        with_part(mine.loop, part, [&]<class T>(const T& now) {
            Loop base = other.loop;
            with_part(base, part, [&]<class U>(U& was) {
                if constexpr (std::same_as<T, U>)
                    if (!(was == now))
                        out.push_back({std::string(part_text(part).title) + ": " + words(part_path(part) + "/"), [part, now](Variant& v) {
                                           with_part(v.loop, part, [&]<class W>(W& x) {
                                               if constexpr (std::same_as<T, W>)
                                                   x = now;
                                           });
                                       }});
            });
        });
    if (mine.loop.glycol_fraction != other.loop.glycol_fraction)
        out.push_back({words("loop/glycol_fraction"), [f = mine.loop.glycol_fraction](Variant& v) { v.loop.glycol_fraction = f; }});
}

void add_probes(std::vector<VariantChange>& out, const Variant& mine, const Variant& other, const Told& words)
{
    const bool same = std::equal(mine.probes.begin(), mine.probes.end(), other.probes.begin(), other.probes.end(), [](const Probe& a, const Probe& b) { return a.id == b.id && a.key == b.key; });
    if (!same)
        out.push_back({"other probes", [p = mine.probes](Variant& v) { v.probes = p; }});
    for (std::size_t i = 0; same && i < mine.probes.size(); ++i)
        if (!(mine.probes[i] == other.probes[i]))
            out.push_back({mine.probes[i].key + " " + mine.probes[i].name + ": " + words("probe/" + mine.probes[i].id + "/"), [i, p = mine.probes[i]](Variant& v) { v.probes[i] = p; }});
}

void add_unit(std::vector<VariantChange>& out, const Variant& mine, const Variant& other)
{
    RuleSet unit = mine.unit;
    unit.rules = other.unit.rules;
    if (!(unit == other.unit))
        out.push_back({"the unit and its outputs", [u = mine.unit](Variant& v) {
                           const auto rules = v.unit.rules;
                           v.unit = u;
                           v.unit.rules = rules;
                       }});
    if (!(mine.input == other.input))
        out.push_back({"the unit's input", [i = mine.input](Variant& v) { v.input = i; }});
}

std::string signed_count(int n) { return (n < 0 ? "−" : "+") + std::to_string(std::abs(n)) + (std::abs(n) == 1 ? " start" : " starts"); }
std::string signed_energy(double j, const Units& u) { return (j > 0 ? "+" : "") + to_text(j, Quantity::energy, u); }
Effect effect_of(const Figures& a, const Figures& b)
{
    const auto first = [](const Figures& f) { return f.pumps.empty() ? NAN : f.pumps.front().first_start_s; };
    const bool neither = std::isnan(first(a)) && std::isnan(first(b));
    return {a.starts() - b.starts(), a.heat.to_store - b.heat.to_store, neither ? 0.0 : first(a) - first(b)};
}

bool another_beginning(const Effect& e) { return std::isnan(e.first_later_s) || std::fabs(e.first_later_s) >= felt_s; }
bool felt(const Effect& e) { return e.starts != 0 || std::fabs(e.heat_j) >= felt_j || another_beginning(e); }

std::string words_of(const Effect& e, const Units& u)
{
    std::string s = e.starts != 0 ? signed_count(e.starts) : "";
    if (std::fabs(e.heat_j) >= felt_j)
        s += (s.empty() ? "" : ", ") + signed_energy(e.heat_j, u);
    if (another_beginning(e) && !std::isnan(e.first_later_s))
        s += (s.empty() ? "" : ", ") + std::string("first start ") + to_text(std::fabs(e.first_later_s), Quantity::minutes, u) + (e.first_later_s > 0 ? " later" : " earlier");
    return s.empty() && felt(e) ? "only one of them starts" : s;
}

} // namespace

std::vector<VariantChange> changes_between(const Job& job, std::size_t mine_at, std::size_t other_at, const Units& units)
{
    const Variant &mine = job.variants[mine_at], &other = job.variants[other_at];
    std::vector<VariantChange> out;
    if (mine.loop.answers != other.loop.answers)
        return {{"another arrangement", [v = mine](Variant& x) { x = v; }}};
    const Told words = told(job, mine_at, other_at, units);
    add_rules(out, mine, other, words);
    add_parts(out, mine, other, words);
    add_probes(out, mine, other, words);
    add_unit(out, mine, other);
    if (mine.horizon != other.horizon)
        out.push_back({"another horizon", [line = mine.horizon](Variant& v) { v.horizon = line; }});
    return out;
}

Result<VariantDifference> difference_between(const Job& job, std::size_t mine, std::size_t other, const Day& day, const Units& units, std::stop_token stop)
{
    const Error failed{"this day cannot be run for both variants", "", "Choose a generated day"};
    const auto a = figures_only(job, job.variants[mine], day, stop), b = figures_only(job, job.variants[other], day, stop);
    if (!a || !b)
        return failed;
    VariantDifference out{effect_of(*a, *b), changes_between(job, mine, other, units)};
    for (VariantChange& c : out.changes) {
        Variant alone = job.variants[other];
        c.apply(alone);
        const auto f = figures_only(job, alone, day, stop);
        if (!f)
            return failed;
        c.effect = effect_of(*f, *b);
    }
    // A start counts as much as a tenth of a kilowatt-hour here: only the order hangs on it.
    const auto weight = [](const VariantChange& c) { return std::abs(c.effect.starts) + std::fabs(c.effect.heat_j) / 3.6e5; };
    std::stable_sort(out.changes.begin(), out.changes.end(), [&](const VariantChange& x, const VariantChange& y) { return weight(x) > weight(y); });
    return out;
}

std::string difference_text(const VariantDifference& d, const std::string& mine, const std::string& other, const Units& u)
{
    if (d.changes.empty())
        return mine + " and " + other + " have the same settings.";
    const std::string whole = words_of(d.effect, u);
    std::string s = whole.empty() ? "On this day " + mine + " does as " + other + " in starts and heat." : mine + " against " + other + ": " + whole + ".";
    std::size_t idle = 0, told = 0;
    for (const VariantChange& c : d.changes)
        if (!felt(c.effect))
            ++idle;
        else if (++told <= told_changes)
            s += " " + c.what + (d.changes.size() == 1 ? "." : ": alone " + words_of(c.effect, u) + ".");
    if (told > told_changes)
        s += " " + std::to_string(told - told_changes) + " more do something.";
    if (idle > 0)
        s += idle == 1 ? " One more change does nothing today: " + d.changes.back().what + "." : " " + std::to_string(idle) + " more changes do nothing today.";
    return s;
}

} // namespace vernal
