// A unit on the bench: its probes as wires that end in what they should feel, its supply and
// its switches under the hands, and the loop that it would drive. One engine, the
// simulation's, decides.
#pragma once

#include "core/job/job.h"
#include "core/run/simulation.h"

namespace vernal {

// What the end of a probe's wire is in.
enum class Medium : std::uint8_t { loop, // where the job says, in the simulated plant
    air,                                 // of the bench
    hand,
    ice_water,
    cup,        // of hot water, which cools
    block,      // a dry block, kept at what is set
    resistor }; // in place of the probe
inline constexpr std::array medium_keys{"loop", "air", "hand", "ice_water", "cup", "block", "resistor"};

enum class LeadState : std::uint8_t { sound,
    broken,
    shorted,
    wet };
inline constexpr std::array lead_keys{"sound", "broken", "shorted", "wet"};

// What eyes, ears and hands find at the loop, besides what its settings say.
struct OnSite {
    bool relief_stuck = false, relief_drips = false; // does not let out when lifted; does not hold afterwards
    bool tempering_fails = false;                    // the valve before the taps lets hot water through
    bool second_pump_stands = false;                 // of two on one output
};

// A question that is answered with yes where all is well.
enum class Fact : std::uint8_t { vent_shut,
    relief_lets_out,
    relief_holds,
    runs_quiet,  // no air is heard in the return
    shaft_turns, // of every pump that is on
    none };      // in other words: only a person can tell
inline constexpr std::array fact_texts{"the vent is shut", "the relief valve lets out when lifted", "the relief valve holds afterwards", "it runs without the sound of air", "the shaft turns"};

class Rig {
public:
    // The unit has just been given power; the loop is that day's at this hour. All probes are
    // in the loop, all switches as the variant has them.
    static Result<Rig> make(const Job& job, const Variant& v, const Day& day, double hour = 12, const OnSite& on_site = {});

    // On by whole samples of the unit.
    void advance(double seconds);
    double now_s() const { return since_s_; } // since it was made
    double sample_s() const { return sample_s_; }

    // --- under the hands -------------------------------------------------------
    void put(std::size_t probe, Medium medium);
    void put_resistor(std::size_t probe, double ohm); // > 0
    // A diode in place of the probe, by its forward voltage: the resistance that drops it at the
    // input's own current; where the input states none, at 1 mA (estimate). Below the input's supply.
    void put_diode(std::size_t probe, double volt); // > 0
    void set_lead(std::size_t probe, LeadState state);
    void open_contact(std::size_t probe, bool open); // a switch in its lead, as a thermostat or a flow switch is
    void shade(std::size_t probe, bool on);          // a board is held over it
    void set_air(double c) { air_c_ = c; }
    void pour(double c) { cup_c_ = c; }
    // The block goes to `c` at so many K a minute; 0: at once.
    void set_block(double c, double k_per_min = 0);
    void set_block_at_once(double c) { set_block(c); }
    // At the unit's terminals, so many V a minute; 0: at once. None: as the loop's supply stands.
    void set_supply(std::optional<double> volt, double v_per_min = 0);
    // Sun on the panel that the pump hangs on, W/m²; none: of the day. Takes the supply's place.
    void set_panel_sun(std::optional<double> w_m2);
    bool has_panel() const; // straight on the pump, without a battery
    // Other settings of the same outputs and sampling period; the unit begins anew by them, the loop
    // goes on. Error: they cannot be run; then nothing changes.
    Result<std::monostate> set_rules(const RuleSet& unit);
    void turn_knob(double mark); // of a unit that has one; it begins anew by it
    void set_powered(bool on);
    void set_mode(std::size_t output, Mode mode);
    void set_bypass(std::size_t output, bool on);
    void all_automatic(); // and no bypass

    // --- what can be seen and measured ---------------------------------------------
    const Variant& variant() const { return variant_; }
    const Simulation& simulation() const { return *simulation_; }
    Medium medium(std::size_t probe) const { return wires_[probe].medium; }
    LeadState lead(std::size_t probe) const { return wires_[probe].lead; }
    double medium_c(Medium m) const; // NaN: of the loop, of a resistor
    double tip_c(std::size_t probe) const;
    Reading reading(std::size_t probe) const { return simulation_->inputs().readings[probe]; } // as the unit shows it
    double signal(std::size_t probe) const;                                                    // at the terminals, disconnected from the unit: Ω, mA, V; infinite: open
    Mode mode(std::size_t output) const { return simulation_->inputs().modes[output]; }
    bool bypassed(std::size_t output) const { return (hands_.bypassed >> output & 1U) != 0; }
    const Decision& decision(std::size_t output) const { return simulation_->decisions()[output]; }
    bool live(std::size_t output) const;                                                          // there is voltage at its terminal
    bool turns(std::size_t output) const { return (simulation_->running() >> output & 1U) != 0; } // what it drives
    double watt(std::size_t output) const;                                                        // that it takes; of a pump that is stuck what it takes when it hums
    bool contact_open(std::size_t probe) const { return wires_[probe].contact_open; }
    bool shaded(std::size_t probe) const { return wires_[probe].shaded; }
    std::optional<double> panel_sun() const { return panel_sun_; }
    bool supply_by_hand() const { return hands_.supply_v.has_value() && !panel_sun_; }
    bool powered() const { return hands_.powered; }
    double supply_v() const { return simulation_->inputs().readings[supply_channel].mk / 1000.0; } // at the unit's terminals
    double speed(std::size_t output) const;                                                        // of the pump it drives, 0…1; on direct current by the supply
    double drive_share() const;                                                                    // of its speed, what panel or battery would give a pump now; 1: the mains
    double rated_w(std::size_t output) const;                                                      // of the pumps it drives, at the set speed and its own now
    double altitude_m() const { return job_->site.place.altitude_m; }
    int pumps_turning() const;
    int pumps() const;       // of the loop
    double bridge_v() const; // of a bridge of source and store; NaN: the unit has none

    // By instruments and eyes at the loop. NaN: it has nothing of the kind.
    double flow_l_min() const;        // that comes round, of all arrays
    double should_flow_l_min() const; // at the pumps' present speed, as stated for them
    double rise_k() const;            // return over supply pipe
    double gauge_bar() const;
    double cold_gauge_bar() const;                   // once all is cold again
    double vessel_gas_bar() const;                   // with nothing on the loop's side of it
    double signal_of_fault(std::size_t probe) const; // as signal(), a painted fault of the probe with it
    double sun_w_m2() const;                         // on the first array, now
    double clear_sun_w_m2() const;                   // likewise, without shades
    double air_c_now() const;
    double array_c() const; // the hottest
    double hot_c() const;   // at the top of what is drawn from
    double tap_c() const;   // behind the tempering valve
    double tap_set_c() const;
    double pitch() const { return variant_.loop.drain_back.pitch; }
    Filling water() const { return simulation_->hydraulics().filling(); } // of a drain-back array
    bool emptied() const;                                                 // nothing stands in array and pipe any more
    bool full() const { return water() == Filling::running; }
    bool is_so(Fact f) const; // of what it knows about
    std::size_t probes() const { return variant_.probes.size(); }
    std::size_t outputs() const { return variant_.unit.outputs.size(); }

private:
    struct Wire {
        Medium medium = Medium::loop;
        LeadState lead = LeadState::sound;
        bool contact_open = false, shaded = false;
        double tip_c = 20, ohm = 0;
    };
    Rig(const Variant& v, CoupledSetup setup);
    std::size_t driven_by(Driver d) const;
    bool asked(std::size_t output) const { return decision(output).on || bypassed(output); }
    double asked_speed(std::size_t output) const;
    void warm(double dt);
    void rewire();
    Variant variant_;
    std::vector<std::string> dead_;        // outputs whose pump a painted fault keeps from turning
    std::optional<Simulation> simulation_; // always there
    std::vector<Wire> wires_;
    Hands hands_;
    double since_s_ = 0, sample_s_ = 1;
    double air_c_ = 20, cup_c_ = 60, block_c_ = 25, block_to_c_ = 25, block_k_s_ = 0;
    double panel_v(double sun_w_m2) const;
    std::optional<double> panel_sun_;
    double supply_to_v_ = 0, supply_v_s_ = 0; // 0: it stands
    std::shared_ptr<const Job> job_;          // and the day: it is laid out anew from them
    Day day_;
    OnSite on_site_;
};

} // namespace vernal
