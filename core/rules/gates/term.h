#pragma once

#include "gate.h"

namespace vernal {

// Its expression holds.
struct TermGate {
    static constexpr Gate::Kind kind = Gate::Kind::term;
    static bool holds(const Gate& g, GateSample& s) { return g.when.holds(s.bits); }
    template <class At>
    static void events(const Gate&, const GateView&, At) {}
    static Unmet unmet(const Gate&, const GateView&, bool must_end) { return {must_end, not_since, !must_end}; }
    static std::string words(const Gate&, const Unmet& u, const GateWords& w) { return by_its_rule(u, w); }
};

} // namespace vernal
