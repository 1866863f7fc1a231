// What instruments, eyes and ears find at the rig's loop.
#include "rig.h"

#include "bench_pair.h"

#include "core/job/fault.h"
#include "core/plant/hydraulics.h"
#include "core/plant/panel.h"
#include "core/plant/valve_board.h"
#include "core/setup/job_setup.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr double nothing = std::numeric_limits<double>::quiet_NaN();

double l_min(double m3_s) { return m3_s * 60000; }
double bar(double pa) { return pa / 1e5; }

Part part_of(Driver d)
{
    return d == Driver::pump_2 ? Part::pump_2 : d == Driver::exchanger_pump ? Part::exchanger_pump
                                                                            : Part::pump;
}

} // namespace

// The output that drives it; as many as there are: the loop has no such pump.
std::size_t Rig::driven_by(Driver d) const
{
    const Arrangement& a = arrangement_of(variant_.loop);
    return a.pumped() && a.has(part_of(d)) ? a.driven_by(d) : outputs();
}

double Rig::drive_share() const
{
    const HydraulicState& water = simulation_->hydraulics();
    if (!water.follows_sun())
        return 1;
    const Loop& l = variant_.loop;
    if (hands_.supply_v)
        return drive_at(l.motor, *hands_.supply_v, true).speed;
    for (const Driver d : {Driver::pump, Driver::pump_2, Driver::exchanger_pump})
        if (const std::size_t o = driven_by(d); o < outputs() && turns(o) && asked(o))
            return water.power().speed(true);
    // Nothing turns: what it would be.
    if (!has_panel())
        return drive_at(l.motor, water.power().volt(), true).speed;
    const Surroundings now = surroundings_at(simulation_->day(), simulation_->time_of_day_s());
    return drive(l.panel, l.motor, now.sun_w_m2[static_cast<std::size_t>(SunPlane::panel)], now.air_c, true).speed;
}

double Rig::asked_speed(std::size_t output) const
{
    return (decision(output).on ? decision(output).speed_pm / static_cast<double>(full_speed) : 1.0) * drive_share();
}

double Rig::speed(std::size_t output) const { return live(output) ? asked_speed(output) : 0; }

bool Rig::emptied() const
{
    const DrainBack& d = variant_.loop.drain_back;
    return water() == Filling::empty && !d.check_valve && d.pitch >= least_pitch;
}

int Rig::pumps() const
{
    int count = 0;
    for (const Driver d : {Driver::pump, Driver::pump_2, Driver::exchanger_pump})
        count += driven_by(d) < outputs();
    return count;
}

int Rig::pumps_turning() const
{
    int count = 0;
    for (const Driver d : {Driver::pump, Driver::pump_2, Driver::exchanger_pump})
        if (const std::size_t o = driven_by(d); o < outputs() && turns(o) && speed(o) > 0)
            count += d == Driver::pump || !on_site_.second_pump_stands;
    return count;
}

double Rig::bridge_v() const
{
    const auto pair = bench_pair(variant_);
    if (!pair || variant_.input.kind != StageKind::bridge)
        return nothing;
    return bridge_volt(variant_.input, signal(pair->source), signal(pair->store));
}

double Rig::flow_l_min() const
{
    const Flows flows = simulation_->hydraulics().flows(0, 10);
    double sum = 0;
    for (const std::size_t array : {0U, 1U})
        sum += simulation_->network().comes_round_m3_s(flows, array);
    return l_min(sum);
}

// Against the lift where a drain-back array runs without a siphon.
double Rig::should_flow_l_min() const
{
    const Loop& l = variant_.loop;
    const HydraulicState& water = simulation_->hydraulics();
    double sum = 0;
    for (const auto& [driver, pump, array] : {std::tuple(Driver::pump, &l.pump, 0), std::tuple(Driver::pump_2, &l.pump_2, 1)})
        if (const std::size_t o = driven_by(driver); o < outputs() && asked(o)) {
            const double speed = asked_speed(o) * pump->speed, lift_m = water.drains() && !water.siphon(static_cast<std::size_t>(array)) ? l.drain_back.lift_m : 0;
            sum += lift_m > 0 ? flow_against(*pump, lift_m, speed) : speed * pump->flow_m3_s;
        }
    return l_min(sum);
}

double Rig::rise_k() const
{
    const auto at = [&](ProbePlace p) { return simulation_->temperatures()[simulation_->network().node_of(p)]; };
    return at(ProbePlace::return_pipe) - at(ProbePlace::supply_pipe);
}

double Rig::gauge_bar() const { return simulation_->pressure().present() ? bar(simulation_->pressure().pa()) : nothing; }
double Rig::cold_gauge_bar() const { return simulation_->pressure().present() ? bar(simulation_->pressure().cold_pa()) : nothing; }
double Rig::vessel_gas_bar() const { return simulation_->pressure().present() ? bar(variant_.loop.vessel.precharge_pa) : nothing; }

double Rig::signal_of_fault(std::size_t probe) const
{
    const std::string& key = variant_.probes[probe].key;
    for (const Fault& f : day_.faults) {
        if (f.of != key && f.with != key)
            continue;
        if (f.kind == FaultKind::probe_open)
            return std::numeric_limits<double>::infinity();
        if (f.kind == FaultKind::probe_shorted)
            return 0;
        if (f.kind == FaultKind::probes_swapped)
            for (std::size_t other = 0; other < probes(); ++other)
                if (other != probe && (variant_.probes[other].key == f.of || variant_.probes[other].key == f.with))
                    return signal(other);
    }
    return signal(probe);
}

double Rig::sun_w_m2() const { return plane_at(simulation_->day(), simulation_->time_of_day_s()); }

double Rig::clear_sun_w_m2() const
{
    Day clear = day_;
    clear.shades.clear();
    const Weather w = weather_of(*job_, variant_, clear);
    return w.days.empty() ? 0 : plane_at(*w.days.front(), simulation_->time_of_day_s());
}

double Rig::air_c_now() const { return surroundings_at(simulation_->day(), simulation_->time_of_day_s()).air_c; }

double Rig::array_c() const
{
    const auto at = [&](ProbePlace p) { return simulation_->temperatures()[simulation_->network().node_of(p)]; };
    return arrangement_of(variant_.loop).has(Part::collector_2) ? std::max(at(ProbePlace::collector), at(ProbePlace::collector_2)) : at(ProbePlace::collector);
}

double Rig::hot_c() const
{
    const bool tank = arrangement_of(variant_.loop).has(Part::tank);
    return tank ? simulation_->temperatures()[simulation_->network().node_of(ProbePlace::tank_top)] : nothing;
}

double Rig::tap_set_c() const { return day_.draw_target_c; }

double Rig::tap_c() const { return on_site_.tempering_fails ? hot_c() : std::min(hot_c(), tap_set_c()); }

bool Rig::is_so(Fact f) const
{
    switch (f) {
    case Fact::vent_shut: return stands(variant_.loop, HandValve::air_vent, ServiceState::run) == ValveStands::shut;
    case Fact::relief_lets_out: return !on_site_.relief_stuck;
    case Fact::relief_holds: return !on_site_.relief_drips;
    case Fact::runs_quiet: {
        const Trouble t = simulation_->hydraulics().trouble();
        return t == Trouble::none || t == Trouble::dead_head || t == Trouble::no_power;
    }
    case Fact::shaft_turns: {
        int on = 0;
        for (const Driver d : {Driver::pump, Driver::pump_2, Driver::exchanger_pump})
            on += driven_by(d) < outputs() && live(driven_by(d));
        return pumps_turning() == on;
    }
    case Fact::none: break;
    }
    return true;
}

} // namespace vernal
