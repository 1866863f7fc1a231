// What lamps say, which presets do harm, and what another unit in a dead one's place would lose.
#include "sheet_value.h"
#include "unit_lists.h"

#include "core/job/field_path.h"

#include <algorithm>
#include <set>

namespace vernal {
namespace {

struct SaysText {
    const char *thinks, *next;
};
// By LampSays.
constexpr std::array<SaysText, says_keys.size()> says_texts{{{"nothing that is on the sheet", "Look it up in the maker's manual and put it on the sheet"},
    {"it has power", "Nothing to test"},
    {"its output is on", "Is what it drives turning? “Pump seized, or free”, “Flow by bucket, rise and heat”"},
    {"a probe is open", "Unplug it and measure: no ohms is a broken lead or probe. “Probe broken, probe shorted”"},
    {"a probe is shorted", "Unplug it and measure: next to no ohms is a squeezed or wet lead. “Probe broken, probe shorted”"},
    {"the store is at its limit", "Is it as hot as that? A second thermometer at the probe, then “Limit of the store”"},
    {"the array is over its cut-out", "Cover it or wait for the evening; nothing is opened. Then “Cut-out of the collector”"},
    {"the supply is low", "Volts at its terminals, at rest and while the pump starts. “Low voltage, with the turn-down card”"},
    {"it guards against frost", "How cold is the air, how cold the probe? “Freeze protection”"},
    {"a switch stands on ON or OFF", "“Before leaving, every switch on AUTO”"}}};

const SheetTerminal* terminal_of(const UnitSheet& sheet, const Variant& v, const std::string& output)
{
    for (const WiringLine& l : wiring_list(sheet, v))
        if (l.goes.starts_with(output + " "))
            for (const SheetTerminal& t : sheet.terminals)
                if (t.label == l.terminal)
                    return &t;
    return nullptr;
}

} // namespace

std::vector<LampReading> read_lamps(const UnitSheet& sheet, const std::vector<LampSeen>& seen)
{
    std::vector<LampReading> out;
    for (const LampSeen& s : seen) {
        const auto it = std::find_if(sheet.lamps.begin(), sheet.lamps.end(), [&](const SheetLamp& l) { return l.lamp == s.lamp && l.pattern == s.pattern; });
        if (it == sheet.lamps.end()) {
            out.push_back({s.lamp, std::string("the sheet does not know it ") + pattern_keys[static_cast<std::size_t>(s.pattern)], says_texts[0].next});
            continue;
        }
        const SaysText& t = says_texts[static_cast<std::size_t>(it->says)];
        out.push_back({s.lamp, it->words.empty() ? t.thinks : it->words + (it->says == LampSays::nothing ? "" : std::string(": ") + t.thinks), t.next});
    }
    return out;
}

std::vector<WrongPreset> wrong_presets(const UnitSheet& sheet, const Job& job, std::size_t variant)
{
    const auto found_in = [&](const Job& j) { return findings({j, j.variants[variant], nullptr, {}}); };
    std::set<std::string> before;
    for (const Finding& f : found_in(job))
        before.insert(f.kind + (" " + f.at));
    std::vector<WrongPreset> out;
    for (const SheetSetting& s : sheet.settings) {
        if (!s.has_preset || s.field.empty())
            continue;
        int nth = 0;
        for (const Rule& r : job.variants[variant].unit.rules) {
            if (!r.enabled || kind_of(r).key != s.rule || ++nth != s.nth)
                continue;
            const auto field = rule_field(s.rule, s.field);
            const auto unit = field ? sheet_unit(s.unit, field->quantity) : std::nullopt;
            Job left = job;
            if (!unit || !set_setting(left, variant, "rule/" + r.id + "/" + s.field, std::clamp(unit->from + unit->times * s.preset, field->min, field->max)))
                continue;
            WrongPreset wrong{s.name.empty() ? field->label : s.name, sheet_text(s, s.preset), {}};
            for (Finding& f : found_in(left))
                if (f.severity != Severity::note && !before.contains(f.kind + (" " + f.at)))
                    wrong.found.push_back(std::move(f));
            if (!wrong.found.empty())
                out.push_back(std::move(wrong));
        }
    }
    return out;
}

std::vector<ReplacedLine> replaced(const UnitSheet& from, const UnitSheet& to, const Job& job, std::size_t variant)
{
    const Variant& v = job.variants[variant];
    std::vector<ReplacedLine> out;
    const SheetFit was = fit_of(from, v), is = fit_of(to, v);
    const auto number = [](const UnitSheet& s, const SheetFit& f) { return f.fits() ? "arrangement " + s.arrangements[static_cast<std::size_t>(f.arrangement)].number : std::string(); };
    if (was.fits() && number(from, was) != number(to, is))
        out.push_back({"Arrangement", number(from, was), number(to, is)});
    for (const Output& o : v.unit.outputs) {
        const SheetTerminal *a = terminal_of(from, v, o.key), *b = terminal_of(to, v, o.key);
        const auto words = [](const SheetTerminal* t) { return t ? "terminal " + t->label + ", switches " + pole_keys[static_cast<std::size_t>(t->switches)] : std::string(); };
        if (a && words(a) != words(b))
            out.push_back({o.key + " " + o.name, words(a), words(b)});
    }
    const auto before = key_list(from, job, variant), after = key_list(to, job, variant);
    for (const KeyLine& l : before) {
        if (l.at.empty() || l.is == KeyIs::lacking || l.is == KeyIs::no_such_setting)
            continue;
        const auto other = std::find_if(after.begin(), after.end(), [&](const KeyLine& n) { return n.at == l.at; }); // none: its whole rule is lacking
        const bool lost = other == after.end() || other->set.empty();
        const bool same = !lost && (other->set == l.set || (other->is == KeyIs::exact && l.is == KeyIs::exact)); // in either scale
        if (!same)
            out.push_back({l.name, l.set, lost ? std::string() : other->set});
    }
    return out;
}

} // namespace vernal
