// Friction of a ring, the pump's curve, and where the two meet.
#pragma once

#include "fluid.h"
#include "loop.h"

namespace vernal {

inline constexpr double gravity_m_s2 = 9.80665;

// International standard atmosphere, troposphere (ISO 2533), Pa.
double atmosphere_pa(double altitude_m);

// Darcy friction factor of a round pipe. Laminar 64/Re below Re 2300; above 4000
// Colebrook & White, J. Inst. Civ. Eng. 11 (1939) 133, solved from the start of
// Haaland, J. Fluids Eng. 105 (1983) 89; a straight line between.
double friction_factor(double reynolds, double relative_roughness);

// Pressure drop of pipe and fittings, Pa (Darcy–Weisbach): (f L/d + Σζ) ρ u²/2.
double pipe_drop_pa(const Pipe& pipe, const Fluid& fluid, double flow_m3_s);

// Of a whole ring: its pipes, and what is stated for its collector with coil or exchanger.
double ring_drop_pa(const Loop& loop, const Route& route, const Fluid& fluid, double flow_m3_s);

// Curve of a pump through two points, H = head (1 − (Q/free_flow)²), by the
// affinity laws at a speed: head with n², flow with n. m of the fluid; below 0 beyond its free flow.
double pump_head_m(const Pump& pump, double flow_m3_s, double speed);
bool curve_known(const Pump& pump);

// Least squares of that curve through measured points; two give it exactly.
struct PumpPoint {
    double flow_m3_s, head_m;
};
struct CurveFit {
    double head_m = 0, free_flow_m3_s = 0; // 0: the points do not fall with the flow
    double worst_m = 0;                    // largest distance of a point from it
};
CurveFit fit_pump(const std::vector<PumpPoint>& points);

// Where curve, friction and lift meet, m³/s; 0: the lift is not reached, the curve not known, or the line shut.
double working_flow(const Loop& loop, const Route& route, const Pump& pump, const Fluid& fluid, double lift_m, double speed);

// Flow against a lift from the measured flow: the resistance k Q² is what makes
// the pump deliver it without lift at full speed. A pump whose curve is not
// known delivers its measured flow, with its speed, at any lift.
double flow_against(const Pump& pump, double lift_m, double speed = 1.0);

// The one or the other, as the pump is set.
double pump_flow(const Loop& loop, const Route& route, const Pump& pump, const Fluid& fluid, double lift_m);

// Flow that warm fluid drives by itself through a ring of this rise, m³/s:
// (ρ_cold − ρ_warm) g h against the ring's friction. 0: nothing drives it.
double thermosiphon_flow(const Loop& loop, const Route& route, double cold_c, double warm_c);

// The same in a loop without a pump, its tank `above_m` over the collector, middle to middle.
double natural_flow(const Loop& loop, const Route& route, double cold_c, double warm_c);
inline constexpr double most_natural_m3_s = 1e-3; // that is looked for

// Head over the vapour pressure at the pump's inlet (NPSH available), m, of water
// open to the air that stands `suction_m` below it (negative: above).
double suction_head_m(double water_c, double suction_m, double altitude_m);

} // namespace vernal
