// The arithmetic done beside a part: inputs, a formula with the numbers in it,
// and where its result belongs. One entry of a table per sum.
#pragma once

#include "fields.h"

namespace vernal {

struct SumContext {
    const Job& job;
    const Variant& variant;
    Part part; // the one it was opened at
    Units units;
    const Loop& loop() const { return variant.loop; }
};

struct SumInput {
    NumberField field;
    double (*from)(const SumContext&); // what it begins with
};

struct SumResult {
    std::string text;   // the formula with the numbers in it; lines
    double value = NAN; // what is written; NaN: the inputs give none, text says why
};

struct FieldSum {
    const char* key;
    std::vector<Part> parts; // at which it is offered
    const char* title;
    const char* origin;      // of the formula
    std::vector<SumInput> inputs;
    SumResult (*work)(const std::vector<double>& x, const SumContext& c);
    const char* take;        // what writing is called; nullptr: there is nothing to write
    void (*write)(Loop& loop, Part part, const std::vector<double>& x, double value);
    bool (*applies)(const Arrangement& a) = nullptr; // besides having the part
};
const std::vector<FieldSum>& field_sums();
const FieldSum* find_sum(const std::string& key); // nullptr: unknown

// The loop with the sum's result written where it belongs. Error: it has none, or
// one that no loop can have.
Result<Loop> taken(const FieldSum& sum, const std::vector<double>& x, const SumContext& c);

// Those offered at a part of this arrangement.
std::vector<const FieldSum*> sums_at(Part part, const Arrangement& arrangement);

} // namespace vernal
