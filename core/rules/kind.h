// What every kind of rule states, and what it may state. One file a kind, in
// core/rules/kinds; docs/engine-semantics.md says what each means.
//
// A kind K is a struct of settings (temperatures, differences in kelvin, times
// in seconds where a name ends in _s, hours of the day in _h; texts are keys of
// probes or outputs) with
//   static constexpr RuleKind kind;                     what it is called and says
//   void compile(RuleCompiler&) const;                  its latches, gates and clauses
//   template <class V, OneOf<K> T> void fields(V&, T&); its settings, beside it
// and, where it is one or wants it,
//   std::optional<LimitOf> limit_of() const;            it sets a limit
//   std::optional<DifferenceOf> difference(const Knob&) const;      it is a difference of two probes
//   void set_difference(const Knob&, TempDiff on, TempDiff off);
//   void fresh(const FreshContext&, std::string& output);           more than the roles of its probes say
//   int pass() const;                                   when it is compiled, see RuleCompiler
#pragma once

#include "core/units/field.h"
#include "core/units/temperature.h"
#include "program.h"

#include <functional>
#include <optional>
#include <string>

namespace vernal {

struct RuleKind {
    const char* key;      // in the job file
    const char* title;    // in the window
    const char* group;    // Protect, Start, Collect …
    const char* why;      // one sentence
    const char* sentence; // as read in the window; {key} stands for the field of that key
    const char* details;  // what most leave alone, likewise; may be empty
    Priority priority;    // who it may overrule
};

// The limit a rule sets.
struct LimitOf {
    std::string probe;
    Temperature limit; // of the reading: a store limit's less its allowance
    TempDiff hysteresis;
    bool lower = false; // acts at and below, releases above
};

// How a difference rule conditions the readings it looks at.
struct InputConditioning {
    double confirm_s = 0; // starts once the difference has stood so long
    double average_s = 0; // time constant of the readings it looks at
    bool operator==(const InputConditioning&) const = default;
};

// The pair of a difference rule of any kind.
struct DifferenceOf {
    std::string source, store;
    TempDiff on, off;
    InputConditioning conditioning;
};

// What an output drives: by its place in the list what the arrangement says
// (loop pump, second pump, valve), or another thing.
enum class Drives : std::uint8_t { loop,
    element,
    drain_valve,
    check_valve,
    other };

// The loop for which a fresh rule is made.
struct FreshContext {
    std::function<std::string(ProbeRole)> probe; // key; empty: none suits
    struct Output {
        std::string key;
        Drives drives;
    };
    std::vector<Output> outputs; // at least one
    // The first difference that is in use, and its output: what runs by it takes over its words.
    std::optional<DifferenceOf> difference = {};
    std::string difference_output = {};
    // Output that drives this; empty: none.
    std::string driving(Drives what) const
    {
        for (const Output& o : outputs)
            if (o.drives == what)
                return o.key;
        return "";
    }
    // An output other than this one; empty: there is none.
    std::string another(const std::string& than) const
    {
        for (const Output& o : outputs)
            if (o.key != than)
                return o.key;
        return "";
    }
    const std::string& first() const { return outputs.front().key; }
};

} // namespace vernal
