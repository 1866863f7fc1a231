// Why the figures of two variants differ: what each change between them does alone.
#pragma once

#include "core/job/job.h"
#include "core/run/figures.h"

#include <functional>
#include <stop_token>

namespace vernal {

// What one does less what the other does.
struct Effect {
    int starts = 0;           // of the first output
    double heat_j = 0;        // to the store
    double first_later_s = 0; // its first start; NaN: one of the two never starts
};

// A rule, part, probe or the like in which they differ.
struct VariantChange {
    std::string what;                    // "Difference: start at 9.0 K, not 5.0 K"
    std::function<void(Variant&)> apply; // to the other variant
    Effect effect = {};                  // of the other variant with this change alone, less without
};

struct VariantDifference {
    Effect effect;                      // of all changes together
    std::vector<VariantChange> changes; // what does most first
};

// Changes that make `other` into `mine`, without their effects.
std::vector<VariantChange> changes_between(const Job& job, std::size_t mine, std::size_t other, const Units& units);

// A run a change. Error: one of them cannot be run on this day, or it was cancelled.
Result<VariantDifference> difference_between(const Job& job, std::size_t mine, std::size_t other, const Day& day, const Units& units, std::stop_token stop = {});

// In a sentence or a few.
std::string difference_text(const VariantDifference& d, const std::string& mine, const std::string& other, const Units& units);

} // namespace vernal
