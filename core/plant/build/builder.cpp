#include "builder.h"

#include "core/plant/hydraulic_state.h"

namespace vernal {

void NetworkBuilder::build(const std::vector<ProbeSite>& probes)
{
    n_.past_tank_ = n_.arrangement_.has(Part::heater) && l_.heater.way == HeaterWay::heater_only;
    for (const Route& r : n_.arrangement_.routes)
        for (Segment s : r.ring)
            if (chains_[at(s)].nodes.empty())
                build_segment(s);
    if (n_.arrangement_.has(Part::heater) && chains_[at(Segment::heater)].nodes.empty())
        build_segment(Segment::heater);
    place_probes();
    n_.probe0_ = n_.n_;
    for (const ProbeSite& site : probes)
        build_probe(site);
    mark_unread();
    empty_capacities();
    make_rings();
    n_.pattern_ = make_pattern(1);
    n_.mixing_pattern_ = make_pattern(mixing_reach);
    for (std::size_t e = 0; e < n_.pattern_.entries(); ++e)
        n_.mixing_slot_.push_back(n_.mixing_pattern_.slot(static_cast<int>(n_.pattern_.row_of(e)), static_cast<int>(n_.pattern_.column_of(e))));
    add_up();
}

void NetworkBuilder::mark_unread()
{
    using S = Segment;
    n_.in_pipe_.assign(n_.n_, 0);
    for (S s : {S::supply_pipe, S::return_pipe, S::supply_2, S::return_2})
        for (int node : chains_[at(s)].nodes)
            n_.in_pipe_[at(node)] = 1;
    n_.unread_ = n_.in_pipe_;
    for (S s : {S::coil, S::coil_2, S::exchanger_hot, S::exchanger_cold, S::cooler, S::circulation})
        for (int node : chains_[at(s)].nodes)
            n_.unread_[at(node)] = 1;
    for (const Network::Pair& p : n_.probe_rows_)
        n_.unread_[at(p.b)] = 0;
}

int NetworkBuilder::add_node(double capacity_j_k, bool outdoors, bool store)
{
    n_.capacity_[0].push_back(capacity_j_k);
    n_.drains_.push_back(0.0);
    n_.array_of_.push_back(0);
    n_.outdoors_.push_back(outdoors);
    n_.may_freeze_.push_back(outdoors);
    n_.ring_m3_.push_back(0.0);
    n_.store_.push_back(store);
    for (auto* v : {&air_, &room_, &probe_air_, &probe_room_})
        v->push_back(0.0);
    room_c_.push_back(l_.tank.room_c);
    loss_.push_back(Loss::pipe);
    return static_cast<int>(n_.n_++);
}

void NetworkBuilder::to_air(int node, double w_k, Loss loss)
{
    air_[at(node)] += w_k;
    loss_[at(node)] = loss;
}

void NetworkBuilder::to_room(int node, double w_k, double room_c, Loss loss)
{
    room_[at(node)] += w_k;
    room_c_[at(node)] = room_c;
    loss_[at(node)] = loss;
}

// This much of the node's capacity runs out when the pump rests.
void NetworkBuilder::drains(int node, Segment of, double water_j_k, double at_most_j_k)
{
    const bool by_valve = n_.arrangement_.answers.empties == Empties::valve;
    if (!n_.arrangement_.drains && !by_valve)
        return;
    const double pitch_share = by_valve ? 1.0 : l_.drain_back.check_valve ? 0.0
                                                                          : std::clamp(l_.drain_back.pitch / least_pitch, 0.0, 1.0);
    n_.left_behind_ = 1.0 - pitch_share;
    n_.drains_[at(node)] = std::min(water_j_k, at_most_j_k) * pitch_share;
    const bool second = of == Segment::collector_2 || of == Segment::supply_2 || of == Segment::return_2;
    n_.array_of_[at(node)] = second ? 1 : 0;
    n_.draining_m3_[second ? 1 : 0] += n_.drains_[at(node)] / water_j_m3k();
}

void NetworkBuilder::empty_capacities()
{
    const Chain& reservoir = chains_[at(Segment::reservoir)];
    n_.drains_to_ = reservoir.nodes.empty() ? n_.store_top_ : at(reservoir.nodes.front());
    for (unsigned drained = 0; drained < n_.capacity_.size(); ++drained) {
        std::vector<double>& capacity = n_.capacity_[drained] = n_.capacity_[0];
        for (std::size_t i = 0; i < n_.n_; ++i)
            if ((drained >> n_.array_of_[i] & 1U) != 0) {
                capacity[i] -= n_.drains_[i];
                if (n_.arrangement_.drains) // else it runs away
                    capacity[n_.drains_to_] += n_.drains_[i];
            }
        for (double c : capacity)
            n_.inverse_capacity_[drained].push_back(1.0 / c);
    }
}

void NetworkBuilder::build_segment(Segment s)
{
    switch (s) {
    case Segment::collector: return build_collector(s, l_.collector, SunPlane::collector);
    case Segment::collector_2: return build_collector(s, l_.collector_2, SunPlane::collector_2);
    case Segment::return_pipe: return build_pipe(s, l_.back, true);
    case Segment::return_2: return build_pipe(s, l_.back_2, true);
    case Segment::supply_pipe: return build_pipe(s, l_.supply, false);
    case Segment::supply_2: return build_pipe(s, l_.supply_2, false);
    case Segment::tank_down: return run_down_tank(s, 0, l_.tank);
    case Segment::tank_2_down: return run_down_tank(s, 1, l_.tank_2);
    case Segment::coil: return build_coil(s, 0, l_.tank);
    case Segment::coil_2: return build_coil(s, 1, l_.tank_2);
    case Segment::exchanger_hot: return build_exchanger();
    case Segment::exchanger_cold: return build_exchanger();
    case Segment::rock_bed: return build_rock_bed(s);
    case Segment::pool: return build_pool(s);
    case Segment::slab: return build_slab(s);
    case Segment::room: return build_room(s);
    case Segment::cooler: return build_cooler(s);
    case Segment::reservoir: return build_reservoir(s);
    case Segment::circulation: return build_circulation(s);
    case Segment::tank_up: return run_up_tank(s);
    case Segment::heater: return build_heater(s);
    }
}

Network::Wall::Film NetworkBuilder::film(double with_water, const Pump& usual) const
{
    if (!n_.arrangement_.pumped()) // what rises by itself finds its own flow; the coil's figure is for that
        return {};
    // A thicker fluid has the thicker film: with 0.4th power of the viscosity (Dittus & Boelter at a given flow).
    const double thicker = std::pow(n_.fluid_.kinematic_m2_s() / n_.second_fluid_.kinematic_m2_s(), 0.4);
    return {with_water * thicker / (1 - with_water + with_water * thicker), std::max(1e-6, usual.flow_m3_s * n_.fluid_.density_kg_m3 * n_.fluid_.heat_capacity_j_kgk), 0};
}

double NetworkBuilder::water_rate_w_k(const Pump& usual)
{
    const Fluid water = glycol_water(0);
    return std::max(1e-6, usual.flow_m3_s * water.density_kg_m3 * water.heat_capacity_j_kgk);
}

void NetworkBuilder::keep(Segment s, Chain chain)
{
    if (chain.tank < 0)
        n_.ranges_[at(s)] = {static_cast<std::size_t>(chain.nodes.front()), chain.nodes.size()};
    chains_[at(s)] = std::move(chain);
}

Network::Network(const Loop& loop, const std::vector<ProbeSite>& probes, Fineness fine, double altitude_m)
    : arrangement_(arrangement_of(loop)),
      fluid_(arrangement_.carrier == Carrier::air ? warm_air(altitude_m) : glycol_water(glycol_share(loop))), second_fluid_(glycol_water(0))
{
    NetworkBuilder(*this, loop, fine).build(probes);
}

} // namespace vernal
