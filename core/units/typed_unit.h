// Numbers and units as people write and say them: "3/4 in", "80 gallons", "64 sq ft", "1:30".
#pragma once

#include "quantity.h"

#include <optional>
#include <string>
#include <string_view>

namespace vernal {

// The number at the beginning of `text`, and how many bytes it takes: "8", "-0.5", "3/4", "1 1/2".
// The decimal point is a point. Empty: there is none.
struct TypedNumber {
    double value = 0;
    std::size_t size = 0;
};
std::optional<TypedNumber> typed_number(std::string_view text);

// The inside value of `shown` in a unit that is spelled out or is another than the two a
// quantity is shown in. Empty: no unit of this quantity. "degrees" alone are those of `u`.
// Factors: NIST SP 811, from memory where they are not defined exactly.
std::optional<double> inside_of_spelled(double shown, const std::string& unit, Quantity q, const Units& u);

// "4:30" of a duration (minutes and seconds), of run hours (hours and minutes), "1:02:03"; in
// the quantity's inside unit. Empty: not such a text, or not such a quantity.
std::optional<double> inside_of_clocked(const std::string& text, Quantity q);

} // namespace vernal
