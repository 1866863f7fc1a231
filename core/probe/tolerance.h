// How far a sound probe may lie off its curve.
#pragma once

#include "curve.h"

#include <cstdint>

namespace vernal {

//  class_aa … class_c: IEC 60751:2008, table 2, of platinum probes
//  percent: of the resistance at 25 °C and of beta, as thermistors are sold
//  kelvin: a figure in kelvin, the same everywhere
enum class ToleranceKind : std::uint8_t { none,
    class_aa,
    class_a,
    class_b,
    class_c,
    percent,
    kelvin };

struct Tolerance {
    ToleranceKind kind = ToleranceKind::none;
    double r_share = 0.01; // 0…1; of R at 25 °C
    double b_share = 0.01; // 0…1; of beta, or of the slope of ln R over 1/T
    double kelvin = 0.5;   // K, ≥ 0
    bool operator==(const Tolerance&) const = default;
};

// Largest error of the probe at a temperature, ± K; NaN outside the law.
double tolerance_k(const ProbeCurve& curve, const Tolerance& tolerance, double temp_c);

// "class B", "1 % of R, 1 % of B", "±0.5 K", "not stated".
std::string tolerance_text(const Tolerance& tolerance);

} // namespace vernal
