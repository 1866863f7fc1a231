#pragma once

#include "shared.h"

namespace vernal {

// Water that comes round changes what a probe in the return reads.
struct DryRun {
    std::string probe;
    TempDiff change = TempDiff::kelvin(2);
    double check_s = 240, pause_s = 900;
    double retries = 3;
    bool operator==(const DryRun&) const = default;

    static constexpr RuleKind kind{"dry_run", "Dry-run guard", "Protect", "Water that comes round changes what a probe in the return reads; where nothing changes, the pump runs dry. Even ON is stopped.",
        "Stop {output} when the {probe} has not changed by {change_k} within {check_s} of a start; try again after {pause_s}.", "Give up after {retries} retries, until the switch is moved to OFF.", Priority::hold};
    void compile(RuleCompiler& c) const
    {
        c.guard(Gate::Kind::guard, c.probe(probe), check_s, pause_s, retries).change_mk = in_milli(change.in_kelvin());
    }
};

template <class V, OneOf<DryRun> T>
void fields(V& v, T& r)
{
    v.probe({"probe", "Probe", ProbeRole::water_back}, r.probe);
    v.difference({"change_k", "Change", Quantity::difference, 0.2, 50, "1 to 5 K (estimate): watch a good start"}, r.change);
    v.number({"check_s", "Within", Quantity::duration, 5, 3600, "Twice what filling takes"}, r.check_s);
    v.number({"pause_s", "Again after", Quantity::minutes, 10, 86400, "Longer than draining takes"}, r.pause_s);
    v.number({"retries", "Retries", Quantity::count, 0, 50, "2 to 5 (estimate)"}, r.retries);
}

} // namespace vernal
