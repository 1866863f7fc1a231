// What every kind of gate states. One file a kind, in this folder; all.h lists them.
//
// A kind G is a struct without members with
//   static constexpr Gate::Kind kind;
//   static bool holds(const Gate&, GateSample&);   at a sample; moves its own timer on, nothing else
//   template <class At> static void events(const Gate&, const GateView&, At at);
//       calls at(t) for each instant of the engine's time at which it could turn by
//       itself while no reading, switch or button moves; instants in the past do no
//       harm, one left out is a decision missed
//   static Unmet unmet(const Gate&, const GateView&, bool must_end);   for Why not
//   static std::string words(const Gate&, const Unmet&, const GateWords&); // what it would take
// Proof (bounds between which it may turn) and exported code (the lines that make
// it) will be stated beside these, in the same files.
#pragma once

#include "core/rules/engine_parts.h"
#include "core/rules/unmet.h"

#include <algorithm>
#include <string>

namespace vernal {

// Of one sample, the latches worked out and the gates before this one.
struct GateSample {
    const Inputs& in;
    const parts::Values& values;
    Bits bits;
    EngineState& state;
    Millis& since(const Gate& g) { return state.since[g.timer]; }
};

// After a sample; `last`: what it was given.
struct GateView {
    const Program& program;
    const EngineState& state;
    const Inputs& last;
    Millis since(const Gate& g) const { return state.since[g.timer]; }
    Millis next_sample() const { return state.now_ms + program.sample_ms; }
    bool holds(const Gate& g) const { return state.conditions.has(g.bit); }
    bool its_output_runs(const Gate& g) const { return g.output >= 0 && parts::running(state, static_cast<std::size_t>(g.output)); }
};

// The names that words need.
struct GateWords {
    std::string title;                           // of the rule it belongs to
    std::string output;                          // its output's key; empty: none
    std::string (*lasting)(Millis, const void*); // a time in the person's words
    const void* context;
    std::string time(Millis ms) const { return lasting(ms, context); }
};

// Of a gate that has nothing better to say than whose it is.
inline std::string by_its_rule(const Unmet& u, const GateWords& w) { return w.title + (u.must_end ? " gave way" : " asked"); }

} // namespace vernal
