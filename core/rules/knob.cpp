#include "knob.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

double between(const Knob& k, TempDiff from, TempDiff to, double way)
{
    const double first = from.in_kelvin(), last = to.in_kelvin();
    const bool ratios = k.law == KnobLaw::growing && first > 0 && last > 0;
    return ratios ? first * std::pow(last / first, way) : std::lerp(first, last, way);
}

KnobPair pair_along(const Knob& k, double way) { return {between(k, k.on_first, k.on_last, way), between(k, k.off_first, k.off_last, way)}; }

} // namespace

// A scale without length, as a file may state it, has its first pair only.
KnobPair knob_pair(const Knob& knob, double mark)
{
    const double length = knob.last - knob.first;
    return pair_along(knob, length == 0 ? 0.0 : std::clamp((mark - knob.first) / length, 0.0, 1.0));
}

KnobSetting knob_setting(const Knob& knob, const KnobPair& wanted)
{
    const auto off_by = [&](double way) {
        const KnobPair p = pair_along(knob, way);
        return std::pow(p.on_k - wanted.on_k, 2) + std::pow(p.off_k - wanted.off_k, 2);
    };
    // Two monotone curves: look along the scale, then close in around the best.
    constexpr int looks = 200;
    double best = 0;
    for (int i = 1; i <= looks; ++i)
        best = off_by(static_cast<double>(i) / looks) < off_by(best) ? static_cast<double>(i) / looks : best;
    double low = std::max(0.0, best - 1.0 / looks), high = std::min(1.0, best + 1.0 / looks);
    for (int i = 0; i < 60; ++i) {
        const double a = low + (high - low) / 3, b = high - (high - low) / 3;
        (off_by(a) <= off_by(b) ? high : low) = off_by(a) <= off_by(b) ? b : a;
    }
    const double way = 0.5 * (low + high);
    const KnobPair got = pair_along(knob, way);
    return {std::lerp(knob.first, knob.last, way), got, {got.on_k - wanted.on_k, got.off_k - wanted.off_k}};
}

} // namespace vernal
