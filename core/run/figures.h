// What a run comes to: the figures people compare.
#pragma once

#include "core/plant/hydraulic_state.h"
#include "core/plant/vessel.h"
#include "core/rules/program.h"

#include <array>
#include <cmath>
#include <string>
#include <vector>

namespace vernal {

struct PumpFigures {
    double run_time_s = 0;
    int starts = 0;
    double shortest_run_s = NAN; // of completed runs; none: NaN
    double median_run_s = NAN;
    double first_start_s = NAN; // seconds of the (first) day
    std::vector<double> runs_s; // completed runs in order
};

// Stops of an output that are alike.
struct Stops {
    // How the sun stood where a collecting rule asked no more.
    enum class Sun : std::uint8_t { none_of_it,
        slug,       // so soon after the start that what stood in the pipes was passing
        small_rise, // it shone, and this flow warms by less than the stop
        gone };
    std::size_t output = 0;
    std::int16_t held = -1, ended = -1; // rules: what had held it on, what holds it off now
    Priority held_by = Priority::nothing, ended_by = Priority::nothing;
    Sun sun = Sun::none_of_it;
    int count = 0;
    double shortest_s = INFINITY; // of the runs they ended
    double rise_k = 0;            // mean of what flow and sun could give
    double sun_w_m2 = 0;          // mean
    int at_minimum = 0;           // of them, runs that ended with the minimum run time
    bool alike(const Stops& o) const { return output == o.output && held == o.held && ended == o.ended && held_by == o.held_by && ended_by == o.ended_by && sun == o.sun; }
};

// Heat that the sun could have given while a pump that collects rested, by what held it.
struct MissedHeat {
    std::size_t output = 0;
    std::int16_t rule = -1; // that held it off; −1: a switch, a fault or nothing that asked for it
    Priority held_by = Priority::nothing;
    double time_s = 0;
    double heat_j = 0; // as if the store stayed as warm as it was then: what the parts are weighed by
};

struct Figures {
    HeatFlows heat; // J
    double pump_energy_j = 0;
    double needed_j = 0; // what raises the draw to its target
    double stored_change_j = 0;
    double highest_collector_c = -INFINITY, highest_store_c = -INFINITY;
    double above_limit_s = 0;        // the store at or above its limit, or another limited reading at its own
    double freezing_s = 0;           // a wet place below its fluid's freezing point (glycol: slush)
    double burst_s = 0;              // below the point at which it bursts pipe
    double first_freeze_s = NAN;     // when, of the (first) day
    std::string first_freeze_at;     // where
    double coldest_wet_c = INFINITY; // of the place that came nearest to freezing
    std::string coldest_wet_at;
    double frost_j = 0;                 // sent from the store through the array to keep it from freezing
    double night_loss_j = 0;            // carried from the store by a leaking check valve
    double short_j = 0;                 // missing at the tap: needed and not drawn
    double first_short_s = NAN;         // the first draw that stayed below its target
    double end_pressure_pa = NAN;       // cold again, of a closed loop
    double end_store_c = NAN;           // top of the store at the end
    double first_cut_s = NAN;           // of the battery
    double circulation_s = 0;           // the tap circulation runs
    double circulation_warmest_c = NAN; // that comes back from it then
    std::vector<PumpFigures> pumps;     // per output
    std::vector<Stops> stops;
    std::vector<MissedHeat> missed;
    double possible_j = NAN;     // to the store by a plain perfect controller, see core/setup/possible.h; NaN: not worked out
    double full_s = 0;           // with it, the store stood at its limit in the sun
    HydraulicFigures hydraulics; // of a drain-back array
    PowerFigures power;          // of a battery
    VesselFigures vessel;        // of a closed loop
    std::int64_t steps = 0, rejected = 0;
    int days = 1; // that were run

    // What of the draw's heat did not come from the element, Duffie & Beckman's
    // solar fraction 1 − auxiliary/load, with what is missing at the tap as auxiliary; NaN without draw.
    double solar_fraction() const { return needed_j > 0 ? (heat.drawn - heat.backup()) / needed_j : NAN; }
    // kWh of heat per kWh of pump; NaN when the pump never ran.
    double heat_per_pump() const { return pump_energy_j > 0 ? heat.to_store / pump_energy_j : NAN; }
    // What was collected of what was possible; NaN: not worked out, or no sun to speak of.
    double collected_share() const { return possible_j > 0.36e6 * days ? collected_j() / possible_j : NAN; }
    double collected_j() const { return heat.to_store + frost_j; } // J; what was sent up against frost is not lost by the collecting rules
    // What the energy balance leaves over, J; rounding only.
    double residual_j() const
    {
        return heat.kept() - stored_change_j;
    }
    int starts() const { return pumps.empty() ? 0 : pumps.front().starts; }
};

// Counts starts and runs of one output from its switching, seconds since the beginning.
class RunCounter {
public:
    explicit RunCounter(bool running = false) : running_(running), counted_(!running) {}
    void output(double time_s, bool on, PumpFigures& f);
    void passed(double seconds, PumpFigures& f) const { f.run_time_s += running_ ? seconds : 0.0; }
    static void finish(PumpFigures& f); // medians

private:
    bool running_;
    bool counted_; // a run that began before the day is no start and has no length
    double since_s_ = 0;
};

} // namespace vernal
