// What a clear night does to an absorber behind glass. It does not see the sky, its pane does:
// the pane tends to Ta − ε ΔR/(h_c + h_r), and the absorber follows it by the share of its loss
// that goes through the front. Where there is no pane the collector's own sky term holds.
#pragma once

#include "fluid.h"
#include "loop.h"

namespace vernal {

// How far a pane that radiates all it can to the whole sky stands below the air, K: ΔR/(h_c + h_r)
// with h_c = 2.8 + 3 v, v in m/s (Watmuff, Charters & Proctor 1977, as in Duffie & Beckman; from memory) and
// h_r = 4.6 W/m²K, 4 σ T³ of the cold half of the year. net_sky_w_m2: σ(Ta⁴ − Tsky⁴).
// A report's test by day has its share of it in η0 already: in the sun on the plane it counts no more.
double pane_below_air_k(double net_sky_w_m2, double wind_m_s, double sun_w_m2);

// Loss of the absorber per kelvin of that, W/(m² K); 0: no pane.
double pane_w_m2k(const LoopAnswers& answers, const Collector& collector);

// How far an absorber that stands still ends up below the air on a clear night, K.
double absorber_below_air_k(const LoopAnswers& answers, const Collector& collector, double net_sky_w_m2, double wind_m_s);

} // namespace vernal
