// Fields of the unit: outputs, rules, and what the unit is like.
#pragma once

#include "core/rules/rule_set.h"
#include "field.h"

namespace vernal {

template <class V, OneOf<FaultChoice> T>
void fields(V& v, T& f)
{
    v.text("probe", f.probe);
    static constexpr std::array does{"off", "on", "carry on"};
    v.choice("does", does, f.does);
}

template <class V, OneOf<Output> T>
void fields(V& v, T& o)
{
    v.text("key", o.key);
    v.text("name", o.name);
    static constexpr std::array modes{"OFF", "AUTO", "ON"};
    v.choice("mode", modes, o.mode);
    v.number({"on_timeout_s", "ON returns to AUTO after", Quantity::minutes, 0, 86400, "0: stays ON"}, o.on_timeout_s);
    static constexpr std::array drives{"loop", "element", "drain valve", "check valve", "other"};
    v.choice("drives", drives, o.drives);
    v.boolean({"bypass", "Service bypass closed", "It feeds the output around the unit and defeats every protection"}, o.bypass);
    v.boolean({"auto_after_power", "AUTO when power returns", "ON counts as AUTO then, until the switch is moved"}, o.auto_after_power);
    v.spare_list("faults", o.faults);
}

inline constexpr NumberField hysteresis_field{"hysteresis_k", "Hysteresis", Quantity::difference, -50, 100, "A few kelvin"};
inline constexpr NumberField on_field{"on_k", "Start at", Quantity::difference, -20, 60, "7 to 9 K, the balanced school (common practice, no source)"};
inline constexpr NumberField off_field{"off_k", "Stop at", Quantity::difference, -20, 60, "2 to 4 K, the balanced school (common practice, no source)"};

template <class V, class T>
void conditioning_fields(V& v, T& t)
{
    v.number({"confirm_s", "Confirmed for", Quantity::duration, 0, 3600, "0: at once; 10 to 60 s against gusts of sun (estimate)"}, t.confirm_s);
    v.number({"average_s", "Readings averaged over", Quantity::duration, 0, 3600, "0: none; it delays start and stop alike"}, t.average_s);
}

template <class V, OneOf<Differential> T>
void fields(V& v, T& r)
{
    v.text("source", r.source);
    v.text("store", r.store);
    v.difference(on_field, r.on);
    v.difference(off_field, r.off);
    conditioning_fields(v, r.conditioning);
}

template <class V, OneOf<LinkedDifference> T>
void fields(V& v, T& r)
{
    v.text("source", r.source);
    v.text("store", r.store);
    v.number({"mark", "Knob at mark", Quantity::number, -1000, 1000, "Its pairs are described at the probes"}, r.mark);
    conditioning_fields(v, r.conditioning);
}

template <class V, OneOf<FixedDifference> T>
void fields(V& v, T& r)
{
    v.text("source", r.source);
    v.temperature({"reference_c", "Fixed value", Quantity::temperature, -40, 150, "The room's usual temperature, or what the fixed resistor stands for"}, r.reference);
    v.difference(on_field, r.on);
    v.difference(off_field, r.off);
}

template <class V, OneOf<SecondStore> T>
void fields(V& v, T& r)
{
    v.text("valve", r.valve);
    v.text("source", r.source);
    v.text("store", r.store);
    v.difference(on_field, r.on);
    v.difference(off_field, r.off);
    v.number({"look_every_s", "Sampling period", Quantity::minutes, 0, 86400, "15 to 60 min (estimate); 0: never"}, r.look_every_s);
    v.number({"look_for_s", "for", Quantity::duration, 0, 3600, "As long as the collector needs to climb: 1 to 5 min (estimate)"}, r.look_for_s);
}

template <class V, class T>
void range_fields(V& v, T& r)
{
    v.number({"step", "Step", Quantity::ratio, 0.01, 1, "10 % (common practice, no source)"}, r.step);
    v.number({"floor", "Minimum speed", Quantity::ratio, 0.05, 1, "30 %, often raised to 50 % (common practice, no source); it must reach the top of the array"}, r.floor);
    v.number({"top", "Maximum speed", Quantity::ratio, 0.05, 1, ""}, r.top);
    v.number({"grain", "Output resolution", Quantity::fine_ratio, 0.001, 0.5, "What the output resolves: PWM 1 %, bursts 10 % (estimate)"}, r.resolution);
    static constexpr std::array drives{"pwm", "bursts"};
    v.choice("drive", drives, r.drive);
}

template <class V, OneOf<SpeedByDifference> T>
void fields(V& v, T& r)
{
    v.text("source", r.source);
    v.text("store", r.store);
    v.difference({"above_k", "Faster above", Quantity::difference, -20, 60, "The start difference"}, r.above);
    v.difference({"per_k", "for each", Quantity::difference, 0.1, 30, "4 °F, 2.2 K (common practice, no source)"}, r.per);
    range_fields(v, r.range);
}

inline constexpr NumberField within_field{"within_k", "within", Quantity::difference, 0, 20, "Half a step's effect, or the speed hunts"};
inline constexpr NumberField every_field{"every_s", "A step every", Quantity::duration, 1, 3600, "As long as the water needs through the collector"};

template <class V, OneOf<SpeedToRise> T>
void fields(V& v, T& r)
{
    v.text("source", r.source);
    v.text("store", r.store);
    v.difference({"rise_k", "Rise", Quantity::difference, 0.5, 60, "5 to 10 K; pools 5 to 6 K (common practice, no source)"}, r.rise);
    v.difference(within_field, r.within);
    v.number(every_field, r.every_s);
    range_fields(v, r.range);
}

template <class V, OneOf<SpeedToTemperature> T>
void fields(V& v, T& r)
{
    v.text("probe", r.probe);
    v.temperature({"target_c", "Target", Quantity::temperature, 0, 150, "A few kelvin above what the tap wants"}, r.target);
    v.difference(within_field, r.within);
    v.number(every_field, r.every_s);
    range_fields(v, r.range);
}

template <class V, class T>
void limit_fields(V& v, T& r, const NumberField& limit)
{
    v.text("probe", r.probe);
    v.temperature(limit, r.limit);
    v.difference(hysteresis_field, r.hysteresis);
}

template <class V, OneOf<StoreLimit> T>
void fields(V& v, T& r)
{
    limit_fields(v, r, {"limit_c", "Limit", Quantity::temperature, -40, 250, "By tank lining, relief valve and who draws the water"});
    v.difference({"allowance_k", "Allowance for the layers above", Quantity::difference, 0, 60, "A limit read mid-tank understates the top by 10 to 20 K (estimate)"}, r.allowance);
    v.text("only_store", r.only_store);
}

template <class V, OneOf<CutOut> T>
void fields(V& v, T& r)
{
    limit_fields(v, r, {"limit_c", "Limit", Quantity::temperature, -40, 350, "About 130 °C for flat plates (common practice, no source)"});
}

template <class V, OneOf<Divert> T>
void fields(V& v, T& r)
{
    limit_fields(v, r, {"limit_c", "Limit", Quantity::temperature, -40, 350, "90 °C on the solar side (common practice, no source)"});
}

template <class V, OneOf<MixingLimit> T>
void fields(V& v, T& r)
{
    limit_fields(v, r, {"limit_c", "Limit", Quantity::temperature, 0, 120, "40 to 50 °C to a slab (estimate); the floor's maker knows"});
}

template <class V, OneOf<SeriesThermostat> T>
void fields(V& v, T& r)
{
    limit_fields(v, r, {"limit_c", "Room", Quantity::temperature, 0, 60, "20 to 23 °C"});
}

template <class V, OneOf<CollectorMinimum> T>
void fields(V& v, T& r)
{
    limit_fields(v, r, {"limit_c", "Least", Quantity::temperature, -40, 120, "20 to 35 °C (estimate)"});
}

template <class V, OneOf<Freeze> T>
void fields(V& v, T& r)
{
    v.text("probe", r.probe);
    v.temperature({"limit_c", "Threshold", Quantity::temperature, -40, 30, "About 40 °F, 4.4 °C (common practice, no source)"}, r.limit);
    v.difference(hysteresis_field, r.hysteresis);
    v.text("second", r.second);
    v.text("store", r.store);
    v.temperature({"store_min_c", "Not below", Quantity::temperature, -40, 90, "What may be taken from the store"}, r.store_min);
    v.number({"burst_s", "Bursts of", Quantity::duration, 0, 86400, "0: all the time; up to 5 min (common practice, no source)"}, r.burst_s);
    v.number({"every_s", "every", Quantity::minutes, 0, 86400, ""}, r.every_s);
}

template <class V, OneOf<DrainDown> T>
void fields(V& v, T& r)
{
    v.text("probe", r.probe);
    v.temperature({"limit_c", "Threshold", Quantity::temperature, -40, 30, "About 40 °F, 4.4 °C (common practice, no source)"}, r.limit);
    v.difference(hysteresis_field, r.hysteresis);
    v.text("pump", r.pump);
}

template <class V, OneOf<NightCooling> T>
void fields(V& v, T& r)
{
    v.text("store", r.store);
    v.text("source", r.source);
    v.temperature({"from_c", "From", Quantity::temperature, 20, 120, "Some kelvin below the store limit"}, r.from);
    v.temperature({"until_c", "down to", Quantity::temperature, 10, 110, "Room for the next day's sun"}, r.until);
    v.difference({"colder_k", "Collector colder by", Quantity::difference, 1, 60, "10 K (estimate)"}, r.colder);
    v.number({"from_h", "from", Quantity::time_of_day, 0, 24, ""}, r.from_h);
    v.number({"to_h", "to", Quantity::time_of_day, 0, 24, ""}, r.to_h);
    v.boolean({"away_only", "Only while nobody is at home"}, r.away_only);
}

template <class V, OneOf<RunTimes> T>
void fields(V& v, T& r)
{
    v.number({"min_run_s", "Minimum run time", Quantity::duration, 0, 3600, "0 to 3 min"}, r.min_run_s);
    v.number({"min_off_s", "Minimum off time", Quantity::duration, 0, 3600, "0 to 5 min"}, r.min_off_s);
    v.number({"run_on_s", "Run on", Quantity::duration, 0, 3600, "0; a blower 1 to 3 min, what is warm in the duct (estimate)"}, r.run_on_s);
}

template <class V, OneOf<DrainTime> T>
void fields(V& v, T& r)
{
    v.number({"drain_s", "Drain time", Quantity::duration, 0, 3600, "2 to 5 min (common practice, no source); watch it once"}, r.drain_s);
}

template <class V, OneOf<Fill> T>
void fields(V& v, T& r)
{
    v.number({"boost_s", "Boost for", Quantity::duration, 0, 3600, "Until water comes back: 1 to 4 min (estimate)"}, r.boost_s);
    v.number({"boost", "Speed while filling", Quantity::ratio, 0.1, 1, "100 %"}, r.boost);
    v.text("probe", r.probe);
    v.temperature({"lockout_c", "No filling from", Quantity::temperature, 40, 250, "95 °C: the first water into a hotter array flashes to steam"}, r.lockout);
    v.difference(hysteresis_field, r.hysteresis);
}

template <class V, OneOf<DryRun> T>
void fields(V& v, T& r)
{
    v.text("probe", r.probe);
    v.difference({"change_k", "Change", Quantity::difference, 0.2, 50, "1 to 5 K (estimate): watch a good start"}, r.change);
    v.number({"check_s", "Within", Quantity::duration, 5, 3600, "Twice what filling takes"}, r.check_s);
    v.number({"pause_s", "Again after", Quantity::minutes, 10, 86400, "Longer than draining takes"}, r.pause_s);
    v.number({"retries", "Retries", Quantity::count, 0, 50, "2 to 5 (estimate)"}, r.retries);
}

template <class V, OneOf<LowVoltage> T>
void fields(V& v, T& r)
{
    v.number({"cut_v", "Cut at", Quantity::voltage, 0, 60, "11.5 V spares a 12 V battery; 10 to 10.5 V is empty (common practice, no source)"}, r.cut_v);
    v.number({"delay_s", "for", Quantity::duration, 0, 600, "A few seconds: the dip of a starting motor must not cut"}, r.delay_s);
    v.number({"reconnect_v", "Reconnect at", Quantity::voltage, 0, 60, "12.6 to 13.5 V (common practice, no source)"}, r.reconnect_v);
    v.number({"reconnect_s", "after", Quantity::duration, 0, 3600, ""}, r.reconnect_s);
}

template <class V, OneOf<Look> T>
void fields(V& v, T& r)
{
    v.text("probe", r.probe);
    v.temperature({"least_c", "Probe at least", Quantity::temperature, -20, 120, "Above the night's air (estimate)"}, r.least);
    v.number({"every_s", "Every", Quantity::minutes, 60, 86400, "15 to 60 min (common practice, no source)"}, r.every_s);
    v.number({"run_s", "Run", Quantity::duration, 1, 600, "Until the header's fluid has passed the probe: 5 to 60 s (common practice, no source)"}, r.run_s);
    v.number({"from_h", "From", Quantity::time_of_day, 0, 24, ""}, r.from_h);
    v.number({"to_h", "to", Quantity::time_of_day, 0, 24, ""}, r.to_h);
}

inline constexpr const char* window_keys[3][4]{{"from_1_h", "to_1_h", "on_1_c", "off_1_c"}, {"from_2_h", "to_2_h", "on_2_c", "off_2_c"}, {"from_3_h", "to_3_h", "on_3_c", "off_3_c"}};

template <class V, class Windows>
void window_fields(V& v, Windows& windows)
{
    for (std::size_t i = 0; i < windows.size(); ++i) {
        v.number({window_keys[i][0], "From", Quantity::time_of_day, 0, 24, "00:00 to 23:59 is always"}, windows[i].from_h);
        v.number({window_keys[i][1], "to", Quantity::time_of_day, 0, 24, "Equal to its start: no window"}, windows[i].to_h);
    }
}

template <class V, OneOf<Heating> T>
void fields(V& v, T& r)
{
    v.text("probe", r.probe);
    for (std::size_t i = 0; i < r.windows.size(); ++i) {
        v.number({window_keys[i][0], "From", Quantity::time_of_day, 0, 24, "Leave the day to the sun: 04:00 to 08:00 for the morning (common practice, no source)"}, r.windows[i].from_h);
        v.number({window_keys[i][1], "to", Quantity::time_of_day, 0, 24, "Equal to its start: no window"}, r.windows[i].to_h);
        v.temperature({window_keys[i][2], "On at", Quantity::temperature, 0, 95, "What the tap needs"}, r.windows[i].on);
        v.temperature({window_keys[i][3], "Off at", Quantity::temperature, 0, 95, "Some kelvin above; 60 °C against legionella, tempered at the tap"}, r.windows[i].off);
    }
    v.text("unless", r.unless);
}

template <class V, OneOf<HeatOnce> T>
void fields(V& v, T& r)
{
    v.text("probe", r.probe);
    v.temperature({"target_c", "Target", Quantity::temperature, 0, 95, ""}, r.target);
    v.number({"press_h", "Pressed at", Quantity::time_of_day, 0, 24, "In a simulated day"}, r.press_h);
}

template <class V, OneOf<Disinfection> T>
void fields(V& v, T& r)
{
    v.text("probe", r.probe);
    v.temperature({"target_c", "Target", Quantity::temperature, 50, 95, "60 °C (WHO 2007); by local code"}, r.target);
    v.number({"hold_s", "Held for", Quantity::minutes, 0, 86400, "10 to 60 min by local code (estimate)"}, r.hold_s);
    v.number({"every_days", "At least every", Quantity::days, 0.5, 60, "7 days is safer, 14 in use (common practice, no source); by local code"}, r.every_days);
    v.number({"last_days", "Last reached before", Quantity::days, 0, 60, "As the record says"}, r.last_days);
}

template <class V, OneOf<Thermostat> T>
void fields(V& v, T& r)
{
    v.text("probe", r.probe);
    v.temperature({"on_c", "On at", Quantity::temperature, -40, 250, "Below the other it heats, above it cools"}, r.on);
    v.temperature({"off_c", "Off at", Quantity::temperature, -40, 250, ""}, r.off);
    window_fields(v, r.windows);
}

template <class V, OneOf<Timer> T>
void fields(V& v, T& r)
{
    window_fields(v, r.windows);
}

template <class V, OneOf<Exercise> T>
void fields(V& v, T& r)
{
    v.number({"every_days", "After", Quantity::days, 0.1, 60, "A week or two (common practice, no source)"}, r.every_days);
    v.number({"run_s", "run", Quantity::duration, 1, 600, "10 to 30 s, never dry"}, r.run_s);
}

template <class V, OneOf<Follow> T>
void fields(V& v, T& r)
{
    v.text("leader", r.leader);
    v.number({"delay_s", "Once on for", Quantity::duration, 0, 3600, "What a valve needs to open: its label"}, r.delay_s);
    v.number({"run_on_s", "Stop after", Quantity::duration, 0, 3600, ""}, r.run_on_s);
}

template <class V, OneOf<Rule> T>
void fields(V& v, T& r)
{
    v.text("output", r.output);
    v.boolean({"enabled", "In use"}, r.enabled);
    std::vector<const char*> keys;
    for (const RuleKind& k : rule_kinds())
        keys.push_back(k.key);
    v.alternatives("kind", keys, r.body);
}

template <class V, OneOf<RuleSet> T>
void fields(V& v, T& s)
{
    v.list("outputs", s.outputs);
    v.list("rules", s.rules);
    v.number({"sample_s", "Sampling period", Quantity::duration, 0.1, 60, "1 s"}, s.sample_s);
    v.number({"resolution_k", "Resolution", Quantity::difference, 0, 5, "0.1 K; 0 is everything"}, s.resolution_k);
    v.number({"fault_return_s", "Trusts a probe again after", Quantity::duration, 0, 3600, "10 s"}, s.fault_return_s);
    v.number({"power_wait_s", "Waits after power returns", Quantity::duration, 0, 3600, "0; some minutes for a supply that comes and goes"}, s.power_wait_s);
    v.boolean({"away", "Nobody is at home", "Night cooling that waits for it may run"}, s.away);
}

} // namespace vernal
