// The battery at its terminals, and that charge never comes from nothing.
#include "core/plant/power.h"
#include "core/setup/job_setup.h"
#include "core/setup/loop_answers.h"

#include <gtest/gtest.h>

#include <rapidcheck/gtest.h>

#include <cmath>

using namespace vernal;

namespace {

Loop loop() { return new_job("pv-battery").variants.front().loop; }

// Copetti, Lorenzo & Chenlo (1993), both branches of one cell of 100 Ah at 25 °C, written
// out (constants from memory). Polarisation only: the rest voltage is stated for ours.
double charging(double q, double a) { return a / 100 * (6 / (1 + std::pow(a, 0.86)) + 0.48 / std::pow(1 - q, 1.2)); }
double discharging(double q, double a) { return a / 100 * (4 / (1 + std::pow(a, 1.3)) + 0.27 / std::pow(q, 1.5)); }

TEST(Terminals, follow_the_published_branches)
{
    Battery b;
    b.capacity_ah = 100;
    b.resistance_ohm = 0;
    for (const double q : {0.2, 0.5, 0.9})
        for (const double a : {1.0, 5.0, 12.0}) {
            const double rest = rest_voltage_v(b, q), half = 6 * (0.035 + 0.04 * q) / 2 * (a / 100) / (a / 100 + 0.005);
            EXPECT_NEAR(BatteryTerminals(b, q, 25).volt(a), rest + half + 6 * charging(q, a), 1e-9);
            EXPECT_NEAR(BatteryTerminals(b, q, 25).volt(-a), rest - half - 6 * discharging(q, a), 1e-9);
        }
}

TEST(Terminals, twelve_volts_at_rest_and_under_load_are_different_batteries)
{
    const Battery b = loop().battery;
    const double at_rest = (12.0 - b.empty_v) / (b.full_v - b.empty_v);
    EXPECT_LT(BatteryTerminals(b, at_rest, 20).volt(-5), 11.8);
    double under_load = 0;
    for (double q = 0.02; q < 1 && under_load == 0; q += 0.01)
        if (BatteryTerminals(b, q, 20).volt(-5) >= 12.0)
            under_load = q;
    EXPECT_GT(under_load, at_rest + 0.1);
}

TEST(Terminals, reach_what_cut_outs_and_returns_are_set_to)
{
    const Battery b = loop().battery;
    EXPECT_GT(BatteryTerminals(b, 0.85, 20).volt(4), 13.8);  // nearly full, in the sun
    EXPECT_LT(BatteryTerminals(b, 0.07, 20).volt(-3), 10.0); // nearly empty it falls steeply
    EXPECT_GT(BatteryTerminals(b, 0.3, 20).volt(-3), 11.0);
}

RC_GTEST_PROP(Terminals, rise_with_the_current_without_a_jump, ())
{
    const Battery b = loop().battery;
    const double q = *rc::gen::inRange(0, 1001) / 1000.0, c = *rc::gen::inRange(-10, 41);
    const BatteryTerminals t(b, q, c);
    const int i = *rc::gen::inRange(-3000, 3000);
    const double a = i / 100.0, more = a + 0.01;
    RC_ASSERT(t.volt(more) >= t.volt(a));
    if (q > 0.05) {
        RC_ASSERT(std::fabs(t.volt(1e-9) - t.volt(-1e-9)) < 1e-6);
    }
}

// Over random weather and use: what was taken was in it or was put in; no step gains.
RC_GTEST_PROP(Battery, gives_no_more_than_it_got, ())
{
    Loop l = loop();
    l.battery.capacity_ah = *rc::gen::inRange(4, 200);
    l.battery.start_charge = *rc::gen::inRange(0, 101) / 100.0;
    l.battery.cut_v = *rc::gen::element(0.0, 10.0, 11.5);
    l.battery.reconnect_v = *rc::gen::element(12.5, 13.8);
    l.battery.charging = *rc::gen::element(Charging::direct, Charging::tracking);
    l.battery.fault = *rc::gen::element(ControllerFault::none, ControllerFault::no_charge, ControllerFault::feeds_through);
    Power p(l, Power::Source::battery);
    const double began = stored_j(l.battery, p.charge());
    for (int minute = 0; minute < 2 * 1440; minute += 5) {
        const bool on = *rc::gen::inRange(0, 3) > 0;
        const double day = std::max(0.0, std::sin(2 * M_PI * (minute - 360) / 1440.0));
        p.minute(day * *rc::gen::inRange(0, 1100), 15, on);
        p.switched(on);
        for (int k = 0; k < 5; ++k) {
            const double before = stored_j(l.battery, p.charge()), in = p.battery_a() * p.volt() * 60;
            p.pass(60, on);
            RC_ASSERT(stored_j(l.battery, p.charge()) - before <= in + 1e-6 * std::fabs(in) + 1e-9);
            RC_ASSERT(p.charge() >= 0 && p.charge() <= 1 && std::isfinite(p.volt()));
        }
    }
    const PowerFigures f = p.figures();
    RC_ASSERT(f.taken_j <= f.put_in_j + began - stored_j(l.battery, p.charge()) + 1e-6 * (began + f.put_in_j));
    RC_ASSERT(f.used_j <= f.offered_j * (1 + 1e-9) + 1e-6);
}

// The pump rests.
PowerFigures some_days(const Loop& l, int days, double sun_w_m2)
{
    Power p(l, Power::Source::battery);
    for (int m = 0; m < days * 1440; ++m) {
        p.minute(m % 1440 > 480 && m % 1440 < 960 ? sun_w_m2 : 0, 10, false);
        p.pass(60, false);
    }
    return p.figures();
}

TEST(Battery, cut_outs_and_returns_of_practice_act)
{
    for (const double cut : {10.0, 10.5, 11.5}) // common practice, no source
        for (const double back : {12.5, 13.5, 13.8}) {
            Loop l = loop();
            l.battery.cut_v = cut;
            l.battery.reconnect_v = back;
            l.battery.capacity_ah = 20;
            Power p(l, Power::Source::battery);
            int trips = 0, returns = 0;
            bool was = false;
            for (int m = 0; m < 4 * 1440; ++m) {
                p.minute(m % 1440 > 480 && m % 1440 < 960 ? 800 : 0, 10, true);
                p.pass(60, true);
                trips += p.cut() && !was ? 1 : 0;
                returns += !p.cut() && was ? 1 : 0;
                was = p.cut();
            }
            EXPECT_GE(trips, 1) << cut << " " << back;
            EXPECT_GE(returns, 1) << cut << " " << back;
        }
}

TEST(ChargeController, that_fails_charges_nothing_or_too_much)
{
    Loop l = loop();
    l.battery.fault = ControllerFault::no_charge;
    EXPECT_EQ(some_days(l, 2, 900).put_in_j, 0);
    l.battery.fault = ControllerFault::feeds_through;
    l.battery.start_charge = 0.95;
    EXPECT_GT(some_days(l, 2, 900).highest_v, l.battery.charge_limit_v + 0.5);
    l.battery.fault = ControllerFault::none;
    EXPECT_LE(some_days(l, 2, 900).highest_v, l.battery.charge_limit_v + 1e-9);
}

// At the battery's voltage a panel made for more wastes the rest; the most power does not.
TEST(ChargeController, at_the_most_power_takes_more_from_the_panel)
{
    Loop l = loop();
    l.battery.start_charge = 0.2;
    const PowerFigures direct = some_days(l, 1, 500);
    l.battery.charging = Charging::tracking;
    const PowerFigures tracking = some_days(l, 1, 500);
    EXPECT_GT(tracking.put_in_j, direct.put_in_j);
    EXPECT_GT(direct.offered_j - direct.used_j, tracking.offered_j - tracking.used_j);
    EXPECT_EQ(direct.offered_j, tracking.offered_j);
}

// The switch stands on ON: the output is on whenever the unit is awake.
TEST(UnitFeed, losing_it_is_a_power_up)
{
    Job job = new_job("pv-direct");
    Variant& v = job.variants[0];
    v.unit.outputs[0].mode = Mode::on;
    const auto awake = [&](UnitFeed feed, double hour) {
        v.loop.wiring.unit_feed = feed;
        Simulation s(*coupled_setup(job, v, job.days[0]));
        s.spin_up();
        (void)s.advance(hour * 3600);
        return s.engine().running != 0;
    };
    EXPECT_FALSE(awake(UnitFeed::panel, 2)) << "no sun";
    EXPECT_TRUE(awake(UnitFeed::panel, 12));
    EXPECT_TRUE(awake(UnitFeed::mains, 2));
    job.days[0].outage_start_h = 1;
    job.days[0].outage_h = 12;
    EXPECT_FALSE(awake(UnitFeed::mains, 12));
    EXPECT_FALSE(awake(UnitFeed::panel_and_mains, 2)) << "neither";
    EXPECT_TRUE(awake(UnitFeed::panel_and_mains, 12)) << "through its diode the panel carries it";
    EXPECT_TRUE(awake(UnitFeed::panel_and_mains, 14));
}

TEST(UnitFeed, a_rule_for_low_voltage_sees_the_true_one_at_once)
{
    const Job job = new_job("pv-battery");
    Simulation s(*coupled_setup(job, job.variants[0], job.days[0]));
    EXPECT_GT(s.inputs().readings[supply_channel].mk, 11500);
}

TEST(Battery, a_pump_that_it_cannot_turn_does_not_run)
{
    Job job = new_job("pv-battery");
    Variant& v = job.variants[0];
    v.loop.battery.cut_v = 0; // nothing spares it
    v.loop.battery.start_charge = 0.03;
    v.loop.battery.capacity_ah = 5;
    v.loop.panel.isc_a = 0.02, v.loop.panel.imp_a = 0.018;
    v.unit.outputs[0].mode = Mode::on;
    v.loop.wiring.unit_feed = UnitFeed::mains;
    const Figures f = run_coupled(*coupled_setup(job, v, job.days[2])).figures;
    EXPECT_GT(f.power.stalled_s, 3600);
    EXPECT_LT(f.pumps[0].run_time_s, 86400 - f.power.stalled_s + 60);
}

// Two pumps on one battery take twice one's current, and stop together when it is cut off.
TEST(Battery, every_pump_hangs_on_it)
{
    LoopAnswers answers = preset_answers("glycol-hx");
    answers.power = PoweredBy::battery;
    Job job = new_job(answers);
    Variant& v = job.variants[0];
    for (Output& o : v.unit.outputs)
        o.mode = Mode::on;
    const auto taken = [&](bool both) {
        v.unit.outputs[1].mode = both ? Mode::on : Mode::off;
        Simulation s(*coupled_setup(job, v, job.days[0]));
        s.spin_up();
        s.advance(3 * 3600); // in the dark
        return s.hydraulics().power().pump_power_w();
    };
    const double one = taken(false), two = taken(true);
    EXPECT_NEAR(two / one, 2, 0.1) << "the voltage sags a little more";
    v.loop.battery.start_charge = 0;
    Simulation s(*coupled_setup(job, v, job.days[0]));
    s.spin_up();
    s.advance(3 * 3600);
    for (const double w_k : s.hydraulics().flows(0, 10).route_w_k)
        EXPECT_EQ(w_k, 0);
}

} // namespace
