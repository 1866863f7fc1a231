#include "fault.h"

#include "job.h"

#include <algorithm>

namespace vernal {
namespace {

using Of = FaultInfo::Of;
using Size = FaultInfo::Size;

// By FaultKind.
constexpr std::array<FaultInfo, fault_kinds> table{{
    {FaultKind::probe_open, "open", "The probe's lead is broken: the unit reads no end of ohms.", Of::probe, Size::none, "", 0, true},
    {FaultKind::probe_shorted, "shorted", "The two wires touch: hardly any ohms.", Of::probe, Size::none, "", 0, true},
    {FaultKind::probe_stuck, "stuck", "The unit reads the same whatever the place does.", Of::probe, Size::stuck_c, "at", 40, true},
    {FaultKind::probe_drifts, "drifts", "From right to wrong over the stretch, evenly; right again after it.", Of::probe, Size::by_k, "by its end", 5, true},
    {FaultKind::probe_spikes, "spikes", "Every few minutes the reading jumps for ten seconds.", Of::probe, Size::by_k, "by", 15, true},
    {FaultKind::probes_swapped, "swapped", "Two probes sit on each other's terminals.", Of::probe, Size::none, "", 0, true},
    {FaultKind::probe_in_sun, "in the sun", "The sun warms the probe itself.", Of::probe, Size::by_k, "in full sun by", 15, true},
    {FaultKind::probe_bare, "bare", "Strapped to its pipe without insulation: it reads the weather in part.", Of::probe, Size::share, "of what is around it", 0.4, true},
    {FaultKind::probe_tip_lost, "out of its well", "The tip has slipped out: it reads what is around it.", Of::probe, Size::share, "of what is around it", 0.85, true},
    {FaultKind::relay_stuck_on, "stuck on", "The relay's contacts are welded: it runs whatever the unit decides.", Of::output, Size::none, "", 0, true},
    {FaultKind::relay_stuck_off, "stuck off", "Nothing comes out of the relay whatever the unit decides.", Of::output, Size::none, "", 0, true},
    {FaultKind::relay_chatters, "chatters", "While it should be on the relay falls off and pulls in again.", Of::output, Size::every_s, "every", 10, true},
    {FaultKind::pump_dead, "dead", "The relay switches and the pump does not turn.", Of::pump},
    {FaultKind::air_lock, "air lock", "The pump turns in air and moves nothing.", Of::pump},
    {FaultKind::check_valve_leaks, "check valve leaks", "Warm fluid rises to the cold collector while the pump rests.", Of::loop, Size::share, "of what would run without one", 0.5},
    {FaultKind::line_shut, "line shut", "A hand valve in the array's line is shut.", Of::pump},
    {FaultKind::strainer_clogged, "strainer clogged", "Less flows.", Of::pump, Size::share, "is left of the flow", 0.4},
    {FaultKind::pressure_lost, "pressure lost", "Fluid has gone: the gauge stands low, and what is hot boils sooner.", Of::loop, Size::share, "of the cold pressure is gone", 0.8},
    {FaultKind::low_voltage, "low voltage", "The unit's supply, and what hangs on it with direct current, has no more than this.", Of::loop, Size::supply_v, "at most", 10.8},
    {FaultKind::snow, "snow on the glass", "Hardly any sun comes through, on the panel likewise.", Of::loop},
    {FaultKind::clock_wrong, "clock wrong", "The unit's clock is ahead by this; behind, where it is negative.", Of::loop, Size::by_h, "ahead by", 1, true},
}};

constexpr bool in_order()
{
    for (std::size_t i = 0; i < table.size(); ++i)
        if (static_cast<std::size_t>(table[i].kind) != i)
            return false;
    return true;
}
static_assert(in_order());

// Outputs that drive a pump of the collectors' rings, or its other side's.
std::vector<std::string> pumps_of(const Variant& v, bool arrays_only)
{
    const Arrangement& a = arrangement_of(v.loop);
    std::vector<std::string> out;
    for (const Driver d : {Driver::pump, Driver::pump_2, Driver::exchanger_pump, Driver::circulation}) {
        const int o = a.output_of(d);
        if (o >= 0 && static_cast<std::size_t>(o) < v.unit.outputs.size() && (!arrays_only || d == Driver::pump || d == Driver::pump_2))
            out.push_back(v.unit.outputs[static_cast<std::size_t>(o)].key);
    }
    return out;
}

bool only_of_arrays(FaultKind kind) { return kind == FaultKind::air_lock || kind == FaultKind::line_shut || kind == FaultKind::strainer_clogged; }

} // namespace

const FaultInfo& fault_info(FaultKind kind) { return table[static_cast<std::size_t>(kind)]; }

std::vector<std::string> fault_subjects(FaultKind kind, const Variant& v)
{
    const bool any_probe = kind == FaultKind::probe_open || kind == FaultKind::probe_shorted;
    std::vector<std::string> out;
    switch (fault_info(kind).of) {
    case Of::probe:
        for (const Probe& p : v.probes)
            if (any_probe || reads_temperature(p))
                out.push_back(p.key);
        break;
    case Of::output:
        for (const Output& o : v.unit.outputs)
            out.push_back(o.key);
        break;
    case Of::pump: return pumps_of(v, only_of_arrays(kind));
    case Of::loop: break;
    }
    return out;
}

bool can_have(FaultKind kind, const Variant& v, const Day& day)
{
    const FaultInfo& info = fault_info(kind);
    if (day.kind == DayKind::recorded && !info.on_logs)
        return false;
    if (info.of != Of::loop && fault_subjects(kind, v).size() < (kind == FaultKind::probes_swapped ? 2 : 1))
        return false;
    const Arrangement& a = arrangement_of(v.loop);
    switch (kind) {
    case FaultKind::check_valve_leaks: return a.has(Part::check_valve);
    case FaultKind::pressure_lost: return a.has(Part::vessel);
    default: return true;
    }
}

Fault fresh_fault(FaultKind kind, const Variant& v, double from_h, double to_h)
{
    Fault f;
    f.kind = kind;
    f.from_h = from_h;
    f.to_h = to_h;
    const auto subjects = fault_subjects(kind, v);
    if (!subjects.empty())
        f.of = subjects.front();
    if (kind == FaultKind::probes_swapped && subjects.size() > 1)
        f.with = subjects[1];
    const FaultInfo& info = fault_info(kind);
    switch (info.size) {
    case Size::none: break;
    case Size::stuck_c: f.stuck_c = info.usual; break;
    case Size::by_k: f.by_k = info.usual; break;
    case Size::share: f.share = info.usual; break;
    case Size::every_s: f.every_s = info.usual; break;
    case Size::supply_v: f.supply_v = info.usual; break;
    case Size::by_h: f.by_h = info.usual; break;
    }
    return f;
}

std::vector<Fault> faults_of(const Condition& c, const std::string& probe, const Variant& v, double from_h, double to_h)
{
    constexpr std::array kinds{FaultKind::probe_open, FaultKind::probe_open, FaultKind::probe_shorted, FaultKind::probe_stuck, FaultKind::probe_drifts, FaultKind::probe_in_sun, FaultKind::probes_swapped}; // by ConditionKind
    if (c.kind == ConditionKind::sound)
        return {};
    Fault f = fresh_fault(kinds[static_cast<std::size_t>(c.kind)], v, from_h, to_h);
    f.of = probe;
    f.stuck_c = c.stuck_c;
    if (c.kind == ConditionKind::in_sun)
        f.by_k = c.sun_k;
    if (c.kind == ConditionKind::swapped) {
        f.with.clear();
        for (const Probe& p : v.probes)
            if (p.key != probe && p.condition.kind == ConditionKind::swapped)
                f.with = p.key;
        if (f.with.empty())
            return {};
    }
    if (c.kind == ConditionKind::drifted) { // a share of its ohms, read at a store's usual warmth
        constexpr double at_c = 40;
        for (const Probe& p : v.probes)
            if (const auto ohm = p.key == probe ? signal_at(p.curve, Temperature::celsius(at_c)) : Result<double>(Error{}); ohm)
                f.by_k = std::clamp(temperature_beyond(p.curve, *ohm * (1 + c.drift_share)) - at_c, -100.0, 100.0);
    }
    return {f};
}

std::string fault_text(const Fault& f, const Variant& v)
{
    const FaultInfo& info = fault_info(f.kind);
    std::string subject = f.of;
    for (const Probe& p : v.probes)
        if (p.key == f.of && info.of == Of::probe)
            subject = p.name;
    if (f.kind == FaultKind::probes_swapped)
        for (const Probe& p : v.probes)
            if (p.key == f.with)
                subject += " and " + p.name;
    return subject.empty() ? info.name : subject + " " + info.name;
}

} // namespace vernal
