#include "panel.h"

#include "core/units/root.h"

#include <boost/math/special_functions/lambert_w.hpp>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace vernal {
namespace {

constexpr double full_sun_w_m2 = 1000.0, label_cell_c = 25.0; // standard test conditions, IEC 60904-3
constexpr double cell_k_m2_w = 0.031;
constexpr double turning_share = 0.6; // of the starting current keeps it turning; an estimate
constexpr double slowest = 0.05, fastest = 1.6;
constexpr double booster_yield = 0.93; // of a switched converter; an estimate

// What a motor and its cable take at a speed: friction, and the pump's torque with its square.
struct Load {
    explicit Load(const Motor& motor, double line) : m(motor), line_ohm(line) {}
    double idle_a() const { return std::min(turning_share * m.start_a, m.current_a); }
    double current(double n) const { return idle_a() + (m.current_a - idle_a()) * n * n; }
    double at_motor(double n) const { return m.resistance_ohm * current(n) + std::max(0.0, m.volt_v - m.resistance_ohm * m.current_a) * n; }
    double volt(double n) const { return at_motor(n) + line_ohm * current(n); }
    double ohm() const { return m.resistance_ohm + line_ohm; }
    double needed_a(bool turning) const { return turning ? turning_share * m.start_a : m.start_a; }
    const Motor& m;
    double line_ohm;
};

// The highest speed at which there is something to spare, which falls with it.
template <class F>
Drive fastest_with(const Load& load, F spare)
{
    const double n = falling_zero(0.0, fastest, spare);
    return n < slowest ? Drive{} : Drive{n, load.at_motor(n), load.current(n)};
}

// Through a booster the panel stays at its most power, and current takes the
// place of spare voltage; it cannot raise the voltage.
Drive boosted(const Panel& p, const Load& load, double sun_w_m2, double cell_c, bool turning)
{
    const double power = booster_yield * panel_power_w(p, sun_w_m2, cell_c), needed = load.needed_a(turning);
    if (needed * needed * load.ohm() > power)
        return {};
    return fastest_with(load, [&](double n) { return std::min(power - load.volt(n) * load.current(n), p.vmp_v - load.volt(n)); });
}

} // namespace

double panel_open_v(const Panel& p, double cell_c) { return p.voc_v + p.voc_v_k * (cell_c - label_cell_c); }

double cell_temperature_c(double air_c, double sun_w_m2) { return air_c + cell_k_m2_w * sun_w_m2; }

PanelCurve::PanelCurve(const Panel& p, double sun_w_m2, double cell_c)
{
    // A label that cannot be: a finding says so.
    if (sun_w_m2 <= 0 || p.imp_a >= p.isc_a || p.vmp_v >= p.voc_v)
        return;
    const double c2 = (p.vmp_v / p.voc_v - 1) / std::log(1 - p.imp_a / p.isc_a);
    const double sun = sun_w_m2 / full_sun_w_m2;
    // Less sun lowers the open circuit by about as much as the curve's own logarithm says.
    const double open = std::max(0.1, panel_open_v(p, cell_c) + c2 * p.voc_v * std::log(sun));
    isc_a_ = std::max(0.0, sun * (p.isc_a + p.isc_a_k * (cell_c - label_cell_c)));
    c1_ = std::max(1e-300, (1 - p.imp_a / p.isc_a) * std::exp(-p.vmp_v / (c2 * p.voc_v)));
    scale_v_ = c2 * open;
}

double PanelCurve::current_a(double volt) const { return std::max(0.0, isc_a_ * (1 - c1_ * std::expm1(volt / scale_v_))); }

// V I has its top where (1 + x) exp(x) = (1 + C1)/C1 with x = V/(C2 Voc): Lambert's W.
double PanelCurve::power_w() const
{
    const double at = scale_v_ * (boost::math::lambert_w0(std::numbers::e * (1 + c1_) / c1_) - 1);
    return at * current_a(at);
}

double PanelCurve::open_v() const { return isc_a_ > 0 ? scale_v_ * std::log1p(1 / c1_) : 0.0; }

double panel_current_a(const Panel& p, double sun_w_m2, double cell_c, double volt) { return PanelCurve(p, sun_w_m2, cell_c).current_a(volt); }

double panel_power_w(const Panel& p, double sun_w_m2, double cell_c) { return PanelCurve(p, sun_w_m2, cell_c).power_w(); }

Drive drive(const Panel& p, const Motor& m, double sun_w_m2, double air_c, bool turning, double line_ohm)
{
    const double cell = cell_temperature_c(air_c, sun_w_m2);
    const Load load(m, line_ohm);
    const double needed = load.needed_a(turning);
    const PanelCurve curve(p, sun_w_m2, cell);
    // The panel gives more than is taken below the meeting point, less above.
    Drive best;
    if (curve.current_a(needed * load.ohm()) >= needed)
        best = fastest_with(load, [&](double n) { return curve.current_a(load.volt(n)) - load.current(n); });
    if (p.booster)
        if (const Drive b = boosted(p, load, sun_w_m2, cell, turning); b.speed > best.speed)
            best = b;
    return best;
}

Drive drive_at(const Motor& m, double volt_v, bool turning, double line_ohm)
{
    const Load load(m, line_ohm);
    if (volt_v < load.needed_a(turning) * load.ohm())
        return {};
    // volt_v = ohm (idle + a n²) + e n.
    const double a = load.ohm() * (m.current_a - load.idle_a()), e = std::max(0.0, m.volt_v - m.resistance_ohm * m.current_a), spare = volt_v - load.ohm() * load.idle_a();
    const double n = std::min(fastest, a > 0 ? 2 * spare / (e + std::sqrt(e * e + 4 * a * spare)) : spare / e);
    return n < slowest ? Drive{} : Drive{n, load.at_motor(n), load.current(n)};
}

} // namespace vernal
