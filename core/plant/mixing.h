// How an inversion in a tank is undone: each layer that is warmer than one of the next few above it
// changes heat with it, as rising plumes do, not with its neighbour alone. Reaching further changes
// nothing that a probe could see and costs entries of the matrix.
#pragma once

#include <algorithm>
#include <cstddef>

namespace vernal {

inline constexpr std::size_t mixing_reach = 3; // layers
inline constexpr double mixing_s = 40.0;       // of a pair of them, 1/e; estimate: an inversion of a whole tank is gone in seconds

// What enters a tank as a jet takes along what stands round it: so far from its port, in shares of
// the height, it exchanges this share of its own flow across a tenth of the height; estimate.
inline double jet(double away) { return std::max(0.0, 1.5 - 5.0 * away); }
inline constexpr double jet_over = 0.1; // of the height

} // namespace vernal
