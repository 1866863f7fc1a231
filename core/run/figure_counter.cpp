#include "figure_counter.h"

#include "simulation.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

double pump_power_w(const Simulation& s)
{
    const Loop& loop = s.setup().loop;
    const std::uint32_t running = s.running();
    const Arrangement& a = s.network().arrangement();
    if (s.hydraulics().follows_sun()) // all hang on it
        return s.hydraulics().power().pump_power_w();
    const auto other = [&](Part part, Driver driver, const Pump& p) {
        const std::size_t o = a.driven_by(driver);
        return a.has(part) && (running >> o & 1U) != 0 ? p.power_w * p.speed * p.speed * p.speed * s.acts().pumps[o].power_share() : 0.0;
    };
    return (a.output_of(Driver::pump) == 0 && (running & 1U) != 0 ? s.hydraulics().power().pump_power_w() : 0.0) + other(Part::pump_2, Driver::pump_2, loop.pump_2) + other(Part::exchanger_pump, Driver::exchanger_pump, loop.exchanger_pump);
}

double hottest_collector_c(const Simulation& s)
{
    const Network& n = s.network();
    const double c = s.temperatures()[n.node_of(ProbePlace::collector)];
    return n.arrangement().has(Part::collector_2) ? std::max(c, s.temperatures()[n.node_of(ProbePlace::collector_2)]) : c;
}

} // namespace

FigureCounter::FigureCounter(const Simulation& s) : frost_(s.network()), stops_(s), stored_at_start_(s.network().stored_j(s.temperatures().data(), s.hydraulics().drained()))
{
    const Program& p = s.setup().program;
    figures_.pumps.resize(p.outputs);
    for (std::size_t o = 0; o < p.outputs; ++o)
        counters_.emplace_back((s.running() >> o & 1U) != 0);
    for (std::size_t l = 0; l < p.latches.size(); ++l)
        if ((p.limiting >> l & 1U) != 0 && p.latches[l].plus < s.setup().probes.size() && !in_store(s.setup().probes[p.latches[l].plus].place))
            limits_.push_back(p.latches[l]);
}

void FigureCounter::heat(const Simulation& s, const HeatFlows& q)
{
    figures_.heat += q;
    ++figures_.steps;
    for (std::size_t o = 0; q.to_store < 0 && o < s.program().outputs; ++o)
        if ((s.running() >> o & 1U) != 0 && s.decisions()[o].priority == Priority::freeze) {
            figures_.frost_j -= q.to_store;
            break;
        }
    if (s.hydraulics().reverse_m3_s() > 0)
        figures_.night_loss_j += std::max(0.0, -q.to_store);
}

void FigureCounter::passed(const Simulation& s, double h, const DrawNow& draw)
{
    Figures& f = figures_;
    // What the unit asks for and what the pump does are apart: a pump that stands still for want of power does not run.
    const bool in_vain = s.hydraulics().stands_still();
    for (std::size_t o = 0; o < counters_.size(); ++o)
        counters_[o].passed(o == 0 && in_vain ? 0.0 : h, f.pumps[o]);
    f.pump_energy_j += pump_power_w(s) * h;
    f.needed_j += draw.needed_w * h;
    f.highest_collector_c = std::max(f.highest_collector_c, hottest_collector_c(s));
    f.highest_store_c = std::max(f.highest_store_c, s.temperatures()[s.network().store_top()]);
    if (s.hydraulics().power().cut() && std::isnan(f.first_cut_s))
        f.first_cut_s = s.now_s();
    if (s.circulates()) {
        f.circulation_s += h;
        f.circulation_warmest_c = std::fmax(f.circulation_warmest_c, s.temperatures()[s.network().node_of(ProbePlace::circulation_return)]);
    }
    frost_.passed(s, h, f);
    missed_.passed(s, h, f);
    count_short(s, h, draw);
    const bool above = std::any_of(s.setup().store_limits.begin(), s.setup().store_limits.end(), [&](const CoupledSetup::BornBy& b) { return s.temperatures()[s.network().node_of(b.place)] >= b.limit_c; }) ||
                       std::any_of(limits_.begin(), limits_.end(), [&](const Latch& l) { return s.tip_c(static_cast<std::size_t>(l.plus)) * 1000 >= l.set_mk; });
    f.above_limit_s += above ? h : 0.0;
}

// The draw gets less heat than it needs: its water stays below the target.
void FigureCounter::count_short(const Simulation& s, double h, const DrawNow& draw)
{
    constexpr double unfelt_k = 1.0;
    const double short_k = s.day().target_c - s.temperatures()[s.network().delivers()];
    if (draw.needed_w <= 0 || short_k <= 0)
        return;
    figures_.short_j += draw.rate_w_k * short_k * h;
    if (short_k > unfelt_k && std::isnan(figures_.first_short_s))
        figures_.first_short_s = s.now_s();
}

void FigureCounter::decided(const Simulation& s, bool)
{
    for (std::size_t o = 0; o < counters_.size(); ++o)
        counters_[o].output(s.now_s(), (s.running() >> o & 1U) != 0, figures_.pumps[o]);
    stops_.decided(s);
}

Figures FigureCounter::finished(const Simulation& s) const
{
    Figures f = figures_;
    f.stops = stops_.stops();
    f.hydraulics = s.hydraulics().figures();
    f.power = s.hydraulics().power().figures();
    f.vessel = s.pressure().figures();
    if (s.pressure().present())
        f.end_pressure_pa = s.pressure().cold_pa();
    f.end_store_c = s.temperatures()[s.network().store_top()];
    frost_.finish(s.network(), f);
    f.stored_change_j = s.network().stored_j(s.temperatures().data(), s.hydraulics().drained()) - stored_at_start_;
    for (PumpFigures& p : f.pumps)
        RunCounter::finish(p);
    f.rejected = s.rejected_steps();
    f.days = static_cast<int>(s.setup().days.size());
    return f;
}

} // namespace vernal
