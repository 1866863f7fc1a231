// What a flow does to the collector it passes, when all is settled.
#pragma once

#include "loop.h"

namespace vernal {

// Heat that a flow of the loop's own fluid carries for each kelvin, ρ c V', W/K; at 50 °C.
double carried_w_k(const Loop& loop, double flow_m3_s);

// By how much this flow would warm on its way through the collector at irradiance g
// W/m² when all is settled, K; 0 where it would lose heat. Quasi-steady balance of
// ISO 9806's efficiency, the loss taken at the mean of inlet and outlet:
//   A (η0 G − a1 ΔT − a2 ΔT² − a1 r / 2) = ρ c V' r, ΔT = inlet − air.
double settled_rise_k(const Loop& loop, const Collector& collector, double flow_m3_s, double g_w_m2, double inlet_c, double air_c);

// How long after a start what stood in the collector and in the pipe to it is still
// passing, s: both volumes over the flow. flow_m3_s > 0.
double passing_s(const Collector& collector, const Pipe& to_it, double flow_m3_s);

// How long a start is kept on so that it does not end while that passes, whole ten
// seconds; twice the passing and what a probe lags behind (estimate). s.
double past_the_slug_s(const Collector& collector, const Pipe& to_it, double flow_m3_s);

} // namespace vernal
