#include "keeping.h"

#include "core/job/ids.h"
#include "core/units/calendar.h"

#include <algorithm>

namespace vernal {

Visit new_visit(const Job& job, const std::string& when, Purpose purpose, const std::string& variant)
{
    Visit v;
    v.when = when;
    v.purpose = purpose;
    v.variant = variant;
    Job with = job;
    with.logbook.visits.push_back(v);
    give_ids(with, NewFrom::edit);
    return with.logbook.visits.back();
}

Visit* find_visit(Job& job, const std::string& id)
{
    const auto it = std::find_if(job.logbook.visits.begin(), job.logbook.visits.end(), [&](const Visit& v) { return v.id == id; });
    return it == job.logbook.visits.end() ? nullptr : &*it;
}
const Visit* find_visit(const Job& job, const std::string& id) { return find_visit(const_cast<Job&>(job), id); }

void sort_visits(Job& job)
{
    std::stable_sort(job.logbook.visits.begin(), job.logbook.visits.end(), [](const Visit& a, const Visit& b) { return a.when < b.when; });
}

std::string cannot_close(const Visit& v)
{
    if (v.closed)
        return "It is closed already";
    if (v.persons.empty())
        return "Nobody is named who was there";
    return "";
}

Result<std::monostate> amend(Visit& v, Amendment a)
{
    if (!v.closed)
        return Error{"this visit is still open", "", "Change it as it stands; what is closed is amended"};
    if (a.reason.empty() || (a.text.empty() && a.readings.empty()))
        return Error{a.reason.empty() ? "the reason is missing" : "what is amended is missing", "", "Say why, and what is right"};
    if (!is_moment(a.when))
        return Error{"the amendment has no date", "", "A moment like 2026-05-12T09:30"};
    v.amendments.push_back(std::move(a));
    return std::monostate{};
}

std::string touches_closed(const Logbook& before, const Logbook& after)
{
    for (const Visit& old : before.visits) {
        if (!old.closed)
            continue;
        const auto it = std::find_if(after.visits.begin(), after.visits.end(), [&](const Visit& v) { return v.id == old.id; });
        const std::string name = "The visit of " + date_words(old.when) + " is closed";
        if (it == after.visits.end())
            return name + ": it stays";
        const bool more = it->amendments.size() >= old.amendments.size() && std::equal(old.amendments.begin(), old.amendments.end(), it->amendments.begin());
        Visit same = *it;
        same.amendments = old.amendments;
        if (!more || !(same == old))
            return name + ": it is amended, not changed";
    }
    return "";
}

namespace {

// As another visit beside the own one, unless it was taken over before.
bool put_beside(Job& mine, Visit v, const char* mark)
{
    v.id.clear();
    v.title += (v.title.empty() ? "" : ", ") + std::string(mark);
    const auto same = [&](Visit x) {
        x.id.clear();
        return x == v;
    };
    if (std::any_of(mine.logbook.visits.begin(), mine.logbook.visits.end(), same))
        return false;
    mine.logbook.visits.push_back(std::move(v));
    return true;
}

constexpr const char *of_other = "as on the other computer", *of_this = "draft of this computer";

} // namespace

TakenOver take_visits(Job& mine, const Job& theirs)
{
    TakenOver out;
    for (const Visit& v : theirs.logbook.visits) {
        Visit* own = find_visit(mine, v.id);
        if (!own) {
            mine.logbook.visits.push_back(v);
            ++out.visits;
        } else if (*own == v) {
            continue;
        } else if (own->when != v.when) { // the same id for another visit: two computers counted alike
            out.visits += put_beside(mine, v, of_other) ? 1 : 0;
        } else if (v.closed && own->closed) {
            for (const Amendment& a : v.amendments)
                if (std::find(own->amendments.begin(), own->amendments.end(), a) == own->amendments.end()) {
                    own->amendments.push_back(a);
                    ++out.amendments;
                }
        } else if (v.closed) { // closed there: that is the record, the draft stays beside it
            const Visit draft = *own;
            *own = v;
            put_beside(mine, draft, of_this);
            out.differ.push_back(date_words(v.when));
        } else if (!own->closed && put_beside(mine, v, of_other)) { // both went on with it: both are kept
            out.differ.push_back(date_words(v.when));
            ++out.visits;
        }
    }
    const auto has = [](const auto& all, const std::string& hash) { return std::any_of(all.begin(), all.end(), [&](const Attachment& a) { return a.sha256 == hash; }); };
    for (const Attachment& a : theirs.attachments)
        if (!has(mine.attachments, a.sha256))
            mine.attachments.push_back(a);
    for (const BenchRecord& b : theirs.bench)
        if (std::find(mine.bench.begin(), mine.bench.end(), b) == mine.bench.end())
            mine.bench.push_back(b);
    for (const DueItem& d : theirs.logbook.due)
        if (std::none_of(mine.logbook.due.begin(), mine.logbook.due.end(), [&](const DueItem& x) { return x.id == d.id; }))
            mine.logbook.due.push_back(d);
    give_ids(mine, NewFrom::edit);
    sort_visits(mine);
    return out;
}

std::vector<PhotoOf> photos_of(const Job& job, const std::string& name)
{
    const auto lower = [](std::string s) {
        for (char& c : s)
            if (c >= 'A' && c <= 'Z')
                c = static_cast<char>(c - 'A' + 'a');
        return s;
    };
    std::vector<PhotoOf> out;
    for (auto v = job.logbook.visits.rbegin(); v != job.logbook.visits.rend(); ++v)
        for (const VisitPhoto& p : v->photos)
            if (!p.of.empty() && (lower(name) + " ").starts_with(lower(p.of) + " "))
                out.push_back({&*v, &p});
    return out;
}

std::string test_key(const BenchRecord& r) { return r.when + " " + r.procedure; }

const BenchRecord* find_test(const Job& job, const std::string& key)
{
    const auto it = std::find_if(job.bench.begin(), job.bench.end(), [&](const BenchRecord& r) { return test_key(r) == key; });
    return it == job.bench.end() ? nullptr : &*it;
}

} // namespace vernal
