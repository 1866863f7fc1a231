// A unit with one knob that moves start and stop difference together.
#pragma once

#include "core/units/temperature.h"

#include <cstdint>

namespace vernal {

// even: both run evenly along the scale; growing: in equal ratios, as a knob with
// a logarithmic track does (all four ends above zero then).
enum class KnobLaw : std::uint8_t { even,
    growing };

struct Knob {
    double first = 0, last = 10;                                              // marks at the ends of its scale, first ≠ last
    TempDiff on_first = TempDiff::kelvin(3), off_first = TempDiff::kelvin(1); // the pair at the first mark
    TempDiff on_last = TempDiff::kelvin(14), off_last = TempDiff::kelvin(8);  // and at the last
    KnobLaw law = KnobLaw::even;
    bool operator==(const Knob&) const = default;
};

struct KnobPair {
    double on_k = 0, off_k = 0;
};

// The pair at a mark; held at the ends of the scale.
KnobPair knob_pair(const Knob& knob, double mark);

// The mark whose pair comes closest to a wanted one (least sum of both squares),
// and by how much each of the two misses, got less wanted.
struct KnobSetting {
    double mark = 0;
    KnobPair got, miss;
};
KnobSetting knob_setting(const Knob& knob, const KnobPair& wanted);

} // namespace vernal
