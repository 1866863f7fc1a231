// Where a difference rule really switches, seen from the fluids.
#pragma once

#include "core/job/job.h"

#include <optional>

namespace vernal {

// The state the budget is drawn up for.
struct BudgetState {
    double store_c = 40;
    double air_c = 15; // around probes outdoors
};

struct RealPoints {
    std::size_t source = 0, store = 0; // probes
    Budget on, off;
};

// Store temperatures between which this rule works here: from a cool store up to the
// limit of what it loads, or what such a store reaches without one. °C.
struct StoreRange {
    double low_c, high_c;
    double middle_c() const { return (low_c + high_c) / 2; }
};
StoreRange store_range(const Variant& v, std::size_t rule);

// Nothing: the rule is no difference, or names a probe that is not there.
std::optional<RealPoints> real_points(const Variant& v, std::size_t rule, const BudgetState& state);

// The first difference rule in use, with the pair it comes to.
std::optional<DifferenceOf> first_difference(const Variant& v);

// Collector temperature at full sun without flow, °C: the positive root of the
// collector's equation at zero output, 1000 W/m² and 30 °C air.
double stagnation_c(const Collector& c);
// Of the array this probe sits on; NaN for a probe elsewhere.
double stagnation_at(const Loop& loop, ProbePlace place);

} // namespace vernal
