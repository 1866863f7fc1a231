#pragma once

#include "shared.h"

namespace vernal {

struct StoreLimit {
    std::string probe;
    Temperature limit = Temperature::celsius(70);
    TempDiff hysteresis = TempDiff::kelvin(4);
    TempDiff allowance{};     // the hottest water is so much hotter than the probe: acts that much sooner
    std::string only_store{}; // stops only what loads this store; empty: the output
    bool operator==(const StoreLimit&) const = default;

    static constexpr RuleKind kind{"store_limit", "Store limit", "Protect", "Keeps the store below what its lining, its relief valve and the people drawing from it bear.",
        "Stop {output} when the {probe} reaches {limit_c}; allow again {hysteresis_k} below.", "The hottest water may be {allowance_k} above the probe. Stop only what loads the {only_store}.", Priority::limit};
    int pass() const { return only_store.empty() ? RuleCompiler::usual_pass : RuleCompiler::first_pass; }
    std::optional<LimitOf> limit_of() const { return LimitOf{probe, limit - allowance, hysteresis}; }
    void compile(RuleCompiler& c) const
    {
        const Temperature acts = limit - allowance;
        const Bits b = c.high(probe, acts, acts - hysteresis, {});
        c.program().limiting |= b.word[0];
        if (only_store.empty())
            return c.clause(kind.priority, all_of(b), false);
        c.probe(only_store);
        c.limit_store(only_store, b);
    }
};

template <class V, OneOf<StoreLimit> T>
void fields(V& v, T& r)
{
    limit_fields(v, r, {"limit_c", "Limit", Quantity::temperature, -40, 250, "By tank lining, relief valve and who draws the water"}, ProbeRole::warm_store);
    v.difference({"allowance_k", "Allowance for the layers above", Quantity::difference, 0, 60, "A limit read mid-tank understates the top by 10 to 20 K (estimate)"}, r.allowance);
    v.probe({"only_store", "Only for the store", ProbeRole::left_open, true, "(whatever: stop the output)"}, r.only_store);
}

} // namespace vernal
