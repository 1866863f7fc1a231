#include "tolerance.h"

#include <array>
#include <cmath>
#include <cstdio>

namespace vernal {
namespace {

struct ClassLimit {
    double fixed_k, per_k;
    const char* name;
};
// IEC 60751:2008, table 2: ±(fixed + per_k |t|).
constexpr std::array<ClassLimit, 4> classes{{{0.1, 0.0017, "class AA"}, {0.15, 0.002, "class A"}, {0.3, 0.005, "class B"}, {0.6, 0.01, "class C"}}};

const ClassLimit& class_of(ToleranceKind kind) { return classes[static_cast<std::size_t>(kind) - static_cast<std::size_t>(ToleranceKind::class_aa)]; }

// d ln R / dT, 1/K.
double relative_slope(const ProbeCurve& curve, double t)
{
    constexpr double h = 0.01;
    return (std::log(signal_beyond(curve, t + h)) - std::log(signal_beyond(curve, t - h))) / (2 * h);
}

// Both shares act at once and the same way: ln R is off by the share of R and
// by the share of B times its own distance from 25 °C.
double percent_k(const ProbeCurve& curve, const Tolerance& tol, double t)
{
    if (!is_resistance(curve))
        return 0;
    const double from_b = falls(curve) ? tol.b_share * std::fabs(std::log(signal_beyond(curve, t) / signal_beyond(curve, 25))) : 0.0;
    return (tol.r_share + from_b) / std::fabs(relative_slope(curve, t));
}

} // namespace

double tolerance_k(const ProbeCurve& curve, const Tolerance& tol, double t)
{
    switch (tol.kind) {
    case ToleranceKind::none:
        return 0;
    case ToleranceKind::percent:
        return percent_k(curve, tol, t);
    case ToleranceKind::kelvin:
        return tol.kelvin;
    default:
        return class_of(tol.kind).fixed_k + class_of(tol.kind).per_k * std::fabs(t);
    }
}

std::string tolerance_text(const Tolerance& tol)
{
    char b[64];
    switch (tol.kind) {
    case ToleranceKind::none:
        return "not stated";
    case ToleranceKind::percent:
        std::snprintf(b, sizeof b, "%.3g %% of R, %.3g %% of B", 100 * tol.r_share, 100 * tol.b_share);
        return b;
    case ToleranceKind::kelvin:
        std::snprintf(b, sizeof b, "±%.3g K", tol.kelvin);
        return b;
    default:
        return class_of(tol.kind).name;
    }
}

} // namespace vernal
