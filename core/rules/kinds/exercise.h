#pragma once

#include "shared.h"

namespace vernal {

struct Exercise {
    double every_days = 7, run_s = 20;
    bool operator==(const Exercise&) const = default;

    static constexpr RuleKind kind{"exercise", "Exercise", "Heat", "A pump that stands for months seizes.",
        "When {output} has stood for {every_days} days run it for {run_s}.", "", Priority::heat};
    void compile(RuleCompiler& c) const
    {
        Gate& turns = c.gate(Gate::Kind::cycle);
        turns.output = static_cast<std::int8_t>(c.own());
        turns.timer = c.timer();
        turns.wait_ms = RuleCompiler::millis(every_days * 86400);
        turns.on_ms = RuleCompiler::millis(run_s);
        c.clause(kind.priority, all_of(RuleCompiler::bit_of(turns)), true);
    }
};

template <class V, OneOf<Exercise> T>
void fields(V& v, T& r)
{
    v.number({"every_days", "After", Quantity::days, 0.1, 60, "3 to 30 days (estimate)"}, r.every_days);
    v.number({"run_s", "run", Quantity::duration, 1, 600, "10 to 30 s, never dry"}, r.run_s);
}

} // namespace vernal
