// Keeps what a run was like at its instants: dense where things happen.
#pragma once

#include "listener.h"
#include "simulation.h"

#include <cmath>

namespace vernal {

// One kept instant: after the decision of a sample.
struct Record {
    double time_s = 0;
    Inputs inputs;
    EngineState state;
    Decisions decisions;
    std::uint32_t running = 0; // what came out of the outputs
    float plane_w_m2 = 0, air_c = 0;
    Flows flows;                     // from here on
    float volt = 0, charge = 0;      // at the motor or battery; of the battery, 0…1
    float pressure_pa = NAN;         // of a closed loop
    Trouble trouble = Trouble::none; // of the loop pump
};

class Recorder : public Listener {
public:
    // nodes: of the network. Between what happens one record in 20 s times the days, at most 300 s.
    Recorder(std::size_t nodes, std::size_t days);
    void day_began(const Simulation& s) override { keep(s, true); }
    void decided(const Simulation& s, bool switched) override { keep(s, switched); }

    std::vector<Record> records;
    std::vector<float> nodes; // records × network size, °C

private:
    void keep(const Simulation& s, bool always);
    double every_s_;
};

} // namespace vernal
