#pragma once

#include "gate.h"

namespace vernal {

// Nobody is at home.
struct AwayGate {
    static constexpr Gate::Kind kind = Gate::Kind::away;
    static bool holds(const Gate&, GateSample& s) { return s.in.away; }
    template <class At>
    static void events(const Gate&, const GateView&, At) {}
    static Unmet unmet(const Gate&, const GateView&, bool must_end) { return {must_end}; }
    static std::string words(const Gate&, const Unmet&, const GateWords&) { return "nobody were at home"; }
};

} // namespace vernal
