// Whether a value put together elsewhere fits the ranges of its own field list, with which
// the reader of files refuses it.
#pragma once

#include "fields.h"

#include <optional>
#include <string>

namespace vernal {

// "Worked is 20000.0 min; between 0.0 min and 14400.0 min is possible"; nothing: all numbers fit.
template <class T>
std::optional<std::string> beyond_range(const T& value, const Units& units = Units::metric())
{
    struct Range : FieldVisitor {
        Units units;
        std::optional<std::string> found;
        void number(const NumberField& f, const double& x)
        {
            if (!found && !(x >= f.min && x <= f.max))
                found = std::string(f.label) + " is " + to_text(x, f.quantity, units) + "; between " + to_text(f.min, f.quantity, units) + " and " + to_text(f.max, f.quantity, units) + " is possible";
        }
    } range;
    range.units = units;
    fields(range, value);
    return range.found;
}

} // namespace vernal
