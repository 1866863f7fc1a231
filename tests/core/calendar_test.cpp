// Rules by date and clock: the timer's bursts and seasons, tap circulation.
#include "core/job/fresh_rule.h"
#include "core/job/ids.h"
#include "core/run/replay.h"
#include "core/setup/job_setup.h"
#include "core/units/quantity.h"

#include <gtest/gtest.h>

#include <ctime>

using namespace vernal;

namespace {

// Days after 1970-01-01; from timegm of the C library, not from the calendar of the program.
std::int32_t date(int year, int month, int day)
{
    std::tm t{};
    t.tm_year = year - 1900;
    t.tm_mon = month - 1;
    t.tm_mday = day;
    return static_cast<std::int32_t>(::timegm(&t) / 86400);
}

TEST(Date, is_shown_and_typed_with_its_month)
{
    EXPECT_EQ(to_text(1, Quantity::date, {}), "1 Jan");
    EXPECT_EQ(to_text(366, Quantity::date, {}), "31 Dec");
    EXPECT_EQ(to_text(60, Quantity::date, {}), "29 Feb");
    for (int day = 1; day <= 366; ++day)
        EXPECT_EQ(*parse(to_text(day, Quantity::date, {}), Quantity::date, {}), day);
    EXPECT_EQ(*parse("15 november", Quantity::date, {}), day_of_leap_year(11, 15));
    EXPECT_EQ(*parse("61", Quantity::date, {}), 61);
    for (const char* wrong : {"31 Feb", "0 Mar", "12 Foo", "1.5 Mai", "40 Jan"})
        EXPECT_FALSE(parse(wrong, Quantity::date, {})) << wrong;
}

// A unit of one rule on one output, asked at an instant from power-up.
struct OneRule {
    Program program;
    EngineState state;
    Inputs in;
    explicit OneRule(RuleBody body)
    {
        RuleSet set;
        set.outputs = {Output{}};
        set.rules = {{"P1", true, std::move(body)}};
        const Compiled c = compile(set, {"S1", "S2"});
        EXPECT_TRUE(c.out_of_action.empty());
        program = c.program;
        state = power_up(program);
    }
    bool at(std::int32_t day, int hour, int minute, int second = 0)
    {
        in.date = day;
        in.clock_ms = ((hour * 60 + minute) * 60 + second) * Millis{1000};
        return step(program, in, state)[0].on;
    }
};

TEST(Timer, keeps_to_its_season_over_new_year_and_in_leap_years)
{
    OneRule winter(Timer{{ClockWindow{0, 24}, {}, {}}, 0, 3600, double(day_of_leap_year(11, 15)), double(day_of_leap_year(2, 29))});
    EXPECT_FALSE(winter.at(date(2026, 11, 14), 23, 59, 59));
    EXPECT_TRUE(winter.at(date(2026, 11, 15), 0, 0));
    EXPECT_TRUE(winter.at(date(2027, 1, 1), 12, 0));
    EXPECT_TRUE(winter.at(date(2027, 2, 28), 23, 59));
    EXPECT_FALSE(winter.at(date(2027, 3, 1), 0, 0));
    EXPECT_TRUE(winter.at(date(2028, 2, 29), 23, 59));
    EXPECT_FALSE(winter.at(date(2028, 3, 1), 0, 0));
    EXPECT_FALSE(winter.at(no_date, 12, 0)) << "no date, no season";
    OneRule march(Timer{{ClockWindow{0, 24}, {}, {}}, 0, 3600, double(day_of_leap_year(2, 29)), double(day_of_leap_year(3, 31))});
    EXPECT_FALSE(march.at(date(2027, 2, 28), 12, 0));
    EXPECT_TRUE(march.at(date(2027, 3, 1), 12, 0));
    OneRule always(Timer{{ClockWindow{0, 24}, {}, {}}, 0, 3600, 1, 366});
    EXPECT_TRUE(always.at(no_date, 12, 0));
}

// Five minutes an hour on winter nights, counted sample by sample over two days.
TEST(Timer, runs_in_bursts_within_its_window)
{
    OneRule t(Timer{{ClockWindow{22, 6}, {}, {}}, 300, 3600, double(day_of_leap_year(12, 1)), double(day_of_leap_year(12, 31))});
    int on = 0, starts = 0;
    bool before = false;
    t.in.date = date(2026, 11, 30);
    t.in.clock_ms = 12 * 3'600'000;
    for (int s = 0; s < 2 * 86400; ++s, t.in.move_clock(1000)) {
        const bool now = step(t.program, t.in, t.state)[0].on;
        on += now ? 1 : 0;
        starts += now && !before ? 1 : 0;
        before = now;
    }
    EXPECT_EQ(starts, 6 + 8); // from midnight of the first to six, and the next night whole
    EXPECT_EQ(on, starts * 300);
}

TEST(TapCirculation, by_clock_by_return_and_only_with_warm_water)
{
    TapCirculation c{"S1", "S2", {ClockWindow{6, 9}, {}, {}}, Temperature::celsius(40), Temperature::celsius(46), Temperature::celsius(50), TempDiff::kelvin(5)};
    const std::int32_t day = date(2026, 6, 1);
    OneRule both(c);
    const auto temps = [&](OneRule& r, int back, int store) { r.in.readings[0].mk = back * 1000, r.in.readings[1].mk = store * 1000; };
    temps(both, 40, 50);
    EXPECT_FALSE(both.at(day, 5, 59));
    EXPECT_TRUE(both.at(day, 6, 0));
    temps(both, 45, 46);
    EXPECT_TRUE(both.at(day, 7, 0)) << "between on and off, store still above its release";
    temps(both, 46, 46);
    EXPECT_FALSE(both.at(day, 7, 1)) << "the return is warm";
    temps(both, 40, 45);
    EXPECT_FALSE(both.at(day, 7, 2)) << "the store has nothing to give";
    temps(both, 40, 49);
    EXPECT_FALSE(both.at(day, 7, 3));
    temps(both, 40, 50);
    EXPECT_TRUE(both.at(day, 7, 4));
    EXPECT_FALSE(both.at(day, 9, 0));
    c.back = c.store = "";
    OneRule clock(c);
    temps(clock, 90, 5);
    EXPECT_TRUE(clock.at(day, 8, 59));
    EXPECT_FALSE(clock.at(day, 9, 0));
    c.off = c.on;
    RuleSet set;
    set.outputs = {Output{}};
    set.rules = {{"P1", true, c}};
    EXPECT_EQ(compile(set, {}).out_of_action.size(), 1U);
}

TEST(TapCirculation, a_fresh_one_never_takes_a_pump_of_the_loop)
{
    Variant v = new_job("glycol-coil").variants[0];
    std::size_t kind = 0;
    while (std::string(rule_kinds()[kind].key) != "tap_circulation")
        ++kind;
    EXPECT_EQ(fresh_rule(v, kind).output, "");
    v.unit.outputs.push_back({"P2", "Tap circulation", Mode::automatic, 0, Drives::other});
    const Rule fresh = fresh_rule(v, kind);
    EXPECT_EQ(fresh.output, "P2");
    EXPECT_EQ(std::get<TapCirculation>(fresh.body).store, "S3");
    v.unit.rules.push_back(fresh);
    sort_by_priority(v.unit.rules);
    EXPECT_TRUE(compile(v).out_of_action.empty());
}

// A log's dates go on over its midnights.
TEST(Timer, a_replay_knows_the_date_of_its_log)
{
    Trace t;
    t.start = "2026-11-30T20:00:00";
    TraceColumn bottom{"collector", Quantity::temperature, {}};
    for (int i = 0; i <= 480; ++i) {
        t.time_s.push_back(60.0 * i);
        bottom.values.push_back(20);
    }
    t.columns = {bottom};
    Variant v = new_job("glycol-coil").variants[0];
    v.probes.resize(1);
    v.unit.sample_s = 60;
    v.unit.rules = {{"P1", true, Timer{{ClockWindow{22, 2}, {}, {}}, 0, 3600, double(day_of_leap_year(12, 1)), 366}}};
    const auto r = run_replay(*replay_setup(v), t);
    ASSERT_TRUE(r);
    for (std::size_t i = 0; i < r->size(); ++i)
        EXPECT_EQ(r->decision(i, 0).on, r->time_s(i) >= 4 * 3600 && r->time_s(i) < 6 * 3600) << r->time_s(i);
}

} // namespace
