// Heat carriers: water, propylene glycol in water, air.
#pragma once

namespace vernal {

inline constexpr double stefan_boltzmann = 5.670374419e-8; // W/(m² K⁴), CODATA 2018

// Mass fractions of glycol 0…0.6; outside they are held at the ends (a finding says so).
struct Fluid {
    double density_kg_m3 = 992.2;
    double heat_capacity_j_kgk = 4179.0;
    double freezing_c = 0.0;         // the first crystals
    double viscosity_pa_s = 6.53e-4; // dynamic
    double kinematic_m2_s() const { return viscosity_pa_s / density_kg_m3; }
};

// At a temperature, −40…150 °C; outside as at the ends. Sources at the formulas.
Fluid fluid_at(double mass_fraction, double temp_c);

// At 40 °C, near the middle of a solar loop's day: what the network reckons with.
Fluid glycol_water(double mass_fraction);

// Below the freezing point the mixture is slush that no pump moves; at this
// temperature it has become hard enough to burst pipe, °C. Water: 0.
double burst_c(double mass_fraction);

// Saturation pressure of water, Pa, and the boiling point at a pressure, °C.
double saturation_pa(double temp_c);
double boiling_c(double pressure_pa);

// Dry air at 40 °C near sea level; it does not freeze.
Fluid warm_air(double altitude_m = 0); // thinner with the height, by the standard atmosphere

} // namespace vernal
