#include "fluid.h"

#include "hydraulics.h"

#include "core/units/root.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <span>

namespace vernal {
namespace {

constexpr double working_c = 40.0;
constexpr double coldest_c = -40.0, hottest_c = 150.0;
constexpr double most_glycol = 0.6;
constexpr double least_fitted = 0.15; // below, straight lines to pure water

// Straight lines between values at equal distances from 0.
double between(std::span<const double> values, double step, double x)
{
    const double at = std::clamp(x / step, 0.0, static_cast<double>(values.size() - 1));
    const auto i = std::min(static_cast<std::size_t>(at), values.size() - 2);
    return std::lerp(values[i], values[i + 1], at - static_cast<double>(i));
}

// Per tenth of glycol. Freezing points after ASHRAE Handbook Fundamentals, chapter
// on secondary coolants; burst points after makers' tables of inhibited propylene
// glycol; both from memory.
constexpr std::array freezing{0.0, -3.3, -7.1, -12.7, -21.1, -33.5, -51.1};
constexpr std::array bursting{0.0, -6.0, -13.0, -29.0, -51.0, -51.0, -60.0};

// Heat capacity of water at saturation every 20 °C from 0 (steam table, from memory).
constexpr std::array water_j_kgk{4217.0, 4182.0, 4179.0, 4185.0, 4197.0, 4216.0, 4245.0, 4285.0, 4339.0};

Fluid water_at(double t)
{
    t = std::max(t, 0.0);
    // Density: Kell, J. Chem. Eng. Data 20 (1975) 97, eq. 16; valid to 150 °C.
    const double density = (999.83952 + t * (16.945176 + t * (-7.9870401e-3 + t * (-46.170461e-6 + t * (105.56302e-9 - 280.54253e-12 * t))))) / (1 + 16.879850e-3 * t);
    // Viscosity: Vogel form of Al-Shemmeri, Engineering Fluid Mechanics (2012), within 2.5 %.
    return {density, between(water_j_kgk, 20.0, t), 0.0, 2.414e-5 * std::pow(10.0, 247.8 / (t + 273.15 - 140.0))};
}

// Conde, Thermophysical properties of brines (2011), propylene glycol:
// A1 + A2 ξ + A3 θ + A4 ξ θ + A5 θ², θ = 273.15/T; coefficients from memory,
// compared with ASHRAE's tables in the tests. Made for −20 to 40 °C or so; hotter
// it gives up to 1 % too little density, which sizes a vessel on the safe side.
Fluid brine_at(double x, double t)
{
    const double theta = 273.15 / (t + 273.15);
    const auto sum = [&](double a1, double a2, double a3, double a4, double a5) { return a1 + a2 * x + a3 * theta + a4 * x * theta + a5 * theta * theta; };
    return {sum(508.41109, -182.40820, 965.76507, 280.29104, -472.22510), 1000 * sum(4.47642, 0.60863, -0.71497, -1.93855, 0.47873), 0,
        std::exp(sum(-1.02798, -10.03298, -19.93497, 14.65802, 14.62050))};
}

} // namespace

Fluid fluid_at(double mass_fraction, double temp_c)
{
    const double x = std::clamp(mass_fraction, 0.0, most_glycol), t = std::clamp(temp_c, coldest_c, hottest_c);
    Fluid f = x >= least_fitted ? brine_at(x, t) : water_at(t);
    if (x > 0 && x < least_fitted) {
        const Fluid b = brine_at(least_fitted, t);
        const double s = x / least_fitted;
        f = {std::lerp(f.density_kg_m3, b.density_kg_m3, s), std::lerp(f.heat_capacity_j_kgk, b.heat_capacity_j_kgk, s), 0, std::lerp(f.viscosity_pa_s, b.viscosity_pa_s, s)};
    }
    f.freezing_c = between(freezing, 0.1, x);
    return f;
}

Fluid glycol_water(double mass_fraction) { return fluid_at(mass_fraction, working_c); }

double burst_c(double mass_fraction) { return between(bursting, 0.1, mass_fraction); }

// Wagner & Pruss, J. Phys. Chem. Ref. Data 22 (1993) 783 (IAPWS supplementary
// release), coefficients from memory, checked against the steam table in the tests.
double saturation_pa(double temp_c)
{
    constexpr double critical_k = 647.096, critical_pa = 22.064e6;
    const double k = std::clamp(temp_c + 273.15, 273.16, 640.0), x = 1 - k / critical_k;
    const double root = std::sqrt(x), x3 = x * x * x;
    const double sum = -7.85951783 * x + 1.84408259 * x * root - 11.7866497 * x3 + 22.6807411 * x3 * root - 15.9618719 * x3 * x + 1.80122502 * x3 * x3 * x * root;
    return critical_pa * std::exp(critical_k / k * sum);
}

double boiling_c(double pressure_pa)
{
    return falling_zero(0.0, 360.0, [pressure_pa](double c) { return pressure_pa - saturation_pa(c); });
}

// Ideal gas at 101.325 kPa, R = 287.05 J/kgK; c_p as tabled for dry air at 300 K
// (Incropera & DeWitt, Fundamentals of Heat and Mass Transfer, table A.4; from
// memory), viscosity from the same table at 313 K.
Fluid warm_air(double altitude_m) { return {atmosphere_pa(altitude_m) / (287.05 * 313.15), 1007.0, -273.15, 1.91e-5}; }

} // namespace vernal
