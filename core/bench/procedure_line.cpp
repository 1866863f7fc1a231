// A line of a procedure, read and written.
#include "procedure_line.h"

#include "core/units/exact_text.h"

#include <algorithm>
#include <charconv>
#include <cmath>

namespace vernal::procedure_text {
namespace {

// unit: in which it can stand; empty: a number, *: any
struct LevelWord {
    const char *word, *unit;
};
constexpr std::array<LevelWord, 39> levels{{{"", "*"}, {"set start", "K"}, {"set stop", "K"}, {"set limit", "°C"}, {"set cut-out", "°C"}, {"air", "°C"}, {"under start", "°C"}, {"over start", "°C"}, {"over limit", "°C"}, {"over cut-out", "°C"}, {"just over start", "°C"}, {"under stop", "°C"}, {"set freeze", "°C"}, {"under freeze", "°C"}, {"over freeze", "°C"}, {"set cut", "V"}, {"set return", "V"}, {"under cut", "V"}, {"over return", "V"}, {"card step", "V"}, {"set flow", "L/min"}, {"set fill", "bar"}, {"set gas", "bar"}, {"set tap", "°C"}, {"set drain", "s"}, {"fill time", "s"}, {"least pitch", ""}, {"rated power", "W"}, {"pumps", ""}, {"first mark", ""}, {"middle mark", ""}, {"last mark", ""}, {"cool store", "°C"}, {"warm store", "°C"}, {"expected start", "K"}, {"expected stop", "K"}, {"a fifth of it", "*"}, {"a third of it", "*"}, {"as computed", "*"}}};
static_assert(levels.size() == static_cast<std::size_t>(Level::Of::as_computed) + 1);
constexpr std::array which_keys{"source", "store", "source and store", "all", "each", "others", "limit", "output", "freeze", "low voltage"};
constexpr std::array mode_keys{"off", "auto", "on"};
constexpr std::array modes{Mode::off, Mode::automatic, Mode::on};
constexpr double longest_s = 7 * 86400.0;

Level level_in(const std::string& word, const std::string& unit)
{
    for (std::size_t i = 1; i < levels.size(); ++i)
        if (word == levels[i].word) {
            if (levels[i].unit != std::string("*") && levels[i].unit != unit)
                throw Bad{"“" + word + "” is a level in " + (*levels[i].unit ? levels[i].unit : "plain numbers"), unit.empty() ? "a number" : "one in " + unit};
            return {static_cast<Level::Of>(i), 0};
        }
    return {Level::Of::number, number_in(word, unit)};
}

double rate_in(const std::string& word, const std::string& unit)
{
    const double rate = number_in(word, unit);
    if (rate < 0)
        throw Bad{"it does not go backwards", "a rate above 0"};
    return rate;
}

std::string level_text(const Level& l, const std::string& unit)
{
    return l.of == Level::Of::number ? exact_text(l.number) + (unit.empty() ? "" : " " + unit) : levels[static_cast<std::size_t>(l.of)].word;
}

double seconds_in(const std::string& word)
{
    const double s = word.ends_with("min") ? 60 * number_in(word, "min") : number_in(word, "s");
    if (s < 0 || s > longest_s)
        throw Bad{"“" + word + "” is no time to wait", "0 s to 10080 min"};
    return s;
}

std::string seconds_text(double s) { return exact_text(s) + " s"; }

ItemChoice which_in(const std::string& word)
{
    for (std::size_t i = 0; i < which_keys.size(); ++i)
        if (word == which_keys[i])
            return {static_cast<ItemChoice::Of>(i), {}};
    if (word.empty() || word.find_first_not_of("ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789_") != std::string::npos)
        throw Bad{"“" + word + "” is no probe and no output", any_of(which_keys) + ", or a key such as S1"};
    return {ItemChoice::Of::key, word};
}

std::string which_text(const ItemChoice& w) { return w.of == ItemChoice::Of::key ? w.key : which_keys[static_cast<std::size_t>(w.of)]; }

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
        if ((l.verb == Act::capture || l.verb == Act::read) && l.name == name)
            return vernal::unit_of(l.captured);
    throw Bad{"nothing is captured as “" + name + "” in this step", "a line “capture: " + name + " = …” before it"};
}

} // namespace

// "a, b" and the like: what stands before the word, and behind it.
std::pair<std::string, std::string> parted(const std::string& s, const std::string& by)
{
    const auto at = s.find(by);
    return at == std::string::npos ? std::pair(trimmed(s), std::string()) : std::pair(trimmed(s.substr(0, at)), trimmed(s.substr(at + by.size())));
}

bool is_name(const std::string& s) { return !s.empty() && s.size() <= 60 && s.find_first_not_of("abcdefghijklmnopqrstuvwxyz0123456789-") == std::string::npos; }

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
        l.rate_per_min = rate.empty() ? 0 : rate_in(rate, "K/min");
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
        if (const std::string by = "lower by "; rest.starts_with(by)) {
            l.lower = true;
            l.level = level_in(trimmed(rest.substr(by.size())), "V");
        } else if (l.as_it_stands = rest == "as it stands"; !l.as_it_stands) {
            const auto [level, rate] = parted(rest, " at ");
            l.level = level_in(level, "V");
            l.rate_per_min = rate.empty() ? 0 : rate_in(rate, "V/min");
        }
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
        for (std::size_t i = 0; i < awaited_keys.size(); ++i)
            if (what == std::string("loop ") + awaited_keys[i] && of_the_loop(static_cast<Awaited>(i))) {
                l.awaited = static_cast<Awaited>(i);
                return l;
            }
        const auto [head, by] = parted(what, " by ");
        const auto at = head.rfind(' ');
        if (at == std::string::npos)
            throw Bad{"“" + what + "” is nothing to wait for", "output runs, source settled, each climbs by 3 K"};
        l.which = which_in(trimmed(head.substr(0, at)));
        l.awaited = key_in<Awaited>(awaited_keys, head.substr(at + 1), "thing to wait for");
        if (of_the_loop(l.awaited))
            throw Bad{"only the loop " + head.substr(at + 1), std::string("await: loop ") + head.substr(at + 1)};
        if (l.awaited == Awaited::climbs || l.awaited == Awaited::keeps)
            l.level = level_in(by, "K");
        else if (!by.empty())
            throw Bad{"only what climbs or keeps does so by something", "await: " + head + ", within …"};
        break;
    }
    case Act::ask:
        if (rest.empty() || rest.size() > 120)
            throw Bad{"nothing is asked", any_of(fact_texts) + "; or a question of your own of at most 120 letters"};
        for (std::size_t i = 0; i < fact_texts.size(); ++i)
            if (rest == fact_texts[i])
                l.fact = static_cast<Fact>(i);
        if (l.fact == Fact::none)
            l.name = rest;
        break;
    case Act::knob: l.level = level_in(rest, ""); break;
    case Act::shade: {
        const auto [which, way] = parted(rest, " taken away");
        l.taken_away = rest.ends_with(" taken away");
        l.which = which_in(l.taken_away ? which : rest);
        break;
    }
    case Act::read:
    case Act::capture: {
        const auto [name, what] = parted(rest, " = ");
        if (name.empty() || what.empty())
            throw Bad{"a capture has a name and a quantity", "capture: start = difference"};
        if (!is_captured_name(name))
            throw Bad{"“" + name + "” is no name of a capture", "letters, digits, blanks and “-”, without “near”, “below” and “above”"};
        l.name = name;
        const auto [quantity, of] = parted(what, " of ");
        l.captured = key_in<Captured>(captured_keys, quantity, "quantity");
        if (l.captured == Captured::bucket) {
            l.litres = number_in(of, "L");
            if (l.litres <= 0 || l.verb != Act::read)
                throw Bad{"a bucket is read by a person and holds more than nothing", "read: flow = bucket of 10 L"};
            break;
        }
        const bool alone = !has_which(l.captured);
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
    case Act::block: return head + level_text(l.level, "°C") + (l.rate_per_min > 0 ? " at " + exact_text(l.rate_per_min) + " K/min" : "");
    case Act::cup: return head + level_text(l.level, "°C");
    case Act::lead: return head + which + " " + lead_keys[static_cast<std::size_t>(l.lead)];
    case Act::turn: return head + which + " " + mode_keys[static_cast<std::size_t>(std::find(modes.begin(), modes.end(), l.mode) - modes.begin())];
    case Act::supply: return head + (l.as_it_stands ? "as it stands" : (l.lower ? "lower by " : "") + level_text(l.level, "V") + (l.rate_per_min > 0 ? " at " + exact_text(l.rate_per_min) + " V/min" : ""));
    case Act::ask: return head + (l.fact == Fact::none ? l.name : fact_texts[static_cast<std::size_t>(l.fact)]);
    case Act::knob: return head + level_text(l.level, "");
    case Act::shade: return head + which + (l.taken_away ? " taken away" : "");
    case Act::wait: return head + (l.pause == Pause::time ? seconds_text(l.within_s) : pause_keys[static_cast<std::size_t>(l.pause)]);
    case Act::await: return head + (of_the_loop(l.awaited) ? "loop" : which) + " " + awaited_keys[static_cast<std::size_t>(l.awaited)] + (l.awaited == Awaited::climbs || l.awaited == Awaited::keeps ? " by " + level_text(l.level, "K") : "") + ", within " + seconds_text(l.within_s);
    case Act::read:
    case Act::capture: return head + l.name + " = " + captured_keys[static_cast<std::size_t>(l.captured)] + (l.captured == Captured::bucket ? " of " + exact_text(l.litres) + " L" : has_which(l.captured) ? " of " + which
                                                                                                                                                                                                           : "");
    case Act::judge: {
        const char* unit = unit_of(all, l.name);
        constexpr std::array how{" near ", " below ", " above "};
        return head + l.name + how[static_cast<std::size_t>(l.judged)] + level_text(l.level, unit) + (l.judged == Judged::near ? ", within " + level_text(l.tolerance, unit) : "");
    }
    }
    return head;
}

} // namespace vernal::procedure_text

namespace vernal {

const char* unit_of(Captured c)
{
    switch (c) {
    case Captured::reading:
    case Captured::tap: return "°C";
    case Captured::rate: return "K/min";
    case Captured::watt: return "W";
    case Captured::supply:
    case Captured::bridge: return "V";
    case Captured::speed: return "%";
    case Captured::time: return "s";
    case Captured::flow:
    case Captured::bucket: return "L/min";
    case Captured::heat: return "kW";
    case Captured::gauge:
    case Captured::cold_gauge:
    case Captured::gas: return "bar";
    case Captured::forced:
    case Captured::turning:
    case Captured::pitch: return "";
    case Captured::difference:
    case Captured::media_difference:
    case Captured::spread:
    case Captured::rise: break;
    }
    return "K";
}

} // namespace vernal
