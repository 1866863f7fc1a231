#include "spoken.h"

#include "core/units/ascii.h"
#include "core/units/calendar.h"
#include "core/units/exact_text.h"
#include "core/units/typed_unit.h"
#include "reading_kind.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

namespace vernal {
namespace {

struct OtherWord {
    const char* said; // lower case
    const char* kind; // key of a kind of reading
};
constexpr std::array other_words{
    OtherWord{"gauge", "pressure"}, OtherWord{"pressure gauge", "pressure"}, OtherWord{"gauge pressure", "pressure"}, OtherWord{"system pressure", "pressure"}, OtherWord{"loop pressure", "pressure"},
    OtherWord{"pre-charge", "gas"}, OtherWord{"precharge", "gas"}, OtherWord{"expansion vessel", "gas"}, OtherWord{"expansion tank", "gas"}, OtherWord{"vessel", "gas"},
    OtherWord{"freeze point", "freezes"}, OtherWord{"freezing point", "freezes"}, OtherWord{"glycol freezes", "freezes"}, OtherWord{"fluid freezes", "freezes"}, OtherWord{"glycol", "freezes"}, OtherWord{"freezes at", "freezes"},
    OtherWord{"ph", "acidity"}, OtherWord{"acidity", "acidity"}, OtherWord{"glycol ph", "acidity"}, OtherWord{"fluid ph", "acidity"},
    OtherWord{"flow rate", "flow"}, OtherWord{"flowrate", "flow"}, OtherWord{"flow meter", "flow"}, OtherWord{"flowmeter", "flow"},
    OtherWord{"delta t", "rise"}, OtherWord{"dt", "rise"}, OtherWord{"temperature rise", "rise"}, OtherWord{"temp rise", "rise"}, OtherWord{"rise over the array", "rise"},
    OtherWord{"outdoor", "air"}, OtherWord{"outdoors", "air"}, OtherWord{"outside", "air"}, OtherWord{"outside air", "air"}, OtherWord{"outdoor air", "air"}, OtherWord{"ambient", "air"},
    OtherWord{"irradiance", "sun"}, OtherWord{"solar", "sun"}, OtherWord{"sunshine", "sun"}, OtherWord{"pyranometer", "sun"},
    OtherWord{"tank", "store"}, OtherWord{"hot water tank", "store"}, OtherWord{"store top", "store"},
    OtherWord{"supply voltage", "supply"}, OtherWord{"controller supply", "supply"}, OtherWord{"mains", "supply"},
    OtherWord{"batt", "battery"}, OtherWord{"battery voltage", "battery"}, OtherWord{"pv", "panel"}, OtherWord{"pv panel", "panel"}, OtherWord{"module", "panel"},
    OtherWord{"hot tap", "tap"}, OtherWord{"hot water at the tap", "tap"}, OtherWord{"faucet", "tap"}, OtherWord{"tap water", "tap"},
    OtherWord{"recirculation", "circulation"}, OtherWord{"recirc", "circulation"}, OtherWord{"recirculation return", "circulation"},
    OtherWord{"fill time", "fills"}, OtherWord{"filled in", "fills"}, OtherWord{"filling", "fills"}, OtherWord{"drain time", "drains"}, OtherWord{"drained in", "drains"}, OtherWord{"draining", "drains"}, OtherWord{"drains in", "drains"}, OtherWord{"fills in", "fills"},
    OtherWord{"first start", "first_start"}, OtherWord{"first on", "first_start"}, OtherWord{"pump first on", "first_start"}, OtherWord{"started first", "first_start"},
    OtherWord{"starts per day", "starts_a_day"}, OtherWord{"starts/day", "starts_a_day"}, OtherWord{"heat meter", "heat"}, OtherWord{"panel clearance", "clearance"}};

// Between a name and its number.
constexpr std::array links{"is", "was", "at", "reads", "read", "reading", "shows", "showed", "of", "about", "approx", "approximately", "around", "roughly", "measured", "measures", "draws", "drew", "takes", "took", "pulls", "uses", "temp", "temperature", "resistance", "current", "power", "pressure", "voltage", "has", "had", "with", "ran", "run", "running", "sensor", "probe", "in", "within", "to", "=", ":", "~", "->", "-"};

std::string replaced(std::string s, char from, char to)
{
    std::replace(s.begin(), s.end(), from, to);
    return s;
}

struct Head {
    std::string said, means; // means: how a dictated line begins
};

void add_head(std::map<std::string, std::string>& heads, const std::string& said, const std::string& means)
{
    const std::string low = lower_ascii(trimmed(said));
    if (low.empty())
        return;
    const auto [it, fresh] = heads.emplace(low, means);
    if (!fresh && it->second != means)
        it->second.clear(); // of two things: neither
}

// What a line about this loop can begin with; the longest first.
std::vector<Head> heads_of(const Variant& v)
{
    std::map<std::string, std::string> heads;
    for (const Probe& p : v.probes) {
        add_head(heads, p.key, p.key);
        if (!reads_temperature(p))
            continue;
        add_head(heads, p.name, p.key);
        add_head(heads, place_names[static_cast<std::size_t>(p.place)], p.key);
        add_head(heads, replaced(place_key(p.place), '_', ' '), p.key);
    }
    const Arrangement& a = arrangement_of(v.loop);
    std::vector<std::string> pumps;
    for (std::size_t o = 0; o < v.unit.outputs.size(); ++o) {
        const Output& out = v.unit.outputs[o];
        add_head(heads, out.key, out.key);
        add_head(heads, out.name, out.key);
        if (std::any_of(a.routes.begin(), a.routes.end(), [&](const Route& r) { return r.pump == o; }))
            pumps.push_back(out.key);
    }
    if (pumps.size() == 1)
        for (const char* word : {"pump", "collector pump", "solar pump", "circulator"})
            add_head(heads, word, pumps.front());
    for (const ReadingKind& k : reading_kinds())
        if (k.of == ReadingKind::Of::loop && holds_for(k.loops, a)) {
            add_head(heads, k.said, k.said);
            for (const OtherWord& w : other_words)
                if (k.key == std::string_view(w.kind))
                    heads.emplace(w.said, k.said); // the name of a probe or output comes first
        }
    std::vector<Head> out;
    for (const auto& [said, means] : heads)
        if (!means.empty())
            out.push_back({said, means});
    std::stable_sort(out.begin(), out.end(), [](const Head& x, const Head& y) { return x.said.size() > y.said.size(); });
    return out;
}

// The rest of `line` behind `head`, which ends at a space, a sign or a digit of its own.
std::optional<std::string> behind(const std::string& line, const std::string& head)
{
    if (!lower_ascii(line).starts_with(head))
        return {};
    if (line.size() > head.size() && std::string_view(" :=,\t").find(line[head.size()]) == std::string_view::npos)
        return {};
    return trimmed(line.substr(head.size()));
}

std::vector<std::string> said_words(const std::string& s)
{
    std::vector<std::string> out;
    for (std::size_t at = 0; (at = s.find_first_not_of(" \t", at)) != std::string::npos;) {
        const std::size_t end = std::min(s.find_first_of(" \t", at), s.size());
        out.push_back(s.substr(at, end - at));
        at = end;
    }
    return out;
}

std::string joined(const std::vector<std::string>& words, std::size_t from, std::size_t to)
{
    std::string out;
    for (std::size_t i = from; i < to; ++i)
        out += (out.empty() ? "" : " ") + words[i];
    return out;
}

bool begins_number(const std::string& s) { return !s.empty() && (std::isdigit(static_cast<unsigned char>(s[0])) || ((s[0] == '-' || s[0] == '+' || s[0] == '.') && s.size() > 1) || s.starts_with("−")); }

// Whether something that is no number stands behind the number.
bool has_unit(const std::string& value)
{
    const auto number = typed_number(value);
    return number && value.find_first_not_of("0123456789.,:/ ", number->size) != std::string::npos;
}

std::string without_ends(std::string s)
{
    while (!s.empty() && std::string_view("(),;").find(s.front()) != std::string_view::npos)
        s.erase(0, 1);
    while (!s.empty() && std::string_view("(),;.").find(s.back()) != std::string_view::npos)
        s.pop_back();
    return trimmed(s);
}

void put_forms(std::vector<std::string>& out, const std::string& means, std::vector<std::string> words)
{
    bool starts = false, hours = false;
    while (!words.empty() && !begins_number(words.front())) {
        std::string w = without_ends(lower_ascii(words.front()));
        if (w.size() > 1 && w.back() == ':')
            w.pop_back();
        starts = starts || w == "starts";
        hours = hours || w == "hours";
        if (!w.empty() && w != "starts" && w != "hours" && std::find(links.begin(), links.end(), w) == links.end())
            return;
        words.erase(words.begin());
    }
    if (words.empty())
        return;
    const std::string all = joined(words, 0, words.size());
    if (starts || hours) {
        out.push_back(means + " " + all + (starts ? " starts" : " h"));
        return;
    }
    out.push_back(means + " " + all);
    // A remark behind the value: "28 psi cold". What is left must have a unit, or a wrong unit would be a
    // remark; a remark has no digits, or a second reading would be one.
    constexpr std::size_t most_remarks = 6;
    for (std::size_t k = 1; k <= std::min(most_remarks, words.size() - 1); ++k) {
        const std::string value = without_ends(joined(words, 0, words.size() - k)), remark = without_ends(joined(words, words.size() - k, words.size()));
        if (has_unit(value) && !remark.empty() && remark.find_first_of("0123456789") == std::string::npos)
            out.push_back(means + " " + value + ", by " + remark);
    }
}

constexpr std::array month_names{"january", "february", "march", "april", "may", "june", "july", "august", "september", "october", "november", "december"};

int month_of(const std::string& word)
{
    constexpr std::size_t least = 3;
    const std::string w = without_ends(lower_ascii(word));
    for (std::size_t m = 0; w.size() >= least && m < month_names.size(); ++m)
        if (std::string_view(month_names[m]).starts_with(w))
            return static_cast<int>(m) + 1;
    return 0;
}

std::vector<int> numbers_in(const std::string& s, char sign)
{
    std::vector<int> out;
    std::size_t at = 0;
    while (at <= s.size()) {
        const std::size_t end = std::min(s.find(sign, at), s.size());
        const std::string part = s.substr(at, end - at);
        constexpr std::size_t longest = 4;
        if (part.empty() || part.size() > longest || part.find_first_not_of("0123456789") != std::string::npos)
            return {};
        out.push_back(std::stoi(part));
        at = end + 1;
    }
    return out;
}

std::optional<std::string> made_date(int year, int month, int day)
{
    constexpr int short_year = 100, century = 2000;
    if (year < short_year)
        year += century;
    if (year < 1000 || month < 1 || month > 12 || day < 1 || day > 31)
        return {};
    char text[40];
    std::snprintf(text, sizeof text, "%04d-%02d-%02d", year, month, day);
    return is_date(text) ? std::optional<std::string>(text) : std::nullopt;
}

std::optional<std::string> date_alone(const std::string& text, bool month_first)
{
    const std::string s = without_ends(trimmed(text));
    if (is_date(s))
        return s;
    for (const char sign : {'/', '.', '-'})
        if (const auto n = numbers_in(s, sign); n.size() == 3) {
            constexpr int first_year = 1000;
            if (n[0] >= first_year)
                return made_date(n[0], n[1], n[2]);
            const bool month = sign == '/' && month_first;
            const auto usual = made_date(n[2], month ? n[0] : n[1], month ? n[1] : n[0]);
            return usual || sign != '/' ? usual : made_date(n[2], month ? n[1] : n[0], month ? n[0] : n[1]);
        }
    const std::vector<std::string> w = said_words(s);
    if (w.size() != 3)
        return {};
    const auto number = [](std::string x) {
        x = without_ends(lower_ascii(x));
        for (const char* end : {"st", "nd", "rd", "th"})
            if (x.ends_with(end))
                x.resize(x.size() - 2);
        return x.empty() || x.size() > 4 || x.find_first_not_of("0123456789") != std::string::npos ? -1 : std::stoi(x);
    };
    if (const int m = month_of(w[0]); m != 0)
        return made_date(number(w[2]), m, number(w[1]));
    if (const int m = month_of(w[1]); m != 0)
        return made_date(number(w[2]), m, number(w[0]));
    return {};
}

} // namespace

std::vector<std::string> spoken_readings(const std::string& line, const Variant& v)
{
    std::vector<std::string> out;
    for (const Head& h : heads_of(v))
        if (const auto rest = behind(line, h.said); rest && !rest->empty())
            put_forms(out, h.means, said_words(*rest));
    return out;
}

std::optional<std::string> spoken_bucket(const std::string& line)
{
    std::vector<std::string> words = said_words(replaced(replaced(line, ',', ' '), ';', ' '));
    bool named = false;
    while (!words.empty() && !begins_number(words.front())) {
        std::string w = without_ends(lower_ascii(words.front()));
        if (w.size() > 1 && w.back() == ':')
            w.pop_back();
        const bool lead = w == "bucket" || w == "test" || w == "flow" || w == "filled" || w == "a" || w == ":";
        if (!lead)
            return {};
        named = true;
        words.erase(words.begin());
    }
    if (words.size() < 2)
        return {};
    std::string all = joined(words, 0, words.size());
    const auto content = typed_number(all);
    if (!content || content->value <= 0)
        return {};
    // The unit goes up to "in" or to the next number.
    std::vector<std::string> rest = said_words(all.substr(content->size));
    std::string unit;
    std::size_t at = 0;
    while (at < rest.size() && !begins_number(rest[at]) && lower_ascii(rest[at]) != "in")
        unit += rest[at++];
    const auto inside = inside_of_spelled(content->value, unit, Quantity::volume, Units::metric());
    const bool in = at < rest.size() && lower_ascii(rest[at]) == "in";
    if (!inside || (!in && !named))
        return {};
    at += in ? 1 : 0;
    std::string times;
    while (at < rest.size()) {
        if (lower_ascii(rest[at]) == "and") {
            ++at;
            continue;
        }
        double seconds = NAN;
        if (const auto clocked = inside_of_clocked(rest[at], Quantity::duration)) {
            seconds = *clocked;
            ++at;
        } else if (const auto t = typed_number(rest[at])) {
            std::string of = rest[at].substr(t->size);
            ++at;
            if (of.empty() && at < rest.size() && !begins_number(rest[at]) && lower_ascii(rest[at]) != "and")
                of = rest[at++];
            seconds = of.empty() ? t->value : inside_of_spelled(t->value, of, Quantity::duration, Units::metric()).value_or(NAN);
        }
        if (!(seconds > 0))
            return {};
        times += " " + exact_text(seconds) + " s";
    }
    if (times.empty())
        return {};
    const bool gallons = inside_of_spelled(1, unit, Quantity::volume, Units::metric()) == from_display(1, Quantity::volume, Units::us());
    return "bucket " + exact_text(gallons ? content->value : *inside * 1000) + (gallons ? " gal" : " L") + times;
}

std::string spoken_elsewhere(const std::string& line, const Variant& v)
{
    for (const ReadingKind& k : reading_kinds()) {
        if (k.of != ReadingKind::Of::loop || holds_for(k.loops, arrangement_of(v.loop)))
            continue;
        if (behind(line, k.said))
            return k.label;
        for (const OtherWord& w : other_words)
            if (k.key == std::string_view(w.kind) && behind(line, w.said))
                return k.label;
    }
    return {};
}

std::optional<std::string> spoken_date(const std::string& text, bool month_first)
{
    const std::string s = trimmed(text);
    if (is_moment(s))
        return s;
    if (auto alone = date_alone(s, month_first))
        return alone;
    // A time behind it: one word, or two with am or pm.
    const std::vector<std::string> words = said_words(replaced(s, 'T', ' ').find("  ") == std::string::npos && s.find(' ') == std::string::npos ? replaced(s, 'T', ' ') : s);
    for (std::size_t k = 1; k <= 2 && k < words.size(); ++k) {
        std::string day = without_ends(joined(words, 0, words.size() - k));
        if (lower_ascii(day).ends_with(" at"))
            day.resize(day.size() - 3);
        const auto date = date_alone(day, month_first);
        const auto hours = parse(joined(words, words.size() - k, words.size()), Quantity::time_of_day, Units::metric());
        if (!date || !hours || *hours < 0 || *hours >= 24)
            continue;
        const long minutes = std::lround(*hours * 60);
        char clock[40];
        std::snprintf(clock, sizeof clock, "T%02ld:%02ld", minutes / 60, minutes % 60);
        return *date + clock;
    }
    return {};
}

std::string spoken_sky(const std::string& text)
{
    static const std::map<std::string, const char*> skies{{"sunny", "clear"}, {"clear sky", "clear"}, {"cloudless", "clear"}, {"blue sky", "clear"}, {"full sun", "clear"}, {"bright sun", "clear"},
        {"partly cloudy", "broken"}, {"partly sunny", "broken"}, {"partial cloud", "broken"}, {"sun and cloud", "broken"}, {"sun and clouds", "broken"}, {"scattered clouds", "broken"}, {"broken clouds", "broken"}, {"some clouds", "broken"}, {"mostly sunny", "thin"}, {"hazy", "thin"}, {"thin cloud", "thin"}, {"high cloud", "thin"}, {"thin clouds", "thin"},
        {"racing clouds", "racing"}, {"fast clouds", "racing"}, {"windy with clouds", "racing"}, {"cloudy", "overcast"}, {"mostly cloudy", "overcast"}, {"grey", "overcast"}, {"gray", "overcast"}, {"rain", "overcast"}, {"raining", "overcast"}, {"rainy", "overcast"}, {"snow", "overcast"}, {"drizzle", "overcast"},
        {"foggy", "fog"}, {"mist", "fog"}, {"misty", "fog"}, {"thunderstorm", "thunder"}, {"thunderstorms", "thunder"}, {"storm", "thunder"}};
    const auto it = skies.find(without_ends(lower_ascii(trimmed(text))));
    return it == skies.end() ? "" : it->second;
}

SpokenTail spoken_minutes(const std::string& text)
{
    for (const char* sign : {", ", " (", "; "}) {
        const std::size_t at = text.rfind(sign);
        if (at == std::string::npos)
            continue;
        const std::string tail = without_ends(text.substr(at + 2));
        if (!begins_number(tail) || !has_unit(tail))
            continue;
        if (const auto s = parse(tail, Quantity::minutes, Units::metric()); s && *s > 0)
            return {trimmed(text.substr(0, at)), exact_text(*s / 60) + " min"};
    }
    return {text, ""};
}

SpokenTail spoken_due(const std::string& text, bool month_first)
{
    const std::string low = lower_ascii(text);
    for (const char* word : {" by ", " before ", " until ", " on ", ", "}) {
        const std::size_t at = low.rfind(word), size = std::string_view(word).size();
        if (at == std::string::npos)
            continue;
        if (const auto date = spoken_date(text.substr(at + size), month_first); date && is_date(*date))
            return {without_ends(trimmed(text.substr(0, at))), "by " + *date};
    }
    // "by June 30, 2026" holds a comma of its own
    if (const std::size_t by = low.rfind(" by "); by != std::string::npos)
        if (const auto date = spoken_date(text.substr(by + 4), month_first); date && is_date(*date))
            return {trimmed(text.substr(0, by)), "by " + *date};
    return {text, ""};
}

SpokenTail spoken_place(const std::string& text, const Variant& v)
{
    const std::size_t at = text.rfind(" at ");
    if (at == std::string::npos)
        return {text, ""};
    const std::string of = without_ends(text.substr(at + 4));
    const auto is = [&](const auto& x) { return x.key == of; };
    if (std::any_of(v.probes.begin(), v.probes.end(), is) || std::any_of(v.unit.outputs.begin(), v.unit.outputs.end(), is))
        return {trimmed(text.substr(0, at)), "at " + of};
    return {text, ""};
}

} // namespace vernal
