// Papers about the unit and its loop: settings, keys, wiring, valves, chart, owner's card, audit.
#include "papers.h"

#include "core/audit/audit.h"
#include "core/plant/valve_board.h"
#include "core/sums/knob_card.h"
#include "core/unit/unit_lists.h"
#include "core/units/calendar.h"
#include "core/units/in_units.h"
#include "core/visit/expectation.h"
#include "core/visit/measured.h"
#include "core/wording/pocket_chart.h"
#include "core/wording/sentence.h"

#include <algorithm>
#include <cmath>
#include <cstdio>

namespace vernal {
namespace {

constexpr const char* needs_sheet = "Choose a unit at Bench, Unit; its sheet is kept in the job. On the command line --sheet north or --sheet south takes an example, and unit JOB --sheet FILE --out JOB keeps one";

Result<const UnitSheet*> sheet_of(const PaperRequest& r)
{
    if (!r.sheet)
        return Error{"this job has no unit sheet", "Bench", needs_sheet};
    return r.sheet;
}

// What a log tells of one output's settings, a line a setting.
std::vector<std::string> found_lines(const FoundSettings& f, const Units& u)
{
    std::vector<std::string> out;
    const auto say = [&](const char* what, const std::optional<Estimate>& e, const char* unit) {
        if (e)
            out.push_back(std::string(what) + " " + estimate_text(*e, unit, u));
    };
    say("starts at", f.on_k, "K");
    say("stops at", f.off_k, "K");
    say("limit of the store", f.limit_c, "°C");
    say("cut-out", f.cut_out_c, "°C");
    say("minimum run", f.min_run_s, "s");
    say("minimum rest", f.min_rest_s, "s");
    if (f.speeds)
        out.push_back(speeds_text(*f.speeds));
    return out;
}

} // namespace

Result<Paper> settings_paper(const PaperRequest& r)
{
    PaperMaker p(r, "settings", "");
    p.text("Variant: " + p.variant.name);
    PaperTable t{"settings", {"Setting", "Value", "Unit's code", "As found"}, {false, true, false, false}, {}};
    t.blank = true;
    std::string group;
    for (const CardRow& row : whole_card(p.variant, r.units)) {
        if (row.group != group) {
            t.rows.push_back({(group = row.group) + (row.used ? "" : " (switched off)"), "", "", ""});
            t.strong.resize(t.rows.size());
            t.strong.back() = true;
        }
        t.rows.push_back({row.name, row.value, "", ""});
    }
    t.strong.resize(t.rows.size());
    p.table(std::move(t));
    return p.done();
}

Result<Paper> keys_paper(const PaperRequest& r)
{
    const auto sheet = sheet_of(r);
    if (!sheet)
        return sheet.error();
    PaperMaker p(r, "keys", "");
    p.text((*sheet)->name + ", variant: " + p.variant.name);
    PaperTable t{"keys", {"", "Setting", "Where", "Keys", "Set to", "Note"}, {false, false, false, false, true, false}, {}};
    for (const KeyLine& l : key_list(**sheet, r.job, r.variant, r.units.fahrenheit)) {
        t.rows.push_back({"□", l.name, l.path, l.keys, l.set.empty() ? "cannot be set" : l.set, l.note.empty() && l.is == KeyIs::nearest ? "wanted " + l.wanted : l.note});
        t.strong.push_back(l.set.empty() && l.is >= KeyIs::lacking);
    }
    p.table(std::move(t));
    const auto wrong = wrong_presets(**sheet, r.job, r.variant);
    if (!wrong.empty())
        p.heading("As the factory left them these do harm here");
    for (const WrongPreset& w : wrong)
        for (const Finding& f : w.found)
            p.caution(w.name + " at " + w.value + ": " + f.title + ". " + f.reason);
    return p.done();
}

Result<Paper> wiring_paper(const PaperRequest& r)
{
    const auto sheet = sheet_of(r);
    if (!sheet)
        return sheet.error();
    PaperMaker p(r, "wiring", "");
    p.caution("Mains: isolate, prove dead, secure against switching on before a cover is opened. A licensed person where the law asks for one.");
    p.text((*sheet)->name + ", variant: " + p.variant.name);
    PaperTable t{"wiring", {"", "Terminal", "Goes to", "Note"}, {false, false, false, false}, {}};
    for (const WiringLine& l : wiring_list(**sheet, p.variant)) {
        t.rows.push_back({"□", l.terminal.empty() ? "none" : l.terminal, l.goes.empty() ? "–" : l.goes, l.note});
        t.strong.push_back(l.terminal.empty());
    }
    p.table(std::move(t));
    return p.done();
}

Result<Paper> valves_paper(const PaperRequest& r)
{
    PaperMaker p(r, "valves", "");
    const Loop& loop = p.variant.loop;
    const auto valves = valves_of(loop);
    if (valves.empty())
        return Error{"this loop has no hand valves", "Loop", "Air has none; others can be fitted at the valve board"};
    p.picture("board", "The loop with its valves, as they stand while it runs");
    PaperTable t{"valves", {"Valve"}, {false}, {}};
    for (std::size_t s = 0; s < service_states; ++s) {
        t.heads.emplace_back(state_title(static_cast<ServiceState>(s)));
        t.right.push_back(false);
    }
    for (const HandValve v : valves) {
        std::vector<std::string> row{valve_text(v).title};
        for (std::size_t s = 0; s < service_states; ++s)
            row.emplace_back(stands_text(stands(loop, v, static_cast<ServiceState>(s))));
        t.rows.push_back(std::move(row));
    }
    p.table(std::move(t));
    const Arrangement& a = arrangement_of(loop);
    for (std::size_t s = 0; s < service_states; ++s) {
        const auto state = static_cast<ServiceState>(s);
        p.heading(state_title(state));
        p.text(state_about(a, state));
        for (const std::string& way : flow_in(loop, state).words())
            p.text("Flows: " + way);
        p.caution(state_caution(a, state));
    }
    return p.done();
}

Result<Paper> chart_paper(const PaperRequest& r)
{
    PaperMaker p(r, "chart", "");
    const PocketChart chart = pocket_chart(p.variant);
    p.text("Probe off the unit: what a meter shows.");
    PaperTable t{"chart", {"°C", "°F"}, {true, true}, {}};
    for (const PocketColumn& c : chart.columns) {
        t.heads.push_back(c.title + ", " + c.unit);
        t.right.push_back(true);
    }
    for (const PocketRow& row : chart.rows) {
        char c[16], f[16];
        std::snprintf(c, sizeof c, "%.1f", row.temp_c);
        std::snprintf(f, sizeof f, "%.0f", row.temp_c * 1.8 + 32);
        std::vector<std::string> cells{c, f};
        for (const double s : row.signal)
            cells.push_back(std::isfinite(s) ? signal_text(s) : "–");
        t.rows.push_back(std::move(cells));
    }
    p.table(std::move(t));
    return p.done();
}

Result<Paper> owner_paper(const PaperRequest& r)
{
    PaperMaker p(r, "owner", "");
    const Loop& loop = p.variant.loop;
    const Arrangement& a = arrangement_of(loop);
    p.heading("When all is well");
    if (a.has(Part::vessel)) {
        // As it was when it was commissioned; what a later visit found may have been a leak.
        const Visit* first = visit_for(PaperRequest{r.job, r.variant, "", r.units, r.today, nullptr}, Purpose::commissioning);
        double fill = NAN, at = usual_fill_c;
        if (first) {
            const auto readings = valid_readings(*first);
            if (const VisitReading* x = reading_of(readings, "pressure"); x && x->with_temperature) {
                fill = x->value;
                at = x->at_c;
            }
        }
        constexpr double cold_c = 5, warm_c = 30; // of a morning over the year
        constexpr double gauge_pa = 0.1e5;        // what a small gauge reads wrongly; an estimate
        const double low = cold_gauge_pa(r.job, loop, cold_c, at, fill) - gauge_pa, high = cold_gauge_pa(r.job, loop, warm_c, at, fill) + gauge_pa;
        p.add({PaperBlock::Is::card, "Gauge in the morning, before the sun: between " + to_text(low, Quantity::pressure, r.units) + " and " + to_text(high, Quantity::pressure, r.units) + ". In the afternoon it stands higher, in the evening it comes back."});
    }
    if (a.pumped())
        p.add({PaperBlock::Is::card, "The pump runs when the sun has warmed the array, and rests at night. Some starts and stops in the morning are usual."});
    if (a.drains)
        p.add({PaperBlock::Is::card, "When the pump stops, water runs back with a sound, and the sight glass fills to its mark."});
    if (a.has(Part::battery))
        p.add({PaperBlock::Is::card, "The unit shows the battery's voltage. Below " + to_text(loop.battery.cut_v, Quantity::voltage, r.units) + " it rests the pump and waits for " + to_text(loop.battery.reconnect_v, Quantity::voltage, r.units) + "."});
    p.heading("Lamps and switches");
    if (r.sheet)
        for (const SheetLamp& l : r.sheet->lamps)
            p.text(l.lamp + ", " + pattern_keys[static_cast<std::size_t>(l.pattern)] + ": " + l.words);
    p.text("Every switch of the unit stands on AUTO. OFF and ON are for whoever services it.");
    if (a.has(Part::element) || a.has(Part::heater))
        p.text("The backup's hand switch heats without the sun: on for guests or dull weeks, else as the unit sets it.");
    p.heading("What to do");
    p.text("Weeks away: leave all of it on. Shut nothing, drain nothing.");
    if (a.has(Part::vessel))
        p.text("A hiss or drip at the relief valve: keep away, it scalds; call.");
    p.text("Snow on the glass slides off by itself; nobody climbs.");
    p.heading("When to call");
    std::string when = "The gauge is out of its band on two mornings; ";
    p.text((a.has(Part::vessel) ? when : std::string()) + "the pump runs in the dark, or never in the sun; a message or lamp that is not named above; water that is too hot, or cold after a sunny day; anything wet.");
    if (a.has(Part::tank))
        p.caution("Scald: water at the tap is tempered to 49 °C or less. Where it is hotter, mix with cold, keep children away and call.");
    p.caution("Never cap or shut a relief valve. Never open a hot loop.");
    p.sign("Installed and serviced by, telephone");
    return p.done();
}

Result<Paper> audit_paper(const PaperRequest& r)
{
    PaperMaker p(r, "audit", "");
    bool any = false;
    for (const Day& d : r.job.days) {
        if (d.kind != DayKind::recorded)
            continue;
        const auto it = r.job.traces.find(d.trace);
        if (it == r.job.traces.end() || !it->second)
            continue;
        const auto a = audit(r.job, p.variant, *it->second);
        if (!a)
            continue;
        any = true;
        p.heading("Log: " + d.name);
        PaperTable found{"found", {"Output", "Found in the log"}, {false, false}, {}};
        for (const FoundSettings& f : a->found)
            for (const std::string& line : found_lines(f, r.units))
                found.rows.push_back({p.variant.unit.outputs[f.output].key, line});
        p.table(std::move(found));
        PaperTable troubles{"troubles", {"What", "Why", "What proves it", "How sure"}, {false, false, false, true}, {}};
        for (const AuditTrouble& t : a->troubles) {
            troubles.rows.push_back({in_units(t.what, r.units), in_units(t.reason, r.units), in_units(t.test, r.units), std::to_string(std::lround(100 * t.sure)) + " %"});
            troubles.strong.push_back(t.serious);
        }
        if (troubles.rows.empty())
            p.text("No trouble was found in it.");
        p.table(std::move(troubles));
        PaperTable other{"disagreements", {"The unit did otherwise than the rules", "Likely cause", "Minutes"}, {false, false, true}, {}};
        for (const CostedDisagreement& c : a->disagreements)
            other.rows.push_back({p.variant.unit.outputs[c.what.output].key, c.cause, std::to_string(std::lround(c.length_s / 60))});
        p.table(std::move(other));
    }
    if (!any)
        return Error{"this job has no log to audit", "Days", "Import a log there, or read one from the unit on the wire. On the command line: audit JOB --log FILE --out JOB keeps it"};
    p.picture("day", "The day that is chosen");
    p.picture("map", "The rules over the temperatures");
    return p.done();
}

} // namespace vernal
