#include "identify.h"

#include "fit.h"

#include <algorithm>
#include <cmath>
#include <cstdio>

namespace vernal {
namespace {

// Temperatures a technician can make on the spot.
constexpr double handy_low_c = 0, handy_high_c = 95;

// What the meter's share of the ohms is in kelvin.
double meter_k(const ProbeCurve& curve, double temp_c, double ohm_share)
{
    constexpr double h = 0.05;
    const double slope = std::log(signal_beyond(curve, temp_c + h) / signal_beyond(curve, temp_c - h)) / (2 * h);
    return std::fabs(ohm_share / slope);
}

double allowed_k(const NamedCurve& c, double temp_c, const Measured& m)
{
    return m.temp_k + meter_k(c.curve, temp_c, m.ohm_share) + tolerance_k(c.curve, c.tolerance, temp_c);
}

Match match(const NamedCurve& c, std::size_t index, const std::vector<CurvePoint>& points, const Measured& m)
{
    Match out{index, 0, {}, true};
    double sum = 0;
    for (const CurvePoint& p : points) {
        const auto t = temperature_at(c.curve, p.ohm);
        const double error = t ? t->in_celsius() - p.temp_c : NAN;
        out.error_k.push_back(error);
        out.possible = out.possible && t && std::fabs(error) <= allowed_k(c, p.temp_c, m);
        sum += error * error;
    }
    out.rms_k = std::isnan(sum) ? INFINITY : std::sqrt(sum / static_cast<double>(points.size()));
    return out;
}

// How far apart in kelvin two curves lie at the ohms of one temperature.
double apart_k(const ProbeCurve& a, const ProbeCurve& b, double temp_c)
{
    const double t = temperature_beyond(b, signal_beyond(a, temp_c));
    return std::isfinite(t) ? std::fabs(t - temp_c) : 0.0;
}

double most_apart_k(const ProbeCurve& a, const ProbeCurve& b)
{
    double most = 0;
    for (double t = handy_low_c; t <= handy_high_c; t += 5)
        most = std::max(most, apart_k(a, b, t));
    return most;
}

// Where the closest differs most from the nearest of those that differ from it
// at all, by the thermometer used.
void find_question(Identified& out, const CurveBook& book, const Measured& m)
{
    const ProbeCurve& first = book[out.matches.front().curve].curve;
    std::vector<const ProbeCurve*> others;
    for (std::size_t i = 1; i < out.alike; ++i)
        if (const ProbeCurve& c = book[out.matches[i].curve].curve; most_apart_k(first, c) >= 2 * m.temp_k)
            others.push_back(&c);
    for (double t = handy_low_c; t <= handy_high_c && !others.empty(); t += 5) {
        double least = INFINITY;
        for (const ProbeCurve* c : others)
            least = std::min(least, apart_k(first, *c, t));
        if (least > out.ask_k) {
            out.ask_k = least;
            out.ask_c = t;
        }
    }
}

std::string sentence(const char* format, const std::string& name, double a = 0, double b = 0)
{
    char text[400];
    std::snprintf(text, sizeof text, format, name.c_str(), a, b);
    return text;
}

std::string advice(const Identified& out, const CurveBook& book)
{
    if (out.matches.empty() || !std::isfinite(out.matches.front().rms_k))
        return "No known curve gives such ohms. Check for a short, an open lead and the unit of what was typed, or fit a curve of its own.";
    const std::string& first = book[out.matches.front().curve].name;
    if (out.alike == 0)
        return sentence("No known curve fits. The closest is %s, off by %.1f K: measure again, or fit a curve of its own.", first, out.matches.front().rms_k);
    if (out.alike == 1)
        return sentence("Only %s fits these points.", first);
    const std::string many = std::to_string(out.alike) + " curves fit these points, " + first + " closest.";
    if (std::isnan(out.ask_c))
        return many + " They lie so close together that no measurement at hand tells them apart, and it makes hardly a difference which is chosen.";
    char where[160];
    std::snprintf(where, sizeof where, " A point near %.0f °C would tell them apart: there they differ by %.1f K or more.", out.ask_c, out.ask_k);
    return many + where;
}

} // namespace

const NamedCurve* find_curve(const CurveBook& book, const std::string& key)
{
    const auto it = std::find_if(book.begin(), book.end(), [&](const NamedCurve& c) { return c.key == key; });
    return it == book.end() ? nullptr : &*it;
}

Result<Identified> identify(const std::vector<CurvePoint>& points, const CurveBook& book, const Measured& measured)
{
    if (const auto trouble = trouble_with(points, 2))
        return *trouble;
    Identified out;
    for (std::size_t i = 0; i < book.size(); ++i)
        if (is_resistance(book[i].curve))
            out.matches.push_back(match(book[i], i, points, measured));
    std::stable_sort(out.matches.begin(), out.matches.end(), [](const Match& a, const Match& b) { return a.possible != b.possible ? a.possible : a.rms_k < b.rms_k; });
    out.alike = static_cast<std::size_t>(std::count_if(out.matches.begin(), out.matches.end(), [](const Match& x) { return x.possible; }));
    if (out.alike > 1)
        find_question(out, book, measured);
    out.advice = advice(out, book);
    return out;
}

} // namespace vernal
