// From the warmth of the probe's tip to the figure the rules work with:
// element → self-heating → lead → input stage → count → temperature → correction.
// Lag and placement come before it and are nodes of the loop (core/plant).
#pragma once

#include "input_stage.h"
#include "lead.h"
#include "tolerance.h"

#include <cstdint>
#include <vector>

namespace vernal {

// What is wrong with a probe. swapped: two probes that say so sit on each other's inputs.
enum class ConditionKind : std::uint8_t { sound,
    open,
    shorted,
    stuck,
    drifted,
    in_sun,
    swapped };

struct Condition {
    ConditionKind kind = ConditionKind::sound;
    double stuck_c = 40;      // stuck: what it reads for ever
    double drift_share = 0.1; // drifted: of its resistance, −0.9…9
    double sun_k = 15;        // in_sun: K above its place at 1000 W/m²
    bool operator==(const Condition&) const = default;
};

// The sensing element besides its curve.
struct Sensor {
    Tolerance tolerance;
    double share = 0;           // where in its tolerance this one lies, −1…1 of it, in kelvin read
    double dissipation_w_k = 0; // W per kelvin of self-heating, in its place; 0: not stated
    double rated_c = 0;         // highest temperature it bears; 0: not stated
    bool operator==(const Sensor&) const = default;
};

struct ChainSpec {
    ProbeCurve curve;      // of the probe
    ProbeCurve unit_curve; // what the unit reads it by
    Sensor sensor;
    Lead lead;
    InputStage stage;
    double correction_k = 0; // added by the unit at the end
    Condition condition;
};

// What the unit makes of it.
struct Seen {
    double temp_c = 0; // meaningless where it is not valid
    bool valid = true; // false: the unit calls it open or shorted
};

// y over an even grid of x, Hermite with the harmonic slopes of Fritsch and
// Butland (SIAM J. Sci. Stat. Comput. 5 (1984) 300): monotone where the data are.
class EvenCurve {
public:
    EvenCurve() = default;
    EvenCurve(double first, double step, std::vector<double> y);
    double at(double x) const; // held at the ends
private:
    double first_ = 0, step_ = 1;
    std::vector<double> y_, slope_;
};

// For a run it is prepared on a grid of temperatures: at() is cheap then. For a
// single look that is not worth while. at() rises with the tip's temperature and
// keeps a memory of the counts it has met: not to be shared between threads.
class ReadingChain {
public:
    enum class For { run,
        look };
    explicit ReadingChain(ChainSpec spec, For use = For::run);
    // tip_c: the tip without the chain's own heating; sun_w_m2: on the array.
    Seen at(double tip_c, double sun_w_m2) const;
    bool plain() const { return plain_; } // reads the tip as it is
    // Ohms (mA, V) at the unit's terminals. Infinite: open.
    double terminal_signal(double tip_c) const;
    const ChainSpec& spec() const { return spec_; }

private:
    double element_signal(double tip_c) const;
    double of_terminal(double signal) const; // exact stage: temperature; else counts, not yet whole
    double of_count(double count) const;
    Seen judged(double temp_c) const;
    ChainSpec spec_;
    bool plain_ = false, constant_ = false, prepared_ = false;
    Seen constant_seen_;
    EvenCurve map_;
    mutable std::vector<float> by_count_;
};

// Two probes of a bridge: the store's reading by its own chain, the collector's
// as that plus the difference the unit's scale gives for the voltage.
class BridgeChain {
public:
    BridgeChain(ChainSpec collector, ChainSpec store);
    // What the scale gives for the pair, K; NaN: a lead is open or shorted. Goes
    // one way with each of the tips.
    double difference_k(double collector_tip_c, double store_tip_c, double sun_w_m2) const;
    // The collector's reading; store: what the store's own chain gives.
    Seen collector(double difference_k, const Seen& store) const;
    // A stuck collector input takes no notice of the bridge.
    bool stuck() const { return collector_.spec().condition.kind == ConditionKind::stuck; }

private:
    ReadingChain collector_, store_;
    InputStage stage_;
    EvenCurve scale_; // voltage → difference, K
};

} // namespace vernal
