// The subjects of the sums, a table each beside its formulas. A new sum is a formula
// and its line in the table of its subject; the order here and there is the order
// in which they are offered.
#pragma once

#include "field_sums.h"

namespace vernal {

std::vector<FieldSum> pump_sums();
std::vector<FieldSum> collector_sums();
std::vector<FieldSum> pipe_sums();
std::vector<FieldSum> store_sums();
std::vector<FieldSum> drain_back_sums();
std::vector<FieldSum> electrical_sums();
std::vector<FieldSum> closed_loop_sums();
std::vector<FieldSum> probe_sums();

} // namespace vernal
