#include "shared.h"

#include "core/plant/vessel.h"

namespace vernal {

using namespace sums;

namespace {

SumResult bucket(X x, C c)
{
    const double flow = x[0] / x[1];
    return {line(show(x[0], Q::volume, c), " in ", show(x[1], Q::duration, c), " = ", show(flow, Q::flow, c)), flow};
}

SumResult pump_curve(X x, C c)
{
    std::vector<PumpPoint> points;
    for (std::size_t i = 0; i + 1 < x.size(); i += 2)
        if (x[i] > 0 || x[i + 1] > 0)
            points.push_back({x[i], x[i + 1]});
    const CurveFit fit = fit_pump(points);
    if (fit.head_m <= 0)
        return {"The head must fall while the flow rises: two points at least.", NAN};
    return {line(show(fit.head_m, Q::length, c), " × (1 − (Q / ", show(fit.free_flow_m3_s, Q::flow, c), ")²)\nno point is further off than ", show(fit.worst_m, Q::length, c)), fit.head_m};
}

std::string drops(C c, const Fluid& f, double flow)
{
    const double all = ring_drop_pa(c.loop(), route_of(c), f, flow), lifted = lift_of(c);
    return line("friction at ", show(flow, Q::flow, c), ": ", show(all, Q::pressure_drop, c), " = ", show(all / (f.density_kg_m3 * gravity_m_s2), Q::length, c), lifted > 0 ? line(", lift ", show(lifted, Q::length, c)) : "");
}

SumResult working_point(X x, C c)
{
    const Pump& p = pump_at(c);
    const Fluid f = fluid_of(c.loop(), x[0]);
    if (!curve_known(p))
        return {"The pump's curve is not known: give its head at no flow and its flow at no head.", NAN};
    const double flow = working_flow(c.loop(), route_of(c), p, f, lift_of(c), p.speed);
    if (flow <= 0)
        return {line("The lift of ", show(lift_of(c), Q::length, c), " is not reached, or the line is shut."), NAN};
    return {line(drops(c, f, flow), "\nthe pump has as much left there: ", show(flow, Q::flow, c)), flow};
}

SumResult pump_choice(X x, C c)
{
    const Fluid f = fluid_of(c.loop(), x[1]);
    const double needed = ring_drop_pa(c.loop(), route_of(c), f, x[0]) / (f.density_kg_m3 * gravity_m_s2) + lift_of(c);
    const Pump& p = pump_at(c);
    const std::string head = line(drops(c, f, x[0]), "\nneeds ", show(needed, Q::length, c));
    if (!curve_known(p))
        return {head + "; the pump's curve is not known", NAN};
    const double has = pump_head_m(p, x[0], p.speed);
    return {line(head, ", the pump has ", show(has, Q::length, c), has >= needed ? " there" : " there: choose a stronger one"), has >= needed ? x[0] : NAN};
}

SumResult glycol_mix(X x, C c)
{
    for (double share = 0; share <= 0.6; share += 0.01)
        if (fluid_at(share, 20).freezing_c <= x[0] - x[1]) {
            const double content = ring_content_m3(c.loop()), glycol = content * share * fluid_at(share, 20).density_kg_m3 / 1036.0;
            return {line(show(x[0], Q::temperature, c), " less ", show(x[1], Q::difference, c), ": ", show(share, Q::ratio, c), " by mass, bursts pipe at ", show(burst_c(share), Q::temperature, c), "\nin ", show(content, Q::volume, c), ": ", show(glycol, Q::volume, c), " of glycol"),
                share};
        }
    return {"No mixture stands so much cold: drain the loop instead.", NAN};
}

bool has_glycol(const Arrangement& a) { return a.carrier == Carrier::glycol; }

} // namespace

std::vector<FieldSum> pump_sums()
{
    using P = Part;
    return {
        {"flow", {P::pump, P::pump_2, P::exchanger_pump}, "Flow by bucket and watch", "volume over time",
            {{{"volume_m3", "Volume caught", Q::volume, 1e-4, 1, "A bucket with a mark"}, [](C) { return 0.012; }},
                {{"time_s", "Time taken", Q::duration, 1, 3600, "By stop-watch"}, [](C c) { return std::round(0.012 / std::max(1e-6, pump_at(c).flow_m3_s)); }}},
            bucket, "Take this flow", [](Loop& l, P p, X, double v) { pump_at(l, p).flow_m3_s = v; pump_at(l, p).by_curve = false; }, no_air},
        {"curve", {P::pump, P::pump_2, P::exchanger_pump}, "Curve from points", "least squares of H = H0 − a Q²",
            {{{"flow_1_m3_s", "A flow", Q::flow, 0, 2, "From the pump's diagram, or two gauges"}, [](C) { return 0.0; }},
                {{"head_1_m", "and its head", Q::length, 0, 200, ""}, [](C c) { return pump_at(c).head_m > 0 ? pump_at(c).head_m : 6.0; }},
                {{"flow_2_m3_s", "A flow", Q::flow, 0, 2, ""}, [](C c) { return pump_at(c).flow_m3_s; }},
                {{"head_2_m", "and its head", Q::length, 0, 200, ""}, [](C c) { return curve_known(pump_at(c)) ? std::max(0.0, pump_head_m(pump_at(c), pump_at(c).flow_m3_s, 1)) : 4.0; }},
                {{"flow_3_m3_s", "A third flow", Q::flow, 0, 2, "0 and 0: no third point"}, [](C) { return 0.0; }},
                {{"head_3_m", "and its head", Q::length, 0, 200, ""}, [](C) { return 0.0; }}},
            pump_curve, "Take this curve", [](Loop& l, P p, X x, double head) {
                std::vector<PumpPoint> points;
                for (std::size_t i = 0; i + 1 < x.size(); i += 2)
                    if (x[i] > 0 || x[i + 1] > 0)
                        points.push_back({x[i], x[i + 1]});
                pump_at(l, p).head_m = head;
                pump_at(l, p).free_flow_m3_s = fit_pump(points).free_flow_m3_s;
            },
            no_air},
        {"working_point", {P::pump, P::pump_2, P::exchanger_pump}, "Where curve and friction meet", "Darcy and Weisbach; Colebrook 1939", {{{"fluid_c", "Fluid at", Q::temperature, -30, 140, "Cold fluid is thicker"}, [](C) { return working_c; }}}, working_point, "Take this flow", [](Loop& l, P p, X, double v) { pump_at(l, p).flow_m3_s = v; }, no_air},
        {"pump_choice", {P::pump, P::pump_2, P::exchanger_pump, P::drain_back}, "Is the pump strong enough?", "Darcy and Weisbach; Colebrook 1939", {{{"flow_m3_s", "Flow wanted", Q::flow, 1e-6, 2, "0.3 to 1 L/min per m² of collector (estimate)"}, [](C c) { return pump_at(c).flow_m3_s; }}, {{"fluid_c", "Fluid at", Q::temperature, -30, 140, "The coldest start is the hardest"}, [](C) { return 10.0; }}}, pump_choice, "Take this flow", [](Loop& l, P p, X, double v) { pump_at(l, p).flow_m3_s = v; }, no_air},
        {"glycol_mix", {P::pump, P::vessel}, "Glycol for the frost", "ASHRAE Handbook Fundamentals, secondary coolants (from memory)", {{{"coldest_c", "Coldest air", Q::temperature, -50, 10, ""}, coldest_c}, {{"reserve_k", "Reserve", Q::difference, 0, 20, "A clear sky cools below the air"}, [](C) { return 5.0; }}}, glycol_mix, "Take this mixture", [](Loop& l, P, X, double v) { l.glycol_fraction = v; }, has_glycol},
    };
}

} // namespace vernal
