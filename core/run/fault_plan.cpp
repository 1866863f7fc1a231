#include "fault_plan.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace vernal {
namespace {

constexpr double never = std::numeric_limits<double>::infinity();
constexpr double spike_cell_s = 300, spike_s = 10; // estimates

// Where in its five minutes a spike stands: the same on every machine.
double spike_begins_s(double cell)
{
    auto x = static_cast<std::uint64_t>(cell) * 0x9E3779B97F4A7C15U;
    x ^= x >> 31U;
    return cell * spike_cell_s + static_cast<double>(x % 29) * spike_s;
}

double next_of(const Stretch& s, double t)
{
    return t < s.from_s ? s.from_s : t < s.to_s ? s.to_s
                                                : never;
}

} // namespace

double TipFault::seen(double t, double tip_c, double air_c) const
{
    switch (kind) {
    case Kind::drifts: return tip_c + by_k * (t - when.from_s) / std::max(1.0, when.to_s - when.from_s);
    case Kind::spikes: {
        const double begins = spike_begins_s(std::floor(t / spike_cell_s));
        return t >= begins && t < begins + spike_s ? tip_c + by_k : tip_c;
    }
    case Kind::reads_air: return tip_c + share * (air_c - tip_c);
    case Kind::reads_room: return tip_c + share * (room_c - tip_c);
    }
    return tip_c;
}

bool RelayFault::comes_out(double t, bool decided) const
{
    const bool half_on = std::fmod(std::floor((t - when.from_s) / (every_s / 2) + 1e-9), 2) == 0;
    return kind == Kind::on || (kind == Kind::chatters && decided && half_on);
}

double TipFault::next_change_s(double t) const
{
    const double edge = next_of(when, t);
    if (kind != Kind::spikes || !when.holds(t))
        return edge;
    for (double cell = std::floor(t / spike_cell_s);; ++cell)
        for (const double at : {spike_begins_s(cell), spike_begins_s(cell) + spike_s})
            if (at > t)
                return std::min(edge, at);
}

double FaultPlan::next_change_s(double t) const
{
    double next = never;
    const auto of_all = [&](const auto& list) {
        for (const auto& f : list)
            next = std::min(next, next_of(f.when, t));
    };
    of_all(sensors);
    of_all(water);
    of_all(supply);
    of_all(clock);
    of_all(relays);
    for (const TipFault& f : tips)
        next = std::min(next, f.next_change_s(t));
    for (const RelayFault& r : relays)
        if (r.kind == RelayFault::Kind::chatters && r.when.holds(t))
            next = std::min(next, r.when.from_s + (std::floor((t - r.when.from_s) / (r.every_s / 2) + 1e-9) + 1) * r.every_s / 2);
    return next;
}

const Sensors* FaultPlan::sensors_at(double t) const
{
    for (const SensorStretch& s : sensors)
        if (s.when.holds(t))
            return &s.sensors;
    return nullptr;
}

WaterFaults FaultPlan::water_at(double t) const
{
    WaterFaults out;
    for (const Water& w : water)
        if (w.when.holds(t))
            out = out.with(w.what);
    return out;
}

double FaultPlan::pressure_lost_at(double t) const
{
    double left = 1;
    for (const Water& w : water)
        if (w.when.holds(t))
            left *= 1 - w.pressure_share;
    return 1 - left;
}

double FaultPlan::seen(std::size_t probe, double t, double tip_c, double air_c) const
{
    double out = tip_c;
    for (const TipFault& f : tips)
        if (f.probe == probe && f.when.holds(t))
            out = f.seen(t, out, air_c);
    return out;
}

std::uint32_t FaultPlan::relays_at(double t, std::uint32_t decided) const
{
    std::uint32_t out = decided;
    for (const RelayFault& r : relays) {
        if (!r.when.holds(t))
            continue;
        const std::uint32_t bit = 1U << r.output;
        out = r.comes_out(t, (out & bit) != 0) ? out | bit : out & ~bit;
    }
    return out;
}

double FaultPlan::supply_v(double t, double volt) const
{
    double out = volt;
    for (const Supply& s : supply)
        if (s.when.holds(t))
            out = std::min(out, s.most_v);
    return out;
}

double FaultPlan::clock_ahead_s(double t) const
{
    double out = 0;
    for (const Clock& c : clock)
        if (c.when.holds(t))
            out += c.ahead_s;
    return out;
}

} // namespace vernal
