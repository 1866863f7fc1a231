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
    const std::string text = line(show(x[0], Q::flow, c), " × ", show(x[1], Q::difference, c), " = ", show(heat, Q::heat_rate, c), "\nof ", show(x[2], Q::irradiance, c), " × ", show(k.area_m2, Q::area, c), " that is ", show(eta, Q::ratio, c),
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
    const double v = collector_at(c).area_m2 * x[0];
    return {line(show(collector_at(c).area_m2, Q::area, c), " × ", show(x[0], Q::area_content, c), " = ", show(v, Q::volume, c)), v};
}

SumResult array_area(X x, C c)
{
    const double per_m2 = warmed_per_m2(x[1], x[2], x[3]), area = x[0] / per_m2;
    return {line(show(x[1], Q::irradiation, c), " × ", show(x[2], Q::ratio, c), " warm ", show(per_m2, Q::area_content, c), " by ", show(x[3], Q::difference, c), "\n", show(x[0], Q::volume, c), " / that = ", show(area, Q::area, c)), area};
}

// Turns side by side: what it covers is length × outside diameter. Friction as in pipe (smooth), in so many turns beside each other.
struct Hose {
    double length_m, outside_m, bore_m, paths;
    explicit Hose(X x) : length_m(x[0]), outside_m(x[1]), bore_m(std::min(x[2], x[1])), paths(x[3]) {}
    double section_m2() const { return std::numbers::pi / 4 * bore_m * bore_m; }
    double area_m2() const { return length_m * outside_m; }
    double content_m3() const { return length_m * section_m2(); }
    double capacity_j_m2k() const
    {
        constexpr double water_j_m3k = 4.17e6, wall_j_m3k = 2.1e6; // polyethylene, about
        const double wall_m3 = length_m * std::numbers::pi / 4 * outside_m * outside_m - content_m3();
        return (content_m3() * water_j_m3k + wall_m3 * wall_j_m3k) / area_m2();
    }
    double drop_pa(const Fluid& f, double flow_m3_s) const
    {
        const double v = flow_m3_s / paths / section_m2(), re = v * bore_m / f.kinematic_m2_s();
        return friction_factor(re, 1.5e-6 / bore_m) * length_m / paths / bore_m * f.density_kg_m3 / 2 * v * v;
    }
};

SumResult hose(X x, C c)
{
    const Hose h(x);
    const double flow = c.loop().pump.flow_m3_s;
    return {line(show(h.length_m, Q::length, c), " × ", show(h.outside_m, Q::bore, c), " = ", show(h.area_m2(), Q::area, c), "\nin it: ", show(h.content_m3(), Q::volume, c), "\nloses ", show(h.drop_pa(fluid_of(c.loop(), working_c), flow), Q::pressure_drop, c), " at ", show(flow, Q::flow, c)), h.area_m2()};
}

void write_hose(Loop& l, Part p, X x, double area_m2)
{
    Collector& k = collector_at(l, p);
    const Hose h(x);
    k.area_m2 = area_m2;
    k.content_m3 = h.content_m3();
    k.capacity_j_m2k = h.capacity_j_m2k();
    k.drop_flow_m3_s = l.pump.flow_m3_s;
    k.drop_pa = h.drop_pa(fluid_of(l, working_c), l.pump.flow_m3_s);
}

} // namespace

std::vector<FieldSum> collector_sums()
{
    using P = Part;
    constexpr const char* balance = "energy balance, Q = m c ΔT";
    return {
        {"heat", {P::collector, P::collector_2}, "Heat from flow and rise", balance, {{{"flow_m3_s", "Flow", Q::flow, 1e-6, 2, "By bucket and watch"}, [](C c) { return c.loop().pump.flow_m3_s; }}, {{"rise_k", "Rise across the array", Q::difference, 0.1, 80, "Two probes, pump running for ten minutes"}, [](C) { return 6.0; }}, {{"sun_w_m2", "Sun on it", Q::irradiance, 100, 1300, "A meter held in its plane"}, [](C) { return 800.0; }}, {{"over_air_k", "Mean over the air", Q::difference, -20, 120, "Half way between inlet and outlet, less the air"}, [](C) { return 25.0; }}}, heat_rise, "Take it as the efficiency without loss", [](Loop& l, P p, X, double v) { collector_at(l, p).eta0 = v; }},
        {"night_frost", {P::collector, P::collector_2}, "At which air does it freeze?", "balance of pane and absorber under a clear sky (Swinbank 1963)", {{{"wind_m_s", "Wind", Q::speed, 0, 30, "At the array"}, [](C) { return 5.0; }}}, night_frost, nullptr, nullptr, no_air},
        {"hose", {P::collector, P::collector_2}, "Hose by length and bore", "geometry; friction by Colebrook & White", {{{"length_m", "Length of hose", Q::length, 5, 5000, "On the ring, or counted in turns"}, [](C c) { return std::clamp(collector_at(c).area_m2 / 0.025, 5.0, 5000.0); }}, {{"outside_m", "Outside diameter", Q::bore, 0.01, 0.1, "Measure"}, [](C) { return 0.025; }}, {{"bore_m", "Bore", Q::bore, 0.008, 0.09, "Measure, or outside less two walls"}, [](C) { return 0.02; }}, {{"paths", "Lengths beside each other", Q::number, 1, 200, "Coils fed from one header"}, [](C c) { return std::clamp(std::round(collector_at(c).area_m2 / 0.025 / 50), 1.0, 200.0); }}}, hose, "Take area, content and drop", write_hose, [](const Arrangement& a) { return a.answers.array == Array::hose; }},
        {"array_content", {P::collector, P::collector_2}, "Fluid in the array", "geometry; contents by estimate", {{{"content_m3_m2", "Fluid per area", Q::area_content, 5e-5, 0.02, "0.3 to 2 L/m² flat plate, 0.1 to 0.4 heat-pipe tubes (estimate)"}, [](C c) { return collector_at(c).content_m3 / collector_at(c).area_m2; }}}, collector_content, "Take this content", [](Loop& l, P p, X, double v) { collector_at(l, p).content_m3 = v; }, no_air},
        {"array_area", {P::collector}, "Array for the hot water", "energy balance, Q = m c ΔT", {{{"draw_m3", "Hot water a day", Q::volume, 0.005, 50, ""}, [](C c) { return std::max(0.05, drawn_a_day_m3(c)); }}, sun_on_a_m2(), share_of_sun(), rise_of_water()}, array_area, "Take this area", [](Loop& l, P p, X, double v) { collector_at(l, p).area_m2 = v; }, [](const Arrangement& a) { return a.has(P::tank); }},
    };
}

} // namespace vernal
