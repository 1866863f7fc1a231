// A panel by its label, a motor on it, and what they do to a day.
#include "core/job/job.h"
#include "core/plant/power.h"
#include "core/setup/job_setup.h"

#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <cmath>

using namespace vernal;

namespace {

// The label is the published curve: its points must come back (an open data
// sheet's form, figures invented).
TEST(Panel, goes_through_its_label)
{
    const Panel p;
    EXPECT_NEAR(panel_current_a(p, 1000, 25, 0), p.isc_a, 1e-12);
    EXPECT_NEAR(panel_current_a(p, 1000, 25, p.vmp_v), p.imp_a, 0.002 * p.imp_a);
    EXPECT_NEAR(panel_current_a(p, 1000, 25, p.voc_v), 0, 0.01 * p.isc_a);
    // The most power lies at the stated point, within what a four-point curve can do.
    double best = 0, at = 0;
    for (double v = 0; v < p.voc_v; v += 0.01)
        if (const double w = v * panel_current_a(p, 1000, 25, v); w > best) {
            best = w;
            at = v;
        }
    EXPECT_NEAR(best, p.imp_a * p.vmp_v, 0.01 * best);
    EXPECT_NEAR(at, p.vmp_v, 0.6);
}

TEST(Panel, cold_raises_the_open_voltage_and_heat_lowers_it)
{
    const Panel p;
    EXPECT_NEAR(panel_open_v(p, -15), p.voc_v + 40 * 0.074, 1e-9);
    EXPECT_LT(panel_open_v(p, 65), p.voc_v);
    EXPECT_GT(panel_current_a(p, 1000, 65, 0), p.isc_a);
    EXPECT_EQ(panel_current_a(p, 0, 25, 5), 0);
    EXPECT_EQ(panel_current_a(p, 1000, 25, 60), 0);
}

// The closed form of the most power against a search, the open circuit against where current ends.
TEST(Panel, most_power_and_open_circuit_are_those_of_the_curve)
{
    const Panel p;
    for (const double sun : {20.0, 150.0, 600.0, 1100.0})
        for (const double cell : {-20.0, 25.0, 75.0}) {
            const PanelCurve curve(p, sun, cell);
            double best = 0;
            for (double v = 0; v < 1.5 * p.voc_v; v += 0.001)
                best = std::max(best, v * curve.current_a(v));
            EXPECT_NEAR(curve.power_w(), best, 1e-6 * best);
            EXPECT_GT(curve.current_a(curve.open_v() - 1e-6), 0);
            EXPECT_EQ(curve.current_a(curve.open_v() + 1e-6), 0);
        }
    EXPECT_EQ(PanelCurve(p, 0, 25).power_w(), 0);
    EXPECT_EQ(PanelCurve(p, 0, 25).open_v(), 0);
}

// NOCT: 800 W/m², 20 °C air (IEC 61215): about 45 °C.
TEST(Panel, cells_are_at_their_nominal_temperature) { EXPECT_NEAR(cell_temperature_c(20, 800), 45, 1); }

TEST(Drive, runs_at_its_point_where_the_panel_gives_that)
{
    const Motor m;
    Panel strong;
    strong.isc_a = 30, strong.imp_a = 28, strong.voc_v = 21, strong.vmp_v = m.volt_v;
    const Drive d = drive(strong, m, 1000, 0, false);
    EXPECT_GT(d.speed, 1);
    EXPECT_NEAR(d.volt, m.resistance_ohm * d.current_a + (m.volt_v - m.resistance_ohm * m.current_a) * d.speed, 1e-9);
}

TEST(Drive, starts_later_than_it_stops)
{
    const Panel p;
    const Motor m;
    double starts = 0, stops = 0;
    for (double sun = 0; sun < 1000; sun += 1) {
        if (starts == 0 && drive(p, m, sun, 15, false).speed > 0)
            starts = sun;
        if (stops == 0 && drive(p, m, sun, 15, true).speed > 0)
            stops = sun;
    }
    EXPECT_GT(stops, 0);
    EXPECT_GT(starts, stops + 20);
}

RC_GTEST_PROP(Drive, more_sun_never_slows_it, ())
{
    const Panel p;
    const Motor m;
    const double low = *rc::gen::inRange(0, 1200), high = low + *rc::gen::inRange(0, 300);
    // Warmer cells cost a little voltage: allow that.
    RC_ASSERT(drive(p, m, high, 10, true).speed >= drive(p, m, low, 10, true).speed - 0.02);
}

TEST(PanelDriven, flow_follows_the_sun_over_a_day)
{
    const Job job = new_job("pv-direct");
    const CoupledResult r = run_coupled(*coupled_setup(job, job.variants[0], job.days[0]));
    double least = INFINITY, most = 0;
    for (const Record& record : r.records)
        if (record.flows.route_w_k[0] > 0) {
            least = std::min(least, record.flows.route_w_k[0]);
            most = std::max(most, record.flows.route_w_k[0]);
        }
    EXPECT_GT(most, 1.2 * least);
    EXPECT_GT(r.figures.heat.to_store, 2.5e7);
    EXPECT_GT(r.figures.pump_energy_j, 0);
    EXPECT_LT(std::fabs(r.figures.residual_j()), 1e-9 * r.figures.heat.absorbed);
}

TEST(PanelDriven, switched_on_at_night_it_stands_still)
{
    Job job = new_job("pv-direct");
    job.variants[0].unit.outputs[0].mode = Mode::on;
    const CoupledResult r = run_coupled(*coupled_setup(job, job.variants[0], job.days[2]));
    for (const Record& record : r.records)
        if (std::fmod(record.time_s, 86400) < 5 * 3600) {
            EXPECT_EQ(record.flows.route_w_k[0], 0) << record.time_s;
        }
}

TEST(Drive, at_a_voltage_it_is_at_its_stated_point)
{
    const Motor m;
    const Drive d = drive_at(m, m.volt_v, false);
    EXPECT_NEAR(d.speed, 1, 1e-9);
    EXPECT_NEAR(d.current_a, m.current_a, 1e-9);
    EXPECT_EQ(drive_at(m, 0.5, false).speed, 0);
    EXPECT_LT(drive_at(m, 11, true).speed, 0.8);
}

struct Bank {
    Loop loop = new_job("pv-battery").variants.front().loop;
    Power power{loop, Power::Source::battery};
};

TEST(Battery, an_idle_night_takes_what_the_other_loads_take)
{
    Bank b;
    b.loop.battery.other_load_w = 6;
    b.power.minute(0, 10, false);
    for (int m = 0; m < 600; ++m)
        b.power.pass(60, false);
    const Battery& battery = b.loop.battery;
    const double amp_hours = 6.0 * rest_voltage_v(battery, 0.77) / (battery.full_v * battery.full_v) * 10; // 6 W of a full one
    EXPECT_NEAR(b.loop.battery.start_charge - b.power.charge(), amp_hours / b.loop.battery.capacity_ah, 0.002);
}

TEST(Battery, the_cut_out_spares_it_and_reconnects_higher)
{
    Bank b;
    b.loop.battery.other_load_w = 0;
    b.loop.battery.reconnect_v = 13.4;
    b.power.minute(0, 10, true);
    double on_s = 0;
    while (!b.power.cut() && on_s < 30 * 86400.0) {
        b.power.pass(60, true);
        on_s += 60;
    }
    ASSERT_TRUE(b.power.cut());
    EXPECT_EQ(b.power.speed(true), 0);
    EXPECT_EQ(b.power.figures().trips, 1);
    EXPECT_GT(b.power.charge(), 0);
    b.power.minute(900, 10, true);
    double charging_s = 0;
    while (b.power.cut() && charging_s < 86400.0) {
        b.power.pass(60, true);
        charging_s += 60;
    }
    EXPECT_FALSE(b.power.cut());
    EXPECT_GT(charging_s, 600) << "not at the first ray: the band lies between";
    EXPECT_GE(b.power.volt(), b.loop.battery.reconnect_v - 0.5) << "charging lifts it there";
}

TEST(Battery, never_above_the_charge_limit_and_never_more_than_full)
{
    Bank b;
    b.loop.battery.start_charge = 0.99;
    b.loop.panel.isc_a = 30, b.loop.panel.imp_a = 28;
    Power p(b.loop, Power::Source::battery);
    p.minute(1000, 0, false);
    for (int m = 0; m < 600; ++m) {
        p.pass(60, false);
        ASSERT_LE(p.volt(), b.loop.battery.charge_limit_v + 1e-12);
        ASSERT_LE(p.charge(), 1);
    }
    EXPECT_GT(p.charge(), 0.99);
}

TEST(BatteryDriven, dark_days_trip_the_cut_out_and_leave_it_charged_enough)
{
    Job job = new_job("pv-battery");
    job.variants[0].loop.battery.start_charge = 0.3;
    job.variants[0].loop.battery.capacity_ah = 12;
    job.variants[0].unit.outputs[0].mode = Mode::on; // left in ON
    const Figures f = run_coupled(*coupled_setup(job, job.variants[0], job.days[2])).figures;
    EXPECT_GE(f.power.trips, 1);
    EXPECT_GT(f.power.cut_s, 3600);
    EXPECT_GT(f.power.lowest_v, 10);
    EXPECT_LT(std::fabs(f.residual_j()), 1e-9 * f.heat.absorbed);
}

} // namespace
