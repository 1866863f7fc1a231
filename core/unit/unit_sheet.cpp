#include "unit_sheet.h"

#include "core/job/field_lists.h"
#include "sheet_value.h"

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <set>

namespace vernal {
namespace {

std::string entry(const char* list, std::size_t i) { return std::string(list) + "[" + std::to_string(i) + "]"; }

bool is_role(const std::string& role)
{
    const auto in = [&](const auto& keys) { return std::any_of(keys.begin(), keys.end(), [&](const char* k) { return role == k; }); };
    return in(place_keys) || in(driver_roles);
}

std::string any(const auto& keys)
{
    std::string out;
    for (const char* k : keys)
        out += (out.empty() ? "" : ", ") + std::string(k);
    return out;
}

std::string kinds_text()
{
    std::string out;
    for (const RuleKind& k : rule_kinds())
        out += (out.empty() ? "" : ", ") + std::string(k.key);
    return out;
}

template <std::size_t I = 0>
RuleBody body_at(std::size_t index)
{
    if constexpr (I < std::variant_size_v<RuleBody>)
        return index == I ? RuleBody(std::in_place_index<I>) : body_at<I + 1>(index);
    else
        return {};
}

std::vector<NumberField> fields_of(const std::string& kind)
{
    std::vector<NumberField> out;
    for (std::size_t i = 0; i < rule_kinds().size(); ++i)
        if (kind == rule_kinds()[i].key) {
            const RuleBody body = body_at(i);
            std::visit([&](const auto& b) {
                for (const auto& [field, value] : number_fields(b))
                    out.push_back(field);
            },
                body);
        }
    return out;
}

std::optional<JobProblem> problem_of(const SheetSetting& s, const std::string& at)
{
    if (!is_rule_kind(s.rule))
        return JobProblem{at + ".rule", "“" + s.rule + "” is no kind of rule", "One of " + kinds_text()};
    if (s.field.empty())
        return {};
    const auto field = rule_field(s.rule, s.field);
    if (!field) {
        std::string all;
        for (const NumberField& f : fields_of(s.rule))
            all += (all.empty() ? "" : ", ") + std::string(f.key);
        return JobProblem{at + ".field", "“" + s.field + "” is no number of this rule", "One of " + all};
    }
    if (!sheet_unit(s.unit, field->quantity))
        return JobProblem{at + ".unit", "“" + s.unit + "” is no unit of “" + field->label + "”", "Such as " + (unit_name(field->quantity, {}).empty() ? std::string("none") : unit_name(field->quantity, {}))};
    if (!(s.low < s.high))
        return JobProblem{at + ".high", "its range is empty", "high stands above low"};
    if (s.has_preset && (s.preset < s.low || s.preset > s.high))
        return JobProblem{at + ".preset", "what it leaves the factory with lies outside of its range", "A value from low to high"};
    return {};
}

} // namespace

bool is_rule_kind(const std::string& kind)
{
    return std::any_of(rule_kinds().begin(), rule_kinds().end(), [&](const RuleKind& k) { return kind == k.key; });
}

std::optional<NumberField> rule_field(const std::string& kind, const std::string& field)
{
    for (const NumberField& f : fields_of(kind))
        if (field == f.key)
            return f;
    return {};
}

std::optional<SheetUnit> sheet_unit(const std::string& unit, Quantity q)
{
    // A time can be stated in any of its units, whatever the window shows it in.
    const double of_second = unit == "s" ? 1 : unit == "min" ? 60
                                           : unit == "h"     ? 3600
                                                             : 0;
    if (of_second > 0 && (q == Quantity::duration || q == Quantity::minutes))
        return SheetUnit{0, of_second};
    const std::string behind = unit.empty() ? "" : " " + unit;
    const auto zero = parse("0" + behind, q, {}), one = parse("1" + behind, q, {});
    if (!zero || !one)
        return {};
    if (unit.empty() && !unit_name(q, {}).empty())
        return {};
    return SheetUnit{*zero, *one - *zero};
}

std::string sheet_text(const SheetSetting& s, double value)
{
    int decimals = 0;
    for (double step = s.step > 0 ? s.step : 0.1; decimals < 4 && std::fabs(step - std::round(step)) > 1e-9; step *= 10)
        ++decimals;
    char b[64];
    std::snprintf(b, sizeof b, "%.*f", decimals, value);
    return std::string(b) + (s.unit.empty() ? "" : " " + s.unit);
}

double nearest_of(const SheetSetting& s, double value)
{
    const double in = std::clamp(value, s.low, s.high);
    if (s.step <= 0)
        return in;
    const bool limit = s.field == "limit_c", low_is_safe = limit && (s.rule == "store_limit" || s.rule == "cut_out" || s.rule == "mixing_limit" || s.rule == "divert"), high_is_safe = limit && (s.rule == "freeze" || s.rule == "drain_down");
    constexpr double hair = 1e-6; // of a step: what was meant to be on it is on it
    const double steps = (in - s.low) / s.step, whole = low_is_safe ? std::floor(steps + hair) : high_is_safe ? std::ceil(steps - hair)
                                                                                                              : std::round(steps);
    return std::clamp(s.low + whole * s.step, s.low, s.high);
}

// A unit with either scale steps in its own degrees: the range is kept, its step stays the number it is.
SheetSetting in_fahrenheit(const SheetSetting& s)
{
    SheetSetting out = s;
    const bool temperature = s.unit == "°C", difference = s.unit == "K";
    if (!temperature && !difference)
        return s;
    const double add = temperature ? 32 : 0;
    for (double* x : {&out.low, &out.high, &out.preset})
        *x = std::round(1.8 * *x + add);
    out.unit = "°F";
    out.step = s.step > 0 ? std::max(1.0, std::round(s.step)) : 0;
    return out;
}

std::optional<JobProblem> sheet_problem(const UnitSheet& sheet)
{
    if (sheet.name.empty())
        return JobProblem{"name", "the sheet has no name", "As the unit is called"};
    std::set<std::string> labels;
    for (std::size_t i = 0; i < sheet.terminals.size(); ++i) {
        const SheetTerminal& t = sheet.terminals[i];
        if (t.label.empty() || !labels.insert(t.label).second)
            return JobProblem{entry("terminals", i) + ".label", t.label.empty() ? "the terminal has no label" : "the terminal “" + t.label + "” is there twice", "What is printed at it"};
    }
    std::set<std::string> numbers;
    for (std::size_t i = 0; i < sheet.arrangements.size(); ++i) {
        const SheetArrangement& a = sheet.arrangements[i];
        const std::string at = entry("arrangements", i);
        if (a.number.empty() || !numbers.insert(a.number).second)
            return JobProblem{at + ".number", a.number.empty() ? "the arrangement has no number" : "the arrangement “" + a.number + "” is there twice", "As the unit counts them"};
        for (std::size_t r = 0; r < a.roles.size(); ++r) {
            if (!labels.contains(a.roles[r].terminal))
                return JobProblem{at + ".roles[" + std::to_string(r) + "].terminal", "there is no terminal “" + a.roles[r].terminal + "”", "A label of the list of terminals"};
            if (!is_role(a.roles[r].role))
                return JobProblem{at + ".roles[" + std::to_string(r) + "].role", "“" + a.roles[r].role + "” is no role", "A place of a probe (" + any(place_keys) + ") or what an output drives (" + any(driver_roles) + ")"};
        }
    }
    for (std::size_t i = 0; i < sheet.settings.size(); ++i)
        if (const auto problem = problem_of(sheet.settings[i], entry("settings", i)))
            return problem;
    for (std::size_t i = 0; i < sheet.shared.size(); ++i)
        if (!labels.contains(sheet.shared[i].terminal))
            return JobProblem{entry("shared", i) + ".terminal", "there is no terminal “" + sheet.shared[i].terminal + "”", "A label of the list of terminals"};
    return {};
}

} // namespace vernal
