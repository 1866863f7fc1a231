#include "stop_counter.h"

#include "core/plant/passing.h"
#include "simulation.h"

#include <algorithm>

namespace vernal {
namespace {

constexpr double some_sun_w_m2 = 400; // below it the sun is behind clouds or low, whatever the pair; estimate

// The difference of two probes that a rule compares.
const Latch* pair_of(const Program& p, std::int16_t rule)
{
    for (const Latch& l : p.latches)
        if (l.rule == rule && l.plus != zero_channel && l.minus != zero_channel)
            return &l;
    return nullptr;
}

std::size_t probe_of(const Program& p, std::size_t channel)
{
    for (const Average& a : p.averages)
        if (a.to == channel)
            return a.from;
    return channel;
}

} // namespace

StopCounter::StopCounter(const Simulation& s)
{
    for (std::size_t o = 0; o < s.setup().program.outputs; ++o)
        outputs_.push_back({s.decisions()[o], NAN, (s.engine().running >> o & 1U) != 0});
}

void StopCounter::decided(const Simulation& s)
{
    for (std::size_t o = 0; o < outputs_.size(); ++o) {
        Output& out = outputs_[o];
        const Decision& now = s.decisions()[o];
        if (out.on && !now.on)
            stopped(s, o);
        if (!out.on && now.on)
            out.since_s = s.now_s();
        // A comfort timer only keeps on what something else had started.
        if (now.on && (now.priority != Priority::min_run || !out.on))
            out.held = now;
        out.on = now.on;
    }
}

void StopCounter::stopped(const Simulation& s, std::size_t o)
{
    const Output& out = outputs_[o];
    const Decision& now = s.decisions()[o];
    Stops stop;
    stop.output = o;
    stop.held = out.held.rule;
    stop.held_by = out.held.priority;
    stop.ended = now.rule;
    stop.ended_by = now.priority;
    const double run_s = s.now_s() - out.since_s;
    if (now.priority == Priority::nothing && out.held.priority == Priority::collect)
        stop.sun = sun_at(s, out.held.rule, o, run_s, stop.rise_k, stop.sun_w_m2);
    auto it = std::find_if(stops_.begin(), stops_.end(), [&](const Stops& x) { return x.alike(stop); });
    if (it == stops_.end())
        it = stops_.insert(stops_.end(), stop);
    else {
        it->rise_k += (stop.rise_k - it->rise_k) / (it->count + 1);
        it->sun_w_m2 += (stop.sun_w_m2 - it->sun_w_m2) / (it->count + 1);
    }
    ++it->count;
    const double least_s = static_cast<double>(s.program().timers[o].min_run_ms) / 1000;
    constexpr double about_s = 2; // a sample more or less
    it->at_minimum += least_s > 0 && run_s <= least_s + about_s;
    if (run_s < it->shortest_s)
        it->shortest_s = run_s;
}

Stops::Sun StopCounter::sun_at(const Simulation& s, std::int16_t rule, std::size_t o, double run_s, double& rise_k, double& sun_w_m2) const
{
    const CoupledSetup& setup = s.setup();
    const Latch* pair = pair_of(setup.program, rule);
    if (!pair)
        return Stops::Sun::none_of_it;
    const std::size_t source = probe_of(setup.program, pair->plus), store = probe_of(setup.program, pair->minus);
    if (source >= setup.probes.size() || store >= setup.probes.size())
        return Stops::Sun::none_of_it;
    const Loop& l = setup.loop;
    const bool second = setup.probes[source].place == ProbePlace::collector_2;
    if (!second && setup.probes[source].place != ProbePlace::collector)
        return Stops::Sun::none_of_it;
    const Collector& c = second ? l.collector_2 : l.collector;
    const double flow = (second && o > 0 ? l.pump_2 : l.pump).flow_m3_s;
    sun_w_m2 = plane_at(s.day(), s.time_of_day_s());
    rise_k = settled_rise_k(l, c, flow, sun_w_m2, s.tip_c(store), surroundings_at(s.day(), s.time_of_day_s()).air_c);
    if (run_s < past_the_slug_s(c, second ? l.supply_2 : l.supply, flow))
        return Stops::Sun::slug;
    return sun_w_m2 > some_sun_w_m2 && rise_k * 1000 < pair->clear_mk ? Stops::Sun::small_rise : Stops::Sun::gone;
}

} // namespace vernal
