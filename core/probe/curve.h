// What a temperature probe's signal means, both ways: ohms of a resistance
// probe, milliamperes or volts of a transmitter.
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
// Research 15 (1968) 497). b > 0; c < 0 only where it still falls over the whole range.
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
struct TableCurve {
    std::vector<CurvePoint> points;
    bool operator==(const TableCurve&) const = default;
};

// R = r_ohm (1 + c1 Δ + c2 Δ² + …), Δ = t − ref_c: nickel about 0 °C, silicon
// about 25 °C. One to six coefficients, rising over the curve's whole range.
struct PolynomialCurve {
    double ref_c = 0.0;
    double r_ohm = 1000.0;
    std::vector<double> c;
    bool operator==(const PolynomialCurve&) const = default;
};

// A straight signal: `low` at low_c, `high` at high_c; low ≠ high, low_c < high_c.
// Milliamperes or volts, as `ampere` says.
struct LinearSignal {
    bool ampere = true;
    double low = 4, high = 20;
    double low_c = 0, high_c = 100;
    bool operator==(const LinearSignal&) const = default;
};

struct ProbeCurve {
    std::variant<PlatinumCurve, NtcBetaCurve, NtcThreeTermCurve, TableCurve, PolynomialCurve, LinearSignal> law;
    double min_c = -50.0; // range the curve is good for, °C
    double max_c = 200.0;
    bool operator==(const ProbeCurve&) const = default;
};

// "Ω", "mA" or "V".
const char* signal_unit(const ProbeCurve& curve);
inline bool is_resistance(const ProbeCurve& curve) { return !std::holds_alternative<LinearSignal>(curve.law); }
// True where the resistance falls as the probe warms.
bool falls(const ProbeCurve& curve);

// Signal in the curve's own unit. Error outside the curve's range.
Result<double> signal_at(const ProbeCurve& curve, Temperature t);

// Temperature. Error where a resistance is not positive or the signal means a
// temperature outside the curve's range.
Result<Temperature> temperature_at(const ProbeCurve& curve, double signal);

// Slope in signal units per kelvin. Error outside the range.
Result<double> slope_at(const ProbeCurve& curve, Temperature t);

// The same without the check of the range, as a unit goes on computing when a
// lead breaks. Tables go on as their last two points lead. °C; infinite for hardly any
// ohms, NaN where the law gives none.
double signal_beyond(const ProbeCurve& curve, double temp_c);
double temperature_beyond(const ProbeCurve& curve, double signal);

// Three-term coefficients through three points. Error when two points coincide
// or a value is not positive.
Result<NtcThreeTermCurve> three_term_through(const CurvePoint& p, const CurvePoint& q, const CurvePoint& r);

// Curve from its short text (docs/probes.md), with an optional range behind it:
//   pt100 | pt1000 | pt:500 | ntc:r25=10000,beta=3950 | abc:1e-3,2e-4,1e-7 |
//   table:0=32650,25=10000,50=3602 | poly:at=25,r=2000,c=7.88e-3/1.937e-5 |
//   line:mA=4..20,c=0..100 | line:V=0..10,c=0..100 |  … ;range=-40..125
// and the text back. Error names the part that could not be read.
Result<ProbeCurve> parse_curve(const std::string& text);
std::string curve_text(const ProbeCurve& curve);

} // namespace vernal
