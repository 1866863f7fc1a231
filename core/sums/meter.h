// What a meter's reading says about a probe, before anything else is asked.
#pragma once

#include "core/job/job.h"
#include "core/probe/identify.h"

namespace vernal {

struct MeterReading {
    double signal = 0;      // Ω, or mA or V by the probe's curve; infinite: over range
    bool connected = false; // the unit still hangs on the probe
    double beside_c = NAN;  // of a thermometer at the same place; NaN: none
};

struct MeterAnswer {
    double alone = NAN;                // signal of the probe without the unit beside it; NaN: none can be
    double read_c = NAN;               // by its curve; NaN: the curve has none
    double off_k = NAN;                // read less thermometer
    double allowed_k = NAN;            // how far a sound one may be off: its tolerance, meter and thermometer
    std::vector<ConditionKind> likely; // likeliest first; empty: this reading shows no trouble
    std::string reads;                 // "24.6 °C, ± 0.4 K"
    std::string says;                  // what that is, and what to do, in a sentence or two
    bool sound() const { return std::isfinite(off_k) && likely.empty(); }
};

// book: curves among which another is looked for where this one does not fit.
MeterAnswer meter_answer(const Variant& v, std::size_t probe, const MeterReading& reading, const CurveBook& book, const Units& units);

// Reads "1097", "10.2 k", "10.2 kΩ", "OL". Error: not a reading.
Result<double> meter_signal(const std::string& text, const ProbeCurve& curve);

} // namespace vernal
