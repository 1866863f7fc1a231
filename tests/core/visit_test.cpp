// Visits as values: dictated lines, what was measured, settings found and left, lists.
#include "core/bench/procedure.h"
#include "core/job/field_path.h"
#include "core/setup/loop_answers.h"
#include "core/units/calendar.h"
#include "core/visit/check_list.h"
#include "core/visit/dictation.h"
#include "core/visit/expectation.h"
#include "core/visit/measured.h"
#include "core/visit/reading_kind.h"
#include "core/visit/settings_seen.h"

#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <algorithm>

namespace vernal {
namespace {

Visit visit_at(const char* when)
{
    Visit v;
    v.when = when;
    return v;
}

std::string said(Visit& v, const std::string& line, const Job& job)
{
    const auto r = dictate(v, line, job.variants.front(), Units::metric());
    return r ? *r : "! " + r.error().what;
}

TEST(Calendar, knows_dates_that_exist)
{
    EXPECT_TRUE(is_date("2024-02-29"));
    EXPECT_FALSE(is_date("2026-02-29"));
    EXPECT_FALSE(is_date("2026-5-12"));
    EXPECT_TRUE(is_moment("2026-05-12T23:59"));
    EXPECT_FALSE(is_moment("2026-05-12T24:00"));
    EXPECT_EQ(date_words("2026-05-12T09:30"), "12 May 2026");
    EXPECT_EQ(moment_words("2026-05-12T09:30"), "12 May 2026, 09:30");
    EXPECT_EQ(date_text(months_later(*date_of("2026-01-31"), 1)), "2026-02-28");
    EXPECT_EQ(date_text(months_later(*date_of("2026-03-31"), -13)), "2025-02-28");
}

RC_GTEST_PROP(Calendar, a_date_reads_back, ())
{
    const Day1970 day{std::chrono::days(*rc::gen::inRange(-25000, 300000))};
    RC_ASSERT(date_of(date_text(day)) == day);
}

TEST(Dictation, understands_what_is_said_with_one_hand)
{
    const Job job = new_job("pv-battery");
    Visit v = visit_at("2026-05-12T09:30");
    EXPECT_EQ(said(v, "S1 1106 ohm", job).substr(0, 2), "S1");
    EXPECT_EQ(v.readings.back().kind, "ohm");
    EXPECT_EQ(v.readings.back().value, 1106);
    EXPECT_EQ(said(v, "bucket 8 L 61 s", job)[0], 'f');
    EXPECT_NEAR(v.readings.back().value, 8e-3 / 61, 1e-15);
    EXPECT_EQ(v.readings.back().how, "bucket, 8 L in 61 s");
    said(v, "bucket 8 L 61 s 59 s 60 s", job);
    EXPECT_NEAR(v.readings.back().value, 8e-3 / 60, 1e-15);
    EXPECT_EQ(v.readings.size(), 2u) << "said again it stands in place of the first";
    said(v, "S1 24.5 C", job);
    EXPECT_EQ(v.readings.back().kind, "reading");
    said(v, "s1 s2 0.3 K, by one cup", job);
    EXPECT_EQ(v.readings.back().kind, "apart");
    EXPECT_EQ(v.readings.back().how, "one cup");
    said(v, "P1 0.42 A", job);
    EXPECT_EQ(v.readings.back().kind, "current");
    said(v, "P1 31200 starts", job);
    EXPECT_EQ(v.readings.back().kind, "starts");
    said(v, "P1 9140 h", job);
    EXPECT_EQ(v.readings.back().kind, "hours");
    said(v, "battery 12.6 V, at 11:40", job);
    EXPECT_EQ(v.readings.back().time, "11:40");
    said(v, "first start 08:12", job);
    EXPECT_NEAR(v.readings.back().value, 8.2, 1e-12);
    said(v, "done: Sight glass cleaned | 20 min | part Seal | cost 4.5 | after 9140 h", job);
    ASSERT_EQ(v.work.size(), 1u);
    EXPECT_EQ(v.work[0].minutes_s, 1200);
    EXPECT_EQ(v.work[0].cost, 4.5);
    said(v, "next: look at the pitch | by 2026-10-01", job);
    EXPECT_EQ(v.next.at(0).by, "2026-10-01");
    said(v, "note: first\\nsecond", job);
    EXPECT_EQ(v.notes, "first\nsecond");
}

TEST(Dictation, says_what_is_wrong_and_changes_nothing)
{
    const Job job = new_job("drainback");
    const Visit before = visit_at("2026-05-12T09:30");
    for (const char* line : {"", "S9 1106 ohm", "S1 1106", "S1 lots", "bucket 8 L", "bucket 8 61", "bucket 0 L 3 s", "pressure 1.8 bar", "battery 12 V", "P1 -3 A", "next: a | by tomorrow", "done: x | many", "done:", "sky: green", "tick: a | done", "when: today", "flow", "flow 1e99 L/min"}) {
        Visit v = before;
        const auto r = dictate(v, line, job.variants.front(), Units::metric());
        EXPECT_FALSE(r) << line;
        if (!r) {
            EXPECT_FALSE(r.error().what.empty()) << line;
        }
        EXPECT_EQ(v, before) << line;
    }
}

TEST(Dictation, of_a_pressure_takes_its_temperature)
{
    const Job job = new_job("glycol-coil");
    Visit v = visit_at("2026-05-12T09:30");
    said(v, "pressure 1.8 bar at 24 C", job);
    ASSERT_EQ(v.readings.size(), 1u);
    EXPECT_TRUE(v.readings[0].with_temperature);
    EXPECT_NEAR(v.readings[0].value, 1.8e5, 1e-6);
    EXPECT_EQ(v.readings[0].at_c, 24);
    const auto us = dictate(v, "pressure 26 psi at 75 °F", job.variants.front(), Units::us());
    EXPECT_TRUE(us);
    EXPECT_NEAR(v.readings[0].value, 26 * 6894.757, 0.01);
}

std::string any_words()
{
    static const std::vector<std::string> words{"pitch", "of the", "| bar", "\\", "a\nb", ", at 11:40", ", by hand", "ü", "=3", "8 L", "12:30", "\"", "C:\\n"};
    std::string out = "x";
    for (int i = *rc::gen::inRange(0, 4); i > 0; --i)
        out += " " + words[*rc::gen::inRange<std::size_t>(0, words.size())];
    return out + " z";
}

// A visit of what can be dictated, its texts with all that parts entries.
Visit any_visit(const Variant& v)
{
    Visit x = visit_at("2026-05-12T09:30");
    x.purpose = static_cast<Purpose>(*rc::gen::inRange(0, 5));
    x.title = any_words();
    x.persons = any_words();
    x.notes = any_words();
    for (const AskedReading& a : asked_readings(v))
        if (*rc::gen::inRange(0, 2) == 0) {
            VisitReading r;
            r.kind = a.kind->key;
            r.of = a.of;
            const double share = *rc::gen::inRange(0, 1000001) * 1e-6;
            r.value = a.kind->quantity == Quantity::count ? std::floor(a.kind->min + share * (a.kind->max - a.kind->min)) : a.kind->min + share * share * (a.kind->max - a.kind->min);
            if (a.kind->with_temperature && *rc::gen::arbitrary<bool>()) {
                r.with_temperature = true;
                r.at_c = *rc::gen::inRange(-200, 900) / 7.0;
            }
            if (*rc::gen::arbitrary<bool>())
                r.how = "bucket, 8 L in 61 s";
            if (*rc::gen::arbitrary<bool>())
                r.time = "11:40";
            x.readings.push_back(r);
        }
    for (int i = *rc::gen::inRange(0, 3); i > 0; --i) {
        x.faults.push_back({any_words(), *rc::gen::arbitrary<bool>() ? "P1" : ""});
        VisitWork w;
        w.text = any_words();
        w.part = *rc::gen::arbitrary<bool>() ? any_words() : "";
        w.minutes_s = 60.0 * *rc::gen::inRange(0, 400);
        w.cost = *rc::gen::inRange(0, 90000) / 100.0;
        w.after_h = *rc::gen::inRange(0, 90000) / 7.0;
        w.after_starts = *rc::gen::inRange(0, 90000);
        x.work.push_back(w);
        x.next.push_back({any_words(), *rc::gen::arbitrary<bool>() ? "2026-10-01" : ""});
        x.ticks.push_back({"commissioning", "item-" + std::to_string(i), static_cast<Tick>(*rc::gen::inRange(0, 4)), any_words(), "2026-05-12T10:00"});
    }
    return x;
}

RC_GTEST_PROP(Dictation, what_is_said_reads_back_equal, ())
{
    const char* preset = *rc::gen::element("direct", "glycol-coil", "drainback", "pv-battery", "air", "two-arrays");
    const Variant v = new_job(preset).variants.front();
    const Visit x = any_visit(v);
    Visit back;
    for (const std::string& line : dictated(x)) {
        const auto r = dictate(back, line, v, Units::metric());
        if (!r)
            RC_FAIL(line + ": " + r.error().what);
    }
    RC_ASSERT(back == x);
}

TEST(AskedReadings, are_those_that_the_loop_has)
{
    const auto has = [](const char* preset, const char* kind) {
        const auto asked = asked_readings(new_job(preset).variants.front());
        return std::any_of(asked.begin(), asked.end(), [&](const AskedReading& a) { return std::string(a.kind->key) == kind; });
    };
    EXPECT_TRUE(has("glycol-coil", "pressure"));
    EXPECT_FALSE(has("drainback", "pressure"));
    EXPECT_TRUE(has("drainback", "drains"));
    EXPECT_FALSE(has("glycol-coil", "drains"));
    EXPECT_FALSE(has("air", "flow"));
    EXPECT_FALSE(has("direct", "battery"));
    EXPECT_TRUE(has("pv-battery", "battery"));
    EXPECT_FALSE(has("drainback", "freezes"));
}

// Boyle's law by hand: 18 L at 1.5 bar, 1.8 bar cold, at an air of 1.01325 bar leave
// 18 · 2.51325/2.81325 = 16.0805 L of gas; what the loop's fluid grows by is taken off.
TEST(ColdGauge, follows_the_gas_and_the_fluid)
{
    Job job = new_job("glycol-coil");
    job.site.place.altitude_m = 0;
    const Loop& l = job.variants.front().loop;
    EXPECT_NEAR(cold_gauge_pa(job, l, 15, 15), l.vessel.fill_pa, 1e-6);
    double last = 0;
    for (const double t : {0.0, 10.0, 20.0, 40.0, 60.0}) {
        const double p = cold_gauge_pa(job, l, t, 15);
        EXPECT_GT(p, last) << t;
        last = p;
    }
    const double gas = l.vessel.volume_m3 * (l.vessel.precharge_pa + 101325) / (l.vessel.fill_pa + 101325), then = cold_gauge_pa(job, l, 60, 15) + 101325;
    const double grown = gas - gas * (l.vessel.fill_pa + 101325) / then;
    EXPECT_GT(grown, 0.1e-3);
    EXPECT_LT(grown, 2e-3) << "two or three in a hundred of some litres (water and glycol, 15 to 60 °C)";
    EXPECT_TRUE(std::isnan(cold_gauge_pa(new_job("drainback"), new_job("drainback").variants.front().loop, 20, 15)));
}

// Handbook arithmetic: 8 L in 41 s with a rise of 7.2 K carry 5.8 kW of water (computed: 0.1951 kg/s · 4.18 · 7.2).
TEST(Carried, is_flow_times_rise)
{
    const Job job = new_job("direct");
    EXPECT_NEAR(carried_w(job.variants.front().loop, 8e-3 / 41, 7.2, 30), 5850, 60);
}

TEST(ClearSky, gives_nothing_at_night_and_most_about_noon)
{
    const Job job = new_job("glycol-coil");
    const Variant& v = job.variants.front();
    EXPECT_TRUE(std::isnan(clear_sky_heat_w(job, v, "2026-06-21T01:00", 40, 15)));
    const double noon = clear_sky_heat_w(job, v, "2026-06-21T13:00", 40, 20), morning = clear_sky_heat_w(job, v, "2026-06-21T08:00", 40, 20);
    EXPECT_GT(noon, morning);
    EXPECT_GT(noon, 0.4 * 1000 * v.loop.collector.area_m2 * v.loop.collector.eta0);
    EXPECT_LT(noon, 1100 * v.loop.collector.area_m2 * v.loop.collector.eta0);
    EXPECT_TRUE(std::isnan(clear_sky_heat_w(job, v, "today", 40, 20)));
}

TEST(Measured, stands_beside_the_last_time_with_its_reading)
{
    Job job = new_job("glycol-coil");
    Visit old = visit_at("2025-05-10T11:30"), now = visit_at("2026-05-12T11:30");
    said(old, "flow 8.3 L/min", job);
    said(old, "rise 11 K", job);
    said(old, "pressure 1.8 bar at 20 C", job);
    said(now, "flow 6.5 L/min", job);
    said(now, "rise 11.4 K, at 11:40", job);
    said(now, "pressure 1.2 bar at 20 C", job);
    old.id = "a";
    now.id = "b";
    job.logbook.visits = {old, now};
    const auto rows = measured_rows(job, now, Units::metric());
    ASSERT_EQ(rows.size(), 4u);
    EXPECT_EQ(rows[0].last, to_text(8.3e-3 / 60, Quantity::flow, Units::metric()));
    EXPECT_EQ(rows[0].tone, Tone::caution);
    EXPECT_EQ(rows[1].says, "as it was");
    EXPECT_EQ(rows[2].kind, "heat now");
    EXPECT_NE(rows[2].says.find("clear sky"), std::string::npos);
    EXPECT_EQ(rows[3].tone, Tone::caution);
    EXPECT_NE(rows[3].says.find("under its first filling"), std::string::npos) << rows[3].says;
    EXPECT_TRUE(measured_rows(job, old, Units::metric())[0].last.empty());
}

TEST(Measured, takes_what_an_amendment_says)
{
    Job job = new_job("glycol-coil");
    Visit v = visit_at("2026-05-12T11:30");
    said(v, "flow 83 L/min", job);
    Amendment a{"2026-05-13T08:00", "A. Fitter", "the point was missed", "flow is 8.3", {}};
    a.readings = {v.readings[0]};
    a.readings[0].value = 8.3e-3 / 60;
    v.amendments.push_back(a);
    ASSERT_EQ(valid_readings(v).size(), 1u);
    EXPECT_EQ(valid_readings(v)[0].value, a.readings[0].value);
    EXPECT_NE(v.readings[0].value, a.readings[0].value) << "the page itself is left as it was";
}

TEST(SettingsSeen, strikes_what_was_and_sets_what_is)
{
    const SettingLine line = words_between("Start P1 at 5.6 K; stop at 1.1 K.", "Start P1 at 9.4 K; stop at 3.4 K.");
    ASSERT_GE(line.size(), 3u);
    EXPECT_EQ(line[0].text, "Start P1 at");
    EXPECT_EQ(line[1].is, SettingPiece::Is::was);
    EXPECT_EQ(line[2].is, SettingPiece::Is::now);
    Job job = new_job("glycol-coil");
    Variant left = job.variants.front();
    EXPECT_TRUE(settings_seen(left, left, Units::metric()).lines.empty());
    const std::size_t all = left.unit.rules.size();
    left.unit.rules.pop_back();
    left.unit.outputs.front().mode = Mode::on;
    left.loop.pump.flow_m3_s *= 1.2;
    const SettingsSeen seen = settings_seen(job.variants.front(), left, Units::metric());
    EXPECT_EQ(seen.same, all - 1);
    EXPECT_GE(seen.lines.size(), 3u) << "a rule gone, a switch, a part";
}

// Both texts can be had again from the pieces.
RC_GTEST_PROP(SettingsSeen, holds_both_sentences, ())
{
    const auto words = [] {
        std::string out = "w";
        for (int i = *rc::gen::inRange(0, 8); i > 0; --i)
            out += std::string(" ") + *rc::gen::element("a", "b", "c", "4.0", "K");
        return out;
    };
    const std::string found = words(), left = words();
    std::string was, now;
    for (const SettingPiece& p : words_between(found, left)) {
        was += p.is == SettingPiece::Is::now ? "" : (was.empty() ? "" : " ") + p.text;
        now += p.is == SettingPiece::Is::was ? "" : (now.empty() ? "" : " ") + p.text;
    }
    RC_ASSERT(was == found);
    RC_ASSERT(now == left);
}

TEST(CheckLists, ship_and_read_back_equal)
{
    ASSERT_EQ(shipped_check_lists().size(), 3u);
    for (const CheckList& l : shipped_check_lists()) {
        const auto back = read_check_list(write_check_list(l), l.name);
        ASSERT_TRUE(back) << back.error().what << " " << back.error().where;
        EXPECT_EQ(*back, l);
        for (const ListItem& i : l.items)
            if (!i.proved_by.empty()) {
                const auto& p = shipped_procedures();
                EXPECT_TRUE(std::any_of(p.begin(), p.end(), [&](const Procedure& x) { return x.name == i.proved_by; })) << i.proved_by;
            }
    }
}

TEST(CheckLists, of_commissioning_give_the_reason_of_each_item)
{
    for (const ListItem& i : shipped_check_lists()[1].items)
        EXPECT_FALSE(i.why.empty()) << i.id;
}

// What a survey asks for is a number that loops of its kind have.
TEST(CheckLists, set_what_is_there)
{
    std::size_t set = 0;
    for (const CheckList& l : shipped_check_lists())
        for (const ListItem& i : l.items) {
            if (i.sets.empty())
                continue;
            bool found = false;
            for (const char* preset : {"glycol-coil", "drainback", "pv-battery", "air"}) {
                const Job job = new_job(preset);
                const auto items = items_of(job, job.variants.front(), l);
                if (std::none_of(items.begin(), items.end(), [&](const ItemStands& s) { return s.item->id == i.id; }))
                    continue;
                const auto setting = setting_at(job, 0, i.sets);
                EXPECT_TRUE(setting && setting->numeric()) << i.sets << " of " << preset;
                found = true;
            }
            EXPECT_TRUE(found) << i.id;
            ++set;
        }
    EXPECT_GT(set, 6u);
}

TEST(CheckLists, say_where_a_slip_is)
{
    const std::string head = "---\nname: a\ntitle: A\npurpose: service\n---\n";
    for (const auto& [text, line] : std::vector<std::pair<std::string, int>>{{"x", 1}, {"---\nname: A b\n---\n", 2}, {head, 5}, {head + "## T\n- id: x\n- nonsense: 3\n", 8}, {head + "## T\n- id: x\n- only: boats\n", 8}, {head + "## T\n- id: x\n- measure: luck\n", 8}, {head + "## T\n- id: x\n- measure: flow near 3\n", 8}, {head + "## T\n- id: x\n- measure: flow below 3 K\n", 8}, {head + "## T\n## U\n", 7}, {head + "## T\n- id: x\n## U\n- id: x\n", 9}}) {
        const auto r = read_check_list(text, "own.md");
        ASSERT_FALSE(r) << text;
        EXPECT_NE(r.error().where.find("line " + std::to_string(line)), std::string::npos) << r.error().where << " of " << text;
        EXPECT_FALSE(r.error().remedy.empty());
    }
}

const CheckList& commissioning() { return shipped_check_lists()[1]; }
const ItemStands* item(const std::vector<ItemStands>& all, const char* id)
{
    const auto it = std::find_if(all.begin(), all.end(), [&](const ItemStands& s) { return s.item->id == id; });
    return it == all.end() ? nullptr : &*it;
}

TEST(CheckLists, ask_what_the_loop_has)
{
    const Job glycol = new_job("glycol-coil"), drain = new_job("drainback"), air = new_job("air");
    const auto of = [](const Job& j) { return items_of(j, j.variants.front(), commissioning()); };
    EXPECT_TRUE(item(of(glycol), "vessel-gas"));
    EXPECT_FALSE(item(of(drain), "vessel-gas"));
    EXPECT_TRUE(item(of(drain), "falls"));
    EXPECT_FALSE(item(of(air), "flush"));
    EXPECT_TRUE(item(of(air), "blower"));
    EXPECT_EQ(open_items(of(glycol)), of(glycol).size()) << "nothing is ticked to begin with";
}

TEST(CheckLists, are_ticked_by_hand_or_by_what_a_procedure_proved)
{
    Job job = new_job("glycol-coil");
    Visit first = visit_at("2026-05-12T09:30"), second = visit_at("2026-05-13T09:00");
    said(first, "tick: commissioning/brackets | done | | 2026-05-12T10:00", job);
    said(first, "tick: commissioning/leak-test | not_applicable | factory tested | 2026-05-12T10:05", job);
    said(second, "tick: commissioning/leak-test | open | | 2026-05-13T10:05", job);
    said(second, "pressure 1.0 bar at 15 C", job);
    first.id = "a";
    second.id = "b";
    job.logbook.visits = {first, second};
    BenchRecord b;
    b.procedure = "outputs-by-hand";
    b.when = "2026-05-11T09:00";
    b.verdict = StepVerdict::passed;
    job.bench.push_back(b);
    auto all = items_of(job, job.variants.front(), commissioning());
    EXPECT_EQ(item(all, "brackets")->tick, Tick::done);
    EXPECT_EQ(item(all, "leak-test")->tick, Tick::open) << "opened again on the second day";
    EXPECT_EQ(item(all, "outputs")->tick, Tick::open) << "what passed before the list was begun proves nothing";
    ASSERT_TRUE(item(all, "cold-pressure")->measured);
    EXPECT_EQ(item(all, "cold-pressure")->within, false);
    EXPECT_EQ(item(all, "cold-pressure")->tick, Tick::open) << "a measurement ticks nothing";
    job.bench.back().when = "2026-05-13T11:00";
    all = items_of(job, job.variants.front(), commissioning());
    EXPECT_EQ(item(all, "outputs")->tick, Tick::proved);
    b.verdict = StepVerdict::failed;
    b.when = "2026-05-13T12:00";
    job.bench.push_back(b);
    EXPECT_EQ(item(items_of(job, job.variants.front(), commissioning()), "outputs")->tick, Tick::open);
}

} // namespace
} // namespace vernal
