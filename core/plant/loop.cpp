#include "loop.h"

namespace vernal {

const std::vector<Arrangement>& arrangements()
{
    using enum Segment;
    static const std::vector<Arrangement> table{
        {"direct", "Direct", "The collector is fed straight from the tank", {collector, return_pipe, tank_down, supply_pipe}, false},
        {"glycol-coil", "Glycol with coil", "Closed glycol loop, coil in the tank", {collector, return_pipe, coil, supply_pipe}, true},
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
