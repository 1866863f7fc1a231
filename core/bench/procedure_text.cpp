// The text of procedures: Markdown with a small front part (docs/procedures.md).
#include "procedure.h"

#include "core/units/exact_text.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <sstream>

namespace vernal {
namespace {

struct Bad {
    std::string what, expected;
};

std::string trimmed(const std::string& s)
{
    const auto first = s.find_first_not_of(" \t\r"), last = s.find_last_not_of(" \t\r");
    return first == std::string::npos ? std::string() : s.substr(first, last - first + 1);
}

// "a, b" and the like: what stands before the word, and behind it.
std::pair<std::string, std::string> parted(const std::string& s, const std::string& by)
{
    const auto at = s.find(by);
    return at == std::string::npos ? std::pair(trimmed(s), std::string()) : std::pair(trimmed(s.substr(0, at)), trimmed(s.substr(at + by.size())));
}

std::string any_of(const auto& keys)
{
    std::string out;
    for (const char* k : keys)
        out += (out.empty() ? "" : ", ") + std::string(k);
    return out;
}

std::string spaced(std::string key)
{
    std::replace(key.begin(), key.end(), '_', ' ');
    return key;
}

template <class T>
T key_in(const auto& keys, const std::string& word, const char* what)
{
    for (std::size_t i = 0; i < keys.size(); ++i)
        if (spaced(keys[i]) == word)
            return static_cast<T>(i);
    std::string all;
    for (const char* k : keys)
        all += (all.empty() ? "" : ", ") + spaced(k);
    throw Bad{"“" + word + "” is no " + what, all};
}

constexpr std::array level_keys{"", "set start", "set stop", "set limit", "set cut-out", "air", "under start", "over start", "over limit", "over cut-out", "as computed"};
constexpr std::array which_keys{"source", "store", "source and store", "all", "each", "others", "limit", "output"};
constexpr std::array mode_keys{"off", "auto", "on"};
constexpr std::array modes{Mode::off, Mode::automatic, Mode::on};
constexpr double longest_s = 7 * 86400.0;

// "45 °C", "0.5 K", "12.4 V", "60 W", "3"; any unit is only looked at by the line that has it.
double number_in(const std::string& word, const std::string& unit)
{
    std::string digits = word;
    if (!unit.empty() && digits.ends_with(unit))
        digits = trimmed(digits.substr(0, digits.size() - unit.size()));
    else if (!unit.empty())
        throw Bad{"“" + word + "” has not the unit " + unit, "a number and " + unit};
    double x = 0;
    const auto [end, error] = std::from_chars(digits.data(), digits.data() + digits.size(), x);
    if (error != std::errc() || end != digits.data() + digits.size() || !std::isfinite(x) || std::fabs(x) > 1e6)
        throw Bad{"“" + word + "” is no number", unit.empty() ? "a number" : "a number and " + unit};
    return x;
}

Level level_in(const std::string& word, const std::string& unit)
{
    for (std::size_t i = 1; i < level_keys.size(); ++i)
        if (word == level_keys[i])
            return {static_cast<Level::Of>(i), 0};
    return {Level::Of::number, number_in(word, unit)};
}

std::string level_text(const Level& l, const std::string& unit)
{
    return l.of == Level::Of::number ? exact_text(l.number) + (unit.empty() ? "" : " " + unit) : level_keys[static_cast<std::size_t>(l.of)];
}

double seconds_in(const std::string& word)
{
    const double s = word.ends_with("min") ? 60 * number_in(word, "min") : number_in(word, "s");
    if (s < 0 || s > longest_s)
        throw Bad{"“" + word + "” is no time to wait", "0 s to 10080 min"};
    return s;
}

std::string seconds_text(double s) { return exact_text(s) + " s"; }

Which which_in(const std::string& word)
{
    for (std::size_t i = 0; i < which_keys.size(); ++i)
        if (word == which_keys[i])
            return {static_cast<Which::Of>(i), {}};
    if (word.empty() || word.find_first_not_of("ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789_") != std::string::npos)
        throw Bad{"“" + word + "” is no probe and no output", any_of(which_keys) + ", or a key such as S1"};
    return {Which::Of::key, word};
}

std::string which_text(const Which& w) { return w.of == Which::Of::key ? w.key : which_keys[static_cast<std::size_t>(w.of)]; }

bool is_captured_name(const std::string& s)
{
    const bool plain = s.find_first_not_of("ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789 -") == std::string::npos;
    const std::string padded = " " + s + " ";
    return plain && s.size() <= 60 && padded.find(" near ") == std::string::npos && padded.find(" below ") == std::string::npos && padded.find(" above ") == std::string::npos;
}

// What was captured under a name in this step, for the unit of what is judged.
const char* unit_of(const std::vector<Line>& lines, const std::string& name)
{
    for (const Line& l : lines)
        if (l.verb == Act::capture && l.name == name)
            return unit_of(l.captured);
    throw Bad{"nothing is captured as “" + name + "” in this step", "a line “capture: " + name + " = …” before it"};
}

Line line_in(const std::string& verb, const std::string& rest, const std::vector<Line>& before)
{
    Line l;
    l.verb = key_in<Act>(act_keys, verb, "verb");
    switch (l.verb) {
    case Act::put: {
        const auto [which, medium] = parted(rest, " in ");
        l.which = which_in(which);
        const auto [name, level] = parted(medium, " at ");
        l.medium = key_in<Medium>(medium_keys, name, "medium");
        if (l.medium == Medium::resistor)
            l.level = level_in(level, "°C");
        else if (!level.empty())
            throw Bad{"only a resistor stands at something", "put: " + which + " in " + name};
        break;
    }
    case Act::block: {
        const auto [level, rate] = parted(rest, " at ");
        l.level = level_in(level, "°C");
        l.rate_k_min = rate.empty() ? 0 : number_in(rate, "K/min");
        if (l.rate_k_min < 0)
            throw Bad{"a block does not warm backwards", "a rate above 0"};
        break;
    }
    case Act::cup: l.level = level_in(rest, "°C"); break;
    case Act::lead: {
        const auto at = rest.rfind(' ');
        if (at == std::string::npos)
            throw Bad{"a lead has no state here", "lead: source broken"};
        l.which = which_in(trimmed(rest.substr(0, at)));
        l.lead = key_in<LeadState>(lead_keys, rest.substr(at + 1), "state of a lead");
        break;
    }
    case Act::turn: {
        const auto at = rest.rfind(' ');
        if (at == std::string::npos)
            throw Bad{"a switch has no position here", "switch: output on"};
        l.which = which_in(trimmed(rest.substr(0, at)));
        l.mode = modes[static_cast<std::size_t>(key_in<int>(mode_keys, rest.substr(at + 1), "position of a switch"))];
        break;
    }
    case Act::supply:
        l.as_it_stands = rest == "as it stands";
        if (!l.as_it_stands)
            l.level = {Level::Of::number, number_in(rest, "V")};
        break;
    case Act::wait:
        for (std::size_t i = 1; i < pause_keys.size(); ++i)
            if (rest == pause_keys[i])
                l.pause = static_cast<Pause>(i);
        if (l.pause == Pause::time)
            l.within_s = seconds_in(rest);
        break;
    case Act::await: {
        const auto [what, within] = parted(rest, ", within ");
        if (within.empty())
            throw Bad{"nothing says how long it is awaited", "await: output runs, within 20 min"};
        l.within_s = seconds_in(within);
        const auto [head, by] = parted(what, " by ");
        const auto at = head.rfind(' ');
        if (at == std::string::npos)
            throw Bad{"“" + what + "” is nothing to wait for", "output runs, source settled, each climbs by 3 K"};
        l.which = which_in(trimmed(head.substr(0, at)));
        l.awaited = key_in<Awaited>(awaited_keys, head.substr(at + 1), "thing to wait for");
        if (l.awaited == Awaited::climbs || l.awaited == Awaited::keeps)
            l.level = level_in(by, "K");
        else if (!by.empty())
            throw Bad{"only what climbs or keeps does so by something", "await: " + head + ", within …"};
        break;
    }
    case Act::capture: {
        const auto [name, what] = parted(rest, " = ");
        if (name.empty() || what.empty())
            throw Bad{"a capture has a name and a quantity", "capture: start = difference"};
        if (!is_captured_name(name))
            throw Bad{"“" + name + "” is no name of a capture", "letters, digits, blanks and “-”, without “near”, “below” and “above”"};
        l.name = name;
        const auto [quantity, of] = parted(what, " of ");
        l.captured = key_in<Captured>(captured_keys, quantity, "quantity");
        const bool alone = l.captured == Captured::difference || l.captured == Captured::media_difference || l.captured == Captured::rate;
        if (alone != of.empty())
            throw Bad{alone ? "“" + quantity + "” is of the pair" : "“" + quantity + "” of what?", alone ? quantity : quantity + " of source"};
        if (!alone)
            l.which = which_in(of);
        break;
    }
    case Act::judge: {
        for (const auto& [word, how] : {std::pair(" near ", Judged::near), std::pair(" below ", Judged::below), std::pair(" above ", Judged::above)})
            if (const auto [name, level] = parted(rest, word); !level.empty()) {
                const char* unit = unit_of(before, name);
                const auto [to, within] = parted(level, ", within ");
                l.name = name;
                l.judged = how;
                l.level = level_in(to, unit);
                if ((how == Judged::near) == within.empty())
                    throw Bad{how == Judged::near ? "nothing says how near" : "only what is near is within something", "judge: start near set start, within 0.5 K"};
                if (how == Judged::near)
                    l.tolerance = level_in(within, unit);
                return l;
            }
        throw Bad{"“" + rest + "” is no judgement", "judge: NAME near LEVEL, within LEVEL; judge: NAME below LEVEL; judge: NAME above LEVEL"};
    }
    }
    return l;
}

std::string line_text(const Line& l, const std::vector<Line>& all)
{
    const std::string head = std::string("- ") + act_keys[static_cast<std::size_t>(l.verb)] + ": ", which = which_text(l.which);
    switch (l.verb) {
    case Act::put: return head + which + " in " + spaced(medium_keys[static_cast<std::size_t>(l.medium)]) + (l.medium == Medium::resistor ? " at " + level_text(l.level, "°C") : "");
    case Act::block: return head + level_text(l.level, "°C") + (l.rate_k_min > 0 ? " at " + exact_text(l.rate_k_min) + " K/min" : "");
    case Act::cup: return head + level_text(l.level, "°C");
    case Act::lead: return head + which + " " + lead_keys[static_cast<std::size_t>(l.lead)];
    case Act::turn: return head + which + " " + mode_keys[static_cast<std::size_t>(std::find(modes.begin(), modes.end(), l.mode) - modes.begin())];
    case Act::supply: return head + (l.as_it_stands ? "as it stands" : level_text(l.level, "V"));
    case Act::wait: return head + (l.pause == Pause::time ? seconds_text(l.within_s) : pause_keys[static_cast<std::size_t>(l.pause)]);
    case Act::await: return head + which + " " + awaited_keys[static_cast<std::size_t>(l.awaited)] + (l.awaited == Awaited::climbs || l.awaited == Awaited::keeps ? " by " + level_text(l.level, "K") : "") + ", within " + seconds_text(l.within_s);
    case Act::capture: {
        const bool alone = l.captured == Captured::difference || l.captured == Captured::media_difference || l.captured == Captured::rate;
        return head + l.name + " = " + captured_keys[static_cast<std::size_t>(l.captured)] + (alone ? "" : " of " + which);
    }
    case Act::judge: {
        const char* unit = unit_of(all, l.name);
        constexpr std::array how{" near ", " below ", " above "};
        return head + l.name + how[static_cast<std::size_t>(l.judged)] + level_text(l.level, unit) + (l.judged == Judged::near ? ", within " + level_text(l.tolerance, unit) : "");
    }
    }
    return head;
}

bool is_name(const std::string& s) { return !s.empty() && s.size() <= 60 && s.find_first_not_of("abcdefghijklmnopqrstuvwxyz0123456789-") == std::string::npos; }

class Reader {
public:
    Procedure read(const std::string& text)
    {
        std::istringstream in(text);
        std::string raw;
        bool front = false, front_done = false;
        while (std::getline(in, raw)) {
            ++line_;
            const std::string s = trimmed(raw);
            if (!front && !front_done) {
                if (s != "---")
                    throw Bad{"the front part is missing", "a line “---”, then name, title and needs, then “---”"};
                front = true;
            } else if (front) {
                front_done = s == "---";
                front = !front_done;
                if (front && !s.empty())
                    take_front(s);
            } else {
                take(s);
            }
        }
        if (!front_done || out_.name.empty() || out_.title.empty())
            throw Bad{"the front part has no name or no title", "name: and title: between two lines “---”"};
        if (out_.steps.empty())
            throw Bad{"there is no step", "a line “## What to do”"};
        return std::move(out_);
    }
    std::size_t line() const { return line_; }

private:
    void take_front(const std::string& s)
    {
        const auto [key, value] = parted(s, ":");
        if (key == "name" && is_name(value))
            out_.name = value;
        else if (key == "name")
            throw Bad{"“" + value + "” is no name", "small letters, digits and “-”"};
        else if (key == "title")
            out_.title = value;
        else if (key == "needs")
            out_.needs = key_in<Needs>(needs_keys, value, "thing that is needed");
        else
            throw Bad{"“" + key + "” is not of the front part", "name, title, needs"};
    }

    void take(const std::string& s)
    {
        if (s.starts_with("## ")) {
            out_.steps.push_back({trimmed(s.substr(3)), {}, {}, 1, {}});
            if (out_.steps.back().title.empty())
                throw Bad{"the step has no title", "## What to do"};
        } else if (s.starts_with("#")) {
            throw Bad{"only steps have headings", "## What to do"};
        } else if (s.starts_with("-") && !out_.steps.empty()) {
            take_line(trimmed(s.substr(1)));
        } else if (!s.empty()) {
            std::string& to = out_.steps.empty() ? out_.text : out_.steps.back().text;
            to += (to.empty() ? "" : " ") + s;
        }
    }

    void take_line(const std::string& s)
    {
        ProcedureStep& step = out_.steps.back();
        const auto at = s.find(':');
        if (at == std::string::npos)
            throw Bad{"“" + s + "” has no verb", any_of(act_keys) + ", caution, passes"};
        const std::string verb = trimmed(s.substr(0, at)), rest = trimmed(s.substr(at + 1));
        if (verb == "caution") {
            step.caution = rest;
        } else if (verb == "passes") {
            const double n = number_in(rest, "");
            if (n < 1 || n > 20 || n != std::floor(n))
                throw Bad{"“" + rest + "” is no number of passes", "1 to 20"};
            step.passes = static_cast<int>(n);
        } else {
            step.lines.push_back(line_in(verb, rest, step.lines));
        }
    }

    Procedure out_;
    std::size_t line_ = 0;
};

} // namespace

const char* unit_of(Captured c)
{
    switch (c) {
    case Captured::reading: return "°C";
    case Captured::rate: return "K/min";
    case Captured::watt: return "W";
    case Captured::forced: return "";
    default: return "K";
    }
}

Result<Procedure> read_procedure(const std::string& text, const std::string& file)
{
    Reader r;
    try {
        return r.read(text);
    } catch (const Bad& b) {
        return Error{b.what, file + ", line " + std::to_string(r.line()), "Expected: " + b.expected};
    }
}

std::string write_procedure(const Procedure& p)
{
    std::string out = "---\nname: " + p.name + "\ntitle: " + p.title + "\nneeds: " + needs_keys[static_cast<std::size_t>(p.needs)] + "\n---\n";
    if (!p.text.empty())
        out += p.text + "\n";
    for (const ProcedureStep& s : p.steps) {
        out += "\n## " + s.title + "\n";
        if (!s.text.empty())
            out += s.text + "\n";
        out += "\n";
        if (!s.caution.empty())
            out += "- caution: " + s.caution + "\n";
        if (s.passes > 1)
            out += "- passes: " + std::to_string(s.passes) + "\n";
        for (const Line& l : s.lines)
            out += line_text(l, s.lines) + "\n";
    }
    return out;
}

} // namespace vernal
