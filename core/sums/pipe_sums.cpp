#include "shared.h"

namespace vernal {

using namespace sums;

namespace {

SumResult pipe_bore(X x, C c)
{
    const double bore = x[0] - 2 * x[1];
    if (bore < 0.004)
        return {"The walls leave no bore.", NAN};
    const Pipe& p = pipe_at(c);
    return {line(show(x[0], Q::bore, c), " − 2 × ", show(x[1], Q::bore, c), " = ", show(bore, Q::bore, c), "\n", show(p.length_m, Q::length, c), " of it hold ", show(p.length_m * section_m2(bore), Q::volume, c)), bore};
}

SumResult friction(X x, C c)
{
    const Pipe& p = pipe_at(c);
    const Fluid f = fluid_of(c.loop(), x[1]);
    const double u = x[0] / section_m2(p.bore_m), re = u * p.bore_m / f.kinematic_m2_s();
    return {line("u = ", show(u, Q::speed, c), ", Re = ", std::to_string(std::lround(re)), ", f = ", to_text(friction_factor(re, p.roughness_m / p.bore_m), Q::small_number, {}), "\n(f L/d + ", show(p.fittings, Q::number, c), ") ρ u²/2 = ",
                show(pipe_drop_pa(p, f, x[0]), Q::pressure_drop, c)),
        NAN};
}

} // namespace

std::vector<FieldSum> pipe_sums()
{
    using P = Part;
    return {
        {"bore", {P::supply, P::back, P::supply_2, P::back_2}, "Bore and content", "geometry", {{{"outside_m", "Outside diameter", Q::bore, 0.005, 0.6, "Calliper, or circumference over π"}, [](C c) { return pipe_at(c).bore_m + 0.002; }}, {{"wall_m", "Wall", Q::bore, 0.0003, 0.05, "1 mm of usual copper"}, [](C) { return 0.001; }}}, pipe_bore, "Take this bore", [](Loop& l, P p, X, double v) { pipe_at(l, p).bore_m = v; }},
        {"friction", {P::supply, P::back, P::supply_2, P::back_2}, "Friction", "Darcy and Weisbach; Colebrook 1939", {{{"flow_m3_s", "Flow", Q::flow, 1e-6, 2, ""}, [](C c) { return c.loop().pump.flow_m3_s; }}, {{"fluid_c", "Fluid at", Q::temperature, -30, 140, ""}, [](C) { return working_c; }}}, friction, nullptr, nullptr},
    };
}

} // namespace vernal
