// Which arrangement of the unit fits the loop, and where each wire goes.
#include "unit_lists.h"

#include <algorithm>
#include <set>

namespace vernal {
namespace {

struct Wanted {
    std::string role, words; // words: "S1 Collector"
    bool output = false;
};

std::string role_of_output(const Variant& v, std::size_t output)
{
    const Output& o = v.unit.outputs[output];
    switch (o.drives) {
    case Drives::element: return "element";
    case Drives::drain_valve: return "drain_valve";
    case Drives::check_valve: return "check_valve";
    case Drives::other: return "other";
    case Drives::loop: break;
    }
    const auto& drivers = arrangement_of(v.loop).drivers;
    const Driver d = output < drivers.size() ? drivers[output] : Driver::nothing;
    return d == Driver::nothing ? "other" : driver_roles[static_cast<std::size_t>(d)];
}

// A probe that no rule in use reads needs no terminal, but takes one where there is one.
std::set<std::string> read_by_rules(const Variant& v)
{
    std::set<std::string> out;
    for (Rule r : v.unit.rules)
        if (r.enabled)
            for (const KeyOf& k : keys_of(r))
                if (k.of == KeyOf::Of::probe && !k.key->empty())
                    out.insert(*k.key);
    return out;
}

std::vector<Wanted> wanted_by(const Variant& v, bool idle_too)
{
    std::vector<Wanted> out;
    const auto read = read_by_rules(v);
    for (const Probe& p : v.probes)
        if (idle_too || read.contains(p.key))
            out.push_back({place_key(p.place), p.key + " " + p.name, false});
    for (std::size_t o = 0; o < v.unit.outputs.size(); ++o)
        out.push_back({role_of_output(v, o), v.unit.outputs[o].key + " " + v.unit.outputs[o].name, true});
    return out;
}

// Each taken once.
std::vector<std::string> missing_in(const SheetArrangement& a, const std::vector<Wanted>& wanted)
{
    std::multiset<std::string> has;
    for (const SheetRole& r : a.roles)
        has.insert(r.role);
    std::vector<std::string> out;
    for (const Wanted& w : wanted)
        if (const auto it = has.find(w.role); it != has.end())
            has.erase(it);
        else
            out.push_back(w.words);
    return out;
}

std::string pole_note(Pole p)
{
    switch (p) {
    case Pole::live: return "switches the live wire only";
    case Pole::neutral: return "switches the neutral: the load stays live while it is off";
    case Pole::both: return "switches both poles";
    case Pole::plus: return "switches the plus";
    case Pole::minus: return "switches the minus: the plus stays on the load while it is off";
    case Pole::dry: return "a dry contact: the load needs a feed and a fuse of its own through it";
    case Pole::none: break;
    }
    return {};
}

// What the loop has for a terminal that is neither a probe's nor an output's; empty: nothing.
std::string feeds(TerminalIs is, const Loop& loop)
{
    const PoweredBy by = arrangement_of(loop).answers.power;
    switch (is) {
    case TerminalIs::supply: return by == PoweredBy::mains || loop.wiring.unit_feed == UnitFeed::mains ? "mains" : "";
    case TerminalIs::panel: return by == PoweredBy::panel || by == PoweredBy::battery ? "panel" : "";
    case TerminalIs::battery: return by == PoweredBy::battery ? "battery" : "";
    case TerminalIs::earth: return "earth";
    default: return {};
    }
}

std::string terminal_note(const SheetTerminal& t)
{
    std::string out = t.is == TerminalIs::output ? pole_note(t.switches) : "";
    if (t.is == TerminalIs::shield)
        out = "the shield, at this end only";
    if (!t.note.empty())
        out += (out.empty() ? "" : "; ") + t.note;
    return out;
}

} // namespace

SheetFit fit_of(const UnitSheet& sheet, const Variant& v)
{
    SheetFit best;
    bool any = false;
    std::size_t least = 0, spare = 0;
    const auto wanted = wanted_by(v, false);
    for (std::size_t i = 0; i < sheet.arrangements.size(); ++i) {
        const SheetArrangement& a = sheet.arrangements[i];
        auto missing = missing_in(a, wanted);
        const std::size_t left = a.roles.size();
        if (any && (missing.size() > least || (missing.size() == least && left >= spare)))
            continue; // of those that fit the one with the fewest terminals left over
        any = true;
        least = missing.size();
        spare = left;
        best.arrangement = missing.empty() ? static_cast<int>(i) : -1;
        best.missing = std::move(missing);
    }
    if (!any)
        for (const Wanted& w : wanted)
            best.missing.push_back(w.words);
    return best;
}

std::vector<WiringLine> wiring_list(const UnitSheet& sheet, const Variant& v)
{
    const SheetFit fit = fit_of(sheet, v);
    std::vector<SheetRole> roles;
    if (fit.fits())
        roles = sheet.arrangements[static_cast<std::size_t>(fit.arrangement)].roles;
    std::vector<Wanted> wanted = wanted_by(v, true);
    // What rules read comes before what is only looked at.
    const auto read = read_by_rules(v);
    std::stable_partition(wanted.begin(), wanted.end(), [&](const Wanted& w) { return w.output || read.contains(w.words.substr(0, w.words.find(' '))); });
    std::vector<WiringLine> out;
    for (const SheetTerminal& t : sheet.terminals) {
        WiringLine line{t.label, {}, terminal_note(t), t.is};
        for (const SheetRole& r : roles)
            if (r.terminal == t.label) {
                const auto it = std::find_if(wanted.begin(), wanted.end(), [&](const Wanted& w) { return w.role == r.role; });
                if (it != wanted.end()) {
                    line.goes = it->words;
                    wanted.erase(it);
                    break;
                }
            }
        if (line.goes.empty())
            line.goes = feeds(t.is, v.loop);
        out.push_back(std::move(line));
    }
    for (const Wanted& w : wanted)
        out.push_back({"", w.words, w.output ? "no terminal drives it" : "no terminal reads it", w.output ? TerminalIs::output : TerminalIs::probe});
    return out;
}

} // namespace vernal
