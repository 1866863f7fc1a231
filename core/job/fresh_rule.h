// A rule as it begins when someone adds it: the kind's usual figures, on the
// probes and the output that suit it in this loop.
#pragma once

#include "job.h"

namespace vernal {

// kind: index into rule_kinds(). Keys that nothing here suits are left empty.
Rule fresh_rule(const Variant& v, std::size_t kind);

// Probe of the first of these places that has one; empty: none has.
std::string probe_at(const Variant& v, std::initializer_list<ProbePlace> places);

} // namespace vernal
