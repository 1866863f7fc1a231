#include "bench_faults.h"

#include "bench_pair.h"
#include "core/job/fault.h"
#include "core/plant/valve_board.h"
#include "core/rules/rule_set.h"

#include <algorithm>

namespace vernal {
namespace {

constexpr double all_the_time_h = 24.0 * 60;
constexpr double other_scale = 5.0 / 9, higher_k = 3, limit_higher_k = 12, offset_k = 5, sun_warms_k = 15, lower_v = 0.8, gas_left = 0.5, level_pitch = 0.004, slower_times = 3, wet_ohms = 2500, preset_on_k = 22, preset_off_k = 18, shadow_passes = 0.15, thin_glycol = 0.1; // sizes that matter and are met (estimates)

void change_pair(Variant& v, const std::function<void(RuleSet&, Rule&, const DifferenceOf&)>& how)
{
    for (Rule& r : v.unit.rules)
        if (const auto d = difference_of(v.unit, r); d && r.enabled)
            return how(v.unit, r, *d);
}

} // namespace

std::vector<BenchFault> bench_faults(const Variant& v)
{
    constexpr std::array shown{FaultKind::probe_open, FaultKind::probe_shorted, FaultKind::probe_stuck, FaultKind::probes_swapped, FaultKind::relay_stuck_on, FaultKind::relay_stuck_off, FaultKind::pump_dead, FaultKind::air_lock, FaultKind::line_shut, FaultKind::strainer_clogged, FaultKind::pressure_lost, FaultKind::check_valve_leaks, FaultKind::low_voltage};
    std::vector<BenchFault> out;
    for (const FaultKind kind : shown)
        if (can_have(kind, v, Day{}) && (kind != FaultKind::low_voltage || arrangement_of(v.loop).answers.power != PoweredBy::mains))
            out.push_back({fault_keys[static_cast<std::size_t>(kind)], fault_text(fresh_fault(kind, v, 0, all_the_time_h), v), [kind](Variant& real, Day& day, OnSite&) { day.faults.push_back(fresh_fault(kind, real, 0, all_the_time_h)); }});
    const bool pair = std::any_of(v.unit.rules.begin(), v.unit.rules.end(), [&](const Rule& r) { return r.enabled && difference_of(v.unit, r); });
    if (pair) {
        out.push_back({"probe_offset", "the source's probe reads high", [](Variant& real, Day&, OnSite&) {
                           change_pair(real, [&](RuleSet&, Rule&, const DifferenceOf& d) {
                               for (Probe& p : real.probes)
                                   if (p.key == d.source)
                                       p.correction = TempDiff::kelvin(p.correction.in_kelvin() + offset_k);
                           });
                       }});
        out.push_back({"other_scale", "differences typed in the other scale", [](Variant& real, Day&, OnSite&) { change_pair(real, [](RuleSet& unit, Rule& r, const DifferenceOf& d) { set_difference(unit, r, d.on * other_scale, d.off * other_scale); }); }});
        out.push_back({"start_high", "the start set too high", [](Variant& real, Day&, OnSite&) { change_pair(real, [](RuleSet& unit, Rule& r, const DifferenceOf& d) { set_difference(unit, r, TempDiff::kelvin(d.on.in_kelvin() + higher_k), d.off); }); }});
    }
    if (!v.unit.outputs.empty()) {
        out.push_back({"switch_left_on", "a switch left on ON", [](Variant& real, Day&, OnSite&) { real.unit.outputs.front().mode = Mode::on; }});
        out.push_back({"bypass_left_closed", "the service bypass left closed", [](Variant& real, Day&, OnSite&) { real.unit.outputs.front().bypass = true; }});
    }
    if (std::any_of(v.unit.rules.begin(), v.unit.rules.end(), [](const Rule& r) { return r.enabled && std::holds_alternative<CutOut>(r.body); }))
        out.push_back({"cut_out_high", "the cut-out set too high", [](Variant& real, Day&, OnSite&) {
                           for (Rule& r : real.unit.rules)
                               if (auto* c = std::get_if<CutOut>(&r.body))
                                   c->limit = Temperature::celsius(c->limit.in_celsius() + limit_higher_k);
                       }});
    if (std::any_of(v.unit.rules.begin(), v.unit.rules.end(), [](const Rule& r) { return r.enabled && std::holds_alternative<StoreLimit>(r.body); }))
        out.push_back({"limit_high", "the store's limit set too high", [](Variant& real, Day&, OnSite&) {
                           for (Rule& r : real.unit.rules)
                               if (auto* l = std::get_if<StoreLimit>(&r.body))
                                   l->limit = Temperature::celsius(l->limit.in_celsius() + limit_higher_k);
                       }});
    const auto add = [&](const char* key, const char* name, std::function<void(Variant&, Day&, OnSite&)> put) { out.push_back({key, name, std::move(put)}); };
    const Arrangement& a = arrangement_of(v.loop);
    if (pair)
        add("probe_in_sun", "the source's probe feels the sun", [](Variant& real, Day&, OnSite&) {
            change_pair(real, [&](RuleSet&, Rule&, const DifferenceOf& d) {
                for (Probe& p : real.probes)
                    if (p.key == d.source)
                        p.condition = {ConditionKind::in_sun, 40, 0.1, sun_warms_k};
            });
        });
    if (pair) {
        add("lead_wet", "water in the lead of the source's probe", [](Variant& real, Day&, OnSite&) {
            change_pair(real, [&](RuleSet&, Rule&, const DifferenceOf& d) {
                for (Probe& p : real.probes)
                    if (p.key == d.source)
                        p.lead.leak_ohm = wet_ohms;
            });
        });
        add("preset_left", "the pair left as it came from the factory", [](Variant& real, Day&, OnSite&) { change_pair(real, [](RuleSet& unit, Rule& r, const DifferenceOf&) { set_difference(unit, r, TempDiff::kelvin(preset_on_k), TempDiff::kelvin(preset_off_k)); }); });
    }
    add("shadow", "a shadow on the array until the afternoon", [](Variant&, Day& day, OnSite&) { day.shades.push_back({7, 15, shadow_passes}); });
    if (a.carrier == Carrier::glycol)
        add("glycol_thin", "too little glycol in it", [](Variant& real, Day&, OnSite&) { real.loop.glycol_fraction = thin_glycol; });
    if (bench_freeze(v))
        add("freeze_low", "the freeze threshold set too low", [](Variant& real, Day&, OnSite&) {
            for (Rule& r : real.unit.rules)
                if (auto* f = std::get_if<Freeze>(&r.body))
                    f->limit = Temperature::celsius(f->limit.in_celsius() - higher_k);
        });
    if (bench_low(v))
        add("low_voltage_low", "the low-voltage cut-out set too low", [](Variant& real, Day&, OnSite&) {
            for (Rule& r : real.unit.rules)
                if (auto* l = std::get_if<LowVoltage>(&r.body)) {
                    l->cut_v -= lower_v;
                    l->reconnect_v -= lower_v;
                }
        });
    if (Variant copy = v; knob_rule(copy))
        add("knob_other", "the knob's pair other than described", [](Variant& real, Day&, OnSite&) {
            Knob& k = real.unit.knob;
            k.on_last = TempDiff::kelvin(k.on_last.in_kelvin() + higher_k);
            k.on_first = TempDiff::kelvin(k.on_first.in_kelvin() + higher_k);
        });
    if (a.has(Part::vessel)) {
        add("vessel_gas_lost", "the vessel has lost its gas", [](Variant& real, Day&, OnSite&) { real.loop.vessel.precharge_pa *= gas_left; });
        add("relief_stuck", "the relief valve does not let out", [](Variant&, Day&, OnSite& s) { s.relief_stuck = true; });
        add("relief_drips", "the relief valve does not hold", [](Variant&, Day&, OnSite& s) { s.relief_drips = true; });
        if (const auto has = valves_of(v.loop); std::find(has.begin(), has.end(), HandValve::air_vent) != has.end())
            add("vent_left_open", "the vent left open", [](Variant& real, Day&, OnSite&) { set_stands(real.loop, HandValve::air_vent, ServiceState::run, ValveStands::open); });
    }
    if (a.has(Part::tank))
        add("tempering_fails", "the tempering valve lets hot water through", [](Variant&, Day&, OnSite& s) { s.tempering_fails = true; });
    if (a.has(Part::exchanger_pump) && a.output_of(Driver::exchanger_pump) < 0)
        add("second_pump_stands", "the second of two pumps on one output stands", [](Variant&, Day&, OnSite& s) { s.second_pump_stands = true; });
    if (a.drains) {
        add("pitch_flat", "pipe and array laid level", [](Variant& real, Day&, OnSite&) { real.loop.drain_back.pitch = level_pitch; });
        add("return_check_valve", "a check valve in the return", [](Variant& real, Day&, OnSite&) { real.loop.drain_back.check_valve = true; });
        add("drains_slowly", "it empties slowly", [](Variant& real, Day&, OnSite&) { real.loop.drain_back.drain_s *= slower_times; });
        if (v.loop.drain_back.suction_m > 0)
            add("prime_lost", "the dip pipe loses its water", [](Variant& real, Day&, OnSite&) { real.loop.drain_back.holds_prime = false; });
    }
    return out;
}

} // namespace vernal
