// Measured points to a curve: least squares, residuals in kelvin, the suspect.
#pragma once

#include "curve.h"

#include <cstdint>

#include <optional>

namespace vernal {

enum class FitLaw : std::uint8_t { beta,
    three_term };

struct Fit {
    ProbeCurve curve;
    std::vector<double> residual_k; // measured less fitted temperature at the measured ohms, by point
    double rms_k = 0;
    double rms_ln_r = 0;              // of ln R: 0.01 is 1 % of R
    std::vector<double> left_out_rms; // of ln R without this point; empty: too few points to leave one out, or over 200
    std::optional<std::size_t> suspect;
    std::vector<double> sigma; // standard errors of the law's numbers; empty: no freedom left
};

// Points as a technician has them: at least two for beta, three for three terms,
// at two or three different temperatures. Beta is fitted as ln R over 1/T, three
// terms as 1/T over ln R. Errors say what is wrong with the points.
Result<Fit> fit_curve(const std::vector<CurvePoint>& points, FitLaw law);

// A point is named a suspect where leaving it out makes the rest agree at least
// this many times better than leaving out any other.
inline constexpr double suspect_factor = 2.0;
// Below this the points agree too well to name any.
inline constexpr double agreement_rms_ln_r = 1e-3;

// Why these points cannot be used; nothing: they can. `least`: how many
// different temperatures are needed.
std::optional<Error> trouble_with(const std::vector<CurvePoint>& points, std::size_t least);

} // namespace vernal
