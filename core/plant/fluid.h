// Heat carriers: water and propylene glycol in water.
#pragma once

namespace vernal {

// Values at 40 °C, near the middle of a solar loop's day; mass fractions 0…0.6.
struct Fluid {
    double density_kg_m3 = 992.2;
    double heat_capacity_j_kgk = 4179.0;
    double freezing_c = 0.0;
};

// Straight lines between a table in tens of percent. Fractions outside 0…0.6
// are a finding of the job, here they are held at the ends.
Fluid glycol_water(double mass_fraction);

// Dry air at 40 °C near sea level; it does not freeze.
Fluid warm_air();

} // namespace vernal
