#include "layering.h"

#include <algorithm>
#include <array>

namespace vernal {

namespace {

// Twentieths where cold water enters, the usual probe sits and a coil gives off most; tenths above.
constexpr std::array own_layers{0.05, 0.05, 0.05, 0.05, 0.05, 0.05, 0.1, 0.1, 0.1, 0.1, 0.1, 0.1, 0.1};

} // namespace

Layering::Layering(int fineness)
{
    double height = 0;
    for (double share : own_layers)
        for (int i = 0; i < fineness; ++i) {
            share_.push_back(share / fineness);
            top_.push_back(height += share / fineness);
        }
    top_.back() = 1;
}

std::size_t Layering::at(double height) const
{
    const auto layer = std::upper_bound(top_.begin(), top_.end(), height + 1e-12);
    return std::min(static_cast<std::size_t>(layer - top_.begin()), count() - 1);
}

} // namespace vernal
