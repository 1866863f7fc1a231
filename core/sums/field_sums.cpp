#include "field_sums.h"

#include "probe_sums.h"

#include "core/plant/hydraulic_state.h"
#include "core/plant/hydraulics.h"
#include "core/plant/vessel.h"
#include "core/plant/wiring.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace vernal {
namespace {

using X = const std::vector<double>&;
using C = const SumContext&;
using Q = Quantity;

constexpr const char* common = "common practice, no source";
constexpr double working_c = 40.0;

std::string show(double v, Q q, C c) { return to_text(v, q, c.units); }

// "a × b = c" from pieces of text and values already shown.
template <class... A>
std::string line(A&&... a)
{
    std::string s;
    ((s += a), ...);
    return s;
}

double glycol_of(const Loop& l) { return find_arrangement(l.arrangement)->carrier == Carrier::glycol ? l.glycol_fraction : 0.0; }
bool is_air(const Loop& l) { return find_arrangement(l.arrangement)->carrier == Carrier::air; }
Fluid fluid_of(const Loop& l, double t_c) { return is_air(l) ? warm_air() : fluid_at(glycol_of(l), t_c); }
double rate_w_k(const Fluid& f, double flow) { return flow * f.density_kg_m3 * f.heat_capacity_j_kgk; }

const Pump& pump_at(C c) { return c.part == Part::pump_2 ? c.loop().pump_2 : c.loop().pump; }
Pump& pump_at(Loop& l, Part p) { return p == Part::pump_2 ? l.pump_2 : l.pump; }
const Pipe& pipe_at(C c) { return c.part == Part::back ? c.loop().back : c.part == Part::supply_2 ? c.loop().supply_2
                                                                     : c.part == Part::back_2     ? c.loop().back_2
                                                                                                  : c.loop().supply; }
Pipe& pipe_at(Loop& l, Part p) { return p == Part::back ? l.back : p == Part::supply_2 ? l.supply_2
                                                               : p == Part::back_2     ? l.back_2
                                                                                       : l.supply; }
const Collector& collector_at(C c) { return c.part == Part::collector_2 ? c.loop().collector_2 : c.loop().collector; }
Collector& collector_at(Loop& l, Part p) { return p == Part::collector_2 ? l.collector_2 : l.collector; }
const Tank& tank_at(C c) { return c.part == Part::tank_2 ? c.loop().tank_2 : c.loop().tank; }
Tank& tank_at(Loop& l, Part p) { return p == Part::tank_2 ? l.tank_2 : l.tank; }

const Route& route_of(C c)
{
    const auto& routes = find_arrangement(c.loop().arrangement)->routes;
    for (const Route& r : routes)
        if ((r.pump == 1) == (c.part == Part::pump_2))
            return r;
    return routes.front();
}

double section_m2(double bore_m) { return std::numbers::pi / 4 * bore_m * bore_m; }
double coldest_c(C c)
{
    double coldest = INFINITY;
    for (const Day& d : c.job.days)
        coldest = std::min(coldest, d.kind == DayKind::generated ? d.sky.air_min_c : INFINITY);
    return std::isfinite(coldest) ? coldest : 0.0;
}
double drawn_a_day_m3(C c)
{
    double sum = 0;
    for (const Draw& d : c.job.days.front().draws)
        sum += d.flow_m3_s * d.duration_s;
    return sum;
}
double lift_of(C c) { return find_arrangement(c.loop().arrangement)->drains ? c.loop().drain_back.lift_m : 0.0; }

// --- flow, heat -------------------------------------------------------------

SumResult bucket(X x, C c)
{
    const double flow = x[0] / x[1];
    return {line(show(x[0], Q::volume, c), " in ", show(x[1], Q::duration, c), " = ", show(flow, Q::flow, c)), flow};
}

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

SumResult exchanger_ua(X x, C c)
{
    const double heat = rate_w_k(fluid_of(c.loop(), working_c), x[0]) * (x[1] - x[2]);
    const double a = x[1] - x[4], b = x[2] - x[3];
    if (a <= 0 || b <= 0 || heat <= 0)
        return {"The solar side must be warmer than the water at both ends, and cool as it goes through.", NAN};
    const double mean = std::fabs(a - b) < 1e-6 ? a : (a - b) / std::log(a / b);
    return {line(show(heat, Q::power, c), " over a mean difference of ", show(mean, Q::difference, c), " = ", show(heat / mean, Q::conductance, c)), heat / mean};
}

SumResult standing_loss(X x, C c)
{
    const Tank& t = tank_at(c);
    const double a = x[0] - x[2], b = x[1] - x[2];
    if (a <= 0 || b <= 0 || b > a)
        return {"The tank must cool, and stay above the room.", NAN};
    const Fluid w = fluid_at(0, (x[0] + x[1]) / 2);
    const double capacity = t.volume_m3 * w.density_kg_m3 * w.heat_capacity_j_kgk, loss = capacity * std::log(a / b) / (x[3] * 3600);
    return {line(show(capacity, Q::heat_capacity, c), " × ln(", show(a, Q::difference, c), " / ", show(b, Q::difference, c), ") / ", show(x[3], Q::hours, c), " = ", show(loss, Q::conductance, c)), loss};
}

SumResult tempering(X x, C c)
{
    if (!(x[0] > x[2]) || !(x[2] > x[1]))
        return {"The tap must lie between the cold mains and the tank.", NAN};
    const double share = (x[2] - x[1]) / (x[0] - x[1]);
    return {line("(", show(x[2], Q::temperature, c), " − ", show(x[1], Q::temperature, c), ") / (", show(x[0], Q::temperature, c), " − ", show(x[1], Q::temperature, c), ") = ", show(share, Q::ratio, c), " from the tank\n",
                show(x[3], Q::flow, c), " at the tap = ", show(x[3] * share, Q::flow, c), " hot + ", show(x[3] * (1 - share), Q::flow, c), " cold"),
        share};
}

// --- volumes ----------------------------------------------------------------

SumResult pipe_bore(X x, C c)
{
    const double bore = x[0] - 2 * x[1];
    if (bore < 0.004)
        return {"The walls leave no bore.", NAN};
    const Pipe& p = pipe_at(c);
    return {line(show(x[0], Q::bore, c), " − 2 × ", show(x[1], Q::bore, c), " = ", show(bore, Q::bore, c), "\n", show(p.length_m, Q::length, c), " of it hold ", show(p.length_m * section_m2(bore), Q::volume, c)), bore};
}

SumResult collector_content(X x, C c)
{
    const double v = collector_at(c).area_m2 * x[0] * 1e-3;
    return {line(show(collector_at(c).area_m2, Q::area, c), " × ", show(x[0] * 1e-3, Q::volume, c), "/m² = ", show(v, Q::volume, c)), v};
}

SumResult storage(X x, C c)
{
    const double draw = x[0] * x[1], array = x[2] * 1e-3 * c.loop().collector.area_m2;
    return {line(show(x[0], Q::volume, c), " a day × ", show(x[1], Q::number, c), " days = ", show(draw, Q::volume, c), "\nby the array: ", show(x[2] * 1e-3, Q::volume, c), " per m² × ", show(c.loop().collector.area_m2, Q::area, c), " = ",
                show(array, Q::volume, c), "\nthe larger of the two"),
        std::max(draw, array)};
}

SumResult array_area(X x, C c)
{
    const double area = x[0] / (x[1] * 1e-3);
    return {line(show(x[0], Q::volume, c), " / ", show(x[1] * 1e-3, Q::volume, c), " per m² = ", show(area, Q::area, c)), area};
}

SumResult pool_volume(X x, C c)
{
    const double depth = (x[2] + x[3]) / 2, area = x[0] * x[1] * x[4];
    return {line(show(x[0], Q::length, c), " × ", show(x[1], Q::length, c), " × ", show(x[4], Q::ratio, c), " = ", show(area, Q::area, c), "\n× ", show(depth, Q::length, c), " of mean depth = ", show(area * depth, Q::large_volume, c),
                "\n1.16 kWh per m³ and kelvin: ", show(area * depth * 4.18e6, Q::energy, c), " for each"),
        area * depth};
}

// --- pump and pipe -----------------------------------------------------------

SumResult lift(X x, C c)
{
    return {line(show(x[0], Q::length, c), " − ", show(x[1], Q::length, c), " = ", show(x[0] - x[1], Q::length, c), ", ", show((x[0] - x[1]) * 998 * gravity_m_s2, Q::pressure_drop, c)), x[0] >= x[1] ? x[0] - x[1] : NAN};
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

SumResult friction(X x, C c)
{
    const Pipe& p = pipe_at(c);
    const Fluid f = fluid_of(c.loop(), x[1]);
    const double u = x[0] / section_m2(p.bore_m), re = u * p.bore_m / f.kinematic_m2_s();
    return {line("u = ", show(u, Q::speed, c), ", Re = ", std::to_string(std::lround(re)), ", f = ", to_text(friction_factor(re, p.roughness_m / p.bore_m), Q::small_number, {}), "\n(f L/d + ", show(p.fittings, Q::number, c), ") ρ u²/2 = ",
                show(pipe_drop_pa(p, f, x[0]), Q::pressure_drop, c)),
        NAN};
}

// --- drain-back ---------------------------------------------------------------

SumResult what_drains(X, C c)
{
    const Draining d = draining(c.loop(), c.job.site.place.altitude_m);
    const double lifted = flow_against(c.loop().pump, c.loop().drain_back.lift_m, c.loop().pump.speed);
    return {line("array ", show(d.array_m3, Q::volume, c), " + outdoor pipe ", show(d.pipe_m3, Q::volume, c), " = ", show(d.array_m3 + d.pipe_m3, Q::volume, c), "\nwith a quarter more: ", show(d.reservoir_m3, Q::volume, c), "\nfills in ",
                lifted > 0 ? show((d.array_m3 + d.pipe_m3) / lifted, Q::duration, c) : std::string("–, the lift is not reached"), "\nwater at ", show(d.hot_c, Q::temperature, c), " hangs together over ", show(d.siphon_m, Q::length, c), " here"),
        find_arrangement(c.loop().arrangement)->has(Part::reservoir) ? d.reservoir_m3 : NAN};
}

SumResult suction(X x, C c)
{
    const DrainBack& d = c.loop().drain_back;
    const double has = suction_head_m(x[0], d.suction_m, c.job.site.place.altitude_m), highest = d.suction_m + has - d.suction_need_m;
    return {line("(p air − p vapour) / ρg − ", show(d.suction_m, Q::length, c), " = ", show(has, Q::length, c), ", the pump needs ", show(d.suction_need_m, Q::length, c), "\nits inlet may lie ", show(highest, Q::length, c), " over the water",
                has < d.suction_need_m ? "\nIt draws steam: lower the pump, or keep the water cooler" : ""),
        NAN};
}

// --- electrical ----------------------------------------------------------------

constexpr std::array sections_m2{0.5e-6, 0.75e-6, 1e-6, 1.5e-6, 2.5e-6, 4e-6, 6e-6, 10e-6, 16e-6, 25e-6, 35e-6};

SumResult wire(X x, C c)
{
    for (double section : sections_m2) {
        Wiring w = c.loop().wiring;
        w.section_m2 = section;
        const double drop = x[0] * cable_ohm(w);
        if (drop <= x[2] * x[1] && cable_bears_a(section) >= x[0])
            return {line("2 × ", show(w.cable_m, Q::length, c), " of ", show(section, Q::wire, c), ", warm: ", show(cable_ohm(w), Q::resistance, c), "\n× ", show(x[0], Q::current, c), " = ", show(drop, Q::voltage, c), ", ", show(drop / x[1], Q::ratio, c), " of ", show(x[1], Q::voltage, c),
                        "\nit bears ", show(cable_bears_a(section), Q::current, c)),
                section};
    }
    return {"No usual section is enough: shorten the cable, or raise the voltage.", NAN};
}

SumResult breaker(X, C c)
{
    const Wiring& w = c.loop().wiring;
    const double best = breaker_for(c.loop());
    const bool dc = find_arrangement(c.loop().arrangement)->has(Part::motor);
    const MotorCurrents m = motor_currents(c.loop());
    return {line("the unit bears ", show(w.output_a, Q::current, c), ", the cable ", show(cable_bears_a(w.section_m2), Q::current, c), dc ? line("\nthe motor takes ", show(m.working_a, Q::current, c), " at work, ", show(m.stalled_a, Q::current, c), " held fast") : "",
                best > 0 ? line("\nthe largest that protects the weakest: ", show(best, Q::current, c)) : "\nno breaker protects the weakest and carries the pump"),
        best > 0 ? best : NAN};
}

double mains_or_dc(C c, double mains, double dc) { return find_arrangement(c.loop().arrangement)->has(Part::motor) ? dc : mains; }

SumResult panel_size(X x, C c)
{
    const Panel& p = c.loop().panel;
    const double day_wh = x[0] * x[1] * x[2], watt = day_wh / (x[3] * x[4]);
    return {line(show(x[0], Q::current, c), " × ", show(x[1], Q::voltage, c), " × ", show(x[2], Q::hours, c), " = ", std::to_string(std::lround(day_wh)), " Wh a day\n/ (", show(x[3], Q::hours, c), " of full sun × ", show(x[4], Q::ratio, c), ") = ", show(watt, Q::power, c),
                "\nthe panel has ", show(p.imp_a * p.vmp_v, Q::power, c)),
        watt};
}

SumResult battery_size(X x, C c)
{
    const double day_ah = x[0] * x[1], capacity = day_ah * x[2] / x[3];
    return {line(show(x[0], Q::current, c), " × ", show(x[1], Q::hours, c), " = ", show(day_ah, Q::charge, c), " a day\n× ", show(x[2], Q::number, c), " days / ", show(x[3], Q::ratio, c), " that may be used = ", show(capacity, Q::charge, c)), capacity};
}

// --- closed loop ------------------------------------------------------------------

SumResult vessel_size(X x, C c)
{
    const double content = ring_content_m3(c.loop()), needed = vessel_for(c.loop(), x[0]);
    if (!std::isfinite(needed))
        return {"The gas must stand below nine tenths of the relief valve's pressure.", NAN};
    const double grows = expansion(glycol_of(c.loop()), 15, x[0]);
    const Network network(c.loop(), {});
    Pressure p(network, c.loop(), c.job.site.place.altitude_m);
    p.settle(std::vector<double>(network.size(), x[0]), 0);
    return {line("the loop, ", show(content, Q::volume, c), ", grows by ", show(content * grows, Q::volume, c), "\n+ the array as steam + a reserve,\n× p / (p − gas) = ", show(needed, Q::volume, c), "\nthe present one, all at ", show(x[0], Q::temperature, c), ":\n", show(p.pa(), Q::pressure, c)),
        needed};
}

SumResult cold_fill(X x, C c)
{
    const double fill = x[0] * 1000 * gravity_m_s2 + x[1];
    return {line(show(x[0], Q::length, c), " of fluid = ", show(x[0] * 1000 * gravity_m_s2, Q::pressure, c), "\n+ ", show(x[1], Q::pressure, c), " at the top = ", show(fill, Q::pressure, c), "\ngas of the empty vessel: ", show(fill - 0.3e5, Q::pressure, c)), fill};
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
bool no_air(const Arrangement& a) { return a.carrier != Carrier::air; }

std::vector<FieldSum> loop_sums()
{
    using P = Part;
    constexpr const char* balance = "energy balance, Q = m c ΔT";
    return {
        {"flow", {P::pump, P::pump_2}, "Flow by bucket and watch", common,
            {{{"volume_m3", "Volume caught", Q::volume, 1e-4, 1, "A bucket with a mark"}, [](C) { return 0.01; }},
                {{"time_s", "Time taken", Q::duration, 1, 3600, "By stop-watch"}, [](C c) { return std::round(0.01 / std::max(1e-6, pump_at(c).flow_m3_s)); }}},
            bucket, "Take this flow", [](Loop& l, P p, X, double v) { pump_at(l, p).flow_m3_s = v; pump_at(l, p).by_curve = false; }, no_air},
        {"curve", {P::pump, P::pump_2}, "Curve from points", "least squares of H = H0 − a Q²",
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
        {"working_point", {P::pump, P::pump_2}, "Where curve and friction meet", "Darcy and Weisbach; Colebrook 1939", {{{"fluid_c", "Fluid at", Q::temperature, -30, 140, "Cold fluid is thicker"}, [](C) { return working_c; }}}, working_point, "Take this flow", [](Loop& l, P p, X, double v) { pump_at(l, p).flow_m3_s = v; }, no_air},
        {"pump_choice", {P::pump, P::pump_2, P::drain_back}, "Is the pump strong enough?", "Darcy and Weisbach; Colebrook 1939", {{{"flow_m3_s", "Flow wanted", Q::flow, 1e-6, 2, "0.3 to 1 L/min per m² of collector (estimate)"}, [](C c) { return pump_at(c).flow_m3_s; }}, {{"fluid_c", "Fluid at", Q::temperature, -30, 140, "The coldest start is the hardest"}, [](C) { return 10.0; }}}, pump_choice, "Take this flow", [](Loop& l, P p, X, double v) { pump_at(l, p).flow_m3_s = v; }, no_air},
        {"glycol_mix", {P::pump, P::vessel}, "Glycol for the frost", "ASHRAE Handbook Fundamentals, secondary coolants (from memory)", {{{"coldest_c", "Coldest air", Q::temperature, -50, 10, ""}, coldest_c}, {{"reserve_k", "Reserve", Q::difference, 0, 20, "A clear sky cools below the air"}, [](C) { return 5.0; }}}, glycol_mix, "Take this mixture", [](Loop& l, P, X, double v) { l.glycol_fraction = v; }, has_glycol},
        {"heat", {P::collector, P::collector_2}, "Heat from flow and rise", balance, {{{"flow_m3_s", "Flow", Q::flow, 1e-6, 2, "By bucket and watch"}, [](C c) { return c.loop().pump.flow_m3_s; }}, {{"rise_k", "Rise across the array", Q::difference, 0.1, 80, "Two probes, pump running for ten minutes"}, [](C) { return 6.0; }}, {{"sun_w_m2", "Sun on it", Q::irradiance, 100, 1300, "A meter held in its plane"}, [](C) { return 800.0; }}, {{"over_air_k", "Mean over the air", Q::difference, -20, 120, "Half way between inlet and outlet, less the air"}, [](C) { return 25.0; }}}, heat_rise, "Take it as the efficiency without loss", [](Loop& l, P p, X, double v) { collector_at(l, p).eta0 = v; }},
        {"array_content", {P::collector, P::collector_2}, "Fluid in the array", common, {{{"litres_m2", "Litres per m²", Q::number, 0.05, 20, "0.5 to 1 flat plate, 0.1 to 0.3 heat-pipe tubes"}, [](C c) { return 1000 * collector_at(c).content_m3 / collector_at(c).area_m2; }}}, collector_content, "Take this content", [](Loop& l, P p, X, double v) { collector_at(l, p).content_m3 = v; }, no_air},
        {"array_area", {P::collector}, "Array for the hot water", common, {{{"draw_m3", "Hot water a day", Q::volume, 0.005, 50, ""}, [](C c) { return std::max(0.05, drawn_a_day_m3(c)); }}, {{"litres_m2", "Litres a day per m²", Q::number, 5, 200, "About 1.5 US gal per ft², 61 L/m², in a sunny climate"}, [](C) { return 61.0; }}}, array_area, "Take this area", [](Loop& l, P p, X, double v) { collector_at(l, p).area_m2 = v; }, [](const Arrangement& a) { return a.has(P::tank); }},
        {"bore", {P::supply, P::back, P::supply_2, P::back_2}, "Bore and content", "geometry", {{{"outside_m", "Outside diameter", Q::bore, 0.005, 0.6, "Calliper, or circumference over π"}, [](C c) { return pipe_at(c).bore_m + 0.002; }}, {{"wall_m", "Wall", Q::bore, 0.0003, 0.05, "1 mm of usual copper"}, [](C) { return 0.001; }}}, pipe_bore, "Take this bore", [](Loop& l, P p, X, double v) { pipe_at(l, p).bore_m = v; }},
        {"friction", {P::supply, P::back, P::supply_2, P::back_2}, "Friction", "Darcy and Weisbach; Colebrook 1939", {{{"flow_m3_s", "Flow", Q::flow, 1e-6, 2, ""}, [](C c) { return c.loop().pump.flow_m3_s; }}, {{"fluid_c", "Fluid at", Q::temperature, -30, 140, ""}, [](C) { return working_c; }}}, friction, nullptr, nullptr},
        {"storage", {P::tank, P::tank_2}, "Tank for draw and array", common, {{{"draw_m3", "Drawn a day", Q::volume, 0.005, 50, ""}, [](C c) { return std::max(0.05, drawn_a_day_m3(c)); }}, {{"days", "Days it should last", Q::number, 0.5, 5, "One to two days of draw"}, [](C) { return 1.5; }}, {{"litres_m2", "Litres per m² of array", Q::number, 10, 200, "50 to 75"}, [](C) { return 60.0; }}}, storage, "Take this volume", [](Loop& l, P p, X, double v) { tank_at(l, p).volume_m3 = v; }},
        {"standing_loss", {P::tank, P::tank_2}, "Standing loss by a night's cooling", "Newton's law of cooling", {{{"evening_c", "In the evening", Q::temperature, 10, 95, "Mean of top and bottom, no draw in between"}, [](C) { return 60.0; }}, {{"morning_c", "In the morning", Q::temperature, 10, 95, ""}, [](C) { return 57.0; }}, {{"room_c", "Room", Q::temperature, -20, 40, ""}, [](C c) { return tank_at(c).room_c; }}, {{"hours", "Hours between", Q::hours, 1, 24, ""}, [](C) { return 10.0; }}}, standing_loss, "Take this loss", [](Loop& l, P p, X, double v) { tank_at(l, p).loss_w_k = v; }},
        {"tempering", {P::tank}, "Tempering valve", "mixing of two waters", {{{"tank_c", "Tank", Q::temperature, 5, 99, ""}, [](C) { return 65.0; }}, {{"cold_c", "Cold mains", Q::temperature, 0, 35, ""}, [](C c) { return c.job.days.front().mains_c; }}, {{"tap_c", "Tap", Q::temperature, 20, 90, "49 °C at most at a tap people use"}, [](C c) { return c.job.days.front().draw_target_c; }}, {{"flow_m3_s", "At the tap", Q::flow, 1e-6, 0.02, ""}, [](C) { return 1e-4; }}}, tempering, nullptr, nullptr},
        {"exchanger", {P::exchanger}, "Heat per kelvin from four readings", "logarithmic mean difference, counterflow", {{{"flow_m3_s", "Flow of the solar side", Q::flow, 1e-6, 2, ""}, [](C c) { return c.loop().pump.flow_m3_s; }}, {{"hot_in_c", "Solar side in", Q::temperature, 0, 150, ""}, [](C) { return 60.0; }}, {{"hot_out_c", "Solar side out", Q::temperature, 0, 150, ""}, [](C) { return 48.0; }}, {{"cold_in_c", "Water in", Q::temperature, 0, 100, ""}, [](C) { return 40.0; }}, {{"cold_out_c", "Water out", Q::temperature, 0, 100, ""}, [](C) { return 51.0; }}}, exchanger_ua, "Take this exchanger", [](Loop& l, P, X, double v) { l.exchanger.ua_w_k = v; }},
        {"pool", {P::pool}, "Volume from its shape", "geometry", {{{"length_m", "Length", Q::length, 1, 200, ""}, [](C) { return 10.0; }}, {{"width_m", "Width", Q::length, 1, 100, ""}, [](C c) { return c.loop().pool.area_m2 / 10.0; }}, {{"shallow_m", "Shallow end", Q::length, 0.1, 10, ""}, [](C) { return 1.2; }}, {{"deep_m", "Deep end", Q::length, 0.1, 20, ""}, [](C) { return 2.0; }}, {{"shape", "Of the rectangle it fills", Q::ratio, 0.3, 1, "100 % rectangle, 79 % oval or round, about 85 % kidney"}, [](C) { return 1.0; }}}, pool_volume, "Take volume and surface", [](Loop& l, P, X x, double v) {
             l.pool.volume_m3 = v;
             l.pool.area_m2 = x[0] * x[1] * x[4];
         }},
        {"lift", {P::drain_back}, "Lift from two heights", "geometry", {{{"top_m", "Top of the array", Q::length, 0, 100, "Over any one mark, for example the floor"}, [](C c) { return c.loop().drain_back.lift_m + 1; }}, {{"water_m", "Resting water", Q::length, 0, 100, "Over the same mark"}, [](C) { return 1.0; }}}, lift, "Take this lift", [](Loop& l, P, X, double v) { l.drain_back.lift_m = v; }},
        {"drains", {P::drain_back, P::reservoir}, "What drains", "geometry; siphon height by the steam table", {}, what_drains, "Take it for the reservoir", [](Loop& l, P, X, double v) { l.reservoir.volume_m3 = v; }},
        {"suction", {P::drain_back}, "Does the pump draw hot water?", "net positive suction head; steam table", {{{"water_c", "Water at the inlet", Q::temperature, 5, 99, ""}, [](C) { return 70.0; }}}, suction, nullptr, nullptr},
        {"wire", {P::wiring}, "Wire for a drop", "IEC 60228 class 5, IEC 60364-5-52 annex D (from memory)", {{{"current_a", "Current", Q::current, 0.05, 100, ""}, [](C c) { return mains_or_dc(c, std::max(0.05, c.loop().pump.power_w / 230), c.loop().motor.current_a); }}, {{"volt_v", "Voltage", Q::voltage, 5, 400, ""}, [](C c) { return mains_or_dc(c, 230, c.loop().motor.volt_v); }}, {{"drop", "Allowed drop", Q::ratio, 0.005, 0.2, "3 % (common practice, no source)"}, [](C) { return 0.03; }}}, wire, "Take this wire", [](Loop& l, P, X, double v) { l.wiring.section_m2 = v; }},
        {"breaker", {P::wiring}, "Breaker for the weakest part", "IEC 60364-4-43: rating at most what is behind it (from memory)", {}, breaker, "Take this breaker", [](Loop& l, P, X, double v) { l.wiring.breaker_a = v; }},
        {"panel", {P::panel}, "Panel for the pump", common, {{{"current_a", "Pump's current", Q::current, 0.02, 100, "At its working point, not the label's"}, [](C c) { return c.loop().motor.current_a; }}, {{"volt_v", "Pump's voltage", Q::voltage, 1, 200, ""}, [](C c) { return c.loop().motor.volt_v; }}, {{"hours", "Runs a day", Q::hours, 0.5, 24, ""}, [](C) { return 6.0; }}, {{"sun_h", "Hours of full sun", Q::hours, 0.5, 10, "2 in winter, 5 in summer"}, [](C) { return 3.0; }}, {{"yield", "Of it arrives", Q::ratio, 0.2, 1, "Heat, dust, cable, charging: 65 to 80 %"}, [](C) { return 0.7; }}}, panel_size, "Take a panel of this power", [](Loop& l, P, X, double watt) {
             const double more = watt / std::max(1e-6, l.panel.imp_a * l.panel.vmp_v);
             l.panel.imp_a *= more;
             l.panel.isc_a *= more;
             l.panel.isc_a_k *= more;
         }},
        {"battery", {P::battery}, "Battery for dark days", common, {{{"current_a", "Mean current while it runs", Q::current, 0.02, 100, ""}, [](C c) { return c.loop().motor.current_a; }}, {{"hours", "Runs a day", Q::hours, 0.1, 24, ""}, [](C) { return 5.0; }}, {{"days", "Dark days", Q::number, 0.5, 14, "2 to 5"}, [](C) { return 3.0; }}, {{"usable", "Of it may be used", Q::ratio, 0.2, 1, "Half, for a lead-acid battery that shall last"}, [](C) { return 0.5; }}}, battery_size, "Take this battery", [](Loop& l, P, X, double v) { l.battery.capacity_ah = v; }},
        {"vessel", {P::vessel}, "Vessel for expansion and steam", "Boyle's law", {{{"hot_c", "Loop at its hottest", Q::temperature, 40, 180, "Fluid, before it boils: about 120 °C"}, [](C) { return 120.0; }}}, vessel_size, "Take this vessel", [](Loop& l, P, X, double v) { l.vessel.volume_m3 = v; }},
        {"cold_fill", {P::vessel}, "Cold fill", common, {{{"height_m", "Top of the loop over the gauge", Q::length, 0, 100, ""}, [](C c) { return std::max(0.0, c.loop().check_valve.rise_m + 2); }}, {{"top_pa", "Pressure at the top", Q::pressure, 0, 1e6, "0.5 to 1.5 bar, so that no air comes in"}, [](C) { return 1.0e5; }}}, cold_fill, "Take fill and gas", [](Loop& l, P, X, double v) {
             l.vessel.fill_pa = v;
             l.vessel.precharge_pa = std::max(0.0, v - 0.3e5);
         }},
    };
}

} // namespace

const std::vector<FieldSum>& field_sums()
{
    static const std::vector<FieldSum> table = [] {
        std::vector<FieldSum> all = loop_sums();
        for (FieldSum& s : probe_sums())
            all.push_back(std::move(s));
        return all;
    }();
    return table;
}

const FieldSum* find_sum(const std::string& key)
{
    const auto& all = field_sums();
    const auto it = std::find_if(all.begin(), all.end(), [&](const FieldSum& s) { return key == s.key; });
    return it == all.end() ? nullptr : &*it;
}

namespace {

// Finds the first number of a loop that the job file would refuse.
struct OutOfRange : FieldVisitor {
    const NumberField* found = nullptr;
    NumberField field{};
    void number(const NumberField& f, double x)
    {
        if (!found && !(x >= f.min && x <= f.max)) {
            field = f;
            found = &field;
        }
    }
    void temperature(const NumberField& f, Temperature t) { number(f, t.in_celsius()); }
    void difference(const NumberField& f, TempDiff d) { number(f, d.in_kelvin()); }
    template <class T>
    void object(const char*, const T& x) { fields(*this, x); }
    template <class T>
    void spare_object(const char*, const T& x) { fields(*this, x); }
};

} // namespace

Result<Variant> taken(const FieldSum& sum, const std::vector<double>& x, const SumContext& c)
{
    const SumResult r = sum.work(x, c);
    if (!sum.writes() || !std::isfinite(r.value))
        return Error{sum.writes() ? r.text : std::string("this sum is for reading only"), sum.title, ""};
    Variant v = c.variant;
    if (sum.write)
        sum.write(v.loop, c.part, x, r.value);
    else
        sum.write_probe(v, c.probe, x, r.value);
    OutOfRange range;
    fields(range, std::as_const(v.loop));
    fields(range, std::as_const(v.input));
    for (const Probe& p : std::as_const(v.probes))
        fields(range, p);
    if (range.found)
        return Error{"the result is outside what “" + std::string(range.field.label) + "” can be", sum.title, "It must lie between " + to_text(range.field.min, range.field.quantity, c.units) + " and " + to_text(range.field.max, range.field.quantity, c.units)};
    return v;
}

std::vector<const FieldSum*> sums_at(Part part, const Arrangement& a)
{
    std::vector<const FieldSum*> out;
    for (const FieldSum& s : field_sums())
        if (a.has(part) && std::find(s.parts.begin(), s.parts.end(), part) != s.parts.end() && (!s.applies || s.applies(a)))
            out.push_back(&s);
    return out;
}

std::vector<const FieldSum*> sums_on(ProbePage page)
{
    std::vector<const FieldSum*> out;
    for (const FieldSum& s : field_sums())
        if (s.page == page)
            out.push_back(&s);
    return out;
}

} // namespace vernal
