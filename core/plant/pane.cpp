#include "pane.h"

#include "collector_kinds.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace vernal {
namespace {

// Of a covered absorber's loss the share that leaves through its pane, and what the pane radiates; estimates.
constexpr double front_share = 0.8, pane_emits = 0.9;
constexpr double radiates_w_m2k = 4.6;
constexpr double day_w_m2 = 300; // from which on a report's own figures hold; a choice

} // namespace

double pane_below_air_k(double net_sky_w_m2, double wind_m_s, double sun_w_m2)
{
    return net_sky_w_m2 / (2.8 + 3 * wind_m_s + radiates_w_m2k) * std::max(0.0, 1 - sun_w_m2 / day_w_m2);
}

double pane_w_m2k(const LoopAnswers& answers, const Collector& c)
{
    if (uncovered(answers.array))
        return 0;
    const double seen = (1 + std::cos(c.tilt_deg * std::numbers::pi / 180)) / 2; // of the sky, by its plane
    return in_still_air(c).a1_w_m2k * front_share * pane_emits * seen;
}

double absorber_below_air_k(const LoopAnswers& answers, const Collector& c, double net_sky_w_m2, double wind_m_s)
{
    const double w_m2 = std::max(c.sky_exchange * net_sky_w_m2, pane_w_m2k(answers, c) * pane_below_air_k(net_sky_w_m2, wind_m_s, 0));
    // (a1 + a3 v) d + a2 d² = loss to the sky.
    const double a1 = in_still_air(c).a1_w_m2k + c.wind_loss_j_m3k * wind_m_s;
    return c.a2_w_m2k2 > 0 ? (std::sqrt(a1 * a1 + 4 * c.a2_w_m2k2 * w_m2) - a1) / (2 * c.a2_w_m2k2) : w_m2 / a1;
}

} // namespace vernal
