#pragma once

#include "shared.h"

namespace vernal {

// Comfort timers; they never delay a protection. 0: none.
struct RunTimes {
    double min_run_s = 0;
    double min_off_s = 0;
    double run_on_s = 0; // after the last demand
    bool operator==(const RunTimes&) const = default;

    static constexpr RuleKind kind{"run_times", "Run and rest times", "Comfort", "Spares the pump short runs; it never delays a protection.",
        "Once started keep {output} on for {min_run_s}; once stopped keep it off for {min_off_s}.", "Run on for {run_on_s} after the last demand.", Priority::min_off};
    int pass() const { return RuleCompiler::last_pass; }
    void compile(RuleCompiler& c) const
    {
        if (c.overridden())
            return;
        OutputTimers& t = c.timers();
        t.min_run_ms = std::max<Millis>(0, RuleCompiler::millis(min_run_s));
        t.min_off_ms = std::max<Millis>(0, RuleCompiler::millis(min_off_s));
        t.timer_rule = c.rule();
        if (run_on_s <= 0)
            return;
        Expr demand;
        const std::vector<Clause> all = c.program().clauses;
        for (const Clause& x : all)
            if (x.output == c.own() && x.priority >= Priority::collect)
                demand.any |= c.term(x.when);
        if (!demand.any.any())
            return;
        Gate& run_on = c.gate(Gate::Kind::run_on, demand);
        run_on.output = static_cast<std::int8_t>(c.own());
        run_on.timer = c.timer();
        run_on.on_ms = RuleCompiler::millis(run_on_s);
        c.clause(Priority::min_run, all_of(RuleCompiler::bit_of(run_on)), true);
    }
};

template <class V, OneOf<RunTimes> T>
void fields(V& v, T& r)
{
    v.number({"min_run_s", "Minimum run time", Quantity::duration, 0, 3600, "0 to 3 min"}, r.min_run_s);
    v.number({"min_off_s", "Minimum off time", Quantity::duration, 0, 3600, "0 to 5 min"}, r.min_off_s);
    v.number({"run_on_s", "Run on", Quantity::duration, 0, 3600, "0; a blower 1 to 3 min, what is warm in the duct (estimate)"}, r.run_on_s);
}

} // namespace vernal
