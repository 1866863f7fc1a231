// How a tank is divided into layers, from the bottom up, as shares of its height. Heights in it
// are shares too, 0 at the bottom and 1 at the top.
#pragma once

#include <cstddef>
#include <vector>

namespace vernal {

class Layering {
public:
    // Each of the program's own layers is cut into `fineness` (≥ 1) of one height.
    explicit Layering(int fineness = 1);

    std::size_t count() const { return share_.size(); }
    const std::vector<double>& shares() const { return share_; }
    double share(std::size_t layer) const { return share_[layer]; }
    double top(std::size_t layer) const { return top_[layer]; }
    double middle(std::size_t layer) const { return top_[layer] - share_[layer] / 2; }
    std::size_t at(double height) const; // in which layer it lies

private:
    std::vector<double> share_, top_;
};

} // namespace vernal
