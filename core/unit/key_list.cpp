// Key by key to this job's rules on this unit, with what it cannot be set to.
#include "sheet_value.h"
#include "unit_lists.h"

#include "core/job/field_path.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <map>
#include <set>

namespace vernal {
namespace {

// The setting for the nth rule of a kind; field empty: any of the kind.
const SheetSetting* setting_for(const UnitSheet& sheet, const std::string& kind, int nth, const std::string& field)
{
    for (const SheetSetting& s : sheet.settings)
        if (s.rule == kind && s.nth == nth && (field.empty() || s.field == field))
            return &s;
    return nullptr;
}

bool in_list(const std::string& list, const std::string& word)
{
    std::size_t at = 0;
    while (at <= list.size()) {
        const std::size_t end = std::min(list.find(',', at), list.size());
        std::string one = list.substr(at, end - at);
        one.erase(0, one.find_first_not_of(' '));
        one.erase(one.find_last_not_of(' ') + 1);
        if (one == word)
            return true;
        at = end + 1;
    }
    return false;
}

// What an output's terminal already does that it cannot do together with this.
std::string taken_by(const UnitSheet& sheet, const Variant& v, std::size_t rule)
{
    const Rule& r = v.unit.rules[rule];
    const std::string kind = kind_of(r).key;
    const auto lines = wiring_list(sheet, v);
    for (const SheetShared& s : sheet.shared) {
        const bool mine = std::any_of(lines.begin(), lines.end(), [&](const WiringLine& l) { return l.terminal == s.terminal && l.goes.starts_with(r.output + " "); });
        if (!mine || !in_list(s.rules, kind))
            continue;
        for (std::size_t other = 0; other < rule; ++other)
            if (const Rule& o = v.unit.rules[other]; o.enabled && o.output == r.output && kind_of(o).key != kind && in_list(s.rules, kind_of(o).key))
                return kind_of(o).title;
    }
    return {};
}

struct Made {
    std::vector<KeyLine> lines;
    Variant variant;
};

class Maker {
public:
    Maker(const UnitSheet& sheet, const Job& job, std::size_t variant, bool fahrenheit)
        : sheet_(sheet), job_(job), at_(variant), fahrenheit_(sheet.scale == SheetScale::fahrenheit || (sheet.scale == SheetScale::either && fahrenheit)) {}

    Made make()
    {
        head();
        const auto settings = settings_of(job_, at_);
        std::map<std::string, int> count;
        const Variant& v = job_.variants[at_];
        for (std::size_t r = 0; r < v.unit.rules.size(); ++r)
            if (v.unit.rules[r].enabled)
                rule(r, ++count[kind_of(v.unit.rules[r]).key], settings);
        return {std::move(lines_), job_.variants[at_]};
    }

private:
    void head()
    {
        if (sheet_.scale == SheetScale::either)
            lines_.push_back({KeyIs::scale, {}, "Units of measure", sheet_.scale_path, sheet_.scale_keys, fahrenheit_ ? "°F" : "°C", fahrenheit_ ? "°F" : "°C", "first of all: every figure below is in it"});
        else
            lines_.push_back({KeyIs::scale, {}, "Units of measure", {}, {}, fahrenheit_ ? "°F" : "°C", fahrenheit_ ? "°F" : "°C", "the unit knows no other"});
        const SheetFit fit = fit_of(sheet_, job_.variants[at_]);
        KeyLine line{fit.fits() ? KeyIs::arrangement : KeyIs::lacking, {}, "Arrangement", sheet_.arrangement_path, sheet_.arrangement_keys, {}, {}, {}};
        if (fit.fits()) {
            const SheetArrangement& a = sheet_.arrangements[static_cast<std::size_t>(fit.arrangement)];
            line.wanted = line.set = a.number;
            line.note = a.about;
        } else {
            line.note = "none of the unit's fits this loop; the closest has nothing for";
            for (const std::string& m : fit.missing)
                line.note += (m == fit.missing.front() ? " " : ", ") + m;
        }
        lines_.push_back(std::move(line));
    }

    void rule(std::size_t r, int nth, const std::vector<Setting>& settings)
    {
        const Rule rule = job_.variants[at_].unit.rules[r];
        const std::string kind = kind_of(rule).key, path = "rule/" + rule.id;
        const std::string taken = taken_by(sheet_, job_.variants[at_], r);
        const bool has = setting_for(sheet_, kind, nth, {}) != nullptr;
        if (!has || !taken.empty()) {
            lines_.push_back({KeyIs::lacking, path, kind_of(rule).title, {}, {}, "for " + rule.output, {}, !taken.empty() ? "its output does “" + taken + "” already, and can do one of the two" : nth > 1 ? "the unit has room for " + std::to_string(nth - 1) + " of them"
                                                                                                                                                                                                           : "the unit has no such rule"});
            job_.variants[at_].unit.rules[r].enabled = false;
            return;
        }
        bool any = false;
        for (const Setting& s : settings)
            if (s.numeric() && s.path.starts_with(path + "/"))
                any = number(s, kind, nth, s.path.substr(path.size() + 1)) || any;
        if (!any)
            lines_.push_back({KeyIs::exact, path, kind_of(rule).title, setting_for(sheet_, kind, nth, {})->path, setting_for(sheet_, kind, nth, {})->keys, "in use", "in use", "nothing of it is set"});
    }

    bool number(const Setting& s, const std::string& kind, int nth, const std::string& field)
    {
        const SheetSetting* found = setting_for(sheet_, kind, nth, field);
        double inside = 0;
        std::from_chars(s.value.data(), s.value.data() + s.value.size(), inside);
        if (!found) {
            if (setting_for(sheet_, kind, nth, {})->field.empty() || inside == 0) // 0: it does nothing
                return false;
            lines_.push_back({KeyIs::no_such_setting, s.path, s.label, {}, {}, to_text(inside, s.quantity, fahrenheit_ ? Units::us() : Units{}), {}, "not to be set on this unit: look up what it is made with"});
            return true;
        }
        const SheetSetting shown = sheet_.scale == SheetScale::either && fahrenheit_ ? in_fahrenheit(*found) : *found;
        const auto unit = sheet_unit(shown.unit, s.quantity);
        if (!unit)
            return false;
        const double wanted = (inside - unit->from) / unit->times, set = nearest_of(shown, wanted);
        const double small = 1e-6 * std::max(1.0, std::fabs(wanted));
        const bool exact = std::fabs(set - wanted) <= small;
        SheetSetting fine = shown;
        if (!exact)
            fine.step = std::min(fine.step > 0 ? fine.step : 0.1, 0.1); // so that what it misses is seen
        KeyLine line{exact ? KeyIs::exact : KeyIs::nearest, s.path, shown.name.empty() ? s.label : shown.name, shown.path, shown.keys, sheet_text(exact ? shown : fine, wanted), sheet_text(shown, set), {}};
        if (!exact)
            line.note = wanted < shown.low || wanted > shown.high ? "the unit goes from " + sheet_text(shown, shown.low) + " to " + sheet_text(shown, shown.high) : "in steps of " + sheet_text(shown, shown.step);
        lines_.push_back(std::move(line));
        if (!exact)
            set_setting(job_, at_, s.path, std::clamp(unit->from + unit->times * set, s.min, s.max));
        return true;
    }

    const UnitSheet& sheet_;
    Job job_; // its variant becomes what the unit is set to
    std::size_t at_;
    bool fahrenheit_;
    std::vector<KeyLine> lines_;
};

} // namespace

std::vector<KeyLine> key_list(const UnitSheet& sheet, const Job& job, std::size_t variant, bool fahrenheit) { return Maker(sheet, job, variant, fahrenheit).make().lines; }

Variant as_set(const UnitSheet& sheet, const Job& job, std::size_t variant, bool fahrenheit) { return Maker(sheet, job, variant, fahrenheit).make().variant; }

} // namespace vernal
