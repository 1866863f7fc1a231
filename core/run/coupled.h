// A coupled run: the pump changes the temperatures that decide about the pump.
#pragma once

#include "core/plant/integrator.h"
#include "core/plant/hydraulic_state.h"
#include "core/rules/engine.h"
#include "core/rules/rule_set.h"
#include "core/weather/day.h"
#include "figures.h"
#include "readings.h"

#include <functional>
#include <memory>
#include <stop_token>

namespace vernal {

struct Draw {
    double start_h = 7.0;
    double duration_s = 600.0;
    double flow_m3_s = 1e-4; // at the tap, tempered
    bool operator==(const Draw&) const = default;
};

// One day as it acts on the loop; points a minute, 1441 of them.
struct DayForcing {
    std::vector<double> air_c, net_sky_w_m2, plane_w_m2;  // plane_w_m2: on the first array, for showing
    std::array<std::vector<double>, sun_planes> sun_w_m2; // empty: not met by any part
    std::vector<Draw> draws;
    double mains_c = 10.0;
    double target_c = 45.0;                      // of the tapped water
    double outage_start_s = 0, outage_end_s = 0; // of the mains; equal: none
};

DayForcing forcing(const SkyDay& sky, const Loop& loop);

struct CoupledSetup {
    Loop loop;
    std::vector<ProbeSite> probes;
    Sensors sensors; // how the unit reads them
    Program program;
    std::array<Mode, max_outputs> modes{Mode::automatic, Mode::automatic, Mode::automatic, Mode::automatic};
    std::array<Drives, max_outputs> drives{};
    bool away = false;
    double resolution_k = 0.0;
    std::vector<std::shared_ptr<const DayForcing>> days; // at least one
    Fineness fine;
    double step_s = 0;        // > 0: fixed integration step; 0: as long as accuracy and thresholds allow
    double tolerance_k = 0.3; // of a step, to the second-order result
    int spin_up_days = 1;     // repeats of the first day before anything counts
    double start_tank_c = 35.0;
    double altitude_m = 0.0;
};

// One kept instant: after the decision of a sample.
struct Record {
    double time_s = 0;
    Inputs inputs;
    EngineState state;
    Decisions decisions;
    float plane_w_m2 = 0, air_c = 0;
    Flows flows;                     // from here on
    float volt = 0, charge = 0;      // at the motor or battery; of the battery, 0…1
    float pressure_pa = NAN;         // of a closed loop
    Trouble trouble = Trouble::none; // of the loop pump
};

struct CoupledResult {
    Figures figures;
    std::vector<Record> records; // one per step kept, dense where things happen
    std::vector<float> nodes;    // records × network size, °C
    std::size_t node_count = 0;
    EngineState first_state; // of the engine before the first counted sample
    bool cancelled = false;
};

// One row per sample, for writing out. Readings are those the engine saw.
struct SampleRow {
    double time_s;
    const Inputs& inputs;
    const Decisions& decisions;
    double air_c, plane_w_m2;
    double pressure_pa; // NaN: no closed loop
};

struct CoupledOptions {
    bool keep_records = true;
    std::function<void(const SampleRow&)> each_sample; // may be empty
    std::stop_token stop;
};

CoupledResult run_coupled(const CoupledSetup& setup, const CoupledOptions& options = {});

// Draw at an instant of the day: hot water heat capacity rate taken from the
// tank, W/K, through a tempering valve, and the rate of heat the draw needs, W.
struct DrawNow {
    double rate_w_k = 0, needed_w = 0;
};
// Power offered to the element at an instant of the day, W, where no output drives it.
double element_w(const Loop& loop, double time_of_day_s);

// The outputs as they act on the water; pumps turn as the decisions say.
Acting acting(const Program& program, const std::array<Drives, max_outputs>& drives, std::uint32_t running, const Decisions& decisions);

// What the unit reads of its supply where neither panel nor battery feeds it, mV.
inline constexpr MilliKelvin steady_supply_mv = 13000;

DrawNow draw_at(const DayForcing& day, double time_of_day_s, double tank_top_c);

Surroundings surroundings_at(const DayForcing& day, double time_of_day_s);

} // namespace vernal
