// How the hand valves of a loop are arranged; shared by what says how they stand, what
// follows the flow through them and what finds them wrong.
#pragma once

#include "loop.h"

namespace vernal::valves {

using V = HandValve;
using S = ServiceState;

// How its valves are arranged, whatever else the answers say.
enum class Piping { none,
    closed,      // filled between two ports with a valve between them
    open,        // the store's own water, under the mains' pressure or from a pool
    reservoir,   // drains by itself
    open_tank }; // likewise, into the store

inline Piping piping_of(const Arrangement& a)
{
    if (a.carrier == Carrier::air)
        return Piping::none;
    if (a.answers.empties == Empties::reservoir)
        return Piping::reservoir;
    if (a.answers.empties == Empties::open_tank)
        return Piping::open_tank;
    return a.has(Part::vessel) ? Piping::closed : Piping::open;
}

inline bool pool(const Arrangement& a) { return a.answers.store == Store::pool; }

// That valve of the second array; and which of the first's a valve is like.
constexpr V of_array(V v, bool second) { return second ? static_cast<V>(static_cast<int>(v) + static_cast<int>(V::supply_isolating_2)) : v; }
static_assert(of_array(V::air_vent, true) == V::air_vent_2);
constexpr bool is_array_valve(V v) { return v <= V::air_vent_2; }
constexpr V of_first(V v) { return is_array_valve(v) && v >= V::supply_isolating_2 ? static_cast<V>(static_cast<int>(v) - static_cast<int>(V::supply_isolating_2)) : v; }

} // namespace vernal::valves
