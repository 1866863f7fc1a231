// A loop with its unit, advanced in time. Its state can be copied: the copy goes
// on from where it was made, bit for bit as the original would.
#pragma once

#include "acting.h"
#include "core/plant/integrator.h"
#include "core/plant/vessel.h"
#include "listener.h"
#include "setup.h"
#include "step_control.h"

#include <memory>
#include <optional>
#include <stop_token>
#include <vector>

namespace vernal {

// What hands at a bench do to the unit; what is not told here goes by the loop.
struct Hands {
    std::array<std::optional<double>, max_probes> tip_c{}; // of a probe that hangs elsewhere than in the loop
    std::shared_ptr<const Sensors> sensors;                // in place of the setup's; a painted fault's come first
    std::optional<double> supply_v;                        // at the unit's terminals
    bool powered = true;                                   // false: the unit's feed is cut
    std::uint32_t bypassed = 0;                            // bit per output: its load is fed past the unit
};

class Simulation {
public:
    // The unit has just been given power and has looked once.
    explicit Simulation(CoupledSetup setup);

    // Not told by copies. It outlives the simulation or is dropped first.
    void add(Listener& l) { listeners_.all.push_back(&l); }
    // Tells the sample that stands now once more: of a unit that was given power at second 0 the first.
    void tell_row();
    void drop_listeners() { listeners_.all.clear(); }

    // Runs the first day as often as the setup says without a word to anyone; then time begins
    // at 0 with vessel, battery and slow stores as stated, and nothing counted so far.
    void spin_up(std::stop_token stop = {});

    // On until this instant, s since the beginning, by whole samples; after the last
    // day its weather repeats. False: it was told to stop.
    bool advance(double until_s, std::stop_token stop = {});

    double now_s() const { return day_start_s_ + time_of_day_s_; }
    double time_of_day_s() const { return time_of_day_s_; }
    double day_start_s() const { return day_start_s_; }
    double tip_c(std::size_t probe) const { return temps_[network().probe_node(probe)]; }
    // Of all days of the setup, s.
    double length_s() const;

    // A switch of the unit is moved; it looks at its next sample.
    void set_mode(std::size_t output, Mode mode)
    {
        touched_ = touched_ || inputs_.modes[output] != mode;
        inputs_.modes[output] = mode;
    }
    void set_away(bool away)
    {
        touched_ = touched_ || inputs_.away != away;
        inputs_.away = away;
    }

    // The unit begins anew with other settings, as after a power cut; the loop goes on as it stands.
    // Of the same probes, outputs and sampling period.
    void set_program(std::shared_ptr<const Program> program);

    // From its next sample on. Tips that move are set anew at each sample.
    void set_hands(const Hands& hands);

    // --- what stands now -------------------------------------------------------
    const CoupledSetup& setup() const { return model_->setup; }
    const Program& program() const { return other_program_ ? *other_program_ : model_->setup.program; }
    const Network& network() const { return model_->network; }
    const std::vector<double>& temperatures() const { return temps_; }
    const HydraulicState& hydraulics() const { return hydraulics_; }
    const Pressure& pressure() const { return pressure_; }
    float pressure_pa() const; // as precisely as records keep it; NaN: no closed loop
    const EngineState& engine() const { return state_; }
    const Inputs& inputs() const { return inputs_; }
    const Decisions& decisions() const { return decisions_; }
    const Acting& acts() const { return acting_; }
    std::uint32_t running() const { return running_; } // what comes out of the outputs, which a fault may make other than decided
    const DayForcing& day() const { return *day_; }
    bool circulates() const; // the pump of the tap circulation is on
    double heater_w_now() const { return heater_w_at(time_of_day_s_, draw_at(*day_, time_of_day_s_, 0).rate_w_k > 0); }
    double element_w_now() const { return element_w_at(time_of_day_s_); }
    std::int64_t rejected_steps() const { return rejected_; }

private:
    struct Model { // what never changes, shared by copies
        explicit Model(CoupledSetup s);
        CoupledSetup setup;
        Network network;
        int element_output = -1; // drives the backup element
    };
    void begin_day(std::size_t day);
    void begin_again();
    std::int64_t one_step(std::int64_t k, std::int64_t left);
    double next_change_s(double t) const;
    double element_w_at(double t) const;
    double heater_w_at(double t, bool drawn) const;
    std::int64_t quiet_samples(std::int64_t n, double h);
    bool take_part(std::int64_t m, std::int64_t n);
    bool quiet(std::int64_t m, std::int64_t n, double h);
    void walk_one_sample(double t, const Flows& flows);
    void take(const Integrator::Trial& trial);
    void finish_step(std::int64_t k, std::int64_t n, std::int64_t tried, const DrawNow& draw);
    void rows_inside(std::int64_t k, std::int64_t n, std::int64_t tried);
    void decide(std::int64_t n = 1);
    bool unit_powered() const; // by what feeds it
    void stand_still();
    void act();
    void take_readings();
    void set_clock(Inputs& in, double time_of_day_s) const; // as the unit has it
    // What the tip of a probe, or an instrument, sees at an instant of the day; temp_c: of its node.
    double seen_by(std::size_t probe, double temp_c, double sun_w_m2, double time_of_day_s) const;
    const FaultPlan* plan() const { return counting_ && !setup().faults.empty() ? &setup().faults : nullptr; }
    void follow_faults(); // those that begin or end now
    void wire();
    double sun_on_probes(double t) const { return readings_.need_sun() ? plane_at(*day_, t) : 0.0; }
    std::uint64_t pressed_at(double time_of_day_s) const;
    template <class F>
    void tell(F f)
    {
        if (counting_)
            for (Listener* l : listeners_.all)
                f(*l);
    }

    std::shared_ptr<const Model> model_;
    std::shared_ptr<const Program> other_program_; // in place of the model's
    Integrator integrator_;
    HydraulicState hydraulics_;
    Pressure pressure_;
    Readings readings_;
    StepControl steps_;
    double sample_s_;
    std::vector<double> temps_, previous_;
    EngineState state_;
    Inputs inputs_;
    Decisions decisions_{};
    Acting acting_;
    std::uint32_t running_ = 0;
    ReadingBounds bounds_; // the skip was asked for
    std::shared_ptr<const DayForcing> day_;
    std::size_t day_index_ = 0;
    double day_start_s_ = 0, time_of_day_s_ = 0;
    double comes_round_l_min_ = 0, gauge_bar_ = 0; // while the step lasts
    bool gauged_ = false;                          // a rule reads the pressure
    bool dead_ = false;                            // no power
    struct Lived {
        EngineState state;
        double until_s; // its last sample
    };
    double decided_s_ = 0;       // when the unit last did
    std::optional<Lived> lived_; // the unit before it lost its power
    bool counting_ = false;
    bool touched_ = false;             // by hands, since the last sample: the next one is looked at by itself
    const Sensors* sensors_ = nullptr; // in place of the setup's, for a while
    Hands hands_;
    HydraulicState::Stands water_before_;
    std::int64_t rejected_ = 0;
    struct Listeners {
        std::vector<Listener*> all;
        Listeners() = default;
        Listeners(const Listeners&) {}
    } listeners_;
};

} // namespace vernal
