#include "builder.h"

namespace vernal {

namespace {

constexpr int slab_nodes = 4;
// Concrete: 2300 kg/m³, 880 J/kgK (handbook values, from memory); pipe in it every 15 cm, 13 mm bore.
constexpr double concrete_j_m3k = 2300.0 * 880.0;
constexpr double slab_pipe_m3_m2 = 1.0 / 0.15 * std::numbers::pi / 4 * 0.013 * 0.013;

} // namespace

void NetworkBuilder::build_slab(Segment s)
{
    const Slab& b = l_.slab;
    slab_mass_ = add_node(b.area_m2 * b.thickness_m * concrete_j_m3k, false, true);
    to_room(slab_mass_, b.room_w_m2k * b.area_m2, b.room_c, Loss::store);
    Chain chain;
    const Fluid& fluid = n_.arrangement_.has(Part::exchanger) ? n_.second_fluid_ : n_.fluid_;
    const double capacity = slab_pipe_m3_m2 * b.area_m2 * fluid.density_kg_m3 * fluid.heat_capacity_j_kgk / slab_nodes;
    for (int i = 0; i < slab_nodes; ++i) {
        const int node = add_node(capacity, false);
        n_.store_links_.push_back({node, slab_mass_, b.pipe_w_m2k * b.area_m2 / slab_nodes});
        chain.nodes.push_back(node);
    }
    keep(s, std::move(chain));
}

} // namespace vernal
