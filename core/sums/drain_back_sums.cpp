#include "shared.h"

namespace vernal {

using namespace sums;

namespace {

SumResult lift(X x, C c)
{
    return {line(show(x[0], Q::length, c), " − ", show(x[1], Q::length, c), " = ", show(x[0] - x[1], Q::length, c), ", ", show((x[0] - x[1]) * 998 * gravity_m_s2, Q::pressure_drop, c)), x[0] >= x[1] ? x[0] - x[1] : NAN};
}

SumResult what_drains(X, C c)
{
    const Draining d = draining(c.loop(), c.job.site.place.altitude_m);
    const double lifted = flow_against(c.loop().pump, c.loop().drain_back.lift_m, c.loop().pump.speed);
    return {line("array ", show(d.array_m3, Q::volume, c), " + pipe above the water ", show(d.pipe_m3, Q::volume, c), " = ", show(d.array_m3 + d.pipe_m3, Q::volume, c), "\nwith a quarter more: ", show(d.reservoir_m3, Q::volume, c), "\nfills in ",
                lifted > 0 ? show((d.array_m3 + d.pipe_m3) / lifted, Q::duration, c) : std::string("–, the lift is not reached"), "\nwater at ", show(d.hot_c, Q::temperature, c), " hangs together over ", show(d.siphon_m, Q::length, c), " here"),
        arrangement_of(c.loop()).has(Part::reservoir) ? d.reservoir_m3 : NAN};
}

SumResult suction(X x, C c)
{
    const DrainBack& d = c.loop().drain_back;
    const double has = suction_head_m(x[0], d.suction_m, c.job.site.place.altitude_m), highest = d.suction_m + has - d.suction_need_m;
    return {line("(p air − p vapour) / ρg − ", show(d.suction_m, Q::length, c), " = ", show(has, Q::length, c), ", the pump needs ", show(d.suction_need_m, Q::length, c), "\nits inlet may lie ", show(highest, Q::length, c), " over the water",
                has < d.suction_need_m ? "\nIt draws steam: lower the pump, or keep the water cooler" : ""),
        NAN};
}

} // namespace

std::vector<FieldSum> drain_back_sums()
{
    using P = Part;
    return {
        {"lift", {P::drain_back}, "Lift from two heights", "geometry", {{{"top_m", "Top of the array", Q::length, 0, 100, "Over any one mark, for example the floor"}, [](C c) { return c.loop().drain_back.lift_m + 1; }}, {{"water_m", "Resting water", Q::length, 0, 100, "Over the same mark"}, [](C) { return 1.0; }}}, lift, "Take this lift", [](Loop& l, P, X, double v) { l.drain_back.lift_m = v; }},
        {"drains", {P::drain_back, P::reservoir}, "What drains", "geometry; siphon height by the steam table", {}, what_drains, "Take it for the reservoir", [](Loop& l, P, X, double v) { l.reservoir.volume_m3 = v; }},
        {"suction", {P::drain_back}, "Does the pump draw hot water?", "net positive suction head; steam table", {{{"water_c", "Water at the inlet", Q::temperature, 5, 99, ""}, [](C) { return 70.0; }}}, suction, nullptr, nullptr},
    };
}

} // namespace vernal
