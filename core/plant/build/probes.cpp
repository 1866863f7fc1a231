#include "builder.h"

namespace vernal {

void NetworkBuilder::place_probes()
{
    const auto last = [&](Segment s) { return chains_[at(s)].nodes.empty() ? -1 : chains_[at(s)].nodes.back(); };
    const auto first = [&](Segment s) { return chains_[at(s)].nodes.empty() ? -1 : chains_[at(s)].nodes.front(); };
    const auto in_tank = [&](std::size_t which, double height) {
        const NodeRange r = n_.tank(which);
        return r.count == 0 ? -1 : static_cast<int>(r.first + layers_.at(height));
    };
    int store = in_tank(0, 0.9);
    for (int other : {last(Segment::pool), slab_mass_, last(Segment::room)})
        store = store < 0 ? other : store;
    n_.store_top_ = n_.has_tank() ? n_.tank(0).last() : at(store);
    const bool heated = n_.arrangement_.has(Part::heater) && l_.heater.way != HeaterWay::tank_only;
    n_.delivers_ = heated ? at(first(Segment::heater)) : n_.store_top_;
    n_.fed_heater_ = heated && !n_.past_tank_ ? first(Segment::heater) : -1;
    const auto put = [&](ProbePlace p, int node) { n_.place_[at(p)] = node < 0 ? store : node; };
    put(ProbePlace::collector, last(Segment::collector));
    put(ProbePlace::tank_bottom, in_tank(0, 0.1));
    put(ProbePlace::tank_middle, in_tank(0, 0.5));
    put(ProbePlace::tank_top, in_tank(0, 0.9));
    put(ProbePlace::return_pipe, last(Segment::return_pipe));
    put(ProbePlace::supply_pipe, first(Segment::supply_pipe));
    put(ProbePlace::collector_2, last(Segment::collector_2));
    put(ProbePlace::tank_2_bottom, in_tank(1, 0.1));
    put(ProbePlace::tank_2_top, in_tank(1, 0.9));
    put(ProbePlace::pool_water, last(Segment::pool));
    put(ProbePlace::slab_return, last(Segment::slab));
    put(ProbePlace::room_air, last(Segment::room));
    put(ProbePlace::circulation_return, last(Segment::circulation));
}

void NetworkBuilder::build_probe(const ProbeSite& site)
{
    const int read = n_.place_[at(site.place)];
    const int node = add_node(std::max(site.lag_s, 0.1), false);
    n_.probe_rows_.push_back({node, read, 1.0 - site.placement});
    (n_.outdoors_[at(read)] ? probe_air_ : probe_room_)[at(node)] = site.placement;
}

} // namespace vernal
