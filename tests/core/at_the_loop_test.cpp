// What a loop should show now, which reading is wrong, what ails a pump.
#include "core/bench/expect_now.h"
#include "core/bench/odd_reading.h"
#include "core/bench/pump_triage.h"
#include "core/bench/rig.h"
#include "core/plant/panel.h"
#include "core/plant/passing.h"
#include "core/rules/rule_set.h"
#include "core/setup/job_setup.h"

#include <gtest/gtest.h>
#include <rapidcheck.h>

#include <cmath>
#include <random>

namespace vernal {
namespace {

NowGiven at(double hour, double store_c)
{
    NowGiven g;
    g.year = 2026;
    g.month = 6;
    g.day = 18;
    g.hour = hour;
    g.air_c = 22;
    g.store_c = store_c;
    return g;
}

// A day of the same date and sky, run; at the first hour that fits.
struct DayRun {
    Job job;
    Simulation sim;
};
DayRun run_of(const char* preset)
{
    Job job = new_job(preset);
    Day& d = job.days.front();
    d.sky.month = 6;
    d.sky.day = 18;
    auto setup = coupled_setup(job, job.variants.front(), d);
    if (!setup)
        throw std::runtime_error(setup.error().text());
    Simulation s(std::move(*setup));
    s.spin_up();
    return {std::move(job), std::move(s)};
}

} // namespace

TEST(ExpectNow, holds_what_a_run_of_the_same_day_shows)
{
    int runs = 0, looked = 0;
    for (const char* preset : {"glycol-coil", "drainback", "direct", "glycol-hx", "pool", "pv-direct"}) {
        DayRun r = run_of(preset);
        const Variant& v = r.job.variants.front();
        const auto pair = bench_pair(v);
        ASSERT_TRUE(pair) << preset;
        for (double hour = 8; hour < 17; hour += 0.5) {
            bool settled = true; // it has run so for a while
            for (double back = 20; back >= 0; back -= 1) {
                r.sim.advance(hour * 3600 - back * 60);
                settled = settled && (r.sim.running() & 1U) != 0;
            }
            NowGiven g = at(hour, r.sim.tip_c(pair->store));
            g.air_c = surroundings_at(r.sim.day(), hour * 3600).air_c;
            const auto e = expect_now(r.job, v, g);
            ASSERT_TRUE(e);
            const bool turns = (r.sim.running() & 1U) != 0;
            ++looked;
            if (e->state == NowState::runs) {
                EXPECT_TRUE(turns) << preset << " " << hour;
            }
            if (e->state == NowState::rests && e->because.find("limit") == std::string::npos) {
                EXPECT_FALSE(turns) << preset << " " << hour << " " << e->because;
            }
            EXPECT_TRUE(e->sun_w_m2.holds(plane_at(r.sim.day(), hour * 3600))) << preset << " " << hour;
            if (!settled || e->state != NowState::runs)
                continue;
            ++runs;
            const double flow = r.sim.network().comes_round_m3_s(r.sim.hydraulics().flows(0, 10));
            EXPECT_TRUE(e->flow_m3_s.holds(flow)) << preset << " " << hour << ": " << flow * 60000;
            const double rise = r.sim.tip_c(pair->source) - r.sim.temperatures()[r.sim.network().node_of(ProbePlace::supply_pipe)];
            EXPECT_TRUE(e->rise_k.holds(rise)) << preset << " " << hour << ": " << e->rise_k.low << " … " << e->rise_k.high << ", run " << rise;
            if (e->gauge_pa) {
                EXPECT_TRUE(e->gauge_pa->holds(r.sim.pressure().pa())) << preset << " " << hour << ": " << e->gauge_pa->low << " … " << e->gauge_pa->high << ", run " << r.sim.pressure().pa();
            }
        }
    }
    EXPECT_GT(runs, looked / 6) << "else nothing was compared";
}

TEST(ExpectNow, says_when_it_starts_and_stops)
{
    const Job job = new_job("glycol-coil");
    const Variant& v = job.variants.front();
    const auto night = expect_now(job, v, at(4, 40));
    ASSERT_TRUE(night && night->next_h);
    EXPECT_EQ(night->state, NowState::rests);
    EXPECT_GT(night->next_h->mid, 6);
    EXPECT_LT(night->next_h->mid, 11);
    const auto noon = expect_now(job, v, at(12.5, 40));
    ASSERT_TRUE(noon && noon->next_h);
    EXPECT_EQ(noon->state, NowState::runs);
    EXPECT_GT(noon->next_h->mid, 14);
    const auto warm = expect_now(job, v, at(4, 55));
    EXPECT_GT(warm->next_h->mid, night->next_h->mid) << "a warmer store is met later";
    EXPECT_FALSE(expect_now(job, v, at(22, 40))->next_h) << "not today";
    const auto full = expect_now(job, v, at(12.5, 90));
    EXPECT_EQ(full->state, NowState::rests);
    EXPECT_NE(full->because.find("limit"), std::string::npos);
}

// Bands are bands, and what is warmer, hazier or later does what it must.
TEST(ExpectNow, goes_the_way_the_physics_goes)
{
    const Job job = new_job("glycol-coil");
    const Variant& v = job.variants.front();
    EXPECT_TRUE(rc::check([&] {
        NowGiven g = at(*rc::gen::inRange(0, 97) / 4.0, *rc::gen::inRange(5, 80));
        g.air_c = *rc::gen::inRange(-20, 40);
        g.haze = static_cast<Haze>(*rc::gen::inRange(0, 4));
        g.clouds = *rc::gen::element(Clouds::clear, Clouds::thin, Clouds::overcast);
        const auto e = expect_now(job, v, g);
        RC_ASSERT(e.has_value());
        for (const Band& b : {e->sun_w_m2, e->flow_m3_s, e->rise_k, e->heat_w, e->power_w, e->array_c}) {
            RC_ASSERT(b.low <= b.mid);
            RC_ASSERT(b.mid <= b.high);
        }
        NowGiven warmer = g;
        warmer.store_c += 5;
        const auto w = expect_now(job, v, warmer);
        RC_ASSERT(w->rise_k.mid <= e->rise_k.mid + 1e-9);
        RC_ASSERT(!(e->state == NowState::rests && w->state == NowState::runs));
        constexpr double with_beam_w_m2 = 200; // below it haze scatters more onto the plane than it takes away
        if (g.haze < Haze::smoke && g.clouds == Clouds::clear && e->sun_w_m2.mid > with_beam_w_m2) {
            NowGiven hazier = g;
            hazier.haze = static_cast<Haze>(static_cast<int>(g.haze) + 1);
            RC_ASSERT(expect_now(job, v, hazier)->sun_w_m2.mid <= e->sun_w_m2.mid + 1e-9);
        }
    }));
}

// Clear-sky irradiance at noon against its published range: 900 to 1050 W/m² on a plane that
// faces the sun about midsummer (ASHRAE Handbook of Fundamentals, clear-sky radiation; from memory).
TEST(ExpectNow, the_sun_of_a_clear_noon)
{
    const Job job = new_job("glycol-coil");
    const auto e = expect_now(job, job.variants.front(), at(13.4, 30));
    ASSERT_TRUE(e);
    EXPECT_GT(e->sun_w_m2.mid, 850);
    EXPECT_LT(e->sun_w_m2.mid, 1080);
}

TEST(ExpectNow, of_a_pump_on_a_panel_volts_and_current_are_told)
{
    const Job job = new_job("pv-direct");
    const auto noon = expect_now(job, job.variants.front(), at(12.5, 30)), late = expect_now(job, job.variants.front(), at(18, 30));
    ASSERT_TRUE(noon && noon->volt && noon->current_a && late && late->volt);
    EXPECT_GT(noon->volt->mid, late->volt->mid);
    EXPECT_GT(noon->flow_m3_s.mid, late->flow_m3_s.mid);
    EXPECT_FALSE(expect_now(new_job("glycol-coil"), new_job("glycol-coil").variants.front(), at(12, 30))->volt);
    EXPECT_FALSE(expect_now(new_job("glycol-coil"), new_job("glycol-coil").variants.front(), at(12, 30))->gauge_pa->low > 6e5) << "below its relief valve";
}

TEST(ExpectNow, a_worked_balance)
{
    // A flow, a rise and the heat they carry: 11.7 L/min and 7.2 K are 5.8 kW of water (common practice, no source).
    const Job job = new_job("direct");
    EXPECT_NEAR(carried_w_k(job.variants.front().loop, 11.7 / 60000) * 7.2, 5.8e3, 0.1e3);
}

namespace {

// Truth by the balance itself, read with the scatter that instruments have.
HourRead read_of(const Job& job, const NowGiven& g, std::mt19937& random)
{
    const Variant& v = job.variants.front();
    const Expected e = *expect_now(job, v, g);
    std::normal_distribution<double> n;
    HourRead r;
    const double flow = e.flow_m3_s.mid * (1 + 0.05 * n(random)), inlet = g.store_c + 0.5 * n(random);
    const double rise = e.heat_w.mid / carried_w_k(v.loop, flow);
    r.flow_m3_s = flow * (1 + 0.03 * n(random));
    r.supply_c = inlet + 0.5 * n(random);
    r.return_c = inlet + rise + 0.5 * n(random);
    r.area_m2 = v.loop.collector.area_m2 * (1 + 0.01 * n(random));
    r.sun_w_m2 = e.sun_w_m2.mid * (1 + 0.04 * n(random));
    if (e.gauge_pa)
        r.gauge_pa = e.gauge_pa->mid + 0.08e5 * n(random);
    return r;
}

} // namespace

TEST(OddReading, agrees_with_what_agrees)
{
    const Job job = new_job("glycol-coil");
    std::mt19937 random(4);
    int alarms = 0;
    for (int i = 0; i < 200; ++i) {
        const NowGiven g = at(10 + i % 5, 35 + i % 20);
        const Balance b = balance(job, job.variants.front(), g, read_of(job, g, random));
        ASSERT_TRUE(b.enough);
        alarms += !b.agrees;
    }
    EXPECT_LE(alarms, 6) << "of 200 good sets at most 3 in 100";
}

TEST(OddReading, names_the_one_that_does_not_fit)
{
    const Job job = new_job("glycol-coil");
    std::mt19937 random(5);
    const std::vector<std::pair<std::string, std::function<void(HourRead&)>>> wrong{
        {"flow by bucket", [](HourRead& r) { *r.flow_m3_s *= 1.9; }},
        {"temperature from the array", [](HourRead& r) { *r.return_c += 12; }},
        {"temperature to the array", [](HourRead& r) { *r.supply_c -= 12; }},
        {"area as read", [](HourRead& r) { *r.area_m2 *= 1.5; }},
        {"sun by instrument", [](HourRead& r) { *r.sun_w_m2 *= 0.5; }},
        {"gauge", [](HourRead& r) { *r.gauge_pa -= 0.8e5; }}};
    for (const auto& [name, spoil] : wrong) {
        int named = 0;
        constexpr int times = 40;
        for (int i = 0; i < times; ++i) {
            const NowGiven g = at(10 + i % 5, 35 + i % 20);
            HourRead r = read_of(job, g, random);
            spoil(r);
            const Balance b = balance(job, job.variants.front(), g, r);
            named += !b.agrees && !b.odd.empty() && b.odd.front().name == name;
        }
        EXPECT_GE(named, times * 9 / 10) << name;
    }
}

TEST(OddReading, one_reading_alone_is_no_balance)
{
    const Job job = new_job("glycol-coil");
    const Balance b = balance(job, job.variants.front(), at(12, 40), {});
    EXPECT_FALSE(b.enough);
    const Balance night = balance(job, job.variants.front(), at(2, 40), {});
    EXPECT_FALSE(night.enough);
}

TEST(PumpTriage, names_the_cause_and_asks_for_what_tells_most)
{
    const auto seen = [](std::initializer_list<std::pair<PumpLook, int>> all) {
        PumpSeen s;
        for (const auto& [look, answer] : all)
            s[static_cast<std::size_t>(look)] = answer;
        return s;
    };
    using L = PumpLook;
    const auto first = [](const PumpSeen& s, bool direct = false) { return pump_verdict(s, direct).causes.front(); };
    EXPECT_EQ(first(seen({{L::hum, 0}, {L::current, 0}, {L::shaft, 1}, {L::by_hand, 0}, {L::wet, 0}})).title, "No voltage reaches it");
    const PumpCause seized = first(seen({{L::hum, 1}, {L::current, 3}, {L::shaft, 1}, {L::by_hand, 2}}));
    EXPECT_EQ(seized.title, "It is seized");
    EXPECT_GT(seized.sure, 0.8);
    EXPECT_EQ(first(seen({{L::hum, 1}, {L::current, 3}, {L::shaft, 1}, {L::by_hand, 0}})).title, "Its start capacitor is gone");
    EXPECT_EQ(first(seen({{L::shaft, 0}, {L::current, 1}, {L::flow, 0}, {L::inlet, 1}})).title, "It cannot draw its water");
    EXPECT_EQ(first(seen({{L::wet, 1}, {L::gland, 1}})).title, "Water has come into its motor");
    EXPECT_EQ(first(seen({{L::shaft, 0}, {L::flow, 1}, {L::current, 2}}), true).title, "Its two wires are swapped");
    EXPECT_EQ(first(seen({{L::hum, 1}, {L::shaft, 0}, {L::current, 2}, {L::flow, 2}})).title, "Nothing is wrong with it");
    EXPECT_TRUE(pump_verdict({}, false).next);
    for (const PumpCause& c : pump_verdict({}, false).causes)
        EXPECT_NE(c.title, "Its two wires are swapped") << "of direct current only";
    double sum = 0;
    for (const PumpCause& c : pump_verdict(seen({{L::hum, 1}}), true).causes)
        sum += c.sure;
    EXPECT_NEAR(sum, 1, 1e-9);
    PumpSeen all;
    for (auto& s : all)
        s = 0;
    EXPECT_FALSE(pump_verdict(all, false).next) << "nothing is left to look at";
}

} // namespace vernal
