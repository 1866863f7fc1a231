// The unit's side of a simulation: what it reads and decides, and what comes out of its outputs.
#include "simulation.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

Millis clock_at(double time_of_day_s) { return std::llround(time_of_day_s * 1000.0) % day_ms; }
// The day's last sample is the first of the next date.
std::int32_t date_at(std::int32_t date, double time_of_day_s) { return date == no_date ? date : date + static_cast<std::int32_t>(std::llround(time_of_day_s * 1000.0) / day_ms); }

} // namespace

void Simulation::decide(std::int64_t n)
{
    if (dead_ && lived_) // its record of what lasts for days outlived the power cut
        state_ = power_up(program(), lived_->state, std::llround(std::max(0.0, now_s() - lived_->until_s) * 1000));
    dead_ = false;
    lived_.reset();
    if (n > 1) { // what begins with the last sample (a fault, another supply) is not seen before it
        Inputs before = inputs_;
        before.pressed = 0;
        set_clock(before, time_of_day_s_ - sample_s_);
        step(program(), before, state_, n - 1);
    }
    take_readings();
    decisions_ = step(program(), inputs_, state_);
    decided_s_ = now_s();
}

bool Simulation::unit_powered() const { return hands_.powered && hydraulics_.power().feeds_unit(day_->powered(time_of_day_s_)); }

// Without power the unit decides nothing, its outputs fall, and it begins anew when power returns.
void Simulation::stand_still()
{
    if (!dead_)
        lived_ = Lived{state_, decided_s_};
    dead_ = true;
    state_ = power_up(program());
    decisions_ = {};
    take_readings();
}

void Simulation::follow_faults()
{
    const double now = now_s();
    if (const Sensors* there = plan()->sensors_at(now); there != sensors_) {
        sensors_ = there;
        wire();
    }
    hydraulics_.faults(plan()->water_at(now));
    pressure_.lose(plan()->pressure_lost_at(now));
}

void Simulation::wire()
{
    readings_ = Readings(sensors_ ? *sensors_ : hands_.sensors ? *hands_.sensors
                                                               : setup().sensors,
        program().probes, setup().resolution_k);
}

void Simulation::set_hands(const Hands& hands)
{
    const bool rewired = hands.sensors != hands_.sensors;
    touched_ = touched_ || rewired || hands.supply_v != hands_.supply_v || hands.powered != hands_.powered;
    hands_ = hands;
    if (rewired)
        wire();
}

void Simulation::set_program(std::shared_ptr<const Program> program)
{
    other_program_ = std::move(program);
    state_ = power_up(this->program());
    dead_ ? stand_still() : decide();
    act();
}

void Simulation::act()
{
    running_ = state_.running;
    Decisions asked = decisions_;
    if (plan()) {
        running_ = plan()->relays_at(now_s(), running_);
        for (std::size_t o = 0; o < program().outputs; ++o)
            if ((running_ & ~state_.running & 1U << o) != 0) // nobody sets its speed
                asked[o].speed_pm = full_speed;
    }
    running_ |= hands_.bypassed;
    acting_ = acting(setup(), program(), running_, asked);
    // A unit that lives on something else asks in vain for a pump on the mains.
    if (!day_->powered(time_of_day_s_)) {
        const int circulation = network().arrangement().output_of(Driver::circulation); // on the mains in any loop
        acting_.running &= !hydraulics_.follows_sun() ? 0U : circulation >= 0 ? ~(1U << circulation)
                                                                              : ~0U;
    }
    if (const double out_j = hydraulics_.outputs(acting_, temps_, day_->mains_c); out_j != 0) {
        HeatFlows q;
        q.lost[static_cast<std::size_t>(Loss::pipe)] = out_j;
        tell([&](Listener& l) { l.heat(*this, q); });
    }
}

// Buttons pressed at this sample: on the first day that counts, at their hour.
std::uint64_t Simulation::pressed_at(double time_of_day_s) const
{
    std::uint64_t out = 0;
    if (!counting_ || day_index_ > 0)
        return out;
    const Millis now = std::llround(time_of_day_s * 1000.0);
    for (const Gate& g : program().gates)
        if (g.kind == Gate::Kind::pressed && now >= g.wait_ms && now - program().sample_ms < g.wait_ms)
            out |= std::uint64_t{1} << g.button;
    return out;
}

double Simulation::seen_by(std::size_t probe, double temp_c, double sun_w_m2, double time_of_day_s) const
{
    switch (readings_.reads(probe)) {
    case Reads::flow: return comes_round_l_min_;
    case Reads::pressure: return gauge_bar_;
    case Reads::irradiance: return sun_w_m2;
    case Reads::temperature: break;
    }
    if (hands_.tip_c[probe])
        temp_c = *hands_.tip_c[probe];
    return plan() ? plan()->seen(probe, day_start_s_ + time_of_day_s, temp_c, surroundings_at(*day_, time_of_day_s).air_c) : temp_c;
}

void Simulation::set_clock(Inputs& in, double time_of_day_s) const
{
    in.clock_ms = clock_at(time_of_day_s);
    in.date = date_at(day_->date, time_of_day_s);
    if (plan())
        in.move_clock(std::llround(plan()->clock_ahead_s(day_start_s_ + time_of_day_s) * 1000));
}

void Simulation::take_readings()
{
    Readings::Tips tips{};
    const double sun = sun_on_probes(time_of_day_s_);
    for (std::size_t i = 0; i < program().probes; ++i)
        tips[i] = seen_by(i, temps_[network().probe_node(i)], sun, time_of_day_s_);
    readings_.read(tips, sun, inputs_);
    inputs_.readings[supply_channel] = {hydraulics_.follows_sun() ? in_milli(hydraulics_.power().volt()) : steady_supply_mv, true};
    if (plan())
        inputs_.readings[supply_channel].mk = in_milli(plan()->supply_v(now_s(), inputs_.readings[supply_channel].mk / 1000.0));
    if (hands_.supply_v)
        inputs_.readings[supply_channel].mk = in_milli(*hands_.supply_v);
    set_clock(inputs_, time_of_day_s_);
    inputs_.pressed = pressed_at(time_of_day_s_);
}

} // namespace vernal
