// How far from the dial the pump's real switching points lie.
#pragma once

#include "chain.h"

#include <array>

namespace vernal {

struct BudgetProbe {
    ProbeCurve curve;
    Sensor sensor;
    Lead lead;
    double placement = 0; // share of the surroundings it reads, 0…1
    double surroundings_c = 15;
};

struct BudgetAsk {
    BudgetProbe source, store;
    InputStage stage;
    double resolution_k = 0; // of the unit's figures
    double store_c = 40;     // of the fluid at the store's probe
    double set_k = 8;        // the difference the rule is set to: there the fluids stand
};

enum class ErrorCause : std::uint8_t { tolerance,
    lead,
    self_heating,
    resolution,
    placement,
    mismatch,
    bridge };
inline constexpr std::size_t error_causes = 7;
const char* cause_text(ErrorCause cause); // "tolerance"

// One cause, in kelvin of reading. A known one is signed (reading less truth); of
// the others only the size is known, ±.
struct BudgetLine {
    double source_known_k = 0, store_known_k = 0; // on each probe
    double source_k = 0, store_k = 0;             // ±
    double between_known_k = 0, between_k = 0;    // of the two inputs together, not of one probe
    double known_k() const { return source_known_k - store_known_k + between_known_k; }
    double worst_k() const { return source_k + store_k + between_k; }
    double square_k2() const { return source_k * source_k + store_k * store_k + between_k * between_k; }
};

struct Budget {
    std::array<BudgetLine, error_causes> lines;
    double set_k = 0;
    double known_k = 0; // the difference reads this much too great
    double worst_k = 0; // ±, all the same way at once
    double rss_k = 0;   // ±, root of the sum of squares
    // The real difference at which the unit sees the set one.
    double real_k() const { return set_k - known_k; }
};

// Errors within the chain that the simulation can also be told (a probe's own
// deviation, its faults, a stored correction) are not counted: the budget says
// what is to be expected before anything of that is known.
Budget error_budget(const BudgetAsk& ask);

} // namespace vernal
