#include "shared.h"

namespace vernal {

using namespace sums;

namespace {

SumResult exchanger_ua(X x, C c)
{
    const double heat = rate_w_k(fluid_of(c.loop(), working_c), x[0]) * (x[1] - x[2]);
    const double a = x[1] - x[4], b = x[2] - x[3];
    if (a <= 0 || b <= 0 || heat <= 0)
        return {"The solar side must be warmer than the water at both ends, and cool as it goes through.", NAN};
    const double mean = std::fabs(a - b) < 1e-6 ? a : (a - b) / std::log(a / b);
    return {line(show(heat, Q::heat_rate, c), " over a mean difference of ", show(mean, Q::difference, c), " = ", show(heat / mean, Q::conductance, c)), heat / mean};
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

SumResult storage(X x, C c)
{
    const double per_m2 = warmed_per_m2(x[2], x[3], x[4]);
    const double draw = x[0] * x[1], array = per_m2 * c.loop().collector.area_m2;
    return {line(show(x[0], Q::volume, c), " a day × ", show(x[1], Q::number, c), " days = ", show(draw, Q::volume, c), "\nby the array: ", show(per_m2, Q::area_content, c), " warmed by ", show(x[4], Q::difference, c), " × ", show(c.loop().collector.area_m2, Q::area, c), " = ",
                show(array, Q::volume, c), "\nthe larger of the two"),
        std::max(draw, array)};
}

// Length, width, both depths and share of the rectangle, of a shape that begins at this input; one
// joined to the first that has no length is none.
constexpr std::size_t pool_shape_inputs = 5;
double shape_m2(X x, std::size_t at) { return x[at] * x[at + 1] * x[at + 4]; }

SumResult pool_volume(X x, C c)
{
    double volume = 0;
    std::string text;
    for (std::size_t at = 0; at < pool_shape_inputs * 2; at += pool_shape_inputs)
        if (const double area = shape_m2(x, at); area > 0) {
            const double depth = (x[at + 2] + x[at + 3]) / 2;
            text += line(show(x[at], Q::length, c), " × ", show(x[at + 1], Q::length, c), " × ", show(x[at + 4], Q::ratio, c), " = ", show(area, Q::area, c), "\n× ", show(depth, Q::length, c), " of mean depth = ", show(area * depth, Q::large_volume, c), "\n");
            volume += area * depth;
        }
    const double a_degree_k = c.units.fahrenheit ? 1 / 1.8 : 1.0;
    return {line(text, "to warm ", show(volume, Q::large_volume, c), " by ", show(a_degree_k, Q::difference, c), " takes ", show(volume * 4.18e6 * a_degree_k, Q::energy, c)), volume};
}

} // namespace

std::vector<FieldSum> store_sums()
{
    using P = Part;
    return {
        {"storage", {P::tank, P::tank_2}, "Tank for draw and array", "energy balance, Q = m c ΔT", {{{"draw_m3", "Drawn a day", Q::volume, 0.005, 50, ""}, [](C c) { return std::max(0.05, drawn_a_day_m3(c)); }}, {{"days", "Days it should last", Q::number, 0.5, 5, "Until the sun is back (estimate)"}, [](C) { return 1.3; }}, sun_on_a_m2(), share_of_sun(), rise_of_water()}, storage, "Take this volume", [](Loop& l, P p, X, double v) { tank_at(l, p).volume_m3 = v; }},
        {"standing_loss", {P::tank, P::tank_2}, "Standing loss by a night's cooling", "Newton's law of cooling", {{{"evening_c", "In the evening", Q::temperature, 10, 95, "Mean of top and bottom, no draw in between"}, [](C) { return 60.0; }}, {{"morning_c", "In the morning", Q::temperature, 10, 95, ""}, [](C) { return 57.0; }}, {{"room_c", "Room", Q::temperature, -20, 40, ""}, [](C c) { return tank_at(c).room_c; }}, {{"hours", "Hours between", Q::hours, 1, 24, ""}, [](C) { return 10.0; }}}, standing_loss, "Take this loss", [](Loop& l, P p, X, double v) { tank_at(l, p).loss_w_k = v; }},
        {"tempering", {P::tank}, "Tempering valve", "mixing of two waters", {{{"tank_c", "Tank", Q::temperature, 5, 99, ""}, [](C) { return 65.0; }}, {{"cold_c", "Cold mains", Q::temperature, 0, 35, ""}, [](C c) { return c.job.days.front().mains_c; }}, {{"tap_c", "Tap", Q::temperature, 20, 90, "49 °C at most at a tap people use"}, [](C c) { return c.job.days.front().draw_target_c; }}, {{"flow_m3_s", "At the tap", Q::flow, 1e-6, 0.02, ""}, [](C) { return 1e-4; }}}, tempering, nullptr, nullptr},
        {"exchanger", {P::exchanger}, "Heat per kelvin from four readings", "logarithmic mean difference, counterflow", {{{"flow_m3_s", "Flow of the solar side", Q::flow, 1e-6, 2, ""}, [](C c) { return c.loop().pump.flow_m3_s; }}, {{"hot_in_c", "Solar side in", Q::temperature, 0, 150, ""}, [](C) { return 60.0; }}, {{"hot_out_c", "Solar side out", Q::temperature, 0, 150, ""}, [](C) { return 48.0; }}, {{"cold_in_c", "Water in", Q::temperature, 0, 100, ""}, [](C) { return 40.0; }}, {{"cold_out_c", "Water out", Q::temperature, 0, 100, ""}, [](C) { return 51.0; }}}, exchanger_ua, "Take this exchanger", [](Loop& l, P, X, double v) { l.exchanger.ua_w_k = v; }},
        {"pool", {P::pool}, "Volume from its shape", "geometry", {{{"length_m", "Length", Q::length, 1, 200, ""}, [](C) { return 10.0; }}, {{"width_m", "Width", Q::length, 1, 100, ""}, [](C c) { return c.loop().pool.area_m2 / 10.0; }}, {{"shallow_m", "Shallow end", Q::length, 0.1, 10, ""}, [](C) { return 1.2; }}, {{"deep_m", "Deep end", Q::length, 0.1, 20, ""}, [](C) { return 2.0; }}, {{"shape", "Of the rectangle it fills", Q::ratio, 0.3, 1, "100 % rectangle, 79 % oval or round, about 85 % kidney"}, [](C) { return 1.0; }}, {{"length_2_m", "Joined to it: length", Q::length, 0, 200, "", "none"}, [](C) { return 0.0; }}, {{"width_2_m", "its width", Q::length, 0, 100, ""}, [](C) { return 2.0; }}, {{"shallow_2_m", "its shallow end", Q::length, 0.1, 10, ""}, [](C) { return 1.0; }}, {{"deep_2_m", "its deep end", Q::length, 0.1, 20, ""}, [](C) { return 1.0; }}, {{"shape_2", "of the rectangle it fills", Q::ratio, 0.3, 1, ""}, [](C) { return 1.0; }}}, pool_volume, "Take volume and surface", [](Loop& l, P, X x, double v) {
             l.pool.volume_m3 = v;
             l.pool.area_m2 = shape_m2(x, 0) + shape_m2(x, pool_shape_inputs);
         }},
    };
}

} // namespace vernal
