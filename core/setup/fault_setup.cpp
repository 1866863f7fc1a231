#include "fault_setup.h"

#include "core/units/constants.h"

#include "job_setup.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace vernal {
namespace {

constexpr double no_end_of_degrees = 1e6; // beyond every input's range, either way: an open or a shorted probe
constexpr double full_sun_w_m2 = 1000;

Stretch stretch_of(const Fault& f) { return {f.from_h * hour_s, std::max(f.from_h, f.to_h) * hour_s}; }

template <class Items>
std::size_t index_of(const Items& items, const std::string& key)
{
    return static_cast<std::size_t>(std::find_if(items.begin(), items.end(), [&](const auto& x) { return x.key == key; }) - items.begin());
}

std::optional<ConditionKind> condition_of(FaultKind kind)
{
    switch (kind) {
    case FaultKind::probe_open: return ConditionKind::open;
    case FaultKind::probe_shorted: return ConditionKind::shorted;
    case FaultKind::probe_stuck: return ConditionKind::stuck;
    case FaultKind::probe_in_sun: return ConditionKind::in_sun;
    case FaultKind::probes_swapped: return ConditionKind::swapped;
    default: return {};
    }
}

void put_on(Variant& v, const Fault& f)
{
    const auto kind = condition_of(f.kind);
    for (const std::string& key : {f.of, f.kind == FaultKind::probes_swapped ? f.with : std::string()})
        if (const std::size_t i = index_of(v.probes, key); i < v.probes.size() && kind) {
            v.probes[i].condition.kind = *kind;
            v.probes[i].condition.stuck_c = f.stuck_c;
            v.probes[i].condition.sun_k = f.by_k;
        }
}

// Between two edges of any of them the inputs stay as they are.
std::vector<FaultPlan::SensorStretch> sensor_stretches(const Variant& v, const std::vector<Fault>& faults)
{
    std::vector<double> edges;
    for (const Fault& f : faults)
        if (condition_of(f.kind))
            for (const double t : {stretch_of(f).from_s, stretch_of(f).to_s})
                edges.push_back(t);
    std::sort(edges.begin(), edges.end());
    edges.erase(std::unique(edges.begin(), edges.end()), edges.end());
    std::vector<FaultPlan::SensorStretch> out;
    for (std::size_t i = 0; i + 1 < edges.size(); ++i) {
        Variant with = v;
        bool any = false;
        for (const Fault& f : faults)
            if (condition_of(f.kind) && stretch_of(f).holds(edges[i])) {
                put_on(with, f);
                any = true;
            }
        if (any)
            out.push_back({{edges[i], edges[i + 1]}, sensors(with)});
    }
    return out;
}

std::size_t array_of(const Variant& v, const std::string& output)
{
    const Arrangement& a = arrangement_of(v.loop);
    return a.output_of(Driver::pump_2) == static_cast<int>(index_of(v.unit.outputs, output)) && a.has(Part::collector_2) ? 1 : 0;
}

void add_tip(FaultPlan& plan, const Variant& v, const Fault& f)
{
    const std::size_t probe = index_of(v.probes, f.of);
    if (probe >= v.probes.size() || !reads_temperature(v.probes[probe]))
        return;
    const ProbePlace place = v.probes[probe].place;
    const bool outdoors = place == ProbePlace::collector || place == ProbePlace::collector_2;
    using Kind = TipFault::Kind;
    const Kind kind = f.kind == FaultKind::probe_drifts ? Kind::drifts : f.kind == FaultKind::probe_spikes ? Kind::spikes
                                                                     : outdoors                            ? Kind::reads_air
                                                                                                           : Kind::reads_room;
    plan.tips.push_back({stretch_of(f), probe, kind, f.by_k, f.share, v.loop.tank.room_c});
}

RelayFault relay_fault(const Fault& f, std::size_t output)
{
    using Kind = RelayFault::Kind;
    const Kind kind = f.kind == FaultKind::relay_stuck_on ? Kind::on : f.kind == FaultKind::relay_chatters ? Kind::chatters
                                                                                                           : Kind::off;
    return {stretch_of(f), output, kind, f.every_s};
}

void add_relay(FaultPlan& plan, const Variant& v, const Fault& f)
{
    if (const std::size_t output = index_of(v.unit.outputs, f.of); output < v.unit.outputs.size())
        plan.relays.push_back(relay_fault(f, output));
}

void add_water(FaultPlan& plan, const Variant& v, const Fault& f)
{
    FaultPlan::Water w{stretch_of(f), {}, 0};
    const std::size_t array = array_of(v, f.of);
    switch (f.kind) {
    case FaultKind::air_lock: w.what.air_locked[array] = true; break;
    case FaultKind::line_shut: w.what.shut[array] = true; break;
    case FaultKind::strainer_clogged: w.what.flow_share[array] = f.share; break;
    case FaultKind::check_valve_leaks: w.what.leak = f.share; break;
    case FaultKind::pressure_lost: w.pressure_share = f.share; break;
    case FaultKind::low_voltage: w.what.low_share = std::clamp(f.supply_v / v.loop.motor.volt_v, 0.0, 1.0); break;
    default: return;
    }
    plan.water.push_back(w);
}

} // namespace

FaultPlan fault_plan(const Variant& v, const Day& day)
{
    FaultPlan plan;
    plan.sensors = sensor_stretches(v, day.faults);
    for (const Fault& f : day.faults)
        switch (f.kind) {
        case FaultKind::probe_open:
        case FaultKind::probe_shorted:
        case FaultKind::probe_stuck:
        case FaultKind::probes_swapped:
        case FaultKind::probe_in_sun: break; // of the inputs, above
        case FaultKind::probe_drifts:
        case FaultKind::probe_spikes:
        case FaultKind::probe_bare:
        case FaultKind::probe_tip_lost: add_tip(plan, v, f); break;
        case FaultKind::relay_stuck_on:
        case FaultKind::relay_stuck_off:
        case FaultKind::relay_chatters:
        case FaultKind::pump_dead: add_relay(plan, v, f); break;
        case FaultKind::low_voltage: plan.supply.push_back({stretch_of(f), f.supply_v}); [[fallthrough]];
        case FaultKind::air_lock:
        case FaultKind::check_valve_leaks:
        case FaultKind::line_shut:
        case FaultKind::strainer_clogged:
        case FaultKind::pressure_lost: add_water(plan, v, f); break;
        case FaultKind::snow: break; // of the weather
        case FaultKind::clock_wrong: plan.clock.push_back({stretch_of(f), f.by_h * hour_s}); break;
        }
    return plan;
}

void cover_with_snow(DayForcing& forcing, const Day& day, int n)
{
    const double passes = through_snow(24, 0); // as of the day's own snow, before it slides off
    for (const Fault& f : day.faults) {
        if (f.kind != FaultKind::snow)
            continue;
        const Stretch when = stretch_of(f);
        for (std::size_t m = 0; m < forcing.plane_w_m2.size(); ++m) {
            if (!when.holds(n * day_s + 60.0 * static_cast<double>(m)))
                continue;
            forcing.plane_w_m2[m] *= passes;
            for (const SunPlane p : {SunPlane::collector, SunPlane::collector_2, SunPlane::panel})
                if (auto& sun = forcing.sun_w_m2[static_cast<std::size_t>(p)]; m < sun.size())
                    sun[m] *= passes;
        }
    }
}

namespace {

class FaultyLog {
public:
    FaultyLog(const Trace& trace, const Variant& v) : out_(trace), v_(v) {}

    void put(const Fault& f)
    {
        Stretch when = stretch_of(f);
        const double begin_s = out_.time_s.empty() ? 0.0 : out_.time_s.front(); // of a log without dates its seconds may begin anywhere
        when.from_s += begin_s;
        when.to_s += begin_s;
        first_ = static_cast<std::size_t>(std::lower_bound(out_.time_s.begin(), out_.time_s.end(), when.from_s) - out_.time_s.begin());
        last_ = static_cast<std::size_t>(std::lower_bound(out_.time_s.begin(), out_.time_s.end(), when.to_s) - out_.time_s.begin());
        switch (f.kind) {
        case FaultKind::probe_open: return reads(f, [](double, double) { return no_end_of_degrees; });
        case FaultKind::probe_shorted: return reads(f, [](double, double) { return -no_end_of_degrees; });
        case FaultKind::probe_stuck: return reads(f, [&](double, double) { return f.stuck_c; });
        case FaultKind::probe_drifts:
        case FaultKind::probe_spikes: return reads(f, [&, tip = TipFault{when, 0, f.kind == FaultKind::probe_drifts ? TipFault::Kind::drifts : TipFault::Kind::spikes, f.by_k}](double t, double was) { return tip.seen(t, was, 0); });
        case FaultKind::probes_swapped: return swap(f);
        case FaultKind::probe_in_sun: return reads(f, [&](double t, double was) { return was + f.by_k * sun_at(t) / full_sun_w_m2; });
        case FaultKind::probe_bare:
        case FaultKind::probe_tip_lost: return reads(f, [&](double t, double was) { return was + f.share * (beside(t, was) - was); });
        case FaultKind::relay_stuck_on:
        case FaultKind::relay_stuck_off:
        case FaultKind::relay_chatters: return change(column(f.of), [relay = relay_fault(f, 0), begin_s](double t, double was) { return relay.comes_out(t - begin_s, was > 0.005) ? (was > 0.005 ? was : 1.0) : 0.0; });
        default: return;
        }
    }

    Trace taken() { return std::move(out_); }

private:
    TraceColumn* column(const std::string& name)
    {
        const auto it = std::find_if(out_.columns.begin(), out_.columns.end(), [&](const TraceColumn& c) { return c.name == name; });
        return it == out_.columns.end() ? nullptr : &*it;
    }
    TraceColumn* of_probe(const std::string& key)
    {
        const std::size_t i = index_of(v_.probes, key);
        return i < v_.probes.size() ? column(log_column(v_, i)) : nullptr;
    }
    template <class How>
    void change(TraceColumn* c, How how)
    {
        for (std::size_t i = first_; c && i < last_; ++i)
            if (std::isfinite(c->values[i]))
                c->values[i] = how(out_.time_s[i], c->values[i]);
    }
    template <class How>
    void reads(const Fault& f, How how) { change(of_probe(f.of), how); }
    void swap(const Fault& f)
    {
        TraceColumn *a = of_probe(f.of), *b = of_probe(f.with);
        for (std::size_t i = first_; a && b && i < last_; ++i)
            std::swap(a->values[i], b->values[i]);
    }
    double value_at(const TraceColumn* c, double t, double otherwise) const
    {
        const auto i = static_cast<std::size_t>(std::lower_bound(out_.time_s.begin(), out_.time_s.end(), t) - out_.time_s.begin());
        return c && i < c->values.size() && std::isfinite(c->values[i]) ? c->values[i] : otherwise;
    }
    double sun_at(double t)
    {
        for (const char* name : {"irradiance_plane", "sun_sensor", "irradiance"})
            if (const TraceColumn* c = column(name))
                return value_at(c, t, 0);
        const double h = std::fmod(out_.clock_s() + t, day_s) / hour_s; // a bright day from seven to seven
        return full_sun_w_m2 * std::max(0.0, std::sin(std::numbers::pi * (h - 7) / 12));
    }
    double beside(double t, double was) { return value_at(column("air"), t, was); }

    Trace out_;
    const Variant& v_;
    std::size_t first_ = 0, last_ = 0; // rows of the stretch
};

} // namespace

Trace with_faults(const Trace& trace, const Variant& v, const Day& day)
{
    FaultyLog log(trace, v);
    for (const Fault& f : day.faults)
        log.put(f);
    return log.taken();
}

} // namespace vernal
