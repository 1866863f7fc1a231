#include "panel.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr double full_sun_w_m2 = 1000.0, label_cell_c = 25.0; // standard test conditions, IEC 60904-3
constexpr double cell_k_m2_w = 0.031;
constexpr double turning_share = 0.6; // of the starting current keeps it turning; an estimate
constexpr double slowest = 0.05, fastest = 1.6;

// What a motor takes at a speed: friction, and the pump's torque with its square.
struct Load {
    explicit Load(const Motor& motor) : m(motor) {}
    double idle_a() const { return std::min(turning_share * m.start_a, m.current_a); }
    double current(double n) const { return idle_a() + (m.current_a - idle_a()) * n * n; }
    double volt(double n) const { return m.resistance_ohm * current(n) + std::max(0.0, m.volt_v - m.resistance_ohm * m.current_a) * n; }
    const Motor& m;
};

} // namespace

double panel_open_v(const Panel& p, double cell_c) { return p.voc_v + p.voc_v_k * (cell_c - label_cell_c); }

double cell_temperature_c(double air_c, double sun_w_m2) { return air_c + cell_k_m2_w * sun_w_m2; }

double panel_current_a(const Panel& p, double sun_w_m2, double cell_c, double volt)
{
    // A label that cannot be (a finding says so) gives nothing.
    if (sun_w_m2 <= 0 || p.imp_a >= p.isc_a || p.vmp_v >= p.voc_v)
        return 0.0;
    const double c2 = (p.vmp_v / p.voc_v - 1) / std::log(1 - p.imp_a / p.isc_a);
    const double c1 = (1 - p.imp_a / p.isc_a) * std::exp(-p.vmp_v / (c2 * p.voc_v));
    const double sun = sun_w_m2 / full_sun_w_m2;
    // Less sun lowers the open circuit by about as much as the curve's own logarithm says.
    const double open = std::max(0.1, panel_open_v(p, cell_c) + c2 * p.voc_v * std::log(sun));
    const double isc = sun * (p.isc_a + p.isc_a_k * (cell_c - label_cell_c));
    return std::max(0.0, isc * (1 - c1 * (std::exp(volt / (c2 * open)) - 1)));
}

Drive drive(const Panel& p, const Motor& m, double sun_w_m2, double air_c, bool turning)
{
    const double cell = cell_temperature_c(air_c, sun_w_m2);
    const double needed = turning ? turning_share * m.start_a : m.start_a;
    if (panel_current_a(p, sun_w_m2, cell, needed * m.resistance_ohm) < needed)
        return {};
    const Load load(m);
    double low = 0, high = fastest; // the panel gives more than is taken below the meeting point, less above
    for (int i = 0; i < 40; ++i) {
        const double n = (low + high) / 2;
        (panel_current_a(p, sun_w_m2, cell, load.volt(n)) > load.current(n) ? low : high) = n;
    }
    return low < slowest ? Drive{} : Drive{low, load.volt(low), load.current(low)};
}

Drive drive_at(const Motor& m, double volt_v, bool turning)
{
    const double needed = turning ? turning_share * m.start_a : m.start_a;
    if (volt_v < needed * m.resistance_ohm)
        return {};
    const Load load(m);
    double low = 0, high = fastest;
    for (int i = 0; i < 40; ++i) {
        const double n = (low + high) / 2;
        (load.volt(n) < volt_v ? low : high) = n;
    }
    return low < slowest ? Drive{} : Drive{low, load.volt(low), load.current(low)};
}

} // namespace vernal
