#include "curve.h"

#include "core/units/constants.h"

#include "monotone.h"

#include <algorithm>
#include <cmath>
#include <cstdio>

namespace vernal {
namespace {

constexpr double iec_a = 3.9083e-3; // IEC 60751:2008, clause 4
constexpr double iec_b = -5.775e-7;
constexpr double iec_c = -4.183e-12;
constexpr double at_25_k = zero_c_k + 25;

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

double ohm_of(const NtcBetaCurve& c, double t) { return c.r25_ohm * std::exp(c.beta_k * (1 / (t + zero_c_k) - 1 / at_25_k)); }

// Newton on x = ln R. With c < 0 the cubic turns back far out; the start lies
// on the near branch.
double ohm_of(const NtcThreeTermCurve& c, double t)
{
    const double target = 1 / (t + zero_c_k);
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
MonotoneCubic table_spline(const TableCurve& c)
{
    std::vector<double> x, y;
    for (const CurvePoint& p : c.points) {
        x.push_back(-1 / (p.temp_c + zero_c_k));
        y.push_back(std::log(p.ohm));
    }
    return MonotoneCubic(std::move(x), std::move(y));
}

double ohm_of(const TableCurve& c, double t) { return std::exp(table_spline(c).at(-1 / (t + zero_c_k))); }

double ratio(const PolynomialCurve& c, double d)
{
    double y = 0;
    for (std::size_t i = c.c.size(); i-- > 0;)
        y = (y + c.c[i]) * d;
    return 1 + y;
}

double ohm_of(const PolynomialCurve& c, double t) { return c.r_ohm * ratio(c, t - c.ref_c); }

double ohm_of(const LinearSignal& c, double t) { return c.low + (c.high - c.low) * (t - c.low_c) / (c.high_c - c.low_c); }

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

// Hardly any ohms: hotter than any number.
double celsius_of_inverse(double per_kelvin) { return per_kelvin > 0 ? 1 / per_kelvin - zero_c_k : INFINITY; }

double temp_of(const NtcBetaCurve& c, double ohm) { return celsius_of_inverse(1 / at_25_k + std::log(ohm / c.r25_ohm) / c.beta_k); }

double temp_of(const NtcThreeTermCurve& c, double ohm)
{
    const double x = std::log(ohm);
    return celsius_of_inverse(c.a + c.b * x + c.c * x * x * x);
}

double temp_of(const TableCurve& c, double ohm)
{
    const auto x = table_spline(c).find(std::log(ohm));
    return x ? -1 / *x - zero_c_k : std::nan("");
}

// Newton from the reference; the polynomial rises over the curve's range, which
// parse_curve() has seen to, and the steps are held short outside it.
double temp_of(const PolynomialCurve& c, double ohm)
{
    const double w = ohm / c.r_ohm;
    double d = (w - 1) / c.c.front();
    for (int i = 0; i < 60; ++i) {
        const double h = 1e-4, slope = (ratio(c, d + h) - ratio(c, d - h)) / (2 * h);
        const double step = std::clamp((ratio(c, d) - w) / slope, -100.0, 100.0);
        d -= step;
        if (std::fabs(step) < 1e-11)
            break;
    }
    return c.ref_c + d;
}

double temp_of(const LinearSignal& c, double signal) { return c.low_c + (c.high_c - c.low_c) * (signal - c.low) / (c.high - c.low); }

Error out_of_range(const ProbeCurve& c, const char* what)
{
    char text[160];
    std::snprintf(text, sizeof text, "%s is outside this curve, which is good for %.0f to %.0f °C", what, c.min_c, c.max_c);
    return Error{text, "", "Check for an open or shorted lead, or choose another curve"};
}

bool in_range(const ProbeCurve& c, double t) { return t >= c.min_c - 1e-9 && t <= c.max_c + 1e-9; }

} // namespace

const char* signal_unit(const ProbeCurve& curve)
{
    const auto* line = std::get_if<LinearSignal>(&curve.law);
    return !line ? "Ω" : line->ampere ? "mA"
                                      : "V";
}

namespace {

// A table goes on beyond its ends as its last two points lead: a straight line
// of ln R over 1/T.
const CurvePoint* end_pair(const TableCurve& c, bool low) { return low ? c.points.data() : c.points.data() + c.points.size() - 2; }
double beta_between(const CurvePoint* p) { return std::log(p[0].ohm / p[1].ohm) / (1 / (p[0].temp_c + zero_c_k) - 1 / (p[1].temp_c + zero_c_k)); }
double table_ohm_beyond(const CurvePoint* p, double t) { return p[0].ohm * std::exp(beta_between(p) * (1 / (t + zero_c_k) - 1 / (p[0].temp_c + zero_c_k))); }
double table_temp_beyond(const CurvePoint* p, double ohm) { return celsius_of_inverse(1 / (p[0].temp_c + zero_c_k) + std::log(ohm / p[0].ohm) / beta_between(p)); }

} // namespace

double signal_beyond(const ProbeCurve& curve, double temp_c)
{
    if (const auto* table = std::get_if<TableCurve>(&curve.law); table && (temp_c < table->points.front().temp_c || temp_c > table->points.back().temp_c))
        return table_ohm_beyond(end_pair(*table, temp_c < table->points.front().temp_c), temp_c);
    return std::visit([&](const auto& law) { return ohm_of(law, temp_c); }, curve.law);
}

double temperature_beyond(const ProbeCurve& curve, double signal)
{
    if (const auto* table = std::get_if<TableCurve>(&curve.law)) {
        const double a = table->points.front().ohm, b = table->points.back().ohm;
        if (signal < std::min(a, b) || signal > std::max(a, b))
            return table_temp_beyond(end_pair(*table, (signal > a) == (a > b)), signal);
    }
    return std::visit([&](const auto& law) { return temp_of(law, signal); }, curve.law);
}

bool falls(const ProbeCurve& curve) { return signal_beyond(curve, curve.max_c) < signal_beyond(curve, curve.min_c); }

Result<double> signal_at(const ProbeCurve& curve, Temperature t)
{
    if (!in_range(curve, t.in_celsius()))
        return out_of_range(curve, "the temperature");
    return signal_beyond(curve, t.in_celsius());
}

Result<Temperature> temperature_at(const ProbeCurve& curve, double signal)
{
    if (!std::isfinite(signal) || (is_resistance(curve) && !(signal > 0)))
        return Error{"a resistance must be a positive number of ohms", "", "An open lead reads endless, a short reads near zero"};
    const double t = std::visit([&](const auto& law) { return temp_of(law, signal); }, curve.law);
    if (!std::isfinite(t) || !in_range(curve, t))
        return out_of_range(curve, is_resistance(curve) ? "the resistance" : "the signal");
    return Temperature::celsius(t);
}

Result<double> slope_at(const ProbeCurve& curve, Temperature t)
{
    const double h = 1e-3;
    const double mid = t.in_celsius();
    const double lo = std::max(curve.min_c, mid - h), hi = std::min(curve.max_c, mid + h);
    const auto a = signal_at(curve, Temperature::celsius(lo));
    const auto b = signal_at(curve, Temperature::celsius(hi));
    if (!in_range(curve, mid) || !a || !b)
        return out_of_range(curve, "the temperature");
    return (*b - *a) / (hi - lo);
}

Result<NtcThreeTermCurve> three_term_through(const CurvePoint& p, const CurvePoint& q, const CurvePoint& r)
{
    for (const CurvePoint* point : {&p, &q, &r})
        if (!(point->ohm > 0) || !(point->temp_c > -zero_c_k))
            return Error{"each point needs a positive resistance and a temperature above absolute zero", "", ""};
    const double l1 = std::log(p.ohm), l2 = std::log(q.ohm), l3 = std::log(r.ohm);
    const double y1 = 1 / (p.temp_c + zero_c_k), y2 = 1 / (q.temp_c + zero_c_k), y3 = 1 / (r.temp_c + zero_c_k);
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
