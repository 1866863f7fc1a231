#include "input_stage.h"

#include "core/units/root.h"

#include <boost/math/tools/minima.hpp>

#include <algorithm>
#include <array>
#include <cmath>

namespace vernal {
namespace {

constexpr std::array e24{1.0, 1.1, 1.2, 1.3, 1.5, 1.6, 1.8, 2.0, 2.2, 2.4, 2.7, 3.0, 3.3, 3.6, 3.9, 4.3, 4.7, 5.1, 5.6, 6.2, 6.8, 7.5, 8.2, 9.1}; // IEC 60063

double amplified(const InputStage& s, double volt) { return std::clamp(s.supply_v / 2 + s.gain * (volt - s.supply_v / 2), 0.0, s.supply_v); }

double counts(const InputStage& s) { return std::ldexp(1.0, s.bits); }

double coarsest_count_k(InputStage s, const ProbeCurve& curve, double low_c, double high_c, double pull_up_ohm)
{
    constexpr int looks = 48;
    s.pull_up_ohm = pull_up_ohm;
    double worst = 0;
    for (int i = 0; i <= looks; ++i)
        worst = std::max(worst, kelvin_per_count(s, curve, low_c + (high_c - low_c) * i / looks));
    return worst;
}

double nearest_e24(double ohm)
{
    const double decade = std::pow(10.0, std::floor(std::log10(ohm)));
    double best = decade;
    for (double scale : {decade, 10 * decade})
        for (double v : e24)
            if (std::fabs(std::log(v * scale / ohm)) < std::fabs(std::log(best / ohm)))
                best = v * scale;
    return best;
}

} // namespace

double divider_volt(const InputStage& s, double ohm)
{
    const double share = std::isfinite(ohm) ? ohm / (ohm + s.pull_up_ohm) : 1.0;
    return amplified(s, s.supply_v * share);
}

double bridge_volt(const InputStage& s, double collector_ohm, double store_ohm)
{
    const double share = !std::isfinite(collector_ohm) ? 0.0 : !std::isfinite(store_ohm) ? 1.0
                                                                                         : store_ohm / (collector_ohm + store_ohm);
    return amplified(s, s.supply_v * share);
}

double ohm_of_divider(const InputStage& s, double volt)
{
    const double plain = s.supply_v / 2 + (volt - s.supply_v / 2) / s.gain;
    return plain >= s.supply_v ? INFINITY : s.pull_up_ohm * plain / (s.supply_v - plain);
}

double full_scale(const InputStage& s, const ProbeCurve& curve)
{
    const auto* line = std::get_if<LinearSignal>(&curve.law);
    if (!line)
        return s.supply_v;
    const double most = std::max(line->low, line->high);
    return line->ampere ? std::max(20.0, most) : most <= 5 ? 5.0
                                                           : std::max(10.0, most);
}

double kelvin_per_count(const InputStage& s, const ProbeCurve& curve, double temp_c)
{
    if (s.kind == StageKind::exact)
        return 0;
    constexpr double h = 0.05;
    const auto at = [&](double t) {
        const double signal = signal_beyond(curve, t);
        if (!is_resistance(curve))
            return signal;
        if (s.kind == StageKind::bridge)
            return bridge_volt(s, signal, signal_beyond(curve, temp_c));
        return divider_volt(s, signal);
    };
    const double per_k = std::fabs(at(temp_c + h) - at(temp_c - h)) / (2 * h);
    return per_k > 0 ? full_scale(s, curve) / counts(s) / per_k : INFINITY;
}

double probe_power_w(const InputStage& s, double ohm, double other_ohm)
{
    if (s.kind == StageKind::exact || !std::isfinite(ohm))
        return 0;
    const double around = s.kind == StageKind::bridge ? other_ohm : s.pull_up_ohm;
    const double ampere = s.supply_v / (ohm + around);
    return ampere * ampere * ohm;
}

PullUpChoice best_pull_up(const InputStage& stage, const ProbeCurve& curve, double low_c, double high_c)
{
    InputStage s = stage;
    s.kind = StageKind::pull_up;
    const double a = signal_beyond(curve, low_c), b = signal_beyond(curve, high_c);
    // The coarsest count has one valley over the logarithm of the pull-up.
    constexpr int bits = 26; // more a minimum does not give
    const double low = std::log(std::min(a, b) / 30), high = std::log(std::max(a, b) * 30);
    PullUpChoice c;
    c.best_ohm = std::exp(boost::math::tools::brent_find_minima([&](double x) { return coarsest_count_k(s, curve, low_c, high_c, std::exp(x)); }, low, high, bits).first);
    c.e24_ohm = nearest_e24(c.best_ohm);
    c.coarsest_k = coarsest_count_k(s, curve, low_c, high_c, c.e24_ohm);
    return c;
}

double bridge_difference_k(const InputStage& s, const ProbeCurve& curve, double volt, double store_c)
{
    constexpr double farthest_k = 250;
    const double store_ohm = signal_beyond(curve, store_c);
    const auto over = [&](double d) { return bridge_volt(s, signal_beyond(curve, store_c + d), store_ohm) - volt; };
    const double low = -std::min(farthest_k, store_c + 200), high = farthest_k;
    const bool rises = over(high) > over(low);
    if ((over(low) > 0) == (over(high) > 0))
        return NAN;
    return falling_zero(low, high, [&](double d) { return rises ? -over(d) : over(d); });
}

} // namespace vernal
