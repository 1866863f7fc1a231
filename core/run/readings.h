// What the unit reads of the probes' tips at an instant, and between which
// bounds over a stretch.
#pragma once

#include "core/probe/instrument.h"
#include "core/rules/engine.h"

#include <functional>
#include <optional>

namespace vernal {

// The probes of a unit as they are wired. Empty: every input reads its tip.
struct Sensors {
    std::vector<ReadingChain> chains; // by input
    std::vector<std::size_t> tip;     // by input: the probe that sits on it
    struct Pair {
        std::size_t collector, store; // inputs
        BridgeChain chain;
    };
    std::optional<Pair> bridge;
    std::vector<InstrumentChain> instruments; // by input; empty: none
    const InstrumentChain* instrument(std::size_t input) const { return input < instruments.size() && instruments[input].present() ? &instruments[input] : nullptr; }
};

// Of one run; its chains remember counts.
class Readings {
public:
    Readings(const Sensors& sensors, std::size_t inputs, double resolution_k);
    bool need_sun() const { return need_sun_; }
    // What an input's instrument reads; a temperature where it has none.
    Reads reads(std::size_t input) const { return sensors_.instrument(input) ? sensors_.instrument(input)->reads() : Reads::temperature; }
    // tips: temperature of each probe's tip, °C, or what its instrument sees, L/min, bar,
    // W/m². sun: on the array, W/m².
    using Tips = std::array<double, max_probes>;
    void read(const Tips& tips, double sun_w_m2, Inputs& in) const;
    // Every reading while each tip keeps within low … high and the sun likewise.
    // False: some probe may turn valid or invalid meanwhile.
    bool bound(const Tips& low, const Tips& high, double sun_low, double sun_high, ReadingBounds& out) const;

private:
    bool by_bridge(std::size_t input) const { return sensors_.bridge && sensors_.bridge->collector == input; }
    Seen own(const Tips& tips, double sun, std::size_t input) const;
    Seen seen(const Tips& tips, double sun, std::size_t input) const;
    MilliKelvin whole(std::size_t input, double reading) const;
    struct Span {
        Seen low, high;
    };
    std::optional<Span> bridge_span(const Tips& low, const Tips& high, double sun_low, double sun_high) const;
    Sensors sensors_;
    std::size_t inputs_;
    double resolution_k_;
    bool need_sun_ = false;
};

} // namespace vernal
