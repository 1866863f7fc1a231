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

class Rig {
public:
    // The unit has just been given power; the loop is that day's at this hour. All probes are
    // in the loop, all switches as the variant has them.
    static Result<Rig> make(const Job& job, const Variant& v, const Day& day, double hour = 12);

    // On by whole samples of the unit.
    void advance(double seconds);
    double now_s() const { return since_s_; } // since it was made
    double sample_s() const { return sample_s_; }

    // --- under the hands -------------------------------------------------------
    void put(std::size_t probe, Medium medium);
    void put_resistor(std::size_t probe, double ohm); // > 0
    void set_lead(std::size_t probe, LeadState state);
    void set_air(double c) { air_c_ = c; }
    void pour(double c) { cup_c_ = c; }
    // The block goes to `c` at so many K a minute; 0: at once.
    void set_block(double c, double k_per_min = 0);
    void set_block_at_once(double c) { set_block(c); }
    void set_supply(std::optional<double> volt); // none: as the loop's supply stands
    void set_powered(bool on);
    void set_mode(std::size_t output, Mode mode);
    void set_bypass(std::size_t output, bool on);
    void all_automatic(); // and no bypass

    // --- what can be seen and measured ---------------------------------------------
    const Variant& variant() const { return variant_; }
    const Simulation& simulation() const { return simulation_; }
    Medium medium(std::size_t probe) const { return wires_[probe].medium; }
    LeadState lead(std::size_t probe) const { return wires_[probe].lead; }
    double medium_c(Medium m) const; // NaN: of the loop, of a resistor
    double tip_c(std::size_t probe) const;
    Reading reading(std::size_t probe) const { return simulation_.inputs().readings[probe]; } // as the unit shows it
    double signal(std::size_t probe) const;                                                   // at the terminals, disconnected from the unit: Ω, mA, V; infinite: open
    Mode mode(std::size_t output) const { return simulation_.inputs().modes[output]; }
    bool bypassed(std::size_t output) const { return (hands_.bypassed >> output & 1U) != 0; }
    const Decision& decision(std::size_t output) const { return simulation_.decisions()[output]; }
    bool live(std::size_t output) const;                                                         // there is voltage at its terminal
    bool turns(std::size_t output) const { return (simulation_.running() >> output & 1U) != 0; } // what it drives
    double watt(std::size_t output) const;                                                       // that it takes; of a pump that is stuck what it takes when it hums
    std::size_t probes() const { return variant_.probes.size(); }
    std::size_t outputs() const { return variant_.unit.outputs.size(); }

private:
    struct Wire {
        Medium medium = Medium::loop;
        LeadState lead = LeadState::sound;
        double tip_c = 20, ohm = 0;
    };
    Rig(const Variant& v, CoupledSetup setup);
    void warm(double dt);
    void rewire();
    Variant variant_;
    std::vector<std::string> dead_; // outputs whose pump a painted fault keeps from turning
    Simulation simulation_;
    std::vector<Wire> wires_;
    Hands hands_;
    double since_s_ = 0, sample_s_ = 1;
    double air_c_ = 20, cup_c_ = 60, block_c_ = 25, block_to_c_ = 25, block_k_s_ = 0;
};

} // namespace vernal
