// How an inversion in a tank is undone: each layer that is warmer than one of the next few above it
// changes heat with it, as rising plumes do, not with its neighbour alone. Reaching further changes
// nothing that a probe could see and costs entries of the matrix.
#pragma once

#include <cstddef>

namespace vernal {

inline constexpr std::size_t mixing_reach = 3; // layers
inline constexpr double mixing_s = 40.0;       // of a pair of them, 1/e; estimate: an inversion of a whole tank is gone in seconds

// What enters a tank as a jet takes along what stands round it: over the first faces beside
// its port it exchanges this share of its own flow; estimates.
inline constexpr double jets[]{1.0, 0.5};
inline double jet(std::size_t faces_away) { return faces_away < 2 ? jets[faces_away] : 0.0; }

} // namespace vernal
