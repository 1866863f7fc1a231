#include "due.h"

#include "core/job/field_range.h"
#include "core/units/ascii.h"
#include "core/units/exact_text.h"
#include "measured.h"

#include <algorithm>
#include <cmath>
#include <utility>

namespace vernal {
namespace {

using std::chrono::days;

// Whether one of the words "a|b" is said.
bool says(const std::string& text, const std::string& words)
{
    const std::string t = lower_ascii(text);
    for (std::size_t from = 0; from < words.size();) {
        const std::size_t to = std::min(words.find('|', from), words.size());
        if (to > from && t.find(lower_ascii(words.substr(from, to - from))) != std::string::npos)
            return true;
        from = to + 1;
    }
    return false;
}

const Variant& loop_now(const Job& job) { return job.logbook.visits.empty() ? job.variants.front() : variant_of(job, job.logbook.visits.back()); }

// The last date on which it was done: by a visit, else as stated.
std::string last_done(const Job& job, const DueItem& d)
{
    std::string last = d.last;
    const auto kind = std::find_if(due_kinds().begin(), due_kinds().end(), [&](const DueKind& k) { return d.kind == k.key; });
    const std::string reading = kind == due_kinds().end() ? "" : kind->reading;
    for (const Visit& v : job.logbook.visits) {
        const auto readings = valid_readings(v);
        bool did = !reading.empty() && std::any_of(readings.begin(), readings.end(), [&](const VisitReading& r) { return r.kind == reading; });
        for (const VisitWork& w : v.work)
            did = did || std::find(w.does.begin(), w.does.end(), d.id) != w.does.end();
        if (did)
            last = std::max(last, v.when.substr(0, 10));
    }
    return last;
}

struct Counter {
    std::vector<std::pair<Day1970, double>> read;
    // When it comes to a value, by the rate of the last two readings; none: it stands, or was read once.
    std::optional<Day1970> reaches(double value) const
    {
        if (read.empty())
            return {};
        if (read.back().second >= value)
            return read.back().first;
        if (read.size() < 2)
            return {};
        const auto& [a, x] = read[read.size() - 2];
        const auto& [b, y] = read.back();
        const double a_day = (y - x) / std::max(1.0, static_cast<double>((b - a).count()));
        constexpr double longest_days = 36525;
        return a_day > 0 && (value - y) / a_day < longest_days ? std::optional(b + days(std::lround((value - y) / a_day))) : std::nullopt;
    }
};

Counter counter_of(const Job& job, const std::string& kind, const std::string& of, const std::string& since)
{
    Counter out;
    for (const Visit& v : job.logbook.visits) {
        const auto readings = valid_readings(v);
        if (const VisitReading* r = reading_of(readings, kind, of); r && date_of(v.when))
            out.read.emplace_back(*date_of(v.when), r->value);
    }
    // Counted since it was last done.
    double then = 0;
    for (const auto& [day, value] : out.read)
        if (!since.empty() && date_text(day) <= since)
            then = value;
    for (auto& [day, value] : out.read)
        value -= then;
    return out;
}

std::string output_of(const Job& job, const DueItem& d) { return !d.of.empty() ? d.of : loop_now(job).unit.outputs.front().key; }

void soonest(DueNow& n, std::optional<Day1970> date, const std::string& why, bool& any)
{
    if (!date || (any && n.date <= *date))
        return;
    n.date = *date;
    n.why = why;
    any = true;
}

} // namespace

const std::vector<DueKind>& due_kinds()
{
    static const std::vector<DueKind> all{
        {"fluid", "Fluid: freezing point and acidity", Loops::glycol, 12, 0, "stagnation|steam|refilled|boiled", false, "freezes"},
        {"vessel", "Vessel's gas", Loops::closed, 24, 0, "pressure lost|relief opened", false, "gas"},
        {"relief", "Relief valve", Loops::tank, 12, 0, "relief opened|relief drips", true},
        {"anode", "Anode of the tank", Loops::tank, 24},
        {"disinfection", "Disinfection proved at the coldest stored point", Loops::tank, 12},
        {"battery", "Battery: posts, level, voltage under load", Loops::battery, 6, 0, "deep discharge|battery empty"},
        {"insulation", "Insulation and its jacket outdoors", Loops::all, 24},
        {"strainer", "Strainer", Loops::pumped_liquid, 12},
        {"exercise", "Exercise of a pump that stood", Loops::pumped, 0, 0, "stood idle|idle since|out of use"},
        {"pitch", "Pitch of what must drain", Loops::draining, 24, 0, "frozen|burst"},
        {"horizon", "Horizon: what has grown or been built", Loops::all, 36},
    };
    return all;
}

std::vector<DueItem> due_items(const Job& job)
{
    std::vector<DueItem> out;
    const Arrangement& a = arrangement_of(loop_now(job).loop);
    for (const DueKind& k : due_kinds())
        if (holds_for(k.loops, a)) {
            DueItem d;
            d.id = d.kind = k.key;
            d.title = k.title;
            d.every_months = k.every_months;
            d.every_starts = k.every_starts;
            d.event = k.event;
            d.licensed = k.licensed;
            out.push_back(std::move(d));
        }
    for (const DueItem& d : job.logbook.due) {
        const auto it = std::find_if(out.begin(), out.end(), [&](const DueItem& x) { return x.id == d.id; });
        if (it != out.end())
            *it = d;
        else
            out.push_back(d);
    }
    std::erase_if(out, [](const DueItem& d) { return d.dropped; });
    return out;
}

void change_due(Job& job, const DueItem& item)
{
    auto& all = job.logbook.due;
    const auto it = std::find_if(all.begin(), all.end(), [&](const DueItem& d) { return d.id == item.id && !item.id.empty(); });
    if (it != all.end())
        *it = item;
    else
        all.push_back(item);
}

namespace {

// "12 months", "4000 h of P1"; false: it is none of these.
bool take_interval(DueItem& d, const std::string& s)
{
    const auto of = s.find(" of ");
    const std::string span = trimmed(s.substr(0, of));
    const auto space = span.find(' ');
    if (space == std::string::npos)
        return false;
    const auto n = parse(span.substr(0, space), Quantity::number, Units::metric());
    const std::string unit = trimmed(span.substr(space));
    if (!n || *n <= 0)
        return false;
    double* to = unit == "months" || unit == "month" ? &d.every_months : unit == "h"    ? &d.every_h
                                                                     : unit == "starts" ? &d.every_starts
                                                                                        : nullptr;
    if (!to || (of != std::string::npos && to == &d.every_months))
        return false;
    *to = *n;
    if (of != std::string::npos)
        d.of = trimmed(s.substr(of + 4));
    return true;
}

} // namespace

Result<DueItem> due_in_line(const std::string& line)
{
    DueItem d;
    std::size_t from = 0;
    bool first = true;
    const Error usage{"", "", "TITLE | every 12 months | every 4000 h of P1 | every 20000 starts of P1 | after WORDS | last 2025-05-01 | by the licensed person | not here"};
    const auto wrong = [&](const std::string& what) { return Error{what, "", usage.remedy}; };
    while (from <= line.size()) {
        const std::size_t to = std::min(line.find('|', from), line.size());
        const std::string s = trimmed(line.substr(from, to - from));
        from = to + 1;
        if (std::exchange(first, false))
            d.title = s;
        else if (s == "by the licensed person")
            d.licensed = true;
        else if (s == "not here")
            d.dropped = true;
        else if (s.starts_with("after "))
            d.event += (d.event.empty() ? "" : "|") + trimmed(s.substr(6));
        else if (s.starts_with("last ") && is_date(trimmed(s.substr(5))))
            d.last = trimmed(s.substr(5));
        else if (!s.starts_with("every ") || !take_interval(d, trimmed(s.substr(6))))
            return wrong("“" + s + "” is not understood");
    }
    if (d.title.empty())
        return wrong("what comes due has no name");
    if (const auto beyond = beyond_range(d))
        return wrong(*beyond);
    return d;
}

std::string due_line(const DueItem& d)
{
    std::string out = d.title;
    const auto of = d.of.empty() ? std::string() : " of " + d.of;
    const auto add = [&](bool there, const std::string& s) { out += there ? " | " + s : ""; };
    add(d.every_months > 0, "every " + exact_text(d.every_months) + " months");
    add(d.every_h > 0, "every " + exact_text(d.every_h) + " h" + of);
    add(d.every_starts > 0, "every " + exact_text(d.every_starts) + " starts" + of);
    for (std::size_t from = 0; from < d.event.size();) {
        const std::size_t to = std::min(d.event.find('|', from), d.event.size());
        add(true, "after " + d.event.substr(from, to - from));
        from = to + 1;
    }
    add(!d.last.empty(), "last " + d.last);
    add(d.licensed, "by the licensed person");
    add(d.dropped, "not here");
    return out;
}

std::vector<OpenNext> open_next(const Job& job, const std::string& until)
{
    std::vector<OpenNext> out;
    const auto same = [](const std::string& a, const std::string& b) { return lower_ascii(trimmed(a)) == lower_ascii(trimmed(b)); };
    for (const Visit& v : job.logbook.visits)
        for (const VisitNext& next : v.next) {
            const bool done = std::any_of(job.logbook.visits.begin(), job.logbook.visits.end(), [&](const Visit& later) {
                return later.when > v.when && later.when <= until && std::any_of(later.work.begin(), later.work.end(), [&](const VisitWork& w) { return same(w.text, next.text) || std::find(w.does.begin(), w.does.end(), next.text) != w.does.end(); });
            });
            if (!done && v.when <= until)
                out.push_back({&v, &next});
        }
    return out;
}

std::vector<DueNow> due_list(const Job& job, Day1970 today)
{
    std::vector<DueNow> out;
    const std::string first = job.logbook.visits.empty() ? date_text(today) : job.logbook.visits.front().when.substr(0, 10);
    for (const DueItem& d : due_items(job)) {
        const std::string done = last_done(job, d), from = done.empty() ? first : done;
        const std::string since = done.empty() ? "" : ", last on " + date_words(done);
        DueNow n{d.title, "", {}, d.licensed, d.id, ""};
        bool any = false;
        if (d.every_months > 0)
            soonest(n, months_later(*date_of(from), static_cast<int>(std::lround(d.every_months))), "every " + std::to_string(std::lround(d.every_months)) + " months" + since, any);
        if (d.every_h > 0)
            soonest(n, counter_of(job, "hours", output_of(job, d), done).reaches(d.every_h), "every " + std::to_string(std::lround(d.every_h)) + " h of " + output_of(job, d) + since, any);
        if (d.every_starts > 0)
            soonest(n, counter_of(job, "starts", output_of(job, d), done).reaches(d.every_starts), "every " + std::to_string(std::lround(d.every_starts)) + " starts of " + output_of(job, d) + since, any);
        for (const Visit& v : job.logbook.visits)
            if (const std::string day = v.when.substr(0, 10); day > done && !d.event.empty()) {
                bool named = says(v.notes, d.event);
                for (const VisitFault& f : v.faults)
                    named = named || says(f.text, d.event);
                if (named)
                    soonest(n, date_of(day), "after what was found on " + date_words(day), any);
            }
        if (any)
            out.push_back(std::move(n));
    }
    for (const OpenNext& o : open_next(job))
        if (!o.next->by.empty())
            out.push_back({o.next->text, "left open on " + date_words(o.visit->when), *date_of(o.next->by), false, "", o.visit->id});
    std::stable_sort(out.begin(), out.end(), [](const DueNow& a, const DueNow& b) { return a.date < b.date; });
    return out;
}

} // namespace vernal
