// What to put into the van, from the loop as it stands in the job.
#pragma once

#include "check_list.h"

namespace vernal {

struct TakeAlong {
    std::string what, how_much, why;
};
std::vector<TakeAlong> take_along(const Job& job, const Variant& v, Purpose purpose, const Units& units);

// The same as a list whose items are ticked while they go into the van.
CheckList take_along_list(const Job& job, const Variant& v, Purpose purpose, const Units& units);

} // namespace vernal
