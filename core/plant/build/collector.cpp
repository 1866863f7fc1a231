#include "builder.h"

#include "core/plant/pane.h"

namespace vernal {

namespace {

// The same for a collector's parallel risers, as a share of the way through.
constexpr double collector_dispersion = 0.1;
constexpr int collector_base_nodes = 5;

} // namespace

void NetworkBuilder::build_collector(Segment s, const Collector& report, SunPlane plane)
{
    const Collector c = in_still_air(report);
    const int n = collector_base_nodes * fine_.collector;
    const double area = c.area_m2 / n;
    Chain chain{{}, collector_dispersion * n - 0.5, false, -1};
    for (int i = 0; i < n; ++i) {
        const int node = add_node(c.capacity_j_m2k * area, true);
        n_.ring_m3_.back() = c.content_m3 / n;
        drains(node, s, c.content_m3 / n * water_j_m3k(), 0.9 * c.capacity_j_m2k * area);
        to_air(node, c.a1_w_m2k * area, Loss::collector);
        n_.suns_.push_back({at(node), at(plane), c.eta0 * area, c.sky_exchange * area, Loss::collector, pane_w_m2k(n_.arrangement_.answers, c) * area, n_.arrangement_.answers.array == Array::trickle ? (s == Segment::collector_2 ? 1 : 0) : -1});
        n_.nonlinear_losses_.push_back({.node = at(node), .loss = Loss::collector, .square = c.a2_w_m2k2 * area, .wind_j_mk = c.wind_loss_j_m3k * area});
        chain.nodes.push_back(node);
    }
    keep(s, std::move(chain));
}

} // namespace vernal
