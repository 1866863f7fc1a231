// Faults painted on a stretch: what unit and plant feel of them, and that all is well outside.
#include "core/job/job.h"
#include "core/run/coupled.h"
#include "core/setup/fault_setup.h"
#include "core/setup/job_setup.h"

#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <cmath>

namespace vernal {
namespace {

struct Ran {
    Variant v;
    CoupledResult result;
    std::vector<double> time_s;
    std::vector<std::array<double, max_probes>> readings; // NaN: invalid
    std::vector<std::uint32_t> decided;
    const Record& at(double h) const
    {
        const auto it = std::upper_bound(result.records.begin(), result.records.end(), h * 3600, [](double t, const Record& r) { return t < r.time_s; });
        return *std::prev(it);
    }
    double reading(double h, std::size_t probe) const
    {
        const auto it = std::lower_bound(time_s.begin(), time_s.end(), h * 3600 - 0.5);
        return readings[static_cast<std::size_t>(it - time_s.begin())][probe];
    }
};

Ran run(const char* preset, const std::vector<Fault>& faults, double step_s = 0)
{
    Job job = new_job(preset);
    Day day = job.days.front();
    day.faults = faults;
    Ran out;
    out.v = job.variants.front();
    CoupledSetup setup = *coupled_setup(job, out.v, day);
    setup.step_s = step_s;
    CoupledOptions options;
    options.each_sample = [&](const SampleRow& row) {
        out.time_s.push_back(row.time_s);
        auto& r = out.readings.emplace_back();
        for (std::size_t p = 0; p < out.v.probes.size(); ++p)
            r[p] = row.inputs.readings[p].valid ? row.inputs.readings[p].mk / 1000.0 : NAN;
        out.decided.push_back(static_cast<std::uint32_t>(row.decisions[0].on));
    };
    out.result = run_coupled(setup, options);
    return out;
}

Fault fault(FaultKind kind, const char* preset, double from_h, double to_h) { return fresh_fault(kind, new_job(preset).variants.front(), from_h, to_h); }

double flow_at(const Ran& r, double h) { return r.at(h).flows.route_w_k[0]; }
bool decided_at(const Ran& r, double h) { return r.at(h).decisions[0].on; }

constexpr const char* glycol = "glycol-coil";

} // namespace

TEST(Faults, an_open_a_shorted_and_a_stuck_probe_read_so_within_the_stretch_only)
{
    const Ran sound = run(glycol, {}), open = run(glycol, {fault(FaultKind::probe_open, glycol, 11, 12)});
    EXPECT_TRUE(std::isnan(open.reading(11.5, 0)));
    EXPECT_FALSE(std::isnan(open.reading(10.9, 0)));
    EXPECT_FALSE(std::isnan(open.reading(12.1, 0)));
    EXPECT_DOUBLE_EQ(open.reading(10.5, 0), sound.reading(10.5, 0));
    Fault stuck = fault(FaultKind::probe_stuck, glycol, 11, 12);
    stuck.stuck_c = 33;
    const Ran s = run(glycol, {stuck});
    EXPECT_NEAR(s.reading(11.5, 0), 33, 0.2);
    EXPECT_NEAR(s.reading(11.99, 0), 33, 0.2);
    EXPECT_GT(s.reading(12.2, 0), 40);
    EXPECT_TRUE(std::isnan(run(glycol, {fault(FaultKind::probe_shorted, glycol, 11, 12)}).reading(11.5, 0)));
}

TEST(Faults, drift_grows_evenly_and_spikes_come_and_go)
{
    Fault drift = fault(FaultKind::probe_drifts, glycol, 1, 5); // at night: nothing runs
    drift.of = "S2";
    drift.by_k = 8;
    const Ran sound = run(glycol, {}), d = run(glycol, {drift});
    for (const double h : {1.5, 3.0, 4.5})
        EXPECT_NEAR(d.reading(h, 1) - sound.reading(h, 1), 8 * (h - 1) / 4, 0.11) << h;
    EXPECT_NEAR(d.reading(5.1, 1) - sound.reading(5.1, 1), 0, 0.11);
    Fault spikes = fault(FaultKind::probe_spikes, glycol, 1, 5);
    spikes.of = "S2";
    spikes.by_k = 20;
    const Ran s = run(glycol, {spikes});
    std::size_t high = 0, samples = 0;
    for (std::size_t i = 0; i < s.time_s.size(); ++i)
        if (s.time_s[i] >= 3600 && s.time_s[i] < 5 * 3600) {
            ++samples;
            high += s.readings[i][1] - sound.readings[i][1] > 15;
        }
    EXPECT_NEAR(static_cast<double>(high) / static_cast<double>(samples), 10.0 / 300, 0.005);
}

TEST(Faults, swapped_probes_change_places)
{
    const Ran s = run(glycol, {fault(FaultKind::probes_swapped, glycol, 11, 12)}), sound = run(glycol, {});
    EXPECT_GT(sound.reading(11.05, 0), sound.reading(11.05, 1) + 3);
    EXPECT_LT(s.reading(11.05, 0), s.reading(11.05, 1) - 3);
    EXPECT_FALSE(decided_at(s, 11.5)) << "the collector seems the colder one";
}

TEST(Faults, a_bare_probe_and_one_out_of_its_well_read_what_is_around)
{
    Fault out = fault(FaultKind::probe_tip_lost, glycol, 1, 5);
    out.of = "S3";
    const Ran s = run(glycol, {out}), sound = run(glycol, {});
    EXPECT_NEAR(s.reading(3, 2), sound.reading(3, 2) + out.share * (s.v.loop.tank.room_c - sound.reading(3, 2)), 0.15);
    Fault bare = fault(FaultKind::probe_bare, glycol, 11, 14);
    const Ran b = run(glycol, {bare});
    EXPECT_LT(b.reading(11.01, 0), sound.reading(11.01, 0) - 5);
}

TEST(Faults, relays_stick_whatever_the_unit_decides)
{
    const Ran on = run(glycol, {fault(FaultKind::relay_stuck_on, glycol, 1, 3)});
    EXPECT_FALSE(decided_at(on, 2));
    EXPECT_GT(flow_at(on, 2), 0);
    EXPECT_EQ(flow_at(on, 3.5), 0);
    EXPECT_GT(on.result.figures.pumps[0].run_time_s - run(glycol, {}).result.figures.pumps[0].run_time_s, 1.9 * 3600);
    const Ran off = run(glycol, {fault(FaultKind::relay_stuck_off, glycol, 11, 11.1)});
    EXPECT_TRUE(decided_at(off, 11.05));
    EXPECT_EQ(flow_at(off, 11.05), 0);
    EXPECT_GT(flow_at(off, 11.2), 0);
    Fault chatter = fault(FaultKind::relay_chatters, glycol, 11, 11.5);
    chatter.every_s = 60;
    const Ran c = run(glycol, {chatter});
    EXPECT_NEAR(c.result.figures.starts(), run(glycol, {}).result.figures.starts() + 30, 4);
}

TEST(Faults, pump_air_valve_and_strainer_stop_or_slow_the_flow)
{
    const double usual = flow_at(run(glycol, {}), 12);
    ASSERT_GT(usual, 0);
    for (const auto& [kind, trouble] : {std::pair{FaultKind::pump_dead, Trouble::none}, {FaultKind::air_lock, Trouble::air_lock}, {FaultKind::line_shut, Trouble::dead_head}}) {
        const Ran r = run(glycol, {fault(kind, glycol, 11, 11.1)});
        EXPECT_EQ(flow_at(r, 11.05), 0) << fault_keys[static_cast<std::size_t>(kind)];
        EXPECT_TRUE(decided_at(r, 11.05));
        EXPECT_EQ(r.at(11.05).trouble, trouble);
        EXPECT_GT(flow_at(r, 11.2), 0);
        EXPECT_GT(run(glycol, {fault(kind, glycol, 10, 14)}).result.figures.highest_collector_c, 110) << "it stagnates";
    }
    Fault clogged = fault(FaultKind::strainer_clogged, glycol, 11, 14);
    clogged.share = 0.3;
    EXPECT_NEAR(flow_at(run(glycol, {clogged}), 12), 0.3 * usual, 1e-9 * usual);
}

TEST(Faults, a_drain_back_array_under_a_shut_line_waits_and_fills_afterwards)
{
    const Ran r = run("drainback", {fault(FaultKind::line_shut, "drainback", 5, 9)});
    EXPECT_EQ(flow_at(r, 8.9), 0);
    EXPECT_GT(flow_at(r, 11), 0);
}

TEST(Faults, a_leaking_check_valve_loses_heat_at_night)
{
    const Fault leak = fault(FaultKind::check_valve_leaks, glycol, 0, 6);
    EXPECT_GT(run(glycol, {leak}).result.figures.night_loss_j, run(glycol, {}).result.figures.night_loss_j + 1e5);
}

TEST(Faults, lost_pressure_shows_at_the_gauge_and_is_made_good_again)
{
    Fault lost = fault(FaultKind::pressure_lost, glycol, 2, 4);
    lost.share = 0.8;
    const Ran r = run(glycol, {lost}), sound = run(glycol, {});
    EXPECT_LT(r.at(3).pressure_pa, 0.45 * sound.at(3).pressure_pa);
    EXPECT_NEAR(r.at(5).pressure_pa, sound.at(5).pressure_pa, 0.02 * sound.at(5).pressure_pa);
}

TEST(Faults, low_voltage_is_seen_by_the_unit_and_slows_a_motor_on_it)
{
    Fault low = fault(FaultKind::low_voltage, "pv-battery", 11, 14);
    low.supply_v = 9;
    const Ran r = run("pv-battery", {low}), sound = run("pv-battery", {});
    EXPECT_NEAR(r.at(12).inputs.readings[supply_channel].mk, 9000, 1);
    EXPECT_GT(sound.at(12).inputs.readings[supply_channel].mk, 11000);
    EXPECT_LT(flow_at(r, 12), 0.9 * flow_at(sound, 12));
}

TEST(Faults, snow_takes_the_sun_for_a_while_and_leaves_the_days_before_alone)
{
    const Ran r = run(glycol, {fault(FaultKind::snow, glycol, 6, 13)}), sound = run(glycol, {});
    EXPECT_LT(r.at(12).plane_w_m2, 0.06 * sound.at(12).plane_w_m2);
    EXPECT_EQ(r.at(13.5).plane_w_m2, sound.at(13.5).plane_w_m2);
    EXPECT_EQ(r.reading(0.5, 1), sound.reading(0.5, 1)) << "days before began without snow";
}

TEST(Faults, a_wrong_clock_moves_what_hangs_on_the_hour)
{
    Fault clock = fault(FaultKind::clock_wrong, glycol, 0, 24);
    clock.by_h = 3;
    const Ran r = run(glycol, {clock});
    EXPECT_EQ(r.at(10).inputs.clock_ms, r.at(10).time_s * 1000 + 3 * 3600000);
    EXPECT_EQ(r.at(22).inputs.clock_ms, r.at(22).time_s * 1000 + 3 * 3600000 - 86400000);
}

// Whatever is painted, the run balances and long steps see the same edges as short ones.
TEST(Faults, every_kind_on_every_preset_balances)
{
    for (const Arrangement& a : presets()) {
        const Job job = new_job(a.key);
        const Variant& v = job.variants.front();
        for (std::size_t k = 0; k < fault_kinds; ++k) {
            Day day = job.days.front();
            if (!can_have(static_cast<FaultKind>(k), v, day))
                continue;
            day.faults = {fresh_fault(static_cast<FaultKind>(k), v, 10.3, 12.7)};
            CoupledOptions options;
            options.keep_records = false;
            const Figures f = run_coupled(*coupled_setup(job, v, day), options).figures;
            EXPECT_LE(std::fabs(f.heat.kept() - f.stored_change_j), 0.002 * (f.heat.absorbed + std::fabs(f.heat.all_losses()) + f.heat.drawn) + 1e4) << a.key << ' ' << fault_keys[k];
        }
    }
}

TEST(Faults, they_stack_and_a_later_one_stands_over_an_earlier)
{
    Fault first = fault(FaultKind::probe_stuck, glycol, 1, 5), second = first;
    first.stuck_c = 20;
    second.stuck_c = 60;
    second.from_h = 2;
    second.to_h = 3;
    const Ran r = run(glycol, {first, second});
    EXPECT_NEAR(r.reading(1.5, 0), 20, 0.2);
    EXPECT_NEAR(r.reading(2.5, 0), 60, 0.2);
    EXPECT_NEAR(r.reading(4, 0), 20, 0.2);
}

TEST(Faults, on_a_log)
{
    const Variant v = new_job(glycol).variants.front();
    Trace t;
    t.columns = {{"collector", Quantity::temperature, {}}, {"tank_bottom", Quantity::temperature, {}}, {"air", Quantity::temperature, {}}, {"irradiance", Quantity::irradiance, {}}, {"P1", Quantity::number, {}}};
    for (int i = 0; i < 24 * 60; ++i) {
        t.time_s.push_back(60.0 * i);
        for (std::size_t c = 0; c < 5; ++c)
            t.columns[c].values.push_back(std::array{50.0, 30.0, 10.0, 500.0, 1.0}[c]);
    }
    const auto at_noon = [&](FaultKind kind, const char* column) {
        Day day;
        day.kind = DayKind::recorded;
        day.faults = {fresh_fault(kind, v, 11, 13)};
        const Trace with = with_faults(t, v, day);
        EXPECT_EQ(with.find(column)->values[600], t.find(column)->values[600]) << "outside";
        EXPECT_EQ(with.find(column)->values[780], t.find(column)->values[780]) << "outside";
        return with.find(column)->values[720];
    };
    EXPECT_EQ(at_noon(FaultKind::probe_stuck, "collector"), 40);
    EXPECT_GT(at_noon(FaultKind::probe_open, "collector"), 1000);
    EXPECT_LT(at_noon(FaultKind::probe_shorted, "collector"), -1000);
    EXPECT_NEAR(at_noon(FaultKind::probe_drifts, "collector"), 52.5, 1e-9);
    EXPECT_EQ(at_noon(FaultKind::probes_swapped, "collector"), 30);
    EXPECT_EQ(at_noon(FaultKind::probes_swapped, "tank_bottom"), 50);
    EXPECT_EQ(at_noon(FaultKind::probe_in_sun, "collector"), 57.5);
    EXPECT_EQ(at_noon(FaultKind::probe_bare, "collector"), 34);
    EXPECT_EQ(at_noon(FaultKind::relay_stuck_off, "P1"), 0);
    EXPECT_EQ(at_noon(FaultKind::relay_stuck_on, "P1"), 1);
    Day day;
    day.kind = DayKind::recorded;
    EXPECT_FALSE(can_have(FaultKind::snow, v, day));
    EXPECT_FALSE(can_have(FaultKind::pump_dead, v, day));
    EXPECT_TRUE(can_have(FaultKind::clock_wrong, v, day));
}

} // namespace vernal
