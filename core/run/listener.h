// Who wants to be told what happens in a simulation. Told in this order, for each
// accepted step: heat of its pieces, that it passed, rows of the samples inside it,
// then the decision at its end.
#pragma once

#include "core/plant/network.h"
#include "core/rules/engine.h"
#include "draws.h"

namespace vernal {

class Simulation;

// One row per sample, for writing out. Readings are those the engine saw.
struct SampleRow {
    double time_s;
    const Inputs& inputs;
    const Decisions& decisions;
    double air_c, plane_w_m2;
    double pressure_pa;     // NaN: no closed loop
    ChannelBits faults = 0; // channels whose readings count for nothing: invalid, or valid again but for too short a time
    bool made_up = false;   // of a replay: stands for the samples that a gap lacks
};

class Listener {
public:
    virtual ~Listener() = default;
    // A day of the simulation has begun; its first sample is that of the day before.
    virtual void day_began(const Simulation&) {}
    virtual void heat(const Simulation&, const HeatFlows&) {} // J
    // h seconds have passed with the outputs as they stood; water has not moved yet.
    virtual void passed(const Simulation&, double /*h*/, const DrawNow&) {}
    // The unit has looked; switched: an output or a drive is another than before.
    virtual void decided(const Simulation&, bool /*switched*/) {}
    // Rows cost a step of the engine each: only where someone wants them.
    virtual bool wants_rows() const { return false; }
    virtual void row(const SampleRow&) {}
};

} // namespace vernal
