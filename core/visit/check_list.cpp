#include "check_list.h"

#include "core/bench/procedure_line.h"
#include "core/bench/shipped_text.h"
#include "core/plant/fluid.h"
#include "core/units/calendar.h"
#include "measured.h"
#include "reading_kind.h"

#include <algorithm>
#include <cmath>
#include <cstdlib>

namespace vernal {

const std::vector<ListLoops>& list_loops()
{
    using L = const Loop&;
    static const auto has = [](L l, Part p) { return arrangement_of(l).has(p); };
    static const std::vector<ListLoops> all{
        {"all", [](L) { return true; }},
        {"liquid", [](L l) { return arrangement_of(l).carrier != Carrier::air; }},
        {"air", [](L l) { return arrangement_of(l).carrier == Carrier::air; }},
        {"glycol", [](L l) { return arrangement_of(l).carrier == Carrier::glycol; }},
        {"tank", [](L l) { return has(l, Part::tank); }},
        {"pool", [](L l) { return has(l, Part::pool); }},
        {"pumped", [](L l) { return arrangement_of(l).pumped(); }},
        {"pumped-liquid", [](L l) { return arrangement_of(l).pumped() && arrangement_of(l).carrier != Carrier::air; }},
        {"draining", [](L l) { return arrangement_of(l).drains; }},
        {"full", [](L l) { return arrangement_of(l).carrier != Carrier::air && !arrangement_of(l).drains; }},
        {"closed", [](L l) { return has(l, Part::vessel); }},
        {"exchanger", [](L l) { return has(l, Part::exchanger); }},
        {"cooler", [](L l) { return has(l, Part::cooler); }},
        {"circulating", [](L l) { return has(l, Part::circulation); }},
        {"heater", [](L l) { return has(l, Part::heater); }},
        {"element", [](L l) { return has(l, Part::element); }},
        {"panel", [](L l) { return has(l, Part::panel); }},
        {"battery", [](L l) { return has(l, Part::battery); }},
        {"mains", [](L l) { return arrangement_of(l).answers.power == PoweredBy::mains; }},
        {"two-arrays", [](L l) { return has(l, Part::collector_2); }},
    };
    return all;
}

namespace {

using namespace procedure_text;
using Is = ItemTolerance::Is;

constexpr std::array tolerance_keys{"", "below", "above", "near"};

const ListLoops* loops_of(const std::string& word)
{
    const auto& all = list_loops();
    const auto it = std::find_if(all.begin(), all.end(), [&](const ListLoops& l) { return word == l.word; });
    return it == all.end() ? nullptr : &*it;
}

const ReadingKind& kind_named(const std::string& key)
{
    if (const ReadingKind* k = find_reading_kind(key))
        return *k;
    std::string all;
    for (const ReadingKind& k : reading_kinds())
        all += (all.empty() ? "" : ", ") + std::string(k.key);
    throw Bad{"“" + key + "” is no kind of reading", all};
}

double level_in(const std::string& text, const ReadingKind& k)
{
    const auto v = parse_exact(text, k.quantity, Units::metric());
    if (!v)
        throw Bad{v.error().what, "a level of " + std::string(k.label) + ", or stated"};
    return *v;
}

// "flow near stated within 30 %"
void take_measure(ListItem& item, const std::string& rest)
{
    const auto [key, tail] = parted(rest, " ");
    const ReadingKind& k = kind_named(key);
    item.measure = k.key;
    if (tail.empty())
        return;
    const auto [is, level] = parted(tail, " ");
    item.tolerance.is = key_in<Is>(tolerance_keys, is, "tolerance");
    const auto [at, within] = parted(level, " within ");
    item.tolerance.stated = trimmed(at) == "stated";
    if (!item.tolerance.stated)
        item.tolerance.level = level_in(trimmed(at), k);
    if (item.tolerance.is == Is::near) {
        const auto share = parse_exact(trimmed(within), Quantity::ratio, Units::metric());
        if (!share || *share <= 0)
            throw Bad{"near needs how near", "near stated within 30 %"};
        item.tolerance.within = *share;
    } else if (!within.empty()) {
        throw Bad{"only near has a within", "below LEVEL, above LEVEL, near LEVEL within 30 %"};
    }
}

class Reader {
public:
    CheckList read(const std::string& text)
    {
        each_line(
            text, "name, title and purpose", line_, [&](const std::string& s) { take_front(s); }, [&](const std::string& s) { take(s); });
        if (out_.name.empty() || out_.title.empty())
            throw Bad{"the front part has no name or no title", "name: and title: between two lines “---”"};
        if (out_.items.empty())
            throw Bad{"there is no item", "a line “## What to do”"};
        check_last();
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
        else if (key == "purpose")
            out_.purpose = key_in<Purpose>(purpose_keys, value, "purpose of a visit");
        else
            throw Bad{"“" + key + "” is not of the front part", "name, title, purpose"};
    }

    void take(const std::string& s)
    {
        if (s.starts_with("## ")) {
            check_last();
            ListItem item;
            item.title = trimmed(s.substr(3));
            item.stage = stage_;
            out_.items.push_back(std::move(item));
        } else if (s.starts_with("# ")) {
            stage_ = trimmed(s.substr(2));
        } else if (s.starts_with("#")) {
            throw Bad{"a stage has one “#”, an item two", "# Mounting, ## What to do"};
        } else if (s.starts_with("-") && !out_.items.empty()) {
            take_line(out_.items.back(), trimmed(s.substr(1)));
        } else if (!s.empty()) {
            std::string& to = out_.items.empty() ? out_.text : out_.items.back().text;
            to += (to.empty() ? "" : " ") + s;
        }
    }

    void take_line(ListItem& item, const std::string& s)
    {
        const auto parts = parted(s, ":");
        const std::string &verb = parts.first, &rest = parts.second;
        if (rest.empty())
            throw Bad{"“" + s + "” says nothing", "a word, a colon, and what it is"};
        if (verb == "id") {
            if (!is_name(rest))
                throw Bad{"“" + rest + "” is no id", "small letters, digits and “-”"};
            if (std::any_of(out_.items.begin(), out_.items.end(), [&](const ListItem& i) { return i.id == rest; }))
                throw Bad{"the id “" + rest + "” is there twice", "one of its own for each item"};
            item.id = rest;
        } else if (verb == "only") {
            std::string all;
            for (const ListLoops& l : list_loops())
                all += (all.empty() ? "" : ", ") + std::string(l.word);
            if (!loops_of(rest))
                throw Bad{"“" + rest + "” is no kind of loop", all};
            item.only = rest;
        } else if (verb == "why")
            item.why = rest;
        else if (verb == "caution")
            item.caution = rest;
        else if (verb == "valves")
            item.valves = state_keys[static_cast<std::size_t>(key_in<ServiceState>(state_keys, rest, "state of the valve board"))];
        else if (verb == "measure")
            take_measure(item, rest);
        else if (verb == "proved by")
            item.proved_by = rest;
        else if (verb == "sets")
            item.sets = rest;
        else if (verb == "asks" && rest == "words")
            item.asks = true;
        else if (verb == "asks" && rest == "a photo")
            item.photo = true;
        else
            throw Bad{"“" + s + "” is not known", "id, only, why, caution, valves, measure, proved by, sets, asks: words, asks: a photo"};
    }

    void check_last() const
    {
        if (!out_.items.empty() && out_.items.back().id.empty())
            throw Bad{"“" + out_.items.back().title + "” has no id", "- id: small letters, digits and “-”"};
        if (!out_.items.empty() && out_.items.back().title.empty())
            throw Bad{"the item has no title", "## What to do"};
    }

    CheckList out_;
    std::string stage_;
    std::size_t line_ = 0;
};

std::string level_text(const ListItem& i)
{
    const ReadingKind* k = find_reading_kind(i.measure);
    return i.tolerance.stated ? "stated" : exact_value_text(i.tolerance.level, k ? k->quantity : Quantity::number);
}

std::string measure_line(const ListItem& i)
{
    if (i.tolerance.is == Is::none)
        return i.measure;
    std::string out = i.measure + " " + tolerance_keys[static_cast<std::size_t>(i.tolerance.is)] + " " + level_text(i);
    if (i.tolerance.is == Is::near)
        out += " within " + exact_value_text(i.tolerance.within, Quantity::ratio);
    return out;
}

// What the loop's own settings say a reading should be; NaN: nothing.
double stated_for(const std::string& kind, const Variant& v)
{
    const Loop& l = v.loop;
    return kind == "flow" ? l.pump.flow_m3_s : kind == "pressure" ? l.vessel.fill_pa
                                           : kind == "gas"        ? l.vessel.precharge_pa
                                           : kind == "drains"     ? l.drain_back.drain_s
                                           : kind == "freezes"    ? fluid_at(glycol_share(l), 20.0).freezing_c
                                                                  : NAN;
}

std::optional<bool> within(const ListItem& i, const Variant& v, double value)
{
    const double level = i.tolerance.stated ? stated_for(i.measure, v) : i.tolerance.level;
    if (i.tolerance.is == Is::none || std::isnan(level))
        return {};
    const double x = i.measure == "apart" ? std::fabs(value) : value;
    switch (i.tolerance.is) {
    case Is::below: return x <= level;
    case Is::above: return x >= level;
    case Is::near: return std::fabs(x - level) <= i.tolerance.within * std::fabs(level);
    case Is::none: break;
    }
    return {};
}

constexpr int one_run_days = 92; // from one visit to the next

// Visits of the run that a moment lies in: those with ticks of the list, and the one of that moment.
std::vector<const Visit*> run_of(const Job& job, const std::string& list, const std::string& when)
{
    std::vector<const Visit*> all;
    for (const Visit& v : job.logbook.visits)
        if (v.when == when || std::any_of(v.ticks.begin(), v.ticks.end(), [&](const VisitTick& t) { return t.list == list; }))
            all.push_back(&v);
    std::stable_sort(all.begin(), all.end(), [](const Visit* a, const Visit* b) { return a->when < b->when; });
    std::vector<const Visit*> out;
    for (const Visit* v : all) {
        if (!out.empty() && (*date_of(v->when) - *date_of(out.back()->when)).count() > one_run_days) {
            if (!when.empty() && out.back()->when >= when)
                break;
            out.clear();
        }
        out.push_back(v);
    }
    return out;
}

void measure(ItemStands& s, const std::vector<const Visit*>& run, const Variant& v)
{
    std::string latest;
    for (const Visit* visit : run)
        for (const VisitReading& r : valid_readings(*visit))
            if (r.kind == s.item->measure && visit->when >= latest) {
                // Of several probes the one that is furthest off counts.
                const auto in = within(*s.item, v, r.value);
                if (s.measured && visit->when == latest && (!in || *in))
                    continue;
                s.measured = r;
                s.within = in;
                latest = visit->when;
            }
}

} // namespace

Result<CheckList> read_check_list(const std::string& text, const std::string& file)
{
    Reader r;
    try {
        return r.read(text);
    } catch (const Bad& b) {
        return Error{b.what, file + ", line " + std::to_string(r.line()), "Expected: " + b.expected};
    }
}

std::string write_check_list(const CheckList& l)
{
    std::string out = "---\nname: " + l.name + "\ntitle: " + l.title + "\npurpose: " + spaced(purpose_keys[static_cast<std::size_t>(l.purpose)]) + "\n---\n" + l.text + (l.text.empty() ? "" : "\n");
    std::string stage;
    for (const ListItem& i : l.items) {
        if (i.stage != stage)
            out += "\n# " + (stage = i.stage) + "\n";
        out += "\n## " + i.title + "\n" + i.text + (i.text.empty() ? "" : "\n") + "\n- id: " + i.id + "\n";
        const auto say = [&](const char* verb, const std::string& s) { out += s.empty() ? "" : std::string("- ") + verb + ": " + s + "\n"; };
        say("only", i.only == "all" ? "" : i.only);
        say("why", i.why);
        say("caution", i.caution);
        say("valves", i.valves.empty() ? "" : spaced(i.valves));
        say("measure", i.measure.empty() ? "" : measure_line(i));
        say("proved by", i.proved_by);
        say("sets", i.sets);
        say("asks", i.asks ? "words" : "");
        say("asks", i.photo ? "a photo" : "");
    }
    return out;
}

const std::vector<CheckList>& shipped_check_lists()
{
    static const std::vector<CheckList> all = [] {
        std::vector<CheckList> out;
        for (const ShippedText& t : shipped_list_texts()) {
            auto l = read_check_list(t.text, t.file);
            if (!l)
                std::abort(); // a text of our own; a test reads each
            out.push_back(std::move(*l));
        }
        return out;
    }();
    return all;
}

std::vector<CheckList> check_lists(const Job& job)
{
    std::vector<CheckList> out;
    const auto add = [&](const CheckList& l) {
        if (std::none_of(out.begin(), out.end(), [&](const CheckList& x) { return x.name == l.name; }))
            out.push_back(l);
    };
    for (const Attachment& a : job.attachments)
        if (a.bytes && a.name.ends_with(check_list_ending))
            if (const auto l = read_check_list(*a.bytes, a.name))
                add(*l);
    for (const CheckList& l : shipped_check_lists())
        add(l);
    return out;
}

std::vector<ItemStands> items_of(const Job& job, const Variant& v, const CheckList& list, const std::string& when)
{
    std::vector<ItemStands> out;
    const auto run = run_of(job, list.name, when);
    const std::string since = run.empty() ? "" : run.front()->when.substr(0, 10);
    const std::string until = run.empty() ? "" : date_text(*date_of(run.back()->when) + std::chrono::days(one_run_days));
    for (const ListItem& i : list.items) {
        if (const ListLoops* only = loops_of(i.only); only && !only->has(v.loop))
            continue;
        ItemStands s;
        s.item = &i;
        for (const Visit* visit : run)
            for (const VisitTick& t : visit->ticks)
                if (t.list == list.name && t.item == i.id && t.when >= s.when) {
                    s.tick = t.tick;
                    s.said = t.said;
                    s.when = t.when;
                }
        if (!i.proved_by.empty() && s.tick != Tick::not_applicable)
            for (const BenchRecord& b : job.bench)
                if (b.procedure == i.proved_by && !run.empty() && b.when >= since && b.when <= until && b.when >= s.when) {
                    s.tick = b.verdict == StepVerdict::passed ? Tick::proved : Tick::open;
                    s.said = b.verdict == StepVerdict::passed ? "" : "its procedure failed";
                    s.when = b.when;
                }
        if (!i.measure.empty())
            measure(s, run, v);
        out.push_back(std::move(s));
    }
    return out;
}

std::size_t open_items(const std::vector<ItemStands>& items)
{
    return static_cast<std::size_t>(std::count_if(items.begin(), items.end(), [](const ItemStands& s) { return s.tick == Tick::open; }));
}

std::string tolerance_text(const ListItem& i, const Variant& v, const Units& units)
{
    const ReadingKind* k = find_reading_kind(i.measure);
    const double level = i.tolerance.stated ? stated_for(i.measure, v) : i.tolerance.level;
    if (!k || i.tolerance.is == Is::none || std::isnan(level))
        return "";
    const std::string text = to_text(level, k->quantity, units);
    switch (i.tolerance.is) {
    case Is::below: return "at most " + text;
    case Is::above: return "at least " + text;
    case Is::near: return "near " + text + ", within " + to_text(i.tolerance.within, Quantity::ratio, units);
    case Is::none: break;
    }
    return "";
}

} // namespace vernal
