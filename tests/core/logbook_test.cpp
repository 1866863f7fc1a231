// The logbook over the years: courses, what is due, what is kept, call-backs, the first day.
#include "core/job/job_check.h"
#include "core/setup/loop_answers.h"
#include "core/visit/call_back.h"
#include "core/visit/due.h"
#include "core/visit/expectation.h"
#include "core/visit/first_day.h"
#include "core/visit/keeping.h"
#include "core/visit/over_the_seasons.h"
#include "core/visit/take_along.h"

#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <algorithm>
#include <random>

namespace vernal {
namespace {

VisitReading reading(const char* kind, double value, const char* of = "")
{
    VisitReading r;
    r.kind = kind;
    r.of = of;
    r.value = value;
    return r;
}

// Visits three months apart, from March 2023 on, at noon.
Job history(const char* preset, std::size_t visits)
{
    Job job = new_job(preset);
    Day1970 day = *date_of("2023-03-10");
    for (std::size_t i = 0; i < visits; ++i) {
        Visit v;
        v.when = date_text(day) + "T12:00";
        v.id = "v" + std::to_string(i);
        v.sky = "clear";
        v.persons = "A. Fitter";
        job.logbook.visits.push_back(v);
        day = months_later(day, 3);
    }
    return job;
}

double days_since_first(const Job& job, std::size_t i) { return static_cast<double>((*date_of(job.logbook.visits[i].when) - *date_of(job.logbook.visits[0].when)).count()); }

// Noise whose neighbours are alike by `alike`.
std::vector<double> noise(unsigned seed, std::size_t n, double sigma, double alike = 0)
{
    std::mt19937 random(seed);
    std::normal_distribution<double> normal(0, sigma);
    std::vector<double> out;
    double now = normal(random);
    for (std::size_t i = 0; i < n; ++i)
        out.push_back(now = alike * now + std::sqrt(1 - alike * alike) * normal(random));
    return out;
}

const SeasonCourse* course(const std::vector<SeasonCourse>& all, const std::string& key)
{
    const auto it = std::find_if(all.begin(), all.end(), [&](const SeasonCourse& c) { return c.key == key; });
    return it == all.end() ? nullptr : &*it;
}

// Gauges read at whatever temperature the loop had: what is true at 20 °C, as the vessel makes of it.
Job gauges(unsigned seed, std::size_t visits, const std::vector<double>& off_bar, double (*at_20_bar)(double days))
{
    Job job = history("glycol-coil", visits);
    std::mt19937 random(seed);
    std::uniform_real_distribution<double> warm(4, 32);
    for (std::size_t i = 0; i < visits; ++i) {
        const double t = warm(random), truth = at_20_bar(days_since_first(job, i)) * 1e5;
        VisitReading r = reading("pressure", cold_gauge_pa(job, job.variants.front().loop, t, 20, truth) + off_bar[i] * 1e5);
        r.with_temperature = true;
        r.at_c = t;
        job.logbook.visits[i].readings.push_back(r);
    }
    return job;
}

constexpr unsigned histories = 100;
constexpr std::size_t three_years = 13; // visits

TEST(OverTheSeasons, finds_a_slow_leak_within_its_uncertainty)
{
    int inside = 0, claimed = 0;
    for (unsigned seed = 1; seed <= histories; ++seed) {
        const Job job = gauges(seed, three_years, noise(seed, three_years, 0.04), [](double d) { return 1.9 - 0.3 * d / 365.25; });
        const auto all = over_the_seasons(job, Units::metric());
        const SeasonCourse* c = course(all, "pressure");
        ASSERT_TRUE(c);
        const double truth = -0.3 / 365.25 * 30;
        inside += c->trend.low <= truth && truth <= c->trend.high;
        claimed += c->trend.claimed && !c->trend.step;
    }
    EXPECT_GE(inside, 95);
    EXPECT_GE(claimed, 90);
}

TEST(OverTheSeasons, tells_what_went_at_once_from_a_leak)
{
    int stepped = 0;
    for (unsigned seed = 1; seed <= histories; ++seed) {
        const Job job = gauges(seed, three_years, noise(seed, three_years, 0.04), [](double d) { return d < 550 ? 1.9 : 1.2; });
        const auto all = over_the_seasons(job, Units::metric());
        const SeasonCourse* c = course(all, "pressure");
        stepped += c && c->trend.step && std::fabs(c->trend.step->after - c->trend.step->before + 0.7) < 0.15;
        if (seed == 1) {
            EXPECT_NE(c->says.find("relief valve"), std::string::npos) << c->says;
        }
    }
    EXPECT_GE(stepped, 95);
}

TEST(OverTheSeasons, claims_nothing_from_noise)
{
    for (const double alike : {0.0, 0.5})
        for (const std::size_t visits : {8U, 13U, 25U}) {
            int claimed = 0;
            for (unsigned seed = 1; seed <= 200; ++seed) {
                const Job job = gauges(seed, visits, noise(seed, visits, 0.05, alike), [](double) { return 1.8; });
                const auto all = over_the_seasons(job, Units::metric());
                claimed += course(all, "pressure")->trend.claimed || course(all, "pressure")->trend.step;
            }
            EXPECT_LE(claimed, 10) << alike << " " << visits;
        }
}

// A tree that grows: each clear day's first start comes later, by 10 minutes a year, with a scatter of 3.
TEST(OverTheSeasons, finds_a_shadow_that_grows)
{
    int inside = 0, claimed = 0;
    for (unsigned seed = 1; seed <= histories; ++seed) {
        Job job = history("glycol-coil", three_years);
        const auto off = noise(seed, three_years, 3.0);
        for (std::size_t i = 0; i < three_years; ++i) {
            Visit& v = job.logbook.visits[i];
            v.readings.push_back(reading("first_start", clear_start_h(job, job.variants.front(), v.when.substr(0, 10)) + (15 * days_since_first(job, i) / 365.25 + off[i]) / 60));
        }
        const auto all = over_the_seasons(job, Units::metric());
        const SeasonCourse* c = course(all, "first_start");
        ASSERT_TRUE(c);
        const double truth = 15.0 / 365.25 * 30;
        inside += c->trend.low <= truth && truth <= c->trend.high;
        claimed += c->trend.claimed;
        if (seed == 1) {
            EXPECT_NE(c->says.find("what stands there now"), std::string::npos) << c->says;
        }
    }
    EXPECT_GE(inside, 95);
    EXPECT_GE(claimed, 90);
}

TEST(OverTheSeasons, finds_a_probe_that_drifts)
{
    int inside = 0, claimed = 0;
    for (unsigned seed = 1; seed <= histories; ++seed) {
        Job job = history("drainback", three_years);
        const auto off = noise(seed, three_years, 0.12);
        for (std::size_t i = 0; i < three_years; ++i)
            job.logbook.visits[i].readings.push_back(reading("apart", 0.1 + 0.5 * days_since_first(job, i) / 365.25 + off[i], "S1 S2"));
        const auto all = over_the_seasons(job, Units::metric());
        const SeasonCourse* c = course(all, "apart");
        ASSERT_TRUE(c);
        const double truth = 0.5 / 365.25 * 30;
        inside += c->trend.low <= truth && truth <= c->trend.high;
        claimed += c->trend.claimed;
    }
    EXPECT_GE(inside, 95);
    EXPECT_GE(claimed, 95);
}

// A pump that wears: 6 % of its flow a year, read by bucket within 3 %.
TEST(OverTheSeasons, finds_a_pump_that_wears)
{
    int inside = 0, claimed = 0;
    for (unsigned seed = 1; seed <= histories; ++seed) {
        Job job = history("direct", three_years);
        const auto off = noise(seed, three_years, 0.03);
        for (std::size_t i = 0; i < three_years; ++i)
            job.logbook.visits[i].readings.push_back(reading("flow", 1e-4 * (1 - 0.06 * days_since_first(job, i) / 365.25 + off[i])));
        const auto all = over_the_seasons(job, Units::metric());
        const SeasonCourse* c = course(all, "flow");
        ASSERT_TRUE(c);
        const double truth = -6.0 * 0.06 / 365.25 * 30; // L/min each 30 days
        inside += c->trend.low <= truth && truth <= c->trend.high;
        claimed += c->trend.claimed;
    }
    EXPECT_GE(inside, 95);
    EXPECT_GE(claimed, 80);
}

TEST(OverTheSeasons, holds_a_pump_against_the_one_before)
{
    Job job = history("glycol-coil", 2);
    VisitWork w;
    w.part = "Pump P1";
    w.after_h = 9140;
    w.after_starts = 31200;
    job.logbook.visits[0].work.push_back(w);
    job.logbook.visits[1].readings.push_back(reading("hours", 1500, "P1"));
    const auto lines = life_lines(job);
    ASSERT_EQ(lines.size(), 1u);
    EXPECT_NE(lines[0].find("1500 h"), std::string::npos);
    EXPECT_NE(lines[0].find("9140 h and 31200 starts"), std::string::npos);
}

TEST(OverTheSeasons, counts_starts_between_visits)
{
    Job job = history("glycol-coil", 3);
    job.logbook.visits[0].readings.push_back(reading("starts", 100, "P1"));
    job.logbook.visits[1].readings.push_back(reading("starts", 100 + 10 * days_since_first(job, 1), "P1"));
    job.logbook.visits[2].readings.push_back(reading("starts", 100 + 10 * days_since_first(job, 1) + 30 * (days_since_first(job, 2) - days_since_first(job, 1)), "P1"));
    const auto all = over_the_seasons(job, Units::metric());
    const SeasonCourse* c = course(all, "starts");
    ASSERT_TRUE(c);
    ASSERT_EQ(c->points.size(), 2u);
    EXPECT_NEAR(c->points[0].value, 10, 1e-9);
    EXPECT_NEAR(c->points[1].value, 30, 1e-9);
    EXPECT_NE(c->says.find("too few readings"), std::string::npos);
}

TEST(ClearStart, comes_later_in_winter_and_for_a_western_array)
{
    Job job = new_job("glycol-coil");
    Variant& v = job.variants.front();
    const double june = clear_start_h(job, v, "2026-06-21"), december = clear_start_h(job, v, "2026-12-21");
    EXPECT_LT(june, 11);
    EXPECT_GT(december, 8);
    v.loop.collector.azimuth_deg = 60;
    EXPECT_GT(clear_start_h(job, v, "2026-06-21"), june);
}

const DueNow* due(const std::vector<DueNow>& all, const std::string& id)
{
    const auto it = std::find_if(all.begin(), all.end(), [&](const DueNow& d) { return d.id == id; });
    return it == all.end() ? nullptr : &*it;
}

TEST(Due, counts_from_what_was_done)
{
    Job job = history("glycol-coil", 2);
    const Day1970 today = *date_of("2026-01-01");
    EXPECT_EQ(date_text(due(due_list(job, today), "fluid")->date), "2024-03-10");
    VisitWork w;
    w.text = "Fluid tested";
    w.does = {"fluid"};
    job.logbook.visits[1].work.push_back(w);
    EXPECT_EQ(date_text(due(due_list(job, today), "fluid")->date), "2024-06-10");
    EXPECT_TRUE(due(due_list(job, today), "relief")->licensed);
    EXPECT_FALSE(due(due_list(job, today), "battery")) << "this loop has none";
    DueItem own = due_items(job).front();
    own.dropped = true;
    change_due(job, own);
    EXPECT_FALSE(due(due_list(job, today), own.id));
}

TEST(Due, comes_by_hours_starts_and_events)
{
    Job job = history("glycol-coil", 3);
    DueItem seal;
    seal.id = "seal";
    seal.title = "Seal of the pump";
    seal.every_h = 1000;
    seal.of = "P1";
    change_due(job, seal);
    for (std::size_t i = 0; i < 3; ++i)
        job.logbook.visits[i].readings.push_back(reading("hours", 200 + 4 * days_since_first(job, i), "P1"));
    auto all = due_list(job, *date_of("2024-01-01"));
    ASSERT_TRUE(due(all, "seal"));
    EXPECT_NEAR(static_cast<double>((due(all, "seal")->date - *date_of("2023-03-10")).count()), 200, 1.5) << "(1000 − 200) / 4";
    job.logbook.visits[2].faults.push_back({"Stagnation in August", ""});
    all = due_list(job, *date_of("2024-01-01"));
    EXPECT_EQ(date_text(due(all, "fluid")->date), "2023-09-10") << "after the event, not by its date";
    job.logbook.visits[0].next.push_back({"pitch of the upper pipe", "2023-10-01"});
    all = due_list(job, *date_of("2024-01-01"));
    EXPECT_TRUE(std::any_of(all.begin(), all.end(), [](const DueNow& d) { return d.title == "pitch of the upper pipe" && d.visit == "v0"; }));
    VisitWork done;
    done.text = "pitch of the upper pipe";
    job.logbook.visits[1].work.push_back(done);
    all = due_list(job, *date_of("2024-01-01"));
    EXPECT_FALSE(std::any_of(all.begin(), all.end(), [](const DueNow& d) { return d.title == "pitch of the upper pipe"; }));
    EXPECT_TRUE(std::is_sorted(all.begin(), all.end(), [](const DueNow& a, const DueNow& b) { return a.date < b.date; }));
}

TEST(Due, a_reading_ticks_its_item)
{
    Job job = history("glycol-coil", 3);
    const Day1970 today = *date_of("2026-01-01");
    const std::string before = date_text(due(due_list(job, today), "fluid")->date), gas = date_text(due(due_list(job, today), "vessel")->date);
    job.logbook.visits[2].readings.push_back(reading("freezes", -25));
    EXPECT_EQ(date_text(due(due_list(job, today), "fluid")->date), date_text(months_later(*date_of(job.logbook.visits[2].when), 12)));
    EXPECT_LT(before, date_text(due(due_list(job, today), "fluid")->date));
    EXPECT_EQ(date_text(due(due_list(job, today), "vessel")->date), gas);
    job.logbook.visits[2].readings.push_back(reading("gas", 1.5e5));
    EXPECT_LT(gas, date_text(due(due_list(job, today), "vessel")->date));
}

// Also without a date, and in other letters.
TEST(Due, what_is_next_stands_in_every_later_visit_until_it_is_done)
{
    Job job = history("glycol-coil", 3);
    auto& visits = job.logbook.visits;
    visits[0].next.push_back({"Insulate the outdoor elbow", ""});
    EXPECT_EQ(open_next(job, visits[0].when).size(), 1U);
    EXPECT_EQ(open_next(job, visits[1].when).size(), 1U);
    VisitWork w;
    w.text = "insulate the outdoor elbow";
    visits[2].work.push_back(w);
    EXPECT_EQ(open_next(job, visits[1].when).size(), 1U) << "a paper of that visit does not know of the later one";
    EXPECT_TRUE(open_next(job, visits[2].when).empty());
    EXPECT_TRUE(open_next(job).empty());
}

TEST(CallBack, understands_what_customers_say)
{
    using C = Complaint;
    const auto heard = [](const char* words, std::vector<Complaint> expected) {
        auto found = complaints_in(words);
        std::sort(found.begin(), found.end());
        std::sort(expected.begin(), expected.end());
        EXPECT_EQ(found, expected) << words;
    };
    heard("I am tired of it", {});
    heard("the lightning was bad last summer, slightly", {});
    heard("a red light", {C::lamp});
    heard("it is humming", {C::noise});
    heard("The human next door", {});
    heard("the pump never starts", {C::never_runs});
    heard("it won’t come on", {C::never_runs});
    heard("it never stops", {C::never_stops});
    heard("the pump runs all the time", {C::never_stops});
    heard("it starts at three in the morning", {C::runs_at_night});
    heard("runs at 3 a.m. and keeps running", {C::runs_at_night, C::never_stops});
    heard("it goes on and off all the time", {C::often_on_off});
    heard("no hot water", {C::cold});
    heard("bordered", {});
    heard("the cooler leaks", {C::wet});
    heard("the water is cool", {C::cold});
}

TEST(Seasons, the_fluid_ages_like_others)
{
    Job job = history("glycol-coil", 6);
    double ph = 8.4, freezes = -30;
    for (Visit& v : job.logbook.visits) {
        v.readings.push_back(reading("acidity", ph -= 0.2));
        v.readings.push_back(reading("freezes", freezes += 1.5));
    }
    const auto all = over_the_seasons(job, Units::us());
    const auto of = [&](const std::string& key) { return std::find_if(all.begin(), all.end(), [&](const SeasonCourse& c) { return key == c.key; }); };
    ASSERT_NE(of("acidity"), all.end());
    EXPECT_EQ(of("acidity")->tone, Tone::caution);
    EXPECT_NE(of("acidity")->says.find("inhibitor"), std::string::npos) << of("acidity")->says;
    ASSERT_NE(of("freezes"), all.end());
    EXPECT_EQ(of("freezes")->tone, Tone::caution);
    EXPECT_NEAR(of("freezes")->points.front().value, -28.5 * 1.8 + 32, 1e-9);
}

// What no sky gives is asked about before it is kept.
TEST(Measured, doubts_what_no_sky_gives)
{
    const Job job = history("glycol-coil", 1);
    Visit v;
    v.when = "2026-06-20T12:30";
    EXPECT_TRUE(doubts_of(job, v, Units::metric()).empty());
    v.readings = {reading("sun", 900)};
    EXPECT_TRUE(doubts_of(job, v, Units::metric()).empty());
    v.readings = {reading("sun", 1550)};
    EXPECT_EQ(doubts_of(job, v, Units::metric()).size(), 1U);
    v.readings = {reading("sun", 300)};
    v.when = "2026-06-20T01:30";
    ASSERT_EQ(doubts_of(job, v, Units::metric()).size(), 1U);
    EXPECT_NE(doubts_of(job, v, Units::metric())[0].find("without sun"), std::string::npos);
    v.when = "2026-06-20T12:30";
    const double area_m2 = job.variants.front().loop.collector.area_m2;
    // 1.5 of what 1000 W/m² and an efficiency of 0.75 give: flow × rise, water-like.
    v.readings = {reading("flow", 1.5 * 750 * area_m2 / (4.0e6 * 10)), reading("rise", 10)};
    EXPECT_EQ(doubts_of(job, v, Units::metric()).size(), 1U);
    v.readings[0].value /= 2;
    EXPECT_TRUE(doubts_of(job, v, Units::metric()).empty());
}

TEST(Due, is_a_line_that_reads_back_equal)
{
    for (const DueItem& d : due_items(history("pv-battery", 1))) {
        auto back = due_in_line(due_line(d));
        ASSERT_TRUE(back) << back.error().what;
        back->id = d.id;
        back->kind = d.kind;
        EXPECT_EQ(*back, d) << due_line(d);
    }
    const auto own = due_in_line("Seal of the pump | every 4000 h of P1 | every 20000 starts of P1 | last 2025-05-01 | by the licensed person | after steam | after boiled");
    ASSERT_TRUE(own);
    EXPECT_EQ(own->every_h, 4000);
    EXPECT_EQ(own->of, "P1");
    EXPECT_EQ(own->event, "steam|boiled");
    EXPECT_EQ(*due_in_line(due_line(*own)), *own);
    for (const char* bad : {"", " | every 3 months", "x | every -3 months", "x | every 3 weeks", "x | last tomorrow", "x | sometimes", "x | every 3 months of P1"})
        EXPECT_FALSE(due_in_line(bad)) << bad;
    // What no file takes is not taken from a line.
    for (const char* much : {"x | every 10000 months", "x | every 2000000 h of P1", "x | every 300000000 starts of P1"}) {
        const auto read = due_in_line(much);
        ASSERT_FALSE(read) << much;
        EXPECT_NE(read.error().what.find("is possible"), std::string::npos) << read.error().what;
    }
}

TEST(Keeping, a_closed_visit_is_amended_never_changed)
{
    Job job = history("glycol-coil", 2);
    Visit& v = job.logbook.visits[0];
    EXPECT_FALSE(amend(v, {"2026-05-13T08:00", "B", "why", "what", {}})) << "it is still open";
    v.persons.clear();
    EXPECT_FALSE(cannot_close(v).empty());
    v.persons = "A. Fitter";
    EXPECT_TRUE(cannot_close(v).empty());
    v.closed = true;
    const Logbook closed = job.logbook;
    EXPECT_FALSE(amend(v, {"2026-05-13T08:00", "B", "", "what", {}}));
    EXPECT_FALSE(amend(v, {"yesterday", "B", "why", "what", {}}));
    EXPECT_TRUE(amend(v, {"2026-05-13T08:00", "B", "why", "what", {}}));
    EXPECT_EQ(touches_closed(closed, job.logbook), "");
    Logbook other = job.logbook;
    other.visits[0].amendments.clear();
    EXPECT_NE(touches_closed(job.logbook, other), "") << "amendments stay";
    other = job.logbook;
    other.visits[0].notes = "x";
    EXPECT_NE(touches_closed(job.logbook, other), "");
    other = job.logbook;
    other.visits.erase(other.visits.begin());
    EXPECT_NE(touches_closed(job.logbook, other), "");
    other = job.logbook;
    other.visits.pop_back();
    EXPECT_EQ(touches_closed(job.logbook, other), "") << "a draft can be deleted";
}

TEST(Keeping, two_computers_lose_nothing)
{
    const Job both = history("glycol-coil", 3);
    Job mine = both, theirs = both;
    mine.logbook.visits[2].notes = "mine";
    theirs.logbook.visits[2].notes = "theirs";
    theirs.logbook.visits[1].closed = true;
    mine.logbook.visits[0].closed = theirs.logbook.visits[0].closed = true;
    theirs.logbook.visits[0].amendments.push_back({"2026-05-13T08:00", "B", "why", "what", {}});
    Visit extra = theirs.logbook.visits[2];
    extra.when = "2024-02-01T08:00";
    extra.id = "extra";
    theirs.logbook.visits.push_back(extra);
    const TakenOver t = take_visits(mine, theirs);
    EXPECT_EQ(t.visits, 2);
    EXPECT_EQ(t.amendments, 1);
    EXPECT_TRUE(find_visit(mine, "extra"));
    EXPECT_TRUE(find_visit(mine, "v1")->closed);
    EXPECT_EQ(find_visit(mine, "v2")->notes, "mine");
    const auto has = [&](const char* notes) { return std::any_of(mine.logbook.visits.begin(), mine.logbook.visits.end(), [&](const Visit& v) { return v.notes == notes; }); };
    EXPECT_TRUE(has("theirs"));
    EXPECT_FALSE(job_problem(mine));
    const Job once = mine;
    take_visits(mine, theirs);
    EXPECT_EQ(mine, once) << "taken over again, nothing comes twice";
}

TEST(CallBack, ranks_by_what_is_said_and_by_the_history)
{
    Job job = history("glycol-coil", 2);
    EXPECT_EQ(complaints_in("The water stays COLD and there is a puddle").size(), 2u);
    EXPECT_TRUE(complaints_in("hello").empty());
    const auto place = [&](const CallBack& c, const char* key) { return std::find_if(c.causes.begin(), c.causes.end(), [&](const CauseNow& x) { return x.key == key; }) - c.causes.begin(); };
    const CallBack plain = call_back(job, job.variants.front(), {Complaint::cold}, {});
    double sum = 0;
    for (const CauseNow& c : plain.causes)
        sum += c.likelihood;
    EXPECT_NEAR(sum, 1, 1e-9);
    EXPECT_FALSE(plain.ask.empty());
    for (const CauseNow& c : plain.causes)
        EXPECT_NE(c.key, "battery") << "this loop has none";
    const CallBack hums = call_back(job, job.variants.front(), {Complaint::cold, Complaint::noise}, {{"hum", true}, {"gurgle", false}});
    EXPECT_EQ(hums.causes.front().key, "pump");
    job.logbook.visits.back().readings.push_back(reading("pressure", 0.4e5));
    const CallBack leaks = call_back(job, job.variants.front(), {Complaint::cold}, {{"gauge_low", true}});
    EXPECT_EQ(leaks.causes.front().key, "leak");
    EXPECT_FALSE(leaks.causes.front().because.empty());
    job.variants.front().unit.outputs.front().mode = Mode::off;
    const CallBack left = call_back(job, job.variants.front(), {Complaint::cold}, {});
    EXPECT_LT(place(left, "switch"), place(plain, "switch") + 1);
    EXPECT_EQ(left.causes.front().key, "switch");
}

TEST(CallBack, asks_what_tells_most_first_and_nothing_twice)
{
    const Job job = new_job("drainback");
    std::vector<PhoneAnswer> answers;
    double last = 0;
    for (int i = 0; i < 8; ++i) {
        const CallBack c = call_back(job, job.variants.front(), {Complaint::cold}, answers);
        if (c.ask.empty())
            break;
        for (const PhoneAnswer& a : answers)
            EXPECT_EQ(std::count(c.ask.begin(), c.ask.end(), a.question), 0);
        answers.push_back({c.ask.front(), i % 2 == 0});
        last = c.causes.front().likelihood;
    }
    EXPECT_GT(last, 0);
    EXPECT_GE(answers.size(), 4u);
}

TEST(FirstDay, is_foretold_and_compared)
{
    Job job = history("glycol-coil", 1);
    const auto d = foretell(job, job.variants.front(), "2026-06-21", Clouds::clear, 10, 24, 14);
    ASSERT_TRUE(d) << d.error().what;
    EXPECT_GT(d->store_c, 35);
    EXPECT_GT(d->heat_j, 5 * 3.6e6);
    EXPECT_GE(d->starts, 1);
    const auto dull = foretell(job, job.variants.front(), "2026-06-21", Clouds::overcast, 10, 16, 14);
    EXPECT_LT(dull->heat_j, d->heat_j / 2);
    Visit& v = job.logbook.visits[0];
    v.when = "2026-06-21T18:00";
    v.first_day = *d;
    EXPECT_EQ(first_day_rows(job, v, Units::metric())[0].says, "not read yet");
    v.readings.push_back(reading("store", d->store_c - 1));
    EXPECT_EQ(first_day_rows(job, v, Units::metric())[0].tone, Tone::good);
    v.readings.back().value = 25;
    EXPECT_EQ(first_day_rows(job, v, Units::metric())[0].tone, Tone::caution);
    EXPECT_FALSE(foretell(job, job.variants.front(), "someday", Clouds::clear, 10, 24, 14));
}

TEST(Photos, belong_to_what_they_name)
{
    Job job = history("glycol-coil", 2);
    job.logbook.visits[0].photos = {{"a", "old", "vessel"}, {"b", "", "Pump"}, {"c", "", ""}};
    job.logbook.visits[1].photos = {{"d", "new", "Vessel"}, {"e", "", "ves"}};
    const auto all = photos_of(job, "Vessel and relief valve");
    ASSERT_EQ(all.size(), 2u);
    EXPECT_EQ(all[0].photo->caption, "new");
    EXPECT_EQ(photos_of(job, "Pump and fluid").size(), 1u);
    EXPECT_TRUE(photos_of(job, "Tank").empty());
}

TEST(TakeAlong, is_of_the_loop)
{
    const Job glycol = new_job("glycol-coil"), air = new_job("air");
    const auto has = [](const std::vector<TakeAlong>& all, const char* what) { return std::any_of(all.begin(), all.end(), [&](const TakeAlong& t) { return t.what.find(what) != std::string::npos; }); };
    const auto g = take_along(glycol, glycol.variants.front(), Purpose::commissioning, Units::metric());
    EXPECT_TRUE(has(g, "glycol"));
    EXPECT_TRUE(has(g, "vessel"));
    const auto a = take_along(air, air.variants.front(), Purpose::commissioning, Units::metric());
    EXPECT_FALSE(has(a, "glycol"));
    EXPECT_FALSE(has(a, "Bucket"));
    EXPECT_TRUE(has(take_along(glycol, glycol.variants.front(), Purpose::survey, Units::metric()), "Tape"));
    const CheckList list = take_along_list(glycol, glycol.variants.front(), Purpose::commissioning, Units::metric());
    EXPECT_GT(list.items.size(), 8u);
    const auto back = read_check_list(write_check_list(list), "written");
    ASSERT_TRUE(back) << back.error().what << back.error().where;
    EXPECT_EQ(*back, list);
}

TEST(Logbook, refuses_what_is_no_record)
{
    Job job = history("glycol-coil", 1);
    EXPECT_FALSE(job_problem(job));
    Job bad = job;
    bad.logbook.visits[0].when = "2026-05-12";
    EXPECT_TRUE(job_problem(bad));
    bad = job;
    bad.logbook.visits[0].found = {job.variants[0], job.variants[0]};
    EXPECT_TRUE(job_problem(bad));
    bad = job;
    bad.logbook.visits[0].next.push_back({"x", "soon"});
    EXPECT_TRUE(job_problem(bad));
    bad = job;
    bad.logbook.visits[0].left = {job.variants[0]};
    bad.logbook.visits[0].left[0].probes.clear();
    EXPECT_TRUE(job_problem(bad));
}

} // namespace
} // namespace vernal
