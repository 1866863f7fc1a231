#include "core/findings/findings.h"
#include "core/job/field_path.h"
#include "core/job/fresh_rule.h"
#include "core/job/ids.h"
#include "core/plant/collector_kinds.h"
#include "core/plant/valve_board.h"
#include "rule_of.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <regex>

using namespace vernal;

namespace {

template <class R>
void drop(Variant& v)
{
    std::erase_if(v.unit.rules, [](const Rule& r) { return std::holds_alternative<R>(r.body); });
}

// A rule as the window adds it.
template <class R>
R& add(Variant& v)
{
    for (std::size_t k = 0; k < rule_kinds().size(); ++k)
        if (Rule r = fresh_rule(v, k); std::holds_alternative<R>(r.body))
            v.unit.rules.push_back(r);
    return std::get<R>(v.unit.rules.back().body);
}

void element(Variant& v)
{
    v.unit.outputs.push_back({"H1", "Element"});
    v.unit.outputs.back().drives = Drives::element;
}

Circulation& circulates(Variant& v)
{
    v.loop.answers.circulation = Circulates::taps;
    return v.loop.circulation;
}

Heater& heated(Variant& v)
{
    v.loop.answers.backup = Backup::heater_after;
    return v.loop.heater;
}

void turn(Variant& v, HandValve valve, ServiceState state, bool open) { set_stands(v.loop, valve, state, open ? ValveStands::open : ValveStands::shut); }

Figures hot()
{
    Figures f;
    f.pumps.resize(2);
    f.highest_collector_c = 140;
    f.highest_store_c = 71;
    f.freezing_s = 600;
    f.coldest_wet_c = -3;
    f.pumps[0].starts = 30;
    f.pumps[0].shortest_run_s = 20;
    f.pumps[1].starts = 40;
    f.stops = {{0, 3, -1, Priority::collect, Priority::nothing, Stops::Sun::slug, 30, 20, 2, 600, 20}, {1, 0, -1, Priority::dump, Priority::nothing, Stops::Sun::none_of_it, 40, 60}};
    f.hydraulics.steam_fills = 2;
    f.hydraulics.steam_s = 300;
    f.power.trips = 1;
    f.power.start_trips = 1;
    f.hydraulics.cavitating_s = 300;
    f.hydraulics.vapour_kg = 0.02;
    f.vessel.lost_kg = 2;
    f.end_pressure_pa = 0.8e5;
    f.night_loss_j = 3.6e6;
    f.power.stalled_s = 900;
    f.power.highest_v = 17;
    f.circulation_s = 7200;
    f.heat.to_store = 1e7;
    f.possible_j = 3e7;
    f.missed = {{0, -1, Priority::nothing, 18000, 2e7}};
    f.circulation_warmest_c = 39;
    f.needed_j = 2e7;
    f.heat.lost[static_cast<std::size_t>(Loss::circulation)] = 9e6;
    f.heat.lost[static_cast<std::size_t>(Loss::element)] = -3.6e6;
    return f;
}

Probe& add_instrument(Variant& v, ProbePlace place)
{
    Probe p;
    p.key = "I1";
    p.name = "Instrument";
    p.place = place;
    v.probes.push_back(p);
    return v.probes.back();
}

struct Case {
    const char* kind;
    std::function<void(Variant&)> break_it;
    bool needs_figures = false;
    const char* arrangement = "glycol-coil";
};

const std::vector<Case>& cases()
{
    static const std::vector<Case> all{
        {"off_not_below_on", [](Variant& v) { rule_of<Differential>(v).off = TempDiff::kelvin(9); }},
        {"hysteresis_not_positive", [](Variant& v) { rule_of<StoreLimit>(v).hysteresis = TempDiff::kelvin(0); }},
        {"rule_out_of_action", [](Variant& v) { rule_of<Differential>(v).store = "S9"; }},
        {"collector_without_probe", [](Variant& v) { v.probes.erase(v.probes.begin()); }},
        {"limit_reads_collector", [](Variant& v) { rule_of<StoreLimit>(v).probe = "S1"; }},
        {"mixing_limit_reads_collector", [](Variant& v) { add<MixingLimit>(v).probe = "S1"; }},
        {"pair_swapped", [](Variant& v) { std::swap(rule_of<Differential>(v).source, rule_of<Differential>(v).store); }},
        {"limit_below_the_layers", [](Variant& v) { rule_of<StoreLimit>(v).probe = "S2"; }},
        {"output_moves_nothing", [](Variant& v) { v.unit.outputs.push_back({"P9", "A pump that is not there"}); }},
        {"switch_left", [](Variant& v) { v.unit.outputs[0].mode = Mode::on; }},
        {"no_collecting_rule", [](Variant& v) { drop<Differential>(v); }},
        {"limit_too_low", [](Variant& v) { rule_of<StoreLimit>(v).limit = Temperature::fahrenheit(60); }},
        {"limit_never_acts", [](Variant& v) { rule_of<StoreLimit>(v).limit = Temperature::celsius(170); }},
        {"no_store_limit", [](Variant& v) { drop<StoreLimit>(v); }},
        {"no_cut_out", [](Variant& v) { drop<CutOut>(v); }},
        {"too_cool_against_legionella", [](Variant& v) { rule_of<StoreLimit>(v).limit = Temperature::celsius(52); }},
        {"narrow_band", [](Variant& v) { rule_of<Differential>(v).off = TempDiff::kelvin(7);
             for (Probe& p : v.probes)
                 p.sensor.tolerance.kind = ToleranceKind::none; }},
        {"stops_below_zero", [](Variant& v) { rule_of<Differential>(v).off = TempDiff::kelvin(-2); }},
        {"glycol_too_weak", [](Variant& v) { v.loop.glycol_fraction = 0.1; }},
        {"freezes_today", [](Variant&) {}, true},
        {"report_without_sky", [](Variant& v) { v.loop.collector.sky_exchange = 0; }},
        {"scald", [](Variant&) {}, true},
        {"stagnates", [](Variant&) {}, true},
        {"many_starts_today", [](Variant&) {}, true},
        {"switches_often", [](Variant&) {}, true, "dump"},
        {"runs_only_minimum", [](Variant& v) { rule_of<RunTimes>(v).min_run_s = 100; }, true},
        {"output_missing", [](Variant& v) { v.unit.outputs.pop_back(); }, false, "glycol-hx"},
        {"pump_below_lift", [](Variant& v) { v.loop.pump.head_m = 4, v.loop.pump.free_flow_m3_s = 5e-4; }, false, "drainback"},
        {"pump_too_weak_for_its_flow", [](Variant& v) { v.loop.pump.flow_m3_s = 1e-3; }},
        {"array_looks_away", [](Variant& v) { v.loop.collector.azimuth_deg = 180; }},
        {"reservoir_too_small", [](Variant& v) { v.loop.collector.content_m3 = 0.06; }, false, "drainback"},
        {"pitch_too_small", [](Variant& v) { v.loop.drain_back.pitch = 0.01; }, false, "drainback"},
        {"report_wind_doubtful", [](Variant& v) { v.loop.collector.wind_from = WindFrom::three_m_s, v.loop.collector.wind_loss_j_m3k = 4, v.loop.collector.a1_w_m2k = 11; }, false, "pool"},
        {"restarts_while_draining", [](Variant& v) { rule_of<RunTimes>(v).min_off_s = 20; }, false, "drainback"},
        {"fills_with_steam", [](Variant&) {}, true, "drainback"},
        {"trickle_stays_dry", [](Variant& v) { v.loop.answers.array = Array::trickle, v.loop.collector = collector_of(Array::trickle, 6), v.loop.pump.flow_m3_s = 3e-5; }, false, "drainback"},
        {"siphon_cannot_stand", [](Variant& v) { v.loop.drain_back.lift_m = 6; }, false, "drainback"},
        {"panel_label_impossible", [](Variant& v) { std::swap(v.loop.panel.imp_a, v.loop.panel.isc_a); }, false, "pv-direct"},
        {"battery_cut_too_low", [](Variant& v) { v.loop.battery.cut_v = 10.5; }, false, "pv-battery"}, // a usual setting, and too low (field practice)
        {"battery_cut_without_band", [](Variant& v) { v.loop.battery.reconnect_v = 11.7; }, false, "pv-battery"},
        {"battery_trips", [](Variant&) {}, true, "pv-battery"},
        {"does_not_turn", [](Variant&) {}, true, "pv-battery"},
        {"charges_nothing", [](Variant& v) { v.loop.battery.fault = ControllerFault::no_charge; }, false, "pv-battery"},
        {"overcharged", [](Variant&) {}, true, "pv-battery"},
        {"unit_sleeps", [](Variant& v) { add<Freeze>(v); }, false, "pv-direct"},
        {"check_valve_in_return", [](Variant& v) { v.loop.drain_back.check_valve = true; }, false, "drainback"},
        {"ports_swapped", [](Variant& v) { v.loop.drain_back.ports_swapped = true; }, false, "drainback"},
        {"prime_lost", [](Variant& v) { v.loop.drain_back.suction_m = 1, v.loop.drain_back.holds_prime = false; }, false, "open-tank"},
        {"draws_steam", [](Variant&) {}, true, "drainback"},
        {"water_lost_by_vent", [](Variant&) {}, true, "open-tank"},
        {"line_shut", [](Variant& v) { v.loop.exchanger_pump.shut = true; }, false, "glycol-hx"},
        {"runs_into_steam", [](Variant&) {}, true},
        {"curve_not_known", [](Variant& v) { v.loop.pump.by_curve = true; }},
        {"flows_contradict", [](Variant& v) { v.loop.pump.head_m = 6, v.loop.pump.free_flow_m3_s = 6e-4; }},
        {"open_voltage_too_high", [](Variant& v) { v.loop.wiring.bears_v = 16; }, false, "pv-direct"}, // DC units live between 10 and 16 V (common practice, no source)
        {"cable_drop", [](Variant& v) { v.loop.wiring.cable_m = 60, v.loop.wiring.section_m2 = 1e-6; }, false, "pv-direct"},
        {"breaker_too_large", [](Variant& v) { v.loop.wiring.breaker_a = 16, v.loop.wiring.output_a = 10; }}, // a 16 A breaker does not protect a 10 A unit (field practice)
        {"current_over_output", [](Variant& v) { v.loop.motor.label_a = 13; }, false, "pv-battery"},
        {"starting_dip", [](Variant&) {}, true, "pv-battery"},
        {"leads_swapped", [](Variant& v) { v.loop.motor.swapped = true; }, false, "pv-battery"},
        {"vessel_too_small", [](Variant& v) { v.loop.vessel.volume_m3 = 0.005; }},
        {"vessel_precharge", [](Variant& v) { v.loop.vessel.precharge_pa = 2.5e5; }},
        {"relief_discharged", [](Variant&) {}, true},
        {"check_valve_leaks", [](Variant&) {}, true},
        {"element_not_there", [](Variant& v) { v.loop.element.mode = ElementMode::always, v.loop.answers.backup = Backup::none; }},
        {"element_windows_empty", [](Variant& v) { v.loop.element.mode = ElementMode::windows; }},
        {"element_by_day", [](Variant& v) { v.loop.element.mode = ElementMode::always; }, true},
        {"probe_not_sound", [](Variant& v) { v.probes[0].condition.kind = ConditionKind::open; }},
        {"swapped_alone", [](Variant& v) { v.probes[0].condition.kind = ConditionKind::swapped; }},
        {"read_by_other_curve", [](Variant& v) { v.probes[0].read_by = {true, {PlatinumCurve{100}, -200, 850}}; }},
        {"band_may_close", [](Variant& v) { rule_of<Differential>(v).off = TempDiff::kelvin(7); }},
        {"off_may_pass_zero", [](Variant& v) { rule_of<Differential>(v).off = TempDiff::kelvin(0.5); }},
        {"probe_rated_too_low", [](Variant& v) { v.probes[0].sensor.rated_c = 105; }},
        {"cable_rated_too_low", [](Variant& v) { v.probes[0].lead.cable_c = 90; }},
        {"range_too_small", [](Variant& v) { v.input.high_c = 150; }},
        {"limit_not_readable", [](Variant& v) { v.input.high_c = 110; }},
        {"limit_over_bridge", [](Variant& v) { v.input.kind = StageKind::bridge, add<Freeze>(v).limit = Temperature::celsius(4); }, false, "direct"},
        {"lead_reads_off", [](Variant& v) { v.probes[0].lead.length_m = 80; }},
        {"counts_too_coarse", [](Variant& v) { v.input.kind = StageKind::pull_up, v.input.pull_up_ohm = 10000; }},
        {"bypass_closed", [](Variant& v) { v.unit.outputs[0].bypass = true; }},
        {"difference_converted", [](Variant& v) { rule_of<Differential>(v).on = TempDiff::kelvin((12 - 32) / 1.8); }},
        {"unprotected_from_frost", [](Variant& v) { drop<Freeze>(v), drop<DrainDown>(v); }, false, "direct"},
        {"freeze_on_wrong_loop", [](Variant& v) { add<Freeze>(v); }},
        {"freeze_needs_power", [](Variant& v) { add<Freeze>(v); }, false, "direct"},
        {"freeze_too_late", [](Variant& v) { add<Freeze>(v).limit = Temperature::celsius(0.5); }, false, "direct"},
        {"freeze_without_floor", [](Variant& v) { add<Freeze>(v).store.clear(); }, false, "direct"},
        {"freeze_waits", [](Variant& v) { add<Freeze>(v), add<DrainTime>(v); }, false, "direct"},
        {"dump_throws_away", [](Variant& v) { rule_of<Divert>(v).hysteresis = TempDiff::kelvin(45); }, false, "dump"},
        {"limit_below_window", [](Variant& v) { add<Heating>(v).windows[0].off = Temperature::celsius(75); }},
        {"heating_by_day", [](Variant& v) { element(v); auto& h = add<Heating>(v); h.windows[0] = {6, 18}; h.unless.clear(); }},
        {"heating_without_window", [](Variant& v) { add<Heating>(v).windows[0] = {}; }},
        {"disinfection_weak", [](Variant& v) { add<Disinfection>(v).target = Temperature::celsius(52); }},
        {"disinfection_out_of_reach", [](Variant& v) { element(v); add<Disinfection>(v).probe = "S3"; v.unit.rules.back().output = "H1"; }},
        {"disinfection_at_the_top", [](Variant& v) { add<Disinfection>(v).probe = "S3"; }},
        {"night_cooling_never", [](Variant& v) { add<NightCooling>(v).from = Temperature::celsius(80); }},
        {"heats_while_away", [](Variant& v) { add<Heating>(v), v.unit.away = true; }},
        {"circulation_scalds", [](Variant& v) { circulates(v).tempering = Tempering::nowhere; }},
        {"circulation_pipe", [](Variant& v) { circulates(v).bears_c = 60; }},
        {"circulation_cold_line", [](Variant& v) { circulates(v).by_cold_line = true; }},
        {"circulation_lukewarm", [](Variant& v) { circulates(v).tempering = Tempering::at_tank; }, true},
        {"circulation_takes_much", [](Variant& v) { circulates(v); }, true},
        {"heater_passed_by", [](Variant& v) { heated(v).way = HeaterWay::tank_only; }},
        {"heater_set_low", [](Variant& v) { heated(v).set_c = 50; }},
        {"heater_holds_nothing", [](Variant& v) { heated(v).kind = HeaterKind::through_flow; }},
        {"heater_inlet_too_hot", [](Variant& v) { heated(v).bears_c = 40; }},
        {"nothing_limits_by_itself", [](Variant& v) { v.loop.answers.power = PoweredBy::none; }},
        {"does_not_rise", [](Variant& v) { v.loop.answers.power = PoweredBy::none, v.loop.tank.above_m = -1; }},
        {"array_shut_in", [](Variant& v) { turn(v, HandValve::supply_isolating, ServiceState::drained, false), turn(v, HandValve::return_isolating, ServiceState::drained, false); }},
        {"run_is_cut", [](Variant& v) { turn(v, HandValve::loop_valve, ServiceState::run, false); }},
        {"port_is_open", [](Variant& v) { turn(v, HandValve::flush_port, ServiceState::run, true); }},
        {"vessel_is_cut_off", [](Variant& v) { turn(v, HandValve::vessel_valve, ServiceState::run, false); }},
        {"vent_is_open", [](Variant& v) { turn(v, HandValve::air_vent, ServiceState::run, true); }},
        {"taps_stay_dry", [](Variant& v) { turn(v, HandValve::cold_inlet, ServiceState::run, false); }},
        {"two_ways_open", [](Variant& v) { turn(v, HandValve::pool_bypass, ServiceState::run, true); }, false, "pool"},
        {"stays_full_in_winter", [](Variant& v) { turn(v, HandValve::fill_port, ServiceState::winter, false), turn(v, HandValve::flush_port, ServiceState::winter, false); }, false, "direct"},
        {"voltage_cut_too_low", [](Variant& v) { add<LowVoltage>(v).cut_v = 10.5; }},
        {"voltage_cut_at_once", [](Variant& v) { add<LowVoltage>(v).delay_s = 0; }},
        {"speed_below_lift", [](Variant& v) { v.loop.pump.head_m = 8, v.loop.pump.free_flow_m3_s = 4e-4, add<SpeedByDifference>(v); }, false, "drainback"},
        {"guard_too_quick", [](Variant& v) { add<DryRun>(v).check_s = 10; }, false, "drainback"},
        {"guard_at_collector", [](Variant& v) { add<DryRun>(v).probe = "S1"; }, false, "drainback"},
        {"slow_to_start", [](Variant& v) { rule_of<Differential>(v).conditioning.average_s = 300; }},
        {"runs_on_fault", [](Variant& v) { v.unit.outputs[0].faults = {{"S1", OnFault::on}}; }},
        {"store_probe_high", [](Variant& v) { rule_of<Differential>(v).store = "S3"; }},
        {"store_probe_heated", [](Variant& v) { v.loop.element.mode = ElementMode::always, v.loop.element.height = 0.05; }},
        {"collector_probe_astray", [](Variant& v) { v.probes[0].placement = 0.2; }},
        {"pipe_bears_too_little", [](Variant& v) { v.loop.back.bears_c = 95; }},
        {"unit_on_a_plug", [](Variant& v) { v.loop.wiring.plug = true; }},
        {"dip_pipe_in_wrong_port", [](Variant& v) { v.loop.tank.dip_swapped = true; }},
        {"instrument_not_sound", [](Variant& v) { add_instrument(v, ProbePlace::flow_meter).condition.kind = ConditionKind::stuck; }},
        {"instrument_scale", [](Variant& v) { add_instrument(v, ProbePlace::pressure_sensor).instrument.full_pa = 4e5; }},
        {"flow_guard_above_flow", [](Variant& v) { add_instrument(v, ProbePlace::flow_meter), add<FlowGuard>(v) = {"I1", v.loop.pump.flow_m3_s, 300}; }},
        {"alarm_drives_a_pump", [](Variant& v) { add_instrument(v, ProbePlace::pressure_sensor), add<PressureAlarm>(v).sensor = "I1", v.unit.rules.back().output = "P1"; }},
        {"alarm_never_right", [](Variant& v) { add_instrument(v, ProbePlace::pressure_sensor), add<PressureAlarm>(v) = {"I1", v.loop.vessel.fill_pa + 1e4}; }},
        {"sun_start_cools", [](Variant& v) { add_instrument(v, ProbePlace::sun_sensor), add<SunStart>(v) = {"I1", 150, 60, {}}; }},
        {"sun_not_collected", [](Variant&) {}, true},
    };
    return all;
}

bool has(const std::vector<Finding>& all, const std::string& kind)
{
    return std::any_of(all.begin(), all.end(), [&](const Finding& f) { return f.kind == kind; });
}

TEST(Findings, every_kind_has_a_case)
{
    ASSERT_EQ(cases().size(), finding_kinds().size());
    for (std::size_t i = 0; i < cases().size(); ++i)
        EXPECT_STREQ(cases()[i].kind, finding_kinds()[i].key);
}

class Each : public testing::TestWithParam<std::size_t> {};
// A word with a capital inside, or an underline, belongs to the code. Units such as kWh are short.
bool names_code(const std::string& text)
{
    static const std::regex inside("[a-z]{4}[A-Z]|[a-z]_[a-z]");
    return std::regex_search(text, inside);
}

void does_the_same_by_path(const Job& job, const Remedy& remedy)
{
    Job by_remedy = job, by_path = job;
    remedy.apply(by_remedy.variants[0]);
    const auto changes = changes_of(job, 0, remedy);
    EXPECT_EQ(changes.empty(), by_remedy.variants[0] == job.variants[0]);
    bool whole_rules = false;
    for (const RemedyChange& change : changes) {
        const bool whole = change.value == "added" || change.value == "removed" || change.value == "changed";
        whole_rules = whole_rules || whole;
        if (whole)
            continue;
        EXPECT_TRUE(set_setting(by_path, 0, change.path, change.value)) << change.path << " " << change.value;
    }
    EXPECT_TRUE(whole_rules || by_path.variants[0] == by_remedy.variants[0]);
}

void holds_when_moved(const Variant& v, const Remedy& remedy)
{
    Variant there = v, moved = v;
    remedy.apply(there);
    std::reverse(moved.unit.rules.begin(), moved.unit.rules.end());
    std::reverse(moved.probes.begin(), moved.probes.end());
    remedy.apply(moved);
    const auto by_id = [](Variant& x) {
        std::sort(x.unit.rules.begin(), x.unit.rules.end(), [](const Rule& a, const Rule& b) { return a.id < b.id; });
        std::sort(x.probes.begin(), x.probes.end(), [](const Probe& a, const Probe& b) { return a.id < b.id; });
    };
    by_id(there);
    by_id(moved);
    EXPECT_EQ(there, moved);
}

// What it is about is there, and findings of loop and probes say it.
void is_placed(const Job& job, std::vector<Finding> found, const std::string& kind)
{
    place_findings(found, job, 0);
    const auto all = settings_of(job, 0);
    for (const Finding& f : found) {
        if (f.kind != kind)
            continue;
        const Cause cause = find_kind(kind)->cause;
        const bool two_probes = kind == "swapped_alone";
        EXPECT_TRUE(!f.at.empty() || two_probes || cause == Cause::rules || cause == Cause::days) << kind;
        EXPECT_TRUE(f.at.empty() || std::any_of(all.begin(), all.end(), [&](const Setting& s) { return s.path == f.at || s.path.starts_with(f.at + "/"); })) << kind << " at " << f.at;
    }
}

TEST_P(Each, speaks_when_it_should_and_is_silent_otherwise)
{
    const Case& c = cases()[GetParam()];
    Job job = new_job(c.arrangement);
    if (arrangement_of(job.variants[0].loop).has(Part::tank))
        job.variants[0].loop.answers.backup = Backup::element; // at rest
    EXPECT_FALSE(has(findings({job, job.variants[0], nullptr, {}}), c.kind));
    c.break_it(job.variants[0]);
    give_ids(job, NewFrom::edit);
    const Variant v = job.variants[0];
    const Figures f = hot();
    const auto found = findings({job, v, c.needs_figures ? &f : nullptr, {}});
    ASSERT_TRUE(has(found, c.kind));
    const Finding& finding = *std::find_if(found.begin(), found.end(), [&](const Finding& x) { return std::string(x.kind) == c.kind; });
    EXPECT_FALSE(finding.title.empty());
    EXPECT_FALSE(finding.reason.empty());
    is_placed(job, found, c.kind);
    for (const Finding& x : found)
        EXPECT_FALSE(names_code(x.title + " " + x.reason + (x.remedy ? x.remedy->label : ""))) << x.title << ": " << x.reason;
    if (!finding.remedy)
        return;
    does_the_same_by_path(job, *finding.remedy);
    holds_when_moved(v, *finding.remedy);
    if (c.needs_figures)
        return;
    Variant mended = v;
    finding.remedy->apply(mended);
    EXPECT_FALSE(has(findings({job, mended, nullptr, {}}), c.kind)) << "the remedy must cure it";
}
INSTANTIATE_TEST_SUITE_P(All, Each, testing::Range<std::size_t>(0, cases().size()));

// 300 L of which 35 % lie above the element, 2 kW, two hours: 4 kWh. From 10 to 60 °C they
// take 300 × 0.35 × 4.18/3600 × 50 = 6.1 kWh, 3.05 h, and the half hour of holding.
TEST(Findings, windows_too_short_for_a_disinfection_are_told)
{
    Job job = new_job("glycol-coil");
    Variant& v = job.variants[0];
    v.loop.answers.backup = Backup::element;
    v.loop.tank.volume_m3 = 0.3;
    Element& e = v.loop.element;
    e = {};
    e.power_w = 2000, e.height = 0.65, e.set_c = 75, e.mode = ElementMode::windows;
    v.unit.outputs.push_back({"K3", "Relay"});
    add<Disinfection>(v).probe = "S3"; // at the top
    std::get<Disinfection>(v.unit.rules.back().body).hold_s = 1800;
    v.unit.rules.back().output = "K3";
    const auto told = [&] {
        for (const Finding& f : findings({job, v, nullptr, {}}))
            if (f.kind == std::string("disinfection_out_of_reach"))
                return f.reason;
        return std::string();
    };
    e.windows = {{{4, 6}, {}, {}}};
    EXPECT_NE(told().find("2.00 h a day, and cold water takes 3.55 h"), std::string::npos) << told();
    e.windows = {{{22, 2}, {}, {}}}; // over midnight, four hours
    EXPECT_EQ(told(), "");
    e.set_c = 55;
    EXPECT_NE(told().find("thermostat stops at 55.0 °C"), std::string::npos) << told();
    e.mode = ElementMode::off;
    EXPECT_NE(told().find("stays off"), std::string::npos) << told();
    v.unit.outputs.back().drives = Drives::other;
    EXPECT_EQ(told(), "");
}

TEST(Findings, most_serious_first)
{
    const Job job = new_job("glycol-coil");
    Variant v = job.variants[0];
    v.unit.outputs[0].mode = Mode::on;
    const Figures f = hot();
    const auto all = findings({job, v, &f, {}});
    EXPECT_TRUE(std::is_sorted(all.begin(), all.end(), [](const Finding& a, const Finding& b) { return a.severity < b.severity; }));
    EXPECT_EQ(all.front().severity, Severity::serious);
}

TEST(Findings, a_fahrenheit_slip_is_recognised)
{
    const Job job = new_job("glycol-coil");
    Variant v = job.variants[0];
    rule_of<StoreLimit>(v).limit = Temperature::fahrenheit(60); // 15.6 °C (field practice)
    const auto all = findings({job, v, nullptr, {}});
    EXPECT_EQ(all.front().remedy->label, "Try: 60.0 °C");
}

// Of two equal thermistors R = A exp(B/T) a bridge tells exp(B (1/Tc - 1/Ts)), so that a
// scale right at 40 °C reads 1/T = 1/313.15 + 1/Tc - 1/Ts, whatever A and B: 5 °C beside
// a store of 60 °C becomes 10.9 °C, and a protection from 5 °C comes too late.
TEST(Findings, a_protection_on_a_bridge_blames_the_bridge)
{
    Job job = new_job("direct");
    Variant& v = job.variants[0];
    drop<StoreLimit>(v);
    v.input.kind = StageKind::bridge;
    v.input.bits = 16;
    for (Probe& p : v.probes)
        p.curve = *parse_curve("ntc:r25=10000,beta=3950");
    add<Freeze>(v).limit = Temperature::celsius(5);
    const double expected = 60 + 1 / (1 / 313.15 + 1 / 278.15 - 1 / 333.15) - 313.15;
    const auto all = findings({job, v, nullptr, {}});
    const auto it = std::find_if(all.begin(), all.end(), [](const Finding& f) { return f.kind == std::string("limit_over_bridge") && f.title.starts_with("Freeze"); });
    ASSERT_NE(it, all.end());
    EXPECT_EQ(it->severity, Severity::serious);
    std::smatch read;
    ASSERT_TRUE(std::regex_search(it->reason, read, std::regex("the unit reads ([0-9.]+)"))) << it->reason;
    EXPECT_NEAR(std::stod(read[1]), expected, 0.1) << it->reason;

    const Figures f = hot();
    const auto day = findings({job, v, &f, {}});
    const auto frost = std::find_if(day.begin(), day.end(), [](const Finding& x) { return x.title.starts_with("Frost in wet pipe"); });
    ASSERT_NE(frost, day.end());
    EXPECT_NE(frost->reason.find("over a bridge"), std::string::npos) << frost->reason;
}

} // namespace
