#include "curve.h"

#include "monotone.h"

#include <cmath>
#include <cstdio>

namespace vernal {
namespace {

constexpr double iec_a = 3.9083e-3;  // IEC 60751:2008, clause 4
constexpr double iec_b = -5.775e-7;
constexpr double iec_c = -4.183e-12;
constexpr double k0 = 273.15;
constexpr double t25_k = 298.15;

double platinum_ratio(double t)
{
    const double below = t < 0 ? iec_c * (t - 100) * t * t * t : 0.0;
    return 1 + iec_a * t + iec_b * t * t + below;
}

double platinum_ratio_slope(double t)
{
    const double below = t < 0 ? iec_c * (4 * t * t * t - 300 * t * t) : 0.0;
    return iec_a + 2 * iec_b * t + below;
}

double ohm_of(const PlatinumCurve& c, double t) { return c.r0_ohm * platinum_ratio(t); }

double ohm_of(const NtcBetaCurve& c, double t) { return c.r25_ohm * std::exp(c.beta_k * (1 / (t + k0) - 1 / t25_k)); }

// Newton on x = ln R; the cubic is monotone where b > 0, c >= 0.
double ohm_of(const NtcThreeTermCurve& c, double t)
{
    const double target = 1 / (t + k0);
    double x = (target - c.a) / c.b;
    for (int i = 0; i < 60; ++i) {
        const double step = (c.a + c.b * x + c.c * x * x * x - target) / (c.b + 3 * c.c * x * x);
        x -= step;
        if (std::fabs(step) < 1e-14 * (1 + std::fabs(x)))
            break;
    }
    return std::exp(x);
}

// Abscissa −1/T rises with temperature.
MonotoneCubic table_spline(const NtcTableCurve& c)
{
    std::vector<double> x, y;
    for (const CurvePoint& p : c.points) {
        x.push_back(-1 / (p.temp_c + k0));
        y.push_back(std::log(p.ohm));
    }
    return MonotoneCubic(std::move(x), std::move(y));
}

double ohm_of(const NtcTableCurve& c, double t) { return std::exp(table_spline(c).at(-1 / (t + k0))); }

double temp_of(const PlatinumCurve& c, double ohm)
{
    const double w = ohm / c.r0_ohm;
    double t = (-iec_a + std::sqrt(iec_a * iec_a - 4 * iec_b * (1 - w))) / (2 * iec_b);
    if (!(t < 0))
        return t;
    for (int i = 0; i < 40; ++i) {
        const double step = (platinum_ratio(t) - w) / platinum_ratio_slope(t);
        t -= step;
        if (std::fabs(step) < 1e-12)
            break;
    }
    return t;
}

double temp_of(const NtcBetaCurve& c, double ohm) { return 1 / (1 / t25_k + std::log(ohm / c.r25_ohm) / c.beta_k) - k0; }

double temp_of(const NtcThreeTermCurve& c, double ohm)
{
    const double x = std::log(ohm);
    return 1 / (c.a + c.b * x + c.c * x * x * x) - k0;
}

double temp_of(const NtcTableCurve& c, double ohm)
{
    const auto x = table_spline(c).find(std::log(ohm));
    return x ? -1 / *x - k0 : std::nan("");
}

Error out_of_range(const ProbeCurve& c, const char* what)
{
    char text[160];
    std::snprintf(text, sizeof text, "%s is outside this curve, which is good for %.0f to %.0f °C", what, c.min_c, c.max_c);
    return Error{text, "", "Check for an open or shorted lead, or choose another curve"};
}

bool in_range(const ProbeCurve& c, double t) { return t >= c.min_c - 1e-9 && t <= c.max_c + 1e-9; }

} // namespace

Result<double> ohm_at(const ProbeCurve& curve, Temperature t)
{
    if (!in_range(curve, t.in_celsius()))
        return out_of_range(curve, "the temperature");
    return std::visit([&](const auto& law) { return ohm_of(law, t.in_celsius()); }, curve.law);
}

Result<Temperature> temperature_at(const ProbeCurve& curve, double ohm)
{
    if (!(ohm > 0) || !std::isfinite(ohm))
        return Error{"a resistance must be a positive number of ohms", "", "An open lead reads endless, a short reads near zero"};
    const double t = std::visit([&](const auto& law) { return temp_of(law, ohm); }, curve.law);
    if (!std::isfinite(t) || !in_range(curve, t))
        return out_of_range(curve, "the resistance");
    return Temperature::celsius(t);
}

Result<double> slope_at(const ProbeCurve& curve, Temperature t)
{
    const double h = 1e-3;
    const double mid = t.in_celsius();
    const double lo = std::max(curve.min_c, mid - h), hi = std::min(curve.max_c, mid + h);
    const auto a = ohm_at(curve, Temperature::celsius(lo));
    const auto b = ohm_at(curve, Temperature::celsius(hi));
    if (!in_range(curve, mid) || !a || !b)
        return out_of_range(curve, "the temperature");
    return (*b - *a) / (hi - lo);
}

Result<NtcThreeTermCurve> three_term_through(const CurvePoint& p, const CurvePoint& q, const CurvePoint& r)
{
    for (const CurvePoint* point : {&p, &q, &r})
        if (!(point->ohm > 0) || !(point->temp_c > -k0))
            return Error{"each point needs a positive resistance and a temperature above absolute zero", "", ""};
    const double l1 = std::log(p.ohm), l2 = std::log(q.ohm), l3 = std::log(r.ohm);
    const double y1 = 1 / (p.temp_c + k0), y2 = 1 / (q.temp_c + k0), y3 = 1 / (r.temp_c + k0);
    if (l1 == l2 || l2 == l3 || l1 == l3 || y1 == y2 || y2 == y3 || y1 == y3)
        return Error{"two of the three points are the same", "", "Measure at three different temperatures"};
    const double g2 = (y2 - y1) / (l2 - l1), g3 = (y3 - y1) / (l3 - l1);
    NtcThreeTermCurve c;
    c.c = (g3 - g2) / (l3 - l2) / (l1 + l2 + l3);
    c.b = g2 - c.c * (l1 * l1 + l1 * l2 + l2 * l2);
    c.a = y1 - (c.b + l1 * l1 * c.c) * l1;
    return c;
}

} // namespace vernal
