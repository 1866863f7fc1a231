#include "loop_live.h"

#include "app/shell/theme.h"

#include <algorithm>
#include <cmath>

namespace vernal {

QColor temperature_colour(double c)
{
    if (!std::isfinite(c))
        return theme().air;
    const double f = std::clamp(c / 90.0, 0.0, 1.0);
    const QColor cool(0x4F, 0x7F, 0xA3), mid(0x9A, 0x93, 0x6E), hot(0xB8, 0x55, 0x1E);
    const auto mix = [](const QColor& a, const QColor& b, double s) {
        return QColor::fromRgbF(static_cast<float>(std::lerp(a.redF(), b.redF(), s)), static_cast<float>(std::lerp(a.greenF(), b.greenF(), s)), static_cast<float>(std::lerp(a.blueF(), b.blueF(), s)));
    };
    return f < 0.5 ? mix(cool, mid, f * 2) : mix(mid, hot, f * 2 - 1);
}

LoopLive live_at(const Outcome& o, std::size_t i, const Network& net, const Arrangement& arrangement)
{
    LoopLive l;
    const Record& r = o.coupled.records[i];
    const float* node = o.coupled.nodes.data() + i * o.coupled.node_count;
    const auto some = [&](NodeRange range) { return std::vector<double>(node + range.first, node + range.first + range.count); };
    for (std::size_t s = 0; s < segments; ++s)
        l.along[s] = some(net.nodes_of(static_cast<Segment>(s)));
    l.known = true;
    l.running = r.running;
    l.tank = some(net.tank(0));
    l.tank_2 = some(net.tank(1));
    l.tank_layers = net.tank_layers(0); // both are divided alike
    l.store = static_cast<double>(node[net.store_top()]);
    for (std::size_t k = 0; k < arrangement.routes.size(); ++k)
        if (const Route& route = arrangement.routes[k]; r.flows.route_w_k[k] > 0) {
            l.flow_m3_s[static_cast<std::size_t>(route.turns)] += r.flows.route_w_k[k] / net.rate_w_k(k, 1.0);
            for (Segment s : route.ring)
                l.flows[static_cast<std::size_t>(s)] = true;
        }
    l.drained = r.flows.drained;
    l.wet_share = r.flows.wet_share[0];
    l.power_volt = static_cast<double>(r.volt);
    l.charge = static_cast<double>(r.charge);
    l.pressure_pa = static_cast<double>(r.pressure_pa);
    l.element_w = r.flows.element_w;
    l.heater_w = r.flows.heater_w;
    l.trouble = r.trouble;
    for (std::size_t k = 0; k < arrangement.routes.size(); ++k)
        if (r.flows.route_w_k[k] < 0)
            l.reverse_m3_s = -r.flows.route_w_k[k] / net.rate_w_k(k, 1.0);
    l.plane = static_cast<double>(r.plane_w_m2);
    l.air = static_cast<double>(r.air_c);
    return l;
}

} // namespace vernal
