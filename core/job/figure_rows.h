// The figures of a run as people read them: one list for window and command line.
#pragma once

#include "core/run/figures.h"
#include "core/units/quantity.h"

namespace vernal {

struct FigureRow {
    const char* name;
    std::string (*value)(const Figures& f, const Units& u); // empty: does not apply, leave the row out
};
const std::vector<FigureRow>& figure_rows();

} // namespace vernal
