#include "dictation.h"

#include "core/job/field_range.h"
#include "core/units/ascii.h"
#include "core/units/calendar.h"
#include "core/units/exact_text.h"
#include "reading_kind.h"
#include "spoken.h"

#include <algorithm>
#include <cmath>
#include <sstream>

namespace vernal {
namespace {

using Words = std::vector<std::string>;

struct Unclear {
    Error error;
};
[[noreturn]] void refuse(std::string what, std::string remedy = "") { throw Unclear{{std::move(what), "", std::move(remedy)}}; }

// "|" parts an entry, so it stands behind "\" in a text, as does "\" and the end of a line.
std::string escaped(const std::string& s)
{
    std::string out;
    for (const char c : s)
        out += c == '\n' ? "\\n" : c == '|' ? "\\|"
                               : c == '\\'  ? "\\\\"
                                            : std::string(1, c);
    return out;
}

std::vector<std::string> parts_of(const std::string& s)
{
    std::vector<std::string> out(1);
    for (std::size_t i = 0; i < s.size(); ++i)
        if (s[i] == '\\' && i + 1 < s.size())
            out.back() += s[++i] == 'n' ? '\n' : s[i];
        else if (s[i] == '|')
            out.emplace_back();
        else
            out.back() += s[i];
    for (std::string& p : out)
        p = trimmed(p);
    return out;
}

// The rest of `s` where it begins with `head` and something else follows.
std::optional<std::string> after(const std::string& s, const std::string& head)
{
    if (!lower_ascii(s).starts_with(lower_ascii(head)) || (s.size() > head.size() && s[head.size()] != ' '))
        return {};
    return trimmed(s.substr(head.size()));
}

double value_in(const std::string& text, Quantity q, const Units& units)
{
    const auto v = parse_exact(text, q, units);
    if (!v)
        refuse(v.error().what, v.error().remedy);
    return *v;
}

// "by the gauge", "at 11:40" behind a reading.
void take_tail(std::string& main, VisitReading& r)
{
    constexpr std::size_t clock_size = 5;
    const auto is_clock = [](const std::string& s) { return s.size() == clock_size && is_moment("2000-01-01T" + s); };
    if (const auto at = main.rfind(", at "); at != std::string::npos && is_clock(main.substr(at + 5))) {
        r.time = main.substr(at + 5);
        main.resize(at);
    }
    if (const auto by = main.find(", by "); by != std::string::npos) {
        r.how = trimmed(main.substr(by + 5));
        main = trimmed(main.substr(0, by));
    }
}

void take_value(std::string main, const ReadingKind& k, VisitReading& r, const Units& units)
{
    if (k.with_temperature)
        if (const auto at = main.find(" at "); at != std::string::npos) {
            r.at_c = value_in(trimmed(main.substr(at + 4)), Quantity::temperature, units);
            r.with_temperature = true;
            main = trimmed(main.substr(0, at));
        }
    r.value = value_in(main, k.quantity, units);
    if (r.value < k.min || r.value > k.max)
        refuse("“" + main + "” is not possible here", "Between " + to_text(k.min, k.quantity, units) + " and " + to_text(k.max, k.quantity, units));
}

void put_reading(Visit& visit, const VisitReading& r)
{
    const auto same = [&](const VisitReading& x) { return x.kind == r.kind && x.of == r.of && x.time == r.time; };
    if (const auto it = std::find_if(visit.readings.begin(), visit.readings.end(), same); it != visit.readings.end())
        *it = r;
    else
        visit.readings.push_back(r);
}

// "bucket 8 L 61 s 60 s": the mean of the times.
std::optional<VisitReading> bucket(const std::string& line)
{
    const auto rest = after(line, "bucket");
    if (!rest)
        return {};
    std::istringstream in(*rest);
    Words words;
    for (std::string w; in >> w;)
        words.push_back(w);
    const auto number = [](const std::string& s) {
        const auto v = parse(s, Quantity::number, Units::metric());
        return v && *v > 0 ? *v : NAN;
    };
    const char* usage = "A content and the seconds it took, “bucket 8 L 61 s”, further times behind it";
    if (words.size() < 3)
        refuse("the bucket's content or its time is missing", usage);
    const auto content = parse(words[0] + " " + words[1], Quantity::volume, Units::metric());
    if (!content || *content <= 0)
        refuse("“" + words[0] + " " + words[1] + "” is no content of a bucket", usage);
    double sum = 0;
    int n = 0;
    std::string times;
    for (std::size_t i = 2; i < words.size(); ++i) {
        if (words[i] == "s")
            continue;
        const std::string w = words[i].ends_with("s") ? words[i].substr(0, words[i].size() - 1) : words[i];
        const double t = number(w);
        if (std::isnan(t))
            refuse("“" + words[i] + "” is no time in seconds", usage);
        sum += t;
        times += (n++ > 0 ? ", " : "") + w;
    }
    if (n == 0)
        refuse("the time is missing", usage);
    VisitReading r;
    r.kind = "flow";
    r.value = *content / (sum / n);
    r.how = "bucket, " + words[0] + " " + words[1] + " in " + times + " s";
    return r;
}

// What can stand behind the number, of a probe or an output.
std::string units_of(const Variant& v, const std::string& of)
{
    const bool output = std::any_of(v.unit.outputs.begin(), v.unit.outputs.end(), [&](const Output& o) { return o.key == of; });
    return output ? "Behind the number: A (amps), W (watts), h (hours) or starts" : of.find(' ') != std::string::npos ? "Behind the number: K or °F"
                                                                                                                      : "Behind the number: ohm, °C or °F";
}

std::optional<std::string> take_reading(Visit& visit, const std::string& line, const Variant& v, const Units& units)
{
    std::string main = line;
    VisitReading r;
    take_tail(main, r);
    if (auto b = bucket(main)) {
        b->time = r.time;
        if (!is_asked(v, *b))
            refuse("this loop has no flow that a bucket could take");
        put_reading(visit, *b);
        return reading_label(*find_reading_kind("flow"), "", &v) + " " + reading_text(*b, units);
    }
    std::optional<Unclear> near;
    for (const AskedReading& a : asked_readings(v)) {
        const std::string head = a.of.empty() ? a.kind->said : a.of;
        auto rest = after(main, head);
        if (!rest || rest->empty())
            continue;
        // Of a probe or an output what is meant is told by the unit behind the number, or by a word.
        if (!a.of.empty() && *a.kind->said != '\0') {
            std::string value = *rest;
            if (!lower_ascii(value).ends_with(a.kind->said) && !after(value, a.kind->said))
                continue;
            value = lower_ascii(value).ends_with(a.kind->said) ? trimmed(value.substr(0, value.size() - std::string(a.kind->said).size())) : *after(value, a.kind->said);
            rest = value;
        } else if (!a.of.empty() && !rest->starts_with("=") && rest->find_first_not_of("0123456789.,-+ −") == std::string::npos) {
            near = Unclear{{"“" + *rest + "” of " + a.of + " has no unit", "", units_of(v, a.of)}};
            continue;
        }
        try {
            VisitReading one = r;
            one.kind = a.kind->key;
            one.of = a.of;
            if (!a.of.empty() && rest->starts_with("=")) { // "=0.1 ohm": whose, of one thing, its kind says
                const auto space = rest->find(' ');
                if (space == std::string::npos || trimmed(rest->substr(space)) != a.kind->key)
                    continue;
                *rest = rest->substr(0, space);
            }
            take_value(*rest, *a.kind, one, units);
            put_reading(visit, one);
            return reading_label(*a.kind, a.of, &v) + " " + reading_text(one, units);
        } catch (Unclear& e) {
            if (!a.of.empty() && e.error.remedy.ends_with("leave the unit out"))
                e.error.remedy = units_of(v, a.of);
            if (!near)
                near = e;
        }
    }
    if (near)
        throw Unclear(*near);
    return {};
}

double number_behind(const std::string& part, const std::string& head, const std::string& unit)
{
    std::string s = trimmed(part.substr(head.size()));
    if (!unit.empty() && s.ends_with(unit))
        s = trimmed(s.substr(0, s.size() - unit.size()));
    const auto v = parse(s, Quantity::number, Units::metric());
    if (!v || *v < 0)
        refuse("“" + part + "” holds no number");
    return *v;
}

VisitWork work_in(const Words& parts)
{
    VisitWork w;
    w.text = parts[0];
    for (std::size_t i = 1; i < parts.size(); ++i) {
        const std::string& p = parts[i];
        if (p.empty())
            continue;
        if (p.starts_with("part "))
            w.part = trimmed(p.substr(5));
        else if (p.starts_with("cost "))
            w.cost = number_behind(p, "cost", "");
        else if (p.starts_with("after ") && p.ends_with("starts"))
            w.after_starts = number_behind(p, "after", "starts");
        else if (p.starts_with("after "))
            w.after_h = number_behind(p, "after", "h");
        else if (p.starts_with("lasts "))
            w.expected_years = number_behind(p, "lasts", "years");
        else if (p.starts_with("at "))
            w.of = trimmed(p.substr(3));
        else if (p.starts_with("does "))
            w.does.push_back(trimmed(p.substr(5)));
        else if (p.ends_with("min"))
            w.minutes_s = 60 * number_behind(p, "", "min");
        else
            refuse("“" + p + "” does not belong to what was done", "20 min, part NAME, cost 84, after 9140 h, after 31200 starts, lasts 10 years, at P1, does FLUID");
    }
    if (const auto beyond = beyond_range(w))
        refuse(*beyond);
    return w;
}

// What is said behind the words without a bar: "cleaned the strainer at P1, 40 min, cost 12".
Words said_parts(std::string text, const Variant& v)
{
    Words tails;
    for (;;) {
        SpokenTail t = spoken_minutes(text);
        if (const std::size_t at = text.rfind(", cost "); t.tail.empty() && at != std::string::npos && parse(text.substr(at + 7), Quantity::number, Units::metric()))
            t = {text.substr(0, at), text.substr(at + 2)};
        if (t.tail.empty())
            t = spoken_place(text, v);
        if (t.tail.empty() || t.text.empty())
            break;
        text = t.text;
        tails.push_back(t.tail);
    }
    tails.insert(tails.begin(), text);
    return tails;
}

// An empty part behind a text that would be read as more than text.
std::string guarded(const std::string& text)
{
    const bool more = !spoken_minutes(text).tail.empty() || text.find(" at ") != std::string::npos || text.find(", cost ") != std::string::npos || !spoken_due(text, true).tail.empty() || !spoken_due(text, false).tail.empty();
    return more ? " |" : "";
}

std::string work_line(const VisitWork& w)
{
    std::string out = "done: " + escaped(w.text);
    const auto add = [&](bool there, const std::string& s) { out += there ? " | " + s : ""; };
    add(w.minutes_s != 0, exact_text(w.minutes_s / 60) + " min");
    add(!w.part.empty(), "part " + escaped(w.part));
    add(w.cost != 0, "cost " + exact_text(w.cost));
    add(w.after_h != 0, "after " + exact_text(w.after_h) + " h");
    add(w.after_starts != 0, "after " + exact_text(w.after_starts) + " starts");
    add(w.expected_years != 0, "lasts " + exact_text(w.expected_years) + " years");
    add(!w.of.empty(), "at " + escaped(w.of));
    for (const std::string& d : w.does)
        add(true, "does " + escaped(d));
    return out + guarded(w.text);
}

template <class E, class Keys>
E key_in(const Keys& keys, const std::string& s, const char* what)
{
    std::string all;
    for (std::size_t i = 0; i < keys.size(); ++i) {
        if (s == keys[i])
            return static_cast<E>(i);
        all += (i == 0 ? "" : ", ") + std::string(keys[i]);
    }
    refuse("“" + s + "” is no " + what, "One of " + all);
}

// The loop a line is about, and the units and order of dates its reader is used to.
struct DictationContext {
    const Variant& v;
    const Units& units;
    bool month_first() const { return units.fahrenheit; }
};

struct Verb {
    const char* name;
    const char* usage;
    std::string (*take)(Visit&, const Words&, const DictationContext&); // what was understood
};

constexpr std::array sky_keys{"clear", "racing", "broken", "overcast", "thin", "fog", "thunder"};

std::string keep(std::string& to, const Words& p, const char* what)
{
    to = p[0];
    return std::string(what) + ": " + p[0];
}

// The last of a list that has this text, or a new one.
const std::vector<Verb>& verbs()
{
    static const std::vector<Verb> all{
        {"when", "when: 2026-05-12T09:30", [](Visit& x, const Words& p, const DictationContext& l) {
             const auto when = spoken_date(p[0], l.month_first());
             if (!when || !is_moment(*when))
                 refuse("“" + p[0] + "” is no date with a time", "2026-05-12T09:30, or 12 May 2026 9:30");
             return keep(x.when, {*when}, "when");
         }},
        {"purpose", "purpose: service, survey, commissioning, call_back, other", [](Visit& x, const Words& p, const DictationContext&) {
             x.purpose = key_in<Purpose>(purpose_keys, p[0], "purpose of a visit");
             return "purpose: " + p[0];
         }},
        {"title", "title: what it is about", [](Visit& x, const Words& p, const DictationContext&) { return keep(x.title, p, "title"); }},
        {"persons", "persons: who was there", [](Visit& x, const Words& p, const DictationContext&) { return keep(x.persons, p, "persons"); }},
        {"weather", "weather: sun and cloud, calm", [](Visit& x, const Words& p, const DictationContext&) { return keep(x.weather, p, "weather"); }},
        {"sky", "sky: clear, racing, broken, overcast, thin, fog, thunder", [](Visit& x, const Words& p, const DictationContext&) {
             const std::string said = spoken_sky(p[0]), sky = said.empty() ? p[0] : said;
             key_in<int>(sky_keys, sky, "sky");
             return keep(x.sky, {sky}, "sky");
         }},
        {"found", "found: by reading the unit", [](Visit& x, const Words& p, const DictationContext&) { return keep(x.found_how, p, "found"); }},
        {"left", "left: as agreed", [](Visit& x, const Words& p, const DictationContext&) { return keep(x.left_how, p, "left"); }},
        {"fault", "fault: words | at P1", [](Visit& x, const Words& p, const DictationContext& l) {
             const SpokenTail said = p.size() > 1 ? SpokenTail{p[0], p[1]} : spoken_place(p[0], l.v);
             x.faults.push_back({said.text, said.tail.starts_with("at ") ? trimmed(said.tail.substr(3)) : ""});
             return "fault: " + p[0];
         }},
        {"done", "done: words | 20 min | part NAME | cost 84", [](Visit& x, const Words& p, const DictationContext& l) {
             x.work.push_back(work_in(p.size() > 1 ? p : said_parts(p[0], l.v)));
             return work_line(x.work.back());
         }},
        {"next", "next: words | by 2026-10-01", [](Visit& x, const Words& p, const DictationContext& l) {
             const SpokenTail said = p.size() > 1 ? SpokenTail{p[0], p[1]} : spoken_due(p[0], l.month_first());
             VisitNext n{said.text, {}};
             if (!said.tail.empty()) {
                 const std::string by = said.tail.starts_with("by ") ? trimmed(said.tail.substr(3)) : said.tail;
                 const auto date = spoken_date(by, l.month_first());
                 if (!date || !is_date(*date))
                     refuse("“" + by + "” is no date", "by 2026-10-01, or by 1 October 2026");
                 n.by = *date;
             }
             x.next.push_back(n);
             return "next: " + n.text + (n.by.empty() ? "" : ", by " + n.by);
         }},
        {"note", "note: words", [](Visit& x, const Words& p, const DictationContext&) {
             x.notes += (x.notes.empty() ? "" : "\n") + p[0];
             return "note: " + p[0];
         }},
        {"test", "test: when and name of a test in the job", [](Visit& x, const Words& p, const DictationContext&) {
             x.tests.push_back(p[0]);
             return "test: " + p[0];
         }},
        {"tick", "tick: LIST/ITEM | done | what was found", [](Visit& x, const Words& p, const DictationContext&) {
             const auto at = p[0].find('/');
             if (at == std::string::npos || p.size() < 2)
                 refuse("a tick names its list, its item and how it stands", "tick: commissioning/leak-test | done | 30 min at 3 bar");
             VisitTick t{p[0].substr(0, at), p[0].substr(at + 1), key_in<Tick>(tick_keys, p[1], "state of an item"), p.size() > 2 ? p[2] : "", p.size() > 3 ? p[3] : ""};
             std::erase_if(x.ticks, [&](const VisitTick& o) { return o.list == t.list && o.item == t.item; });
             x.ticks.push_back(t);
             return t.item + ": " + p[1];
         }},
    };
    return all;
}

} // namespace

namespace {

// Other words for the beginning of an entry; a colon must follow.
constexpr std::pair<const char*, const char*> other_verbs[]{{"to do", "next"}, {"todo", "next"}, {"next time", "next"}, {"next visit", "next"}, {"did", "done"}, {"work", "done"}, {"notes", "note"}, {"remark", "note"}, {"problem", "fault"}, {"issue", "fault"}, {"who", "persons"}, {"date", "when"}};

std::string with_usual_verb(const std::string& s)
{
    const std::size_t colon = s.find(':');
    for (const auto& [said, verb] : other_verbs)
        if (colon != std::string::npos && lower_ascii(trimmed(s.substr(0, colon))) == said)
            return verb + s.substr(colon);
    return s;
}

bool is_verb_with_colon(const std::string& s)
{
    return std::any_of(verbs().begin(), verbs().end(), [&](const Verb& v) { return lower_ascii(s).starts_with(std::string(v.name) + ":"); });
}

// The pieces of "S1 1106 ohm, S2 1078 ohm and air 60 F".
Words pieces_of(const std::string& s)
{
    Words out;
    std::string rest = s;
    for (;;) {
        std::size_t at = std::string::npos, size = 0;
        for (const char* sign : {", and ", "; ", ", ", " and "})
            if (const std::size_t found = rest.find(sign); found < at) {
                at = found;
                size = std::string_view(sign).size();
            }
        if (at == std::string::npos)
            break;
        out.push_back(trimmed(rest.substr(0, at)));
        rest = rest.substr(at + size);
    }
    out.push_back(trimmed(rest));
    return out;
}

// A reading in free words. Empty: none is meant. Throws what the likeliest form lacks.
std::optional<std::string> take_spoken(Visit& visit, const std::string& s, const DictationContext& l)
{
    if (const auto bucket = spoken_bucket(s))
        return take_reading(visit, *bucket, l.v, l.units);
    const Words pieces = pieces_of(s);
    if (pieces.size() > 1) {
        Visit changed = visit;
        std::string all;
        for (const std::string& piece : pieces) {
            const auto said = is_verb_with_colon(piece) ? Result<std::string>(Error{}) : dictate(changed, piece, l.v, l.units);
            if (!said) {
                all.clear();
                break;
            }
            all += (all.empty() ? "" : "; ") + *said;
        }
        if (!all.empty()) {
            visit = std::move(changed);
            return all;
        }
    }
    std::optional<Unclear> near;
    for (const std::string& form : spoken_readings(s, l.v)) {
        try {
            if (auto said = take_reading(visit, form, l.v, l.units))
                return said;
        } catch (const Unclear& e) {
            if (!near)
                near = e;
        }
    }
    if (near)
        throw Unclear(*near);
    return {};
}

} // namespace

Result<std::string> dictate(Visit& visit, const std::string& line, const Variant& v, const Units& units)
{
    const std::string s = with_usual_verb(trimmed(line));
    const DictationContext context{v, units};
    try {
        if (s.empty())
            refuse("nothing was said");
        for (const Verb& verb : verbs())
            if (auto rest = lower_ascii(s).starts_with(std::string(verb.name) + ":") ? std::optional(trimmed(s.substr(std::string(verb.name).size() + 1))) : after(s, verb.name)) {
                const Words parts = parts_of(*rest);
                if (parts[0].empty())
                    refuse(std::string("what follows “") + verb.name + "” is missing", verb.usage);
                Visit changed = visit;
                std::string said = verb.take(changed, parts, context);
                visit = std::move(changed);
                return said;
            }
        if (const std::string sky = spoken_sky(s); !sky.empty()) {
            visit.sky = sky;
            return "sky: " + sky;
        }
        std::optional<Unclear> near;
        try {
            if (auto said = take_reading(visit, s, v, units))
                return *said;
        } catch (const Unclear& e) {
            near = e;
        }
        if (auto said = take_spoken(visit, s, context))
            return *said;
        if (near)
            throw Unclear(*near);
        if (const std::string none = spoken_elsewhere(s, v); !none.empty())
            refuse("this loop has no " + none, "Choose the loop's answers at the Loop station, or write it as a note: …");
        refuse("“" + s + "” is not understood", "A probe or output with its value (S1 1106 ohm), a reading (flow, rise, pressure …), or done, fault, next, note with a colon");
    } catch (const Unclear& r) {
        return r.error;
    }
}

std::vector<std::string> dictated(const Visit& x)
{
    std::vector<std::string> out;
    const auto say = [&](const char* verb, const std::string& text) {
        if (!text.empty())
            out.push_back(std::string(verb) + ": " + escaped(text));
    };
    say("when", x.when);
    out.push_back(std::string("purpose: ") + purpose_keys[static_cast<std::size_t>(x.purpose)]);
    say("title", x.title);
    say("persons", x.persons);
    say("weather", x.weather);
    say("sky", x.sky);
    say("found", x.found_how);
    say("left", x.left_how);
    for (const VisitReading& r : x.readings)
        if (const ReadingKind* k = find_reading_kind(r.kind)) {
            std::string value = exact_value_text(r.value, k->quantity);
            if (!r.of.empty() && value.starts_with("="))
                value += std::string(" ") + k->key;
            std::string s = (r.of.empty() ? k->said : r.of) + std::string(" ") + value + (!r.of.empty() && *k->said != '\0' ? std::string(" ") + k->said : "");
            s += r.with_temperature ? " at " + exact_value_text(r.at_c, Quantity::temperature) : "";
            s += r.how.empty() ? "" : ", by " + r.how;
            s += r.time.empty() ? "" : ", at " + r.time;
            out.push_back(std::move(s));
        }
    for (const std::string& t : x.tests)
        say("test", t);
    for (const VisitFault& f : x.faults)
        out.push_back("fault: " + escaped(f.text) + (f.of.empty() ? guarded(f.text) : " | at " + escaped(f.of)));
    for (const VisitWork& w : x.work)
        out.push_back(work_line(w));
    for (const VisitTick& t : x.ticks)
        out.push_back("tick: " + escaped(t.list + "/" + t.item) + " | " + tick_keys[static_cast<std::size_t>(t.tick)] + (t.said.empty() && t.when.empty() ? "" : " | " + escaped(t.said)) + (t.when.empty() ? "" : " | " + escaped(t.when)));
    for (const VisitNext& n : x.next)
        out.push_back("next: " + escaped(n.text) + (n.by.empty() ? guarded(n.text) : " | by " + n.by));
    say("note", x.notes);
    return out;
}

std::vector<std::string> dictation_help(const Variant& v)
{
    std::vector<std::string> out;
    for (const AskedReading& a : asked_readings(v))
        if (a.of.empty())
            out.push_back(std::string(a.kind->said) + " … " + unit_name(a.kind->quantity, Units::metric()));
    for (const Verb& verb : verbs())
        out.emplace_back(verb.usage);
    return out;
}

} // namespace vernal
