// What a coupled run is made of: the pump changes the temperatures that decide
// about the pump.
#pragma once

#include "core/plant/network.h"
#include "core/rules/engine.h"
#include "core/rules/rule_compiler.h"
#include "core/rules/rule_set.h"
#include "fault_plan.h"
#include "readings.h"
#include "weather_at.h"

#include <memory>

namespace vernal {

struct CoupledSetup {
    Loop loop;
    std::vector<ProbeSite> probes;
    Sensors sensors; // how the unit reads them
    Program program;
    std::vector<OutOfAction> out_of_action; // rules that the program leaves out
    std::array<Mode, max_outputs> modes = all_automatic;
    std::array<Drives, max_outputs> drives{};
    // Outputs with which this one opens at once: a motorised check valve that follows a
    // pump without delay is wired beside it, whatever sample the unit shows it at.
    std::array<std::uint32_t, max_outputs> opens_with{};
    // What the store bears, whether or not a rule keeps to it.
    struct BornBy {
        ProbePlace place;
        double limit_c;
    };
    std::vector<BornBy> store_limits;
    bool away = false;
    double resolution_k = 0.0;
    std::vector<std::shared_ptr<const DayForcing>> days; // at least one
    std::shared_ptr<const DayForcing> before;            // what is repeated before they count; none: the first of them
    Fineness fine;
    double step_s = 0;        // > 0: fixed integration step; 0: as long as accuracy and thresholds allow
    double tolerance_k = 0.3; // of a step, to the second-order result
    // Before anything counts the first day is repeated up to so often, until the store's mean
    // returns within 0.1 K.
    int spin_up_days = 3;
    bool draws_before = true; // in these repeats
    // A pool or a slab stands at its start again after each repeat, a battery at its stated charge.
    double start_tank_c = 35.0;
    std::vector<double> start_c{}; // of every node, in place of these; of another size: not used
    double altitude_m = 0.0;
    FaultPlan faults{}; // of the days that count
    CoupledSetup();
    CoupledSetup(const CoupledSetup&);
    CoupledSetup(CoupledSetup&&) noexcept;
    CoupledSetup& operator=(const CoupledSetup&);
    CoupledSetup& operator=(CoupledSetup&&) noexcept;
    ~CoupledSetup();
};

// What the unit reads of its supply where neither panel nor battery feeds it, mV.
inline constexpr MilliKelvin steady_supply_mv = 13000;

} // namespace vernal
