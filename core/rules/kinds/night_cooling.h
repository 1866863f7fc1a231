#pragma once

#include "shared.h"

namespace vernal {

struct NightCooling {
    std::string store, source;
    Temperature from = Temperature::celsius(65), until = Temperature::celsius(50);
    TempDiff colder = TempDiff::kelvin(10); // the collector, at least; half of it ends the cooling
    double from_h = 22, to_h = 6;
    bool away_only = true;
    bool operator==(const NightCooling&) const = default;

    static constexpr RuleKind kind{"night_cooling", "Night cooling", "Protect", "Gives the store's heat back to the night sky when nobody draws it.",
        "Cool with {output} once the {store} is at {from_c}, down to {until_c}, while the {source} is {colder_k} colder, from {from_h} to {to_h}.", "Only while nobody is at home: {away_only}.", Priority::dump};
    void compile(RuleCompiler& c) const
    {
        Bits all = c.high(store, from, until, {"from_c", "until_c", "it ends at or above the temperature at which it begins"});
        const MilliKelvin least = in_milli(colder.in_kelvin());
        all |= c.latch(c.probe(store), c.probe(source), {least, least / 2, "colder_k", "colder_k", "the collector need not be colder"});
        all |= c.window(from_h, to_h);
        if (away_only)
            all |= RuleCompiler::bit_of(c.gate(Gate::Kind::away));
        c.clause(kind.priority, all_of(all), true);
    }
};

template <class V, OneOf<NightCooling> T>
void fields(V& v, T& r)
{
    v.probe(store_field, r.store);
    v.probe(source_field, r.source);
    v.temperature({"from_c", "From", Quantity::temperature, 20, 120, "Some kelvin below the store limit"}, r.from);
    v.temperature({"until_c", "down to", Quantity::temperature, 10, 110, "Room for the next day's sun"}, r.until);
    v.difference({"colder_k", "Collector colder by", Quantity::difference, 1, 60, "10 K (estimate)"}, r.colder);
    v.number({"from_h", "from", Quantity::time_of_day, 0, 24, ""}, r.from_h);
    v.number({"to_h", "to", Quantity::time_of_day, 0, 24, ""}, r.to_h);
    v.boolean({"away_only", "Only while nobody is at home"}, r.away_only);
}

} // namespace vernal
