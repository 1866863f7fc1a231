// Vessel and relief valve, check valve, element, cable, outage: what they do to a day.
#include "core/findings/findings.h"
#include "core/plant/vessel.h"
#include "core/plant/wiring.h"
#include "core/setup/job_setup.h"
#include "core/setup/loop_answers.h"
#include "core/study/reserve.h"
#include "core/units/copper.h"

#include "rule_of.h"

#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <cmath>

using namespace vernal;

namespace {

double any(double lo, double hi) { return lo + (hi - lo) * *rc::gen::inRange(0, 1001) / 1000.0; }
Figures run(const Job& job, std::size_t day = 0) { return run_coupled(*coupled_setup(job, job.variants[0], job.days[day])).figures; }

struct Closed {
    explicit Closed(double vessel_m3 = 0.018) { loop.vessel.volume_m3 = vessel_m3; }
    Loop loop = new_job("glycol-coil").variants.front().loop;
    double at(double temp_c)
    {
        const Network net(loop, {});
        Pressure p(net, loop, 0);
        p.settle(std::vector<double>(net.size(), temp_c), 1);
        return p.pa();
    }
};

TEST(Vessel, stands_at_the_fill_when_cold_and_rises_by_boyle)
{
    Closed c;
    EXPECT_NEAR(c.at(15), c.loop.vessel.fill_pa, 200);
    // By hand: gas at the fill V (p0 + pa)/(pf + pa), less the growth of the content.
    const double content = ring_content_m3(c.loop), grows = content * expansion(0.4, 15, 70);
    const double gas = 0.018 * (1.5e5 + 101325) / (c.loop.vessel.fill_pa + 101325) - grows;
    EXPECT_NEAR(c.at(70), 0.018 * (1.5e5 + 101325) / gas - 101325, 0.01e5);
    EXPECT_LT(c.at(-15), c.at(15));
}

// Propylene glycol 40 % by mass grows by about 4.7 % from 15 to 90 °C (handbook
// densities 1036 and 989, from memory); the fit's 5.5 % errs to the safe side.
TEST(Vessel, glycol_grows_as_its_density_falls)
{
    EXPECT_GT(expansion(0.4, 15, 90), 0.045);
    EXPECT_LT(expansion(0.4, 15, 90), 0.057);
    EXPECT_NEAR(expansion(0, 4, 90), 0.0359, 0.0005); // water, steam table: 1000.0 and 965.3
}

TEST(Vessel, a_small_one_opens_the_relief_valve_and_the_loss_shows_cold)
{
    Job job = new_job("glycol-coil");
    job.variants[0].unit.outputs[0].mode = Mode::off; // stagnates
    const Figures good = run(job);
    EXPECT_GT(good.vessel.steam_s, 600);
    EXPECT_EQ(good.vessel.lost_kg, 0);
    EXPECT_NEAR(good.end_pressure_pa, job.variants[0].loop.vessel.fill_pa, 100);
    job.variants[0].loop.vessel.volume_m3 = 0.005;
    job.variants[0].loop.vessel.relief_pa = 2.5e5; // below saturation at what this array comes to
    const Figures small = run(job);
    EXPECT_NEAR(small.vessel.highest_pa, job.variants[0].loop.vessel.relief_pa, 1);
    EXPECT_GT(small.vessel.lost_kg, 0.5);
    EXPECT_LT(small.end_pressure_pa, 1.6e5) << "a fall well below the fill means fluid went out";
    EXPECT_LT(std::fabs(small.residual_j()), 1e-9 * small.heat.absorbed);
}

TEST(Vessel, the_size_it_names_holds_a_stagnation)
{
    Job job = new_job("glycol-coil");
    Loop& l = job.variants[0].loop;
    l.vessel.volume_m3 = vessel_for(l, 120);
    job.variants[0].unit.outputs[0].mode = Mode::off;
    EXPECT_EQ(run(job).vessel.lost_kg, 0);
}

RC_GTEST_PROP(Vessel, pressure_rises_with_warmth_and_never_above_the_relief, ())
{
    Closed c(any(0.001, 0.2));
    c.loop.vessel.precharge_pa = any(0, 5e5);
    c.loop.vessel.fill_pa = any(0, 6e5);
    c.loop.vessel.relief_pa = any(1e5, 8e5);
    const double t = any(0, 140), cool = c.at(t), warm = c.at(t + 10);
    RC_ASSERT(std::isfinite(warm) && warm >= cool - 1e-6);
    RC_ASSERT(warm <= c.loop.vessel.relief_pa + 1e-6);
}

TEST(CheckValve, one_that_leaks_lets_the_store_cool_to_the_roof)
{
    Job job = new_job("direct");
    const Figures holds = run(job, 2);
    EXPECT_EQ(holds.night_loss_j, 0);
    job.variants[0].loop.check_valve.leak = 1;
    const Figures leaks = run(job, 2);
    EXPECT_GT(leaks.night_loss_j, 0.2 * 3.6e6);
    EXPECT_GT(leaks.hydraulics.reverse_s, 3600);
    EXPECT_LT(leaks.stored_change_j + leaks.heat.drawn, holds.stored_change_j + holds.heat.drawn + 1e-6);
    EXPECT_LT(std::fabs(leaks.residual_j()), 1e-9 * (leaks.heat.absorbed + std::fabs(leaks.stored_change_j)));
    job.variants[0].loop.check_valve.rise_m = -3; // a collector below its store
    EXPECT_EQ(run(job, 2).hydraulics.reverse_s, 0);
}

TEST(CheckValve, a_cold_collector_freezes_the_water_side_of_the_exchanger)
{
    Job job = new_job("glycol-hx");
    job.days[2].sky.air_min_c = -22;
    job.days[2].sky.air_max_c = -14;
    Loop& l = job.variants[0].loop;
    l.tank.room_c = 3;
    l.glycol_fraction = 0.5;
    job.variants[0].unit.outputs[0].mode = Mode::off;
    job.variants[0].unit.outputs[1].mode = Mode::off;
    EXPECT_EQ(run(job, 2).freezing_s, 0);
    l.check_valve.leak = 1;
    const Figures f = run(job, 2);
    EXPECT_GT(f.freezing_s, 600);
    EXPECT_EQ(f.first_freeze_at.rfind("water side of the exchanger", 0), 0U) << f.first_freeze_at;
    EXPECT_GT(f.burst_s, 0);
}

TEST(Frost, is_told_with_its_minute_and_place)
{
    Job job = new_job("direct");
    job.variants[0] = undrained(job.variants[0]);
    const Figures f = run(job, 2);
    EXPECT_GT(f.freezing_s, 3600);
    EXPECT_FALSE(f.first_freeze_at.empty());
    EXPECT_FALSE(std::isnan(f.first_freeze_s));
    EXPECT_EQ(f.burst_s, f.freezing_s) << "water bursts where it freezes";
    job = new_job("glycol-coil");
    job.variants[0].loop.glycol_fraction = 0.25; // freezes near −10 °C, bursts below −20 (makers' tables, from memory)
    const Figures slush = run(job, 2);
    EXPECT_GT(slush.freezing_s, 0);
    EXPECT_EQ(slush.burst_s, 0);
}

TEST(Element, keeps_the_tap_warm_and_is_paid_for)
{
    Job job = new_job("glycol-coil");
    job.days[0].sky.clouds = Clouds::overcast;
    job.days[0].sky.month = 12;
    const auto cases = backup_cases(job, job.variants[0], job.days[0]);
    ASSERT_TRUE(cases);
    const Figures &off = (*cases)[0].figures, &always = (*cases)[1].figures;
    EXPECT_EQ(off.heat.backup(), 0);
    EXPECT_GT(off.short_j, 0.5 * 3.6e6);
    EXPECT_LT(always.short_j, 0.05 * off.short_j);
    EXPECT_GT(always.heat.backup(), off.short_j) << "it also carries the tank's loss";
    EXPECT_LT(always.solar_fraction(), 0.4);
    EXPECT_LT(std::fabs(always.residual_j()), 1e-9 * always.heat.backup());
}

TEST(Element, windows_heat_only_inside_and_over_midnight)
{
    Loop l = new_job("direct").variants.front().loop;
    l.answers.backup = Backup::element;
    l.element.mode = ElementMode::windows;
    l.element.windows = {{{4, 8}, {22, 1}, {12, 12}}};
    for (const auto& [h, on] : {std::pair{3.9, false}, {4.0, true}, {7.99, true}, {8.0, false}, {12.0, false}, {22.5, true}, {0.5, true}, {1.0, false}})
        EXPECT_EQ(element_w(l, h * 3600) > 0, on) << h;
    l.element.mode = ElementMode::off;
    EXPECT_EQ(element_w(l, 5 * 3600), 0);
    l.answers = preset_answers("pool");
    l.element.mode = ElementMode::always;
    EXPECT_EQ(element_w(l, 5 * 3600), 0) << "a pool has none";
}

TEST(Element, a_heat_trap_keeps_heat)
{
    Job job = new_job("direct");
    const double with = run(job, 1).heat.loss(Loss::store);
    job.variants[0].loop.tank.heat_trap = false;
    EXPECT_GT(run(job, 1).heat.loss(Loss::store), 1.05 * with);
}

TEST(Reserve, more_tank_lasts_longer)
{
    Job job = new_job("glycol-coil");
    const auto small = reserve_of(job, job.variants[0], job.days[0]);
    ASSERT_TRUE(small);
    ASSERT_FALSE(std::isnan(small->hot_s));
    job.variants[0].loop.tank.volume_m3 = 0.6;
    job.variants[0].loop.collector.area_m2 = 12;
    const auto large = reserve_of(job, job.variants[0], job.days[0]);
    EXPECT_TRUE(std::isnan(large->hot_s) || large->hot_s > small->hot_s);
    EXPECT_FALSE(small->battery);
    const Job dc = new_job("pv-battery");
    EXPECT_TRUE(reserve_of(dc, dc.variants[0], dc.days[0])->battery);
}

// Three dark days in a row: the unit's own load must empty a small battery.
TEST(Reserve, a_small_battery_does_not_last)
{
    Job job = new_job("pv-battery");
    job.variants[0].loop.battery.capacity_ah = 7;
    job.variants[0].loop.battery.other_load_w = 2;
    job.variants[0].unit.outputs[0].mode = Mode::on;
    const auto r = reserve_of(job, job.variants[0], job.days[0]);
    ASSERT_TRUE(r);
    EXPECT_LT(r->battery_s, 3 * 86400.0);
}

TEST(Outage, stops_the_pump_and_begins_anew)
{
    Job job = new_job("glycol-coil");
    job.variants[0].loop.tank.volume_m3 = 0.8; // the whole day's sun finds room
    job.days[0].begins = Begins::cold;
    const Figures whole = run(job);
    job.days[0].outage_start_h = 10;
    job.days[0].outage_h = 6;
    const CoupledResult r = run_coupled(*coupled_setup(job, job.variants[0], job.days[0]));
    for (const Record& k : r.records) {
        if (k.time_s > 10 * 3600 + 1 && k.time_s < 16 * 3600 - 1) {
            EXPECT_EQ(k.state.running, 0U) << k.time_s;
        }
    }
    EXPECT_LT(r.figures.pumps[0].run_time_s, whole.pumps[0].run_time_s - 3600);
    EXPECT_GT(r.figures.highest_collector_c, whole.highest_collector_c);
    EXPECT_LT(std::fabs(r.figures.residual_j()), 1e-9 * r.figures.heat.absorbed);
}

// IEC 60228 table 4 (class 5): 2.5 mm² 7.98 Ω/km, 1.5 mm² 13.3 Ω/km at 20 °C. AWG 18 of solid copper 20.95 Ω/km (ASTM B258 with IACS copper).
TEST(Wiring, resistances_of_the_standard)
{
    EXPECT_NEAR(copper_ohm_m(2.5e-6, Strands::fine) * 1000, 7.98, 0.005);
    EXPECT_NEAR(copper_ohm_m(1.5e-6, Strands::fine) * 1000, 13.3, 0.005);
    EXPECT_NEAR(copper_ohm_m(0.823e-6, Strands::fine) * 1000, 20.95 * 1.14, 20.95 * 0.03) << "fine strands lie 13 to 16 % above solid copper";
    EXPECT_NEAR(cable_ohm({10, 2.5e-6}), 2 * 10 * 7.98e-3 * (1 + 0.00393 * 20), 1e-6);
    // IEC 60364-5-52 table B.52.4, method C, two loaded, PVC: 1.5 mm² 19.5 A, 2.5 mm² 27 A, 6 mm² 46 A (from memory).
    EXPECT_NEAR(cable_bears_a(1.5e-6), 19.5, 0.5);
    EXPECT_NEAR(cable_bears_a(2.5e-6), 27, 0.7);
    EXPECT_NEAR(cable_bears_a(6e-6), 46, 0.5);
}

TEST(Wiring, all_that_hang_on_a_battery_count)
{
    const auto of = [](const GivenAnswers& given) { return new_job(*complete(given, "glycol-hx")).variants[0].loop; };
    const Loop one = of({{"power", "battery"}, {"transfer", "coil"}}), three = of({{"power", "battery"}, {"fields", "2"}, {"exchanger_pumps", "two"}});
    EXPECT_EQ(dc_motors(one), 1U);
    EXPECT_EQ(dc_motors(three), 3U);
    EXPECT_EQ(dc_motors(of({})), 0U);
    EXPECT_EQ(dc_motors_on_an_output(three), 1U);
    EXPECT_EQ(dc_motors_on_an_output(of({{"power", "battery"}, {"exchanger_pumps", "one"}})), 2U);
    EXPECT_DOUBLE_EQ(motor_currents(three, 3).working_a, 3 * motor_currents(one, 1).working_a);
    EXPECT_GT(motor_currents(three, 3).stalled_a, 1.5 * motor_currents(one, 1).stalled_a) << "side by side, behind one cable";
}

TEST(Wiring, working_label_and_stalled_current_are_three_things)
{
    Loop l = new_job("pv-battery").variants.front().loop;
    // A pump that draws 5.5 A at work though its label says 13 A (field practice).
    l.motor = {12, 5.5, 1.5, 0.5, 13};
    const MotorCurrents m = motor_currents(l, dc_motors(l));
    EXPECT_EQ(m.working_a, 5.5);
    EXPECT_EQ(m.worst_a(), 13);
    EXPECT_GT(m.stalled_a, 13);
    EXPECT_LT(m.stalled_a, l.battery.full_v / l.motor.resistance_ohm);
    l.wiring.output_a = 10;
    EXPECT_EQ(breaker_for(l), 10); // a quarter over 5.5 A, at most 10 A
    l.wiring.output_a = 5;
    EXPECT_EQ(breaker_for(l), 0);
}

TEST(Wiring, a_long_cable_slows_the_pump_and_a_booster_starts_it_earlier)
{
    const Panel p;
    const Motor m;
    EXPECT_LT(drive(p, m, 700, 20, true, 1.5).speed, drive(p, m, 700, 20, true).speed);
    EXPECT_LT(drive_at(m, 12, true, 1.5).speed, drive_at(m, 12, true).speed);
    Panel boosted = p;
    boosted.booster = true;
    const auto starts_at = [&](const Panel& panel) {
        double sun = 5;
        while (sun < 1000 && drive(panel, m, sun, 20, false).speed <= 0)
            sun += 5;
        return sun;
    };
    EXPECT_LT(starts_at(boosted), 0.8 * starts_at(p));
    for (double sun = 50; sun <= 1000; sun += 50) {
        const Drive d = drive(boosted, m, sun, 20, true);
        EXPECT_GE(d.speed, drive(p, m, sun, 20, true).speed - 1e-9) << sun;
        EXPECT_LE(d.volt * d.current_a, panel_power_w(p, sun, cell_temperature_c(20, sun)) * 1.001) << "no power from nothing";
    }
}

TEST(Wiring, a_starting_motor_dips_the_battery_below_the_cut_out)
{
    Job job = new_job("pv-battery");
    Loop& l = job.variants[0].loop;
    l.battery.resistance_ohm = 0.25;
    l.motor.resistance_ohm = 0.9;
    l.battery.cut_delay_s = 0;
    ASSERT_LT(starting_dip_v(l, rest_voltage_v(l.battery, 0.8)), l.battery.cut_v);
    EXPECT_GT(run(job).power.start_trips, 0);
    l.battery.cut_delay_s = 3;
    EXPECT_EQ(run(job).power.start_trips, 0);
}

TEST(Wiring, swapped_leads_move_little)
{
    Job job = new_job("pv-battery");
    job.variants[0].loop.tank.volume_m3 = 0.8; // the whole day's sun finds room
    job.days[0].begins = Begins::cold;
    const double right = run(job).heat.to_store;
    job.variants[0].loop.motor.swapped = true;
    EXPECT_LT(run(job).heat.to_store, right);
}

TEST(DrainBack, swapped_ports_lock_the_pump)
{
    Job job = new_job("drainback");
    const Figures right = run(job);
    job.variants[0].loop.drain_back.ports_swapped = true;
    const Figures wrong = run(job);
    EXPECT_GT(wrong.hydraulics.air_locked_s, 3600);
    EXPECT_LT(wrong.heat.to_store, 0.5 * right.heat.to_store);
    EXPECT_EQ(right.hydraulics.air_locked_s, 0);
}

TEST(DrainBack, a_lost_prime_runs_dry_from_the_second_start)
{
    Job job = new_job("open-tank");
    DrainBack& d = job.variants[0].loop.drain_back;
    d.suction_m = 0.4;
    EXPECT_EQ(run(job).hydraulics.dry_run_s, 0);
    d.holds_prime = false;
    EXPECT_GT(run(job).hydraulics.dry_run_s, 3600);
    d.suction_m = -0.4; // flooded: nothing to lose
    EXPECT_EQ(run(job).hydraulics.dry_run_s, 0);
}

TEST(DrainBack, hot_water_boils_at_a_high_inlet)
{
    Job job = new_job("open-tank");
    job.variants[0].loop.drain_back.suction_m = 7;
    job.variants[0].loop.tank.volume_m3 = 0.12;
    job.days[0].draws.clear();
    const Figures f = run(job);
    EXPECT_GT(f.hydraulics.cavitating_s, 60);
    job.variants[0].loop.drain_back.suction_m = -0.3;
    const Figures flooded = run(job);
    EXPECT_EQ(flooded.hydraulics.cavitating_s, 0);
    EXPECT_LT(f.heat.to_store, flooded.heat.to_store);
}

TEST(DrainBack, each_filling_blows_vapour_out_of_the_vent)
{
    Job job = new_job("open-tank");
    const Figures f = run(job);
    EXPECT_GT(f.hydraulics.vapour_kg, 0);
    EXPECT_LT(f.hydraulics.vapour_kg, 0.05);
    job = new_job("drainback");
    EXPECT_EQ(run(job).hydraulics.vapour_kg, 0);
    job.variants[0].loop.drain_back.vented = true;
    EXPECT_GT(run(job).hydraulics.vapour_kg, 0);
}

TEST(DrainBack, a_check_valve_in_the_return_keeps_it_full)
{
    Job job = new_job("drainback");
    job.variants[0].loop.drain_back.check_valve = true;
    EXPECT_GT(run(job, 2).freezing_s, 6 * 3600);
}

TEST(DeadHead, a_shut_line_moves_nothing)
{
    Job job = new_job("glycol-coil");
    job.variants[0].loop.pump.shut = true;
    const Figures f = run(job);
    EXPECT_GT(f.hydraulics.dead_head_s, 3600);
    EXPECT_LT(f.heat.to_store, 0.1 * 3.6e6);
}

TEST(RockBed, takes_heat_before_the_room)
{
    Job job = new_job("air");
    const Figures without = run(job, 1);
    job.variants[0].loop.rock_bed.volume_m3 = 3;
    const Figures with = run(job, 1);
    EXPECT_LT(with.highest_store_c, without.highest_store_c);
    EXPECT_LT(std::fabs(with.residual_j()), 1e-9 * with.heat.absorbed);
}

TEST(Cooler, of_the_house_loop_warms_the_rooms)
{
    Job job = new_job("dump");
    job.variants[0].loop.cooler.indoors = true;
    job.variants[0].loop.tank.volume_m3 = 0.1;
    const Figures f = run(job);
    EXPECT_GT(f.heat.loss(Loss::cooler), 0);
    EXPECT_LT(std::fabs(f.residual_j()), 1e-9 * f.heat.absorbed);
}

} // namespace
