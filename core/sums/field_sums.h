// The arithmetic done beside a part: inputs, a formula with the numbers in it,
// and where its result belongs. One entry of a table per sum.
#pragma once

#include "core/job/fields.h"

namespace vernal {

struct SumContext {
    const Job& job;
    const Variant& variant;
    Part part; // the one it was opened at
    Units units;
    std::size_t probe = 0; // of a probe's sum; < probes
    const Loop& loop() const { return variant.loop; }
    const Probe& at_probe() const { return variant.probes[probe]; }
};

// Where in the Probes station a sum is offered.
enum class ProbePage : std::uint8_t { none,
    measure,
    lead,
    input,
    knob };

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
    const char* origin; // of the formula
    std::vector<SumInput> inputs;
    SumResult (*work)(const std::vector<double>& x, const SumContext& c);
    const char* take; // what writing is called; nullptr: there is nothing to write
    void (*write)(Loop& loop, Part part, const std::vector<double>& x, double value);
    bool (*applies)(const Arrangement& a) = nullptr;                                                          // besides having the part
    ProbePage page = ProbePage::none;                                                                         // a probe's sum; parts is empty then
    void (*write_probe)(Variant& v, std::size_t probe, const std::vector<double>& x, double value) = nullptr; // in place of write
    bool writes() const { return write || write_probe; }
};
const std::vector<FieldSum>& field_sums();
const FieldSum* find_sum(const std::string& key); // nullptr: unknown

// The variant with the sum's result written where it belongs. Error: it has none,
// or one that nothing of its kind can have.
Result<Variant> taken(const FieldSum& sum, const std::vector<double>& x, const SumContext& c);

// Those offered at a part of this arrangement.
std::vector<const FieldSum*> sums_at(Part part, const Arrangement& arrangement);
std::vector<const FieldSum*> sums_on(ProbePage page);

} // namespace vernal
