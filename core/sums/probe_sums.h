// The arithmetic of the Probes station; entries of field_sums().
#pragma once

#include "field_sums.h"

namespace vernal {

std::vector<FieldSum> probe_sums();

} // namespace vernal
