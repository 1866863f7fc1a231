#include "fit.h"

#include "core/units/constants.h"

#include <Eigen/Dense>

#include <algorithm>
#include <cmath>
#include <set>
#include <string>

namespace vernal {
namespace {

constexpr double t25_k = zero_c_k + 25;

struct Solved {
    Eigen::VectorXd x;
    Eigen::MatrixXd inverse; // of AᵀA, in the scaled unknowns
    Eigen::VectorXd scale;
    double rms = 0; // of the equations' right side, over the degrees of freedom
};

// Columns scaled to length one: (ln R)³ is a thousand times ln R.
Solved solve(const Eigen::MatrixXd& a, const Eigen::VectorXd& y)
{
    Solved s;
    s.scale = a.colwise().norm().transpose();
    const Eigen::MatrixXd scaled = a * s.scale.cwiseInverse().asDiagonal();
    s.x = scaled.colPivHouseholderQr().solve(y).cwiseQuotient(s.scale);
    s.inverse = (scaled.transpose() * scaled).ldlt().solve(Eigen::MatrixXd::Identity(a.cols(), a.cols()));
    const Eigen::Index freedom = a.rows() - a.cols();
    s.rms = freedom > 0 ? (a * s.x - y).norm() / std::sqrt(static_cast<double>(freedom)) : 0.0;
    return s;
}

std::vector<double> sigmas(const Solved& s, Eigen::Index rows)
{
    if (rows <= s.x.size())
        return {};
    std::vector<double> out;
    for (Eigen::Index i = 0; i < s.x.size(); ++i)
        out.push_back(s.rms * std::sqrt(s.inverse(i, i)) / s.scale(i));
    return out;
}

// ln R = ln R25 + B (1/T − 1/T25)
Solved solve_beta(const std::vector<CurvePoint>& points)
{
    const auto n = static_cast<Eigen::Index>(points.size());
    Eigen::MatrixXd a(n, 2);
    Eigen::VectorXd y(n);
    for (Eigen::Index i = 0; i < n; ++i) {
        const CurvePoint& p = points[static_cast<std::size_t>(i)];
        a.row(i) << 1, 1 / (p.temp_c + zero_c_k) - 1 / t25_k;
        y(i) = std::log(p.ohm);
    }
    return solve(a, y);
}

Solved solve_three_term(const std::vector<CurvePoint>& points)
{
    const auto n = static_cast<Eigen::Index>(points.size());
    Eigen::MatrixXd a(n, 3);
    Eigen::VectorXd y(n);
    for (Eigen::Index i = 0; i < n; ++i) {
        const CurvePoint& p = points[static_cast<std::size_t>(i)];
        const double x = std::log(p.ohm);
        a.row(i) << 1, x, x * x * x;
        y(i) = 1 / (p.temp_c + zero_c_k);
    }
    return solve(a, y);
}

struct Law {
    std::size_t unknowns;
    Solved (*solve)(const std::vector<CurvePoint>& points);
};
constexpr Law laws[] = {{2, solve_beta}, {3, solve_three_term}};

// Good for what was measured and some way beyond.
ProbeCurve curve_of(FitLaw law, const Eigen::VectorXd& x, const std::vector<CurvePoint>& points)
{
    constexpr double beyond_k = 60, usual_low_c = -60, usual_high_c = 200;
    const auto [cold, hot] = std::minmax_element(points.begin(), points.end(), [](const CurvePoint& a, const CurvePoint& b) { return a.temp_c < b.temp_c; });
    const double low_c = std::floor(std::max(usual_low_c, cold->temp_c - beyond_k)), high_c = std::ceil(std::min(std::max(usual_high_c, hot->temp_c), hot->temp_c + beyond_k));
    if (law == FitLaw::beta)
        return {NtcBetaCurve{std::exp(x(0)), x(1)}, low_c, high_c};
    return {NtcThreeTermCurve{x(0), x(1), x(2)}, low_c, high_c};
}

double rms_ln_r(const std::vector<CurvePoint>& points, const ProbeCurve& curve)
{
    double sum = 0;
    for (const CurvePoint& p : points)
        sum += std::pow(std::log(p.ohm / signal_beyond(curve, p.temp_c)), 2);
    return std::sqrt(sum / static_cast<double>(points.size()));
}

std::vector<double> leave_one_out(const std::vector<CurvePoint>& points, FitLaw law)
{
    const Law& l = laws[static_cast<std::size_t>(law)];
    constexpr std::size_t most = 200; // beyond that one point hardly moves the rest
    if (points.size() < l.unknowns + 2 || points.size() > most)
        return {};
    std::vector<double> out;
    for (std::size_t i = 0; i < points.size(); ++i) {
        std::vector<CurvePoint> rest = points;
        rest.erase(rest.begin() + static_cast<std::ptrdiff_t>(i));
        const bool enough = !trouble_with(rest, l.unknowns);
        out.push_back(enough ? rms_ln_r(rest, curve_of(law, l.solve(rest).x, rest)) : INFINITY);
    }
    return out;
}

std::optional<std::size_t> suspect_of(const std::vector<double>& left_out, double all_rms)
{
    if (left_out.empty() || all_rms < agreement_rms_ln_r)
        return {};
    const auto best = std::min_element(left_out.begin(), left_out.end());
    double next = INFINITY;
    for (auto it = left_out.begin(); it != left_out.end(); ++it)
        next = it == best ? next : std::min(next, *it);
    if (*best * suspect_factor > next)
        return {};
    return static_cast<std::size_t>(best - left_out.begin());
}

} // namespace

std::optional<Error> trouble_with(const std::vector<CurvePoint>& points, std::size_t least)
{
    std::set<double> temps;
    for (std::size_t i = 0; i < points.size(); ++i) {
        const std::string where = "point " + std::to_string(i + 1);
        if (!(points[i].ohm > 0) || !std::isfinite(points[i].ohm))
            return Error{"a resistance must be above zero", where, "An open lead reads endless, a short reads near zero: leave such a point out"};
        if (!(points[i].temp_c > -zero_c_k) || !(points[i].temp_c < 1000))
            return Error{"this temperature is not possible", where, "Check its unit: °C or °F"};
        temps.insert(points[i].temp_c);
    }
    if (temps.size() < least)
        return Error{temps.size() < points.size() ? "the points have only " + std::to_string(temps.size()) + " different temperature" + (temps.size() == 1 ? "" : "s") : "there are too few points",
            "", "Measure at " + std::to_string(least) + " temperatures or more, as far apart as you can: ice water, the room, hot water"};
    return {};
}

Result<Fit> fit_curve(const std::vector<CurvePoint>& points, FitLaw law)
{
    const Law& l = laws[static_cast<std::size_t>(law)];
    if (const auto trouble = trouble_with(points, l.unknowns))
        return *trouble;
    const Solved s = l.solve(points);
    Fit f;
    f.curve = curve_of(law, s.x, points);
    if (law == FitLaw::beta && !(s.x(1) > 0))
        return Error{"the resistance rises with temperature: this is no NTC", "", "Try “Which curve is this?”: it may be platinum, nickel or silicon"};
    if (law == FitLaw::three_term && !parse_curve(curve_text(f.curve)))
        return Error{"no three-term curve goes through these points without turning back", "", "Fit beta, and look for a wrong point"};
    double sum = 0;
    for (const CurvePoint& p : points) {
        f.residual_k.push_back(p.temp_c - temperature_beyond(f.curve, p.ohm));
        sum += f.residual_k.back() * f.residual_k.back();
    }
    f.rms_k = std::sqrt(sum / static_cast<double>(points.size()));
    f.rms_ln_r = rms_ln_r(points, f.curve);
    f.left_out_rms = leave_one_out(points, law);
    f.suspect = suspect_of(f.left_out_rms, f.rms_ln_r);
    f.sigma = sigmas(s, static_cast<Eigen::Index>(points.size()));
    if (law == FitLaw::beta && !f.sigma.empty())
        f.sigma[0] *= std::exp(s.x(0)); // of R25 instead of ln R25
    return f;
}

} // namespace vernal
