// The unit's input: how ohms become volts, counts and a temperature again.
#pragma once

#include "curve.h"

#include <cstdint>
#include <vector>

namespace vernal {

//  exact:   the unit reads the signal as it is, without counts
//  pull_up: the probe to ground, a resistor from it to the supply, a converter
//           that has the supply for its reference
//  bridge:  collector probe to the supply, store probe to ground, their middle to
//           a comparator; the unit knows the difference only as a voltage
enum class StageKind : std::uint8_t { exact,
    pull_up,
    bridge };

struct InputStage {
    StageKind kind = StageKind::exact;
    double supply_v = 5.0;      // > 0
    double pull_up_ohm = 10000; // > 0
    double gain = 1.0;          // about half the supply, ≥ 0.1; the result stays within the supply
    int bits = 10;              // of the converter, 6…24; of a straight signal over 0…20 mA, 0…5 V or 0…10 V
    double low_c = -60;         // outside of low … high the unit calls the probe open or shorted
    double high_c = 350;
    double mismatch_k = 0;  // two of its inputs may read the same probe this far apart
    double scale_at_c = 40; // bridge: the store temperature the unit's scale of differences is right at
    bool operator==(const InputStage&) const = default;
};

// Volts at the converter for a resistance, after the gain. ohm may be infinite.
double divider_volt(const InputStage& stage, double ohm);
double bridge_volt(const InputStage& stage, double collector_ohm, double store_ohm);

// Resistance that gives this converter voltage; ≤ 0 or infinite at the ends.
double ohm_of_divider(const InputStage& stage, double volt);

// Full scale of the converter, in volts or in the straight signal's own unit.
double full_scale(const InputStage& stage, const ProbeCurve& curve);
// One count in kelvin at a temperature; infinite where the stage is at its stop, 0: exact.
double kelvin_per_count(const InputStage& stage, const ProbeCurve& curve, double temp_c);

// Heat in the probe by the measuring current, W; 0: exact, or a straight signal.
// `other_ohm`: in a bridge the probe in the other half.
double probe_power_w(const InputStage& stage, double ohm, double other_ohm);

// Pull-up whose coarsest count between low_c and high_c is finest, Ω, exact and
// as the nearest of the E24 series (IEC 60063).
struct PullUpChoice {
    double best_ohm = 0, e24_ohm = 0;
    double coarsest_k = 0; // per count with the E24 value
};
PullUpChoice best_pull_up(const InputStage& stage, const ProbeCurve& curve, double low_c, double high_c);

// A bridge of two equal probes: collector above store, K, at which the bridge
// gives this voltage; NaN where none within ±250 K does.
double bridge_difference_k(const InputStage& stage, const ProbeCurve& curve, double volt, double store_c);

} // namespace vernal
