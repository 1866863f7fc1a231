// Records of visits: commissioning and service.
#include "papers.h"

#include "core/plant/valve_board.h"
#include "core/units/calendar.h"
#include "core/visit/check_list.h"
#include "core/visit/due.h"
#include "core/visit/first_day.h"
#include "core/visit/keeping.h"
#include "core/visit/measured.h"
#include "core/visit/reading_kind.h"
#include "core/wording/sentence.h"

#include <algorithm>
#include <cmath>
#include <cstdio>

namespace vernal {
namespace {

std::string money(double x, const Job& job)
{
    char b[40];
    std::snprintf(b, sizeof b, "%.2f", x);
    return x == 0 ? "" : std::string(b) + (job.logbook.costs.money.empty() ? "" : " " + job.logbook.costs.money);
}

void who_and_when(PaperMaker& p, const Visit& v)
{
    std::string s = moment_words(v.when) + ", " + purpose_text(v.purpose) + (v.title.empty() ? "" : ": " + v.title) + ".";
    if (!v.persons.empty())
        s += " Present: " + v.persons + ".";
    if (!v.weather.empty())
        s += " Weather: " + v.weather + ".";
    p.text(s + (v.closed ? "" : " This visit is not closed yet."));
}

void settings(PaperMaker& p, const Visit& v)
{
    if (v.found.empty() && v.left.empty())
        return;
    p.heading("Settings");
    std::string how;
    if (!v.found_how.empty())
        how += "Found " + v.found_how + ". ";
    if (!v.left_how.empty())
        how += "Left " + v.left_how + ".";
    p.text(how);
    const Variant& left = v.left.empty() ? v.found.front() : v.left.front();
    const SettingsSeen seen = settings_seen(v.found.empty() ? left : v.found.front(), left, p.r.units);
    if (!seen.lines.empty()) {
        PaperBlock b{PaperBlock::Is::settings, ""};
        b.lines = seen.lines;
        p.add(std::move(b));
    }
    p.text(seen.lines.empty() ? "All settings are as they were found." : std::to_string(seen.same) + (seen.same == 1 ? " rule is as it was." : " rules are as they were."));
    PaperTable all{"rules", {"Rules as left", ""}, {false, false}, {}};
    for (const Rule& r : left.unit.rules)
        all.rows.push_back({r.output, sentence(left, r, p.r.units) + (r.enabled ? "" : " (switched off)")});
    p.table(std::move(all));
}

void measured(PaperMaker& p, const Visit& v)
{
    PaperTable t{"measured", {"What", "How", "Value", "Last time", "Reading"}, {false, false, true, true, false}, {}};
    for (const MeasuredRow& m : measured_rows(p.r.job, v, p.r.units)) {
        t.rows.push_back({m.what, m.how, m.value, m.last, m.tone == Tone::caution ? "▲ " + m.says : m.says});
        t.strong.push_back(m.tone == Tone::caution);
    }
    if (!t.rows.empty())
        p.heading("Measured");
    p.table(std::move(t));
}

void tests(PaperMaker& p, const Visit& v)
{
    PaperTable t{"tests", {"Test", "Verdict", "Step", ""}, {false, false, false, false}, {}};
    for (const std::string& key : v.tests)
        if (const BenchRecord* b = find_test(p.r.job, key)) {
            static constexpr std::array words{"open", "passed", "failed", "not possible"};
            const auto of = [&](StepVerdict s) { return words[static_cast<std::size_t>(s)]; };
            t.rows.push_back({b->title, of(b->verdict), "", b->read_at == ReadAt::wire ? "at the unit" : "on the rig"});
            t.strong.push_back(b->verdict == StepVerdict::failed);
            for (const BenchStep& s : b->steps) {
                t.rows.push_back({"", of(s.verdict), s.title + (s.of.empty() ? "" : ", " + s.of), s.said});
                t.strong.push_back(s.verdict == StepVerdict::failed);
            }
        }
    if (!t.rows.empty())
        p.heading("Tests");
    p.table(std::move(t));
}

void done(PaperMaker& p, const Visit& v)
{
    PaperTable faults{"faults", {"Found", "Where"}, {false, false}, {}};
    for (const VisitFault& f : v.faults)
        faults.rows.push_back({f.text, f.of});
    PaperTable work{"done", {"Done and parts", "Minutes", "Cost"}, {false, true, true}, {}};
    double minutes = 0, cost = 0;
    for (const VisitWork& w : v.work) {
        std::string text = w.text;
        if (!w.part.empty())
            text += (text.empty() ? "" : ": ") + w.part;
        if (w.after_h > 0 || w.after_starts > 0)
            text += ", after " + (w.after_h > 0 ? to_text(w.after_h, Quantity::hours, p.r.units) : "") + (w.after_h > 0 && w.after_starts > 0 ? " and " : "") + (w.after_starts > 0 ? to_text(w.after_starts, Quantity::count, p.r.units) + " starts" : "");
        work.rows.push_back({text, w.minutes_s > 0 ? std::to_string(std::lround(w.minutes_s / 60)) : "", money(w.cost, p.r.job)});
        minutes += w.minutes_s / 60;
        cost += w.cost;
    }
    if (work.rows.size() > 1) {
        work.rows.push_back({"Together", std::to_string(std::lround(minutes)), money(cost, p.r.job)});
        work.strong.assign(work.rows.size(), false);
        work.strong.back() = true;
    }
    if (!faults.rows.empty() || !work.rows.empty())
        p.heading("Found and done");
    p.table(std::move(faults));
    p.table(std::move(work));
}

void photos(PaperMaker& p, const Visit& v)
{
    if (!v.photos.empty())
        p.heading("Photos");
    for (const VisitPhoto& x : v.photos)
        p.picture("photo/" + x.sha256, x.caption + (x.of.empty() ? "" : (x.caption.empty() ? "" : ", ") + x.of));
}

void rest(PaperMaker& p, const Visit& v)
{
    if (!v.notes.empty()) {
        p.heading("Notes");
        p.text(v.notes);
    }
    PaperTable next{"next", {"What is next", "By"}, {false, false}, {}};
    for (const OpenNext& o : open_next(p.r.job, v.when))
        next.rows.push_back({o.next->text + (o.visit->id == v.id ? "" : " (since " + date_words(o.visit->when) + ")"), date_words(o.next->by)});
    const auto today = date_of(p.r.today);
    for (const DueNow& d : today ? due_list(p.r.job, *today) : std::vector<DueNow>())
        if (d.visit.empty() && d.date <= months_later(*today, 12))
            next.rows.push_back({d.title + (d.licensed ? " (by the licensed person)" : ""), date_words(date_text(d.date))});
    if (!next.rows.empty())
        p.heading("Next");
    p.table(std::move(next));
    if (!v.amendments.empty())
        p.heading("Amended");
    for (const Amendment& a : v.amendments) {
        std::string s = moment_words(a.when) + (a.by.empty() ? "" : ", " + a.by) + ": " + a.text;
        for (const VisitReading& x : a.readings)
            if (const ReadingKind* k = find_reading_kind(x.kind))
                s += " " + reading_label(*k, x.of, &p.variant) + " " + reading_text(x, p.r.units) + ".";
        p.text(s + " Because: " + a.reason);
    }
}

void first_day(PaperMaker& p, const Visit& v)
{
    PaperTable t{"first_day", {"First day, " + date_words(v.first_day.date), "Foretold", "Reached", "Reading"}, {false, true, true, false}, {}};
    for (const FirstDayRow& f : first_day_rows(p.r.job, v, p.r.units))
        t.rows.push_back({f.what, f.foretold, f.reached, f.says});
    p.table(std::move(t));
}

void cautions_of(PaperMaker& p)
{
    const Arrangement& a = arrangement_of(p.variant.loop);
    if (a.has(Part::tank))
        p.caution("Scald: at the tap water is tempered to 49 °C or less; a hot store without a tempering valve burns in seconds.");
    if (a.has(Part::vessel))
        p.caution("Never open or fill a hot loop. A relief valve is never capped, plugged or shut off.");
    if (a.has(Part::battery))
        p.caution("Battery: no sparks near it; its fuse is the first thing to open.");
}

} // namespace

Result<Paper> service_paper(const PaperRequest& r)
{
    const Visit* v = visit_for(r, {});
    if (!v)
        return Error{"this job has no visit", "Visits", "Begin one: + visit. On the command line: visit JOB add"};
    PaperMaker p(r, "service", v->when);
    who_and_when(p, *v);
    settings(p, *v);
    measured(p, *v);
    tests(p, *v);
    done(p, *v);
    photos(p, *v);
    rest(p, *v);
    p.picture("loop", "The loop");
    cautions_of(p);
    p.sign("Technician");
    p.sign("Customer");
    return p.done();
}

Result<Paper> commissioning_paper(const PaperRequest& r)
{
    const Visit* last = visit_for(r, Purpose::commissioning);
    if (!last)
        return Error{"this job has no visit for commissioning", "Visits", "Begin one: + visit, commissioning. On the command line: visit JOB add --purpose commissioning"};
    PaperMaker p(r, "commissioning", last->when);
    for (const Visit& v : r.job.logbook.visits)
        if (v.purpose == Purpose::commissioning)
            who_and_when(p, v);
    p.picture("loop", "The loop");
    p.picture("map", "The rules over the temperatures");
    p.picture("day", "A day with these rules, as computed");
    for (const CheckList& list : check_lists(r.job)) {
        if (list.purpose != Purpose::commissioning)
            continue;
        const auto items = items_of(r.job, variant_of(r.job, *last), list, last->when);
        p.heading(list.title);
        if (const std::size_t open = open_items(items))
            p.caution(std::to_string(open) + (open == 1 ? " item is still open." : " items are still open."));
        std::string stage;
        PaperBlock b{PaperBlock::Is::ticks, ""};
        const auto flush = [&] {
            if (!b.items.empty())
                p.add(b);
            b.items.clear();
        };
        for (const ItemStands& s : items) {
            if (s.item->stage != stage) {
                flush();
                b.text = stage = s.item->stage;
            }
            std::string words = s.item->title;
            if (s.measured) {
                words += ": " + reading_text(*s.measured, r.units);
                const std::string tolerance = tolerance_text(*s.item, p.variant, r.units);
                if (!tolerance.empty())
                    words += " (" + tolerance + (s.within && !*s.within ? ", missed" : "") + ")";
            }
            if (s.tick == Tick::not_applicable)
                words += ": not applicable because " + (s.said.empty() ? "nobody said why" : s.said);
            else if (!s.said.empty())
                words += ": " + s.said;
            if (!s.when.empty() && s.tick != Tick::open)
                words += " · " + moment_words(s.when) + (s.tick == Tick::proved ? ", proved by its procedure" : "");
            b.items.emplace_back(s.tick == Tick::open ? "" : s.tick == Tick::not_applicable ? "–"
                                                                                            : "✓",
                words);
        }
        flush();
    }
    for (const Visit& v : r.job.logbook.visits)
        if (v.purpose == Purpose::commissioning) {
            p.heading(date_words(v.when));
            settings(p, v);
            measured(p, v);
            tests(p, v);
            done(p, v);
            first_day(p, v);
            photos(p, v);
            rest(p, v);
        }
    cautions_of(p);
    p.sign("Technician");
    p.sign("Customer");
    return p.done();
}

} // namespace vernal
