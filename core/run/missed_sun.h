// Sun that could have warmed the store while its pump rested, by what held the pump.
#pragma once

#include "core/plant/loop.h"
#include "figures.h"

namespace vernal {

class Simulation;

// Watts a flow through this array would bring to a store of this temperature, when all
// is settled; 0 where it would bring none worth a start (half a kelvin; of an array that drains, 1.5 K).
double could_collect_w(const Simulation& s, std::size_t array, double store_c);

// Node of the place from which an array's pump draws: the first store's cold end.
std::size_t cold_store_node(const Simulation& s);

class MissedSun {
public:
    // h seconds have passed with the outputs as they stood.
    void passed(const Simulation& s, double h, Figures& f) const;
};

} // namespace vernal
