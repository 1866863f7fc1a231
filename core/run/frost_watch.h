// Which wet place comes nearest to freezing, when and for how long.
#pragma once

#include "figures.h"
#include "listener.h"

#include <limits>

namespace vernal {

class FrostWatch {
public:
    explicit FrostWatch(const Network& network);
    void passed(const Simulation& s, double h, Figures& f);
    void finish(const Network& network, Figures& f) const;

private:
    struct Wet {
        std::size_t node;
        double freezing_c;
    };
    std::array<std::vector<Wet>, 4> wet_; // by what stands empty, as in Flows
    double least_left_k_ = INFINITY;      // above its freezing point
    std::size_t coldest_node_ = std::numeric_limits<std::size_t>::max();
};

} // namespace vernal
