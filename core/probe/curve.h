// What a temperature probe's resistance means, both ways.
#pragma once

#include "core/units/result.h"
#include "core/units/temperature.h"

#include <string>
#include <variant>
#include <vector>

namespace vernal {

// IEC 60751: R = R0 (1 + A t + B t² + C (t − 100) t³ for t < 0 °C), valid
// −200…850 °C. r0_ohm > 0, 100 for a Pt100, 1000 for a Pt1000.
struct PlatinumCurve {
    double r0_ohm = 1000.0;
    bool operator==(const PlatinumCurve&) const = default;
};

// R = R25 exp(B (1/T − 1/298.15 K)). r25_ohm > 0, beta_k > 0.
struct NtcBetaCurve {
    double r25_ohm = 10000.0;
    double beta_k = 3950.0;
    bool operator==(const NtcBetaCurve&) const = default;
};

// 1/T = a + b ln R + c (ln R)³, T in kelvin, R in ohm (Steinhart & Hart, Deep-Sea
// Research 15 (1968) 497). b > 0 and c ≥ 0 make it monotone.
struct NtcThreeTermCurve {
    double a = 0, b = 0, c = 0;
    bool operator==(const NtcThreeTermCurve&) const = default;
};

struct CurvePoint {
    double temp_c = 0;
    double ohm = 0;
    bool operator==(const CurvePoint&) const = default;
};

// Monotone cubic (Fritsch–Carlson) of ln R over 1/T through the points.
// At least two points, temperatures rising, resistances strictly monotone.
struct NtcTableCurve {
    std::vector<CurvePoint> points;
    bool operator==(const NtcTableCurve&) const = default;
};

struct ProbeCurve {
    std::variant<PlatinumCurve, NtcBetaCurve, NtcThreeTermCurve, NtcTableCurve> law;
    double min_c = -50.0; // range the curve is good for, °C
    double max_c = 200.0;
    bool operator==(const ProbeCurve&) const = default;
};

// Resistance in ohm. Error outside the curve's range.
Result<double> ohm_at(const ProbeCurve& curve, Temperature t);

// Temperature. Error where the resistance is not positive or means a
// temperature outside the curve's range.
Result<Temperature> temperature_at(const ProbeCurve& curve, double ohm);

// Slope dR/dT in ohm per kelvin. Error outside the range.
Result<double> slope_at(const ProbeCurve& curve, Temperature t);

// Three-term coefficients through three points. Error when two points coincide
// or a value is not positive.
Result<NtcThreeTermCurve> three_term_through(const CurvePoint& p, const CurvePoint& q, const CurvePoint& r);

// Curve from its short text:
//   pt100 | pt1000 | ntc:r25=10000,beta=3950 | abc:1e-3,2e-4,1e-7 |
//   table:0=32650,25=10000,50=3602
// and the text back. Error names the part that could not be read.
Result<ProbeCurve> parse_curve(const std::string& text);
std::string curve_text(const ProbeCurve& curve);

} // namespace vernal
