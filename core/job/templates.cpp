// What a new job of each arrangement begins with. Figures are those a technician
// can start from (estimates), not anybody's measured plant.
#include "ids.h"

#include "core/plant/passing.h"

#include <functional>

namespace vernal {
namespace {

Day generated(const char* name, int month, int day, Clouds clouds, double lo, double hi)
{
    Day d;
    d.name = name;
    d.sky.month = month;
    d.sky.day = day;
    d.sky.clouds = clouds;
    d.sky.seed = 11;
    d.sky.air_min_c = lo;
    d.sky.air_max_c = hi;
    d.draws = {{6.5, 900, 1e-4}, {18.0, 900, 1e-4}};
    return d;
}

using Body = decltype(Rule::body);
void add(Variant& v, const char* output, Body body) { v.unit.rules.push_back(Rule{output, true, std::move(body)}); }

Probe probe(const char* key, const char* name, ProbePlace place, double lag_s = 20)
{
    Probe p;
    p.key = key;
    p.name = name;
    p.place = place;
    p.lag_s = lag_s;
    p.sensor.tolerance.kind = ToleranceKind::class_b;
    return p;
}

Differential difference(const char* source, const char* store, double on_k, double off_k) { return {source, store, TempDiff::kelvin(on_k), TempDiff::kelvin(off_k)}; }
template <class Limit>
Limit limit(const char* probe, double limit_c, double hysteresis_k) { return {probe, Temperature::celsius(limit_c), TempDiff::kelvin(hysteresis_k)}; }

// Pump, cut-out, limit on the warmest part of the store, the even-handed pair.
void usual(Variant& v, double on_k = 8, double off_k = 2, double store_limit_c = 70)
{
    const Arrangement& a = *find_arrangement(v.loop.arrangement);
    const bool tank = a.has(Part::tank);
    v.probes = {probe("S1", "Collector", ProbePlace::collector, 12)};
    v.probes.push_back(probe("S2", place_names[static_cast<std::size_t>(a.places[1])], a.places[1]));
    if (tank)
        v.probes.push_back(probe("S3", "Tank top", ProbePlace::tank_top));
    v.unit.outputs = {Output{"P1", "Loop pump", Mode::automatic, 0}};
    add(v, "P1", limit<CutOut>("S1", 125, 15));
    add(v, "P1", limit<StoreLimit>(tank ? "S3" : "S2", store_limit_c, 4));
    // A start is kept on until what stood cold in the pipes has passed, and starts are kept apart.
    add(v, "P1", RunTimes{past_the_slug_s(v.loop.collector, v.loop.supply, v.loop.pump.flow_m3_s), 120});
    add(v, "P1", difference("S1", "S2", on_k, off_k));
}

RunTimes& run_times(Variant& v)
{
    for (Rule& r : v.unit.rules)
        if (auto* t = std::get_if<RunTimes>(&r.body))
            return *t;
    return std::get<RunTimes>(v.unit.rules.emplace_back(Rule{"P1", true, RunTimes{}}).body);
}

// A valve of its own that falls open and empties the array before it freezes.
void drained_by_a_valve(Variant& v)
{
    Output valve{"V1", "Drain-down valve"};
    valve.drives = Drives::drain_valve;
    v.unit.outputs.push_back(valve);
    DrainDown drain;
    drain.probe = "S1";
    drain.pump = "P1";
    drain.hysteresis = TempDiff::kelvin(20); // filled again only when the pump is about to start: water that stands in a cold pipe freezes
    add(v, "V1", drain);
}

void direct(Variant& v)
{
    usual(v);
    drained_by_a_valve(v);
}
void glycol_coil(Variant& v) { usual(v); }

void glycol_hx(Variant& v)
{
    usual(v);
    v.unit.outputs.push_back({"P2", "Tank pump", Mode::automatic, 0});
    v.loop.pump_2 = {1e-4, 28};
    add(v, "P2", limit<StoreLimit>("S3", 70, 4)); // both start together
    add(v, "P2", run_times(v));
    add(v, "P2", difference("S1", "S2", 8, 2));
}

void drainback(Variant& v)
{
    usual(v);
    v.loop.pump.power_w = 75;
    run_times(v).min_off_s = 300; // time to drain before it starts again
}

void pool(Variant& v)
{
    v.loop.collector = {28, 0.86, 15, 0, 0.8, 9000, 0.05, 0.95, 20, 0};
    v.loop.supply = v.loop.back = {20, 18, 0.042, 0.9};
    v.loop.pump = {1.4e-3, 420};
    usual(v, 3.6, 1.2, 30);
    drained_by_a_valve(v);
}

void pv_direct(Variant& v)
{
    usual(v, 10, 2);
    v.loop.pump.power_w = 14;
}

void pv_battery(Variant& v)
{
    usual(v, 10, 3); // power saving: run when it pays
    drained_by_a_valve(v);
    v.loop.pump.power_w = 18;
}

void floor(Variant& v)
{
    v.loop.collector.area_m2 = 14;
    v.loop.pump = {2.2e-4, 45};
    v.loop.supply.bore_m = v.loop.back.bore_m = 0.02;
    usual(v, 8, 2, 32);            // what the slab bears
    run_times(v).min_off_s = 1800; // it is slow
}

void air(Variant& v)
{
    v.loop.collector = {10, 0.62, 6, 0.01, 0.1, 9000, 0.12, 0.9, 60, 0};
    v.loop.supply = v.loop.back = {4, 1, 0.2, 1.2};
    v.loop.pump = {0.13, 85};
    usual(v, 12, 5, 22); // the room thermostat
}

void two_stores(Variant& v)
{
    usual(v, 8, 2, 85);
    v.loop.tank_2 = {0.5, 3.2, 16, 420, 0.5};
    v.probes.push_back(probe("S4", "Second tank bottom", ProbePlace::tank_2_bottom));
    v.unit.outputs.push_back({"V1", "Valve to the second tank", Mode::automatic, 0});
    // Each tank has its own difference and its own limit; the first comes first.
    for (Rule& r : v.unit.rules)
        if (auto* l = std::get_if<StoreLimit>(&r.body))
            l->only_store = "S2";
    StoreLimit second = limit<StoreLimit>("S4", 85, 4);
    second.allowance = TempDiff::kelvin(20); // its probe sits at the bottom
    second.only_store = "S4";
    add(v, "P1", second);
    add(v, "P1", SecondStore{"V1", "S1", "S4", TempDiff::kelvin(8), TempDiff::kelvin(2), 1800, 120});
}

void two_arrays(Variant& v)
{
    usual(v);
    v.loop.collector.azimuth_deg = -70;
    v.loop.collector_2 = v.loop.collector;
    v.loop.collector_2.azimuth_deg = 70;
    v.loop.pump_2 = v.loop.pump;
    v.probes[0].name = "East collector";
    v.probes.push_back(probe("S4", "West collector", ProbePlace::collector_2, 12));
    v.unit.outputs[0].name = "East pump";
    v.unit.outputs.push_back({"P2", "West pump", Mode::automatic, 0});
    add(v, "P2", limit<CutOut>("S4", 125, 15));
    add(v, "P2", limit<StoreLimit>("S3", 70, 4));
    add(v, "P2", run_times(v));
    add(v, "P2", difference("S4", "S2", 8, 2));
    v.loop.vessel.volume_m3 = 0.025;
}

void dump(Variant& v)
{
    usual(v);
    v.unit.outputs.push_back({"V1", "Valve to the cooler", Mode::automatic, 0});
    add(v, "P1", limit<Divert>("S1", 95, 18)); // the pump runs for the cooler even when the tank is full
    add(v, "V1", limit<Divert>("S1", 95, 18));
}

void tube_manifold(Variant& v)
{
    v.loop.collector = {4.5, 0.7, 1.3, 0.007, 0.02, 9500, 0.05, 0.95, 50, 0};
    usual(v, 10, 2);
    v.probes[0].lag_s = 40;
    v.probes[0].placement = 0.05;
}

const std::vector<std::pair<const char*, void (*)(Variant&)>> templates{
    {"direct", direct}, {"glycol-coil", glycol_coil}, {"glycol-hx", glycol_hx}, {"drainback", drainback}, {"open-tank", drainback}, {"pool", pool}, {"pv-direct", pv_direct},
    {"pv-battery", pv_battery}, {"floor", floor}, {"air", air}, {"two-stores", two_stores}, {"two-arrays", two_arrays}, {"dump", dump}, {"tube-manifold", tube_manifold}};

} // namespace

// Household: 180 L of tempered water over a day, most of it in the morning and the
// evening; wash-down: two long draws. Estimates.
const std::vector<DrawProfile>& draw_profiles()
{
    static const std::vector<DrawProfile> table{
        {"household", {{6.5, 420, 1.1e-4}, {7.25, 360, 1.1e-4}, {12.5, 240, 8e-5}, {18.0, 300, 8e-5}, {20.5, 420, 1.1e-4}}},
        {"wash-down twice a day", {{6.0, 1200, 2.2e-4}, {17.5, 1200, 2.2e-4}}},
        {"none", {}},
    };
    return table;
}

Job new_job(const std::string& arrangement)
{
    Job job;
    job.site = {"", {46.0, 8.0, 400.0, 1.0}};
    Variant v;
    v.loop.arrangement = arrangement;
    for (const auto& [key, fill] : templates)
        if (arrangement == key)
            fill(v);
    sort_by_priority(v.unit.rules);
    job.variants = {v};
    job.days = {generated("Clear day", 6, 18, Clouds::clear, 11, 24), generated("Racing clouds", 4, 22, Clouds::racing, 6, 15),
        generated("Frosty day", 1, 16, Clouds::clear, -11, -1)};
    if (!find_arrangement(arrangement)->has(Part::tank))
        for (Day& d : job.days)
            d.draws.clear();
    give_ids(job, NewFrom::file);
    return job;
}

} // namespace vernal
