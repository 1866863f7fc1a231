#include "loop.h"

#include <algorithm>

namespace vernal {

bool Arrangement::has(Part part) const { return std::find(parts.begin(), parts.end(), part) != parts.end(); }

const std::vector<Arrangement>& arrangements()
{
    using S = Segment;
    using P = Part;
    using W = ProbePlace;
    const auto ring = [](std::vector<S> s, std::size_t pump = 0, int valve = -1, bool when = false) { return Route{pump, std::move(s), valve, when}; };
    const std::vector<S> to_coil{S::collector, S::return_pipe, S::coil, S::supply_pipe};
    const std::vector<S> to_tank{S::collector, S::return_pipe, S::tank_down, S::supply_pipe};
    const std::vector<P> drained{P::collector, P::back, P::tank, P::pump, P::supply, P::element, P::wiring};
    std::vector<P> plain = drained, closed = drained;
    plain.push_back(P::check_valve);
    closed.insert(closed.end(), {P::check_valve, P::vessel});
    const std::vector<W> tank{W::collector, W::tank_bottom, W::tank_middle, W::tank_top, W::return_pipe, W::supply_pipe};
    const auto with = [](auto list, std::initializer_list<typename decltype(list)::value_type> more) {
        list.insert(list.end(), more);
        return list;
    };
    static const std::vector<Arrangement> table{
        {"direct", "Direct", "The collector is fed straight from the tank", Carrier::water, false, plain, {ring(to_tank)}, tank},
        {"glycol-coil", "Glycol with coil", "Closed glycol loop, coil in the tank", Carrier::glycol, false, closed, {ring(to_coil)}, tank},
        {"glycol-hx", "Glycol with outside exchanger", "Two pumps, exchanger beside the tank", Carrier::glycol, false, with(closed, {P::exchanger, P::pump_2}),
            {ring({S::collector, S::return_pipe, S::exchanger_hot, S::supply_pipe}), ring({S::exchanger_cold, S::tank_down}, 1)}, tank},
        {"drainback", "Drain-back", "The array empties into a reservoir when the pump stops", Carrier::water, true, with(drained, {P::reservoir, P::drain_back}),
            {ring({S::collector, S::return_pipe, S::reservoir, S::coil, S::supply_pipe})}, tank},
        {"open-tank", "Open-tank drain-back", "The unpressurised tank is its own reservoir", Carrier::water, true, with(drained, {P::drain_back}), {ring(to_tank)}, tank},
        {"pool", "Pool", "Unglazed panels, the pool is the store", Carrier::water, false, {P::collector, P::back, P::pool, P::pump, P::supply, P::wiring, P::check_valve},
            {ring({S::collector, S::return_pipe, S::pool, S::supply_pipe})}, {W::collector, W::pool_water, W::return_pipe, W::supply_pipe}},
        {"pv-direct", "Panel-driven pump", "DC pump straight on a panel, no battery", Carrier::glycol, false, with(closed, {P::panel, P::motor}), {ring(to_coil)}, tank},
        {"pv-battery", "Battery-driven pump", "DC pump on a battery that a panel charges", Carrier::water, false, with(plain, {P::panel, P::motor, P::battery}), {ring(to_tank)}, tank},
        {"floor", "Floor", "The store is a heated slab", Carrier::glycol, false, {P::collector, P::back, P::slab, P::pump, P::supply, P::wiring, P::check_valve, P::vessel},
            {ring({S::collector, S::return_pipe, S::slab, S::supply_pipe})}, {W::collector, W::slab_return, W::return_pipe, W::supply_pipe}},
        {"air", "Hot air", "Hot-air collector and blower", Carrier::air, false, {P::collector, P::back, P::rock_bed, P::room, P::pump, P::supply, P::wiring, P::check_valve},
            {ring({S::collector, S::return_pipe, S::rock_bed, S::room, S::supply_pipe})}, {W::collector, W::room_air, W::return_pipe, W::supply_pipe}},
        {"two-stores", "Two stores", "One array, two tanks, diverting valve", Carrier::glycol, false, with(closed, {P::tank_2, P::valve}),
            {ring(to_coil, 0, 1, false), ring({S::collector, S::return_pipe, S::coil_2, S::supply_pipe}, 0, 1, true)}, with(tank, {W::tank_2_bottom, W::tank_2_top})},
        {"two-arrays", "Two arrays", "East and west array, one tank", Carrier::glycol, false, with(closed, {P::collector_2, P::back_2, P::pump_2, P::supply_2}),
            {ring(to_coil), ring({S::collector_2, S::return_2, S::coil, S::supply_2}, 1)}, with(tank, {W::collector_2})},
        {"dump", "Emergency cooler", "Closed loop with a cooler on a three-way valve", Carrier::glycol, false, with(closed, {P::cooler, P::valve}),
            {ring(to_coil, 0, 1, false), ring({S::collector, S::return_pipe, S::cooler, S::supply_pipe}, 0, 1, true)}, tank},
        {"tube-manifold", "Tube manifold", "Evacuated tubes, probe in the manifold", Carrier::glycol, false, closed, {ring(to_coil)}, tank},
    };
    return table;
}

const Arrangement* find_arrangement(const std::string& key)
{
    for (const Arrangement& a : arrangements())
        if (key == a.key)
            return &a;
    return nullptr;
}

} // namespace vernal
