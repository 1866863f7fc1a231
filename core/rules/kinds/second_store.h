#pragma once

#include "shared.h"

namespace vernal {

// A second store behind a valve, loaded while no difference rule of the same
// output without a valve asks; it stands back now and then to look whether one would.
struct SecondStore {
    std::string valve; // output
    std::string source, store;
    TempDiff on = TempDiff::kelvin(8), off = TempDiff::kelvin(4);
    double look_every_s = 1800, look_for_s = 120; // either 0: no looks
    bool operator==(const SecondStore&) const = default;

    static constexpr RuleKind kind{"second_store", "Second store", "Collect", "Loads another store while the first can take nothing, and gives way to it.",
        "While the first store takes nothing, run {output} and {valve} when the {source} is {on_k} above the {store}; stop at {off_k}.", "Every {look_every_s} rest for {look_for_s} to see whether the first takes heat again.", Priority::collect};
    int pass() const { return RuleCompiler::giving_way_pass; }
    std::optional<DifferenceOf> difference(const Knob&) const { return DifferenceOf{source, store, on, off, {}}; }
    void set_difference(const Knob&, TempDiff to_on, TempDiff to_off)
    {
        on = to_on;
        off = to_off;
    }
    void fresh(const FreshContext& c, std::string& output) { valve = c.another(output); }
    void compile(RuleCompiler& c) const
    {
        const std::size_t its_valve = c.output(valve);
        Expr when = c.difference({source, store, on, off, {}});
        c.use(its_valve, c.last_reads());
        for (const Expr& first : c.collectors())
            when.none |= c.term(first);
        c.collects(when);
        if (look_every_s > 0 && look_for_s > 0) {
            Gate& look = c.gate(Gate::Kind::cycle, when);
            look.timer = c.timer();
            look.wait_ms = RuleCompiler::millis(look_every_s);
            look.on_ms = RuleCompiler::millis(look_for_s);
            when.none |= RuleCompiler::bit_of(look);
        }
        c.clause(kind.priority, when, true);
        c.clause_for(its_valve, kind.priority, when, true);
    }
};

template <class V, OneOf<SecondStore> T>
void fields(V& v, T& r)
{
    v.output({"valve", "Valve"}, r.valve);
    v.probe(source_field, r.source);
    v.probe({"store", "Store probe", ProbeRole::second_store}, r.store);
    v.difference(on_field, r.on);
    v.difference(off_field, r.off);
    v.number({"look_every_s", "A look every", Quantity::minutes, 0, 86400, "15 to 60 min (estimate); 0: never"}, r.look_every_s);
    v.number({"look_for_s", "for", Quantity::duration, 0, 3600, "As long as the collector needs to climb: 1 to 5 min (estimate)"}, r.look_for_s);
}

} // namespace vernal
