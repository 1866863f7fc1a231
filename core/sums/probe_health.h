// What each trouble of a probe looks like, in ohms and in a trace.
#pragma once

#include "core/job/job.h"

namespace vernal {

struct FaultSign {
    ConditionKind kind = ConditionKind::open; // sound: nothing that a condition could be set to
    std::string title;
    std::string at_meter; // probe disconnected
    std::string in_trace;
    std::string check; // what proves it
};

// With the figures of this probe at 20 °C on this unit.
std::vector<FaultSign> fault_signs(const Variant& v, std::size_t probe, const Units& units);

// The unit's limits of what it takes for broken, as signals at its terminals.
struct DetectionLimits {
    double low_c = 0, high_c = 0;
    double at_low = 0, at_high = 0; // in the curve's unit; NaN: the curve has none there
};
DetectionLimits detection_limits(const Variant& v, std::size_t probe);

// Two probes in the same place: what each reads of its ohms, how far apart they
// are, and how far apart two sound ones may be. Errors: ohms off the curve.
struct SideBySide {
    double this_c = 0, other_c = 0;
    double apart_k = 0;   // this less other
    double allowed_k = 0; // both tolerances and the meter
    bool sound() const { return apart_k <= allowed_k && apart_k >= -allowed_k; }
};
Result<SideBySide> side_by_side(const Variant& v, std::size_t probe, double signal, std::size_t other, double other_signal, double meter_share);

// Reading of a probe with this lag, s, that stood at from_c and was put at time 0
// into to_c; and after how long it reaches a temperature, s (infinite: never).
double warming_c(double lag_s, double from_c, double to_c, double after_s);
double reaches_after_s(double lag_s, double from_c, double to_c, double wanted_c);

} // namespace vernal
