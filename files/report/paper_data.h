// A paper for programs: as JSON, and each of its tables as CSV.
#pragma once

#include "core/report/paper.h"

namespace vernal {

std::string paper_json(const Paper& paper);
std::string paper_text(const Paper& paper); // for a terminal
// All its tables one after the other, each headed by a line with its name.
std::string paper_csv(const Paper& paper);

} // namespace vernal
