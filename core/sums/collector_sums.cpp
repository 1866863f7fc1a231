#include "shared.h"

#include "core/plant/pane.h"
#include "core/units/root.h"

namespace vernal {

using namespace sums;

namespace {

SumResult heat_rise(X x, C c)
{
    const Collector& k = collector_at(c);
    const Fluid f = fluid_of(c.loop(), working_c);
    const double heat = rate_w_k(f, x[0]) * x[1], eta = heat / (x[2] * k.area_m2);
    const double d = x[3], eta0 = eta + k.a1_w_m2k * d / x[2] + k.a2_w_m2k2 * d * std::fabs(d) / x[2];
    const std::string text = line(show(x[0], Q::flow, c), " × ", show(x[1], Q::difference, c), " = ", show(heat, Q::power, c), "\nof ", show(x[2], Q::irradiance, c), " × ", show(k.area_m2, Q::area, c), " that is ", show(eta, Q::ratio, c),
        "\nwithout loss it would be ", show(eta0, Q::ratio, c));
    return {eta0 <= 1 ? text : text + ": more than the sun gives, measure again", eta0 > 0.05 && eta0 <= 1 ? eta0 : NAN};
}

// On a clear night, calm and in wind; by the sky over that very air.
SumResult night_frost(X x, C c)
{
    const Collector& k = collector_at(c);
    const double freezes_c = fluid_of(c.loop(), working_c).freezing_c;
    const auto below = [&](double air_c, double wind_m_s) {
        const auto fourth = [](double t) { return std::pow(t + 273.15, 4); };
        return absorber_below_air_k(c.loop().answers, k, stefan_boltzmann * (fourth(air_c) - fourth(clear_sky_temperature_c(air_c))), wind_m_s);
    };
    const auto freezes_at = [&](double wind_m_s) {
        return falling_zero(freezes_c, freezes_c + 30, [&](double air_c) { return freezes_c - (air_c - below(air_c, wind_m_s)); });
    };
    constexpr double calm_m_s = 1;
    const double calm = freezes_at(calm_m_s), windy = freezes_at(x[0]);
    return {line("calm, ", show(calm_m_s, Q::speed, c), ": ", show(below(calm, calm_m_s), Q::difference, c), " below the air,\nit freezes at an air of ", show(calm, Q::temperature, c), "\nin wind of ", show(x[0], Q::speed, c), ": ", show(below(windy, x[0]), Q::difference, c), " below,\nat an air of ", show(windy, Q::temperature, c)),
        calm};
}

SumResult collector_content(X x, C c)
{
    const double v = collector_at(c).area_m2 * x[0] * 1e-3;
    return {line(show(collector_at(c).area_m2, Q::area, c), " × ", show(x[0] * 1e-3, Q::volume, c), "/m² = ", show(v, Q::volume, c)), v};
}

SumResult array_area(X x, C c)
{
    const double per_m2 = warmed_per_m2(x[1], x[2], x[3]), area = x[0] / per_m2;
    return {line(show(x[1], Q::energy, c), " × ", show(x[2], Q::ratio, c), " warm ", show(per_m2, Q::volume, c), " by ", show(x[3], Q::difference, c), " on a m²\n", show(x[0], Q::volume, c), " / that = ", show(area, Q::area, c)), area};
}

} // namespace

std::vector<FieldSum> collector_sums()
{
    using P = Part;
    constexpr const char* balance = "energy balance, Q = m c ΔT";
    return {
        {"heat", {P::collector, P::collector_2}, "Heat from flow and rise", balance, {{{"flow_m3_s", "Flow", Q::flow, 1e-6, 2, "By bucket and watch"}, [](C c) { return c.loop().pump.flow_m3_s; }}, {{"rise_k", "Rise across the array", Q::difference, 0.1, 80, "Two probes, pump running for ten minutes"}, [](C) { return 6.0; }}, {{"sun_w_m2", "Sun on it", Q::irradiance, 100, 1300, "A meter held in its plane"}, [](C) { return 800.0; }}, {{"over_air_k", "Mean over the air", Q::difference, -20, 120, "Half way between inlet and outlet, less the air"}, [](C) { return 25.0; }}}, heat_rise, "Take it as the efficiency without loss", [](Loop& l, P p, X, double v) { collector_at(l, p).eta0 = v; }},
        {"night_frost", {P::collector, P::collector_2}, "At which air does it freeze?", "balance of pane and absorber under a clear sky (Swinbank 1963)", {{{"wind_m_s", "Wind", Q::speed, 0, 30, "At the array"}, [](C) { return 5.0; }}}, night_frost, nullptr, nullptr, no_air},
        {"array_content", {P::collector, P::collector_2}, "Fluid in the array", "geometry; contents by estimate", {{{"litres_m2", "Litres per m²", Q::number, 0.05, 20, "0.3 to 2 flat plate, 0.1 to 0.4 heat-pipe tubes (estimate)"}, [](C c) { return 1000 * collector_at(c).content_m3 / collector_at(c).area_m2; }}}, collector_content, "Take this content", [](Loop& l, P p, X, double v) { collector_at(l, p).content_m3 = v; }, no_air},
        {"array_area", {P::collector}, "Array for the hot water", "energy balance, Q = m c ΔT", {{{"draw_m3", "Hot water a day", Q::volume, 0.005, 50, ""}, [](C c) { return std::max(0.05, drawn_a_day_m3(c)); }}, sun_on_a_m2(), share_of_sun(), rise_of_water()}, array_area, "Take this area", [](Loop& l, P p, X, double v) { collector_at(l, p).area_m2 = v; }, [](const Arrangement& a) { return a.has(P::tank); }},
    };
}

} // namespace vernal
