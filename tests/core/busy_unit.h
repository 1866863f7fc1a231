// Rules added to a loop one by one, and a unit with most kinds of them.
#pragma once

#include "core/job/fresh_rule.h"
#include "core/setup/job_setup.h"
#include "rule_of.h"

#include <stdexcept>

namespace {

using namespace vernal;

template <class R>
R& add(Variant& v, const std::string& output = "")
{
    for (std::size_t k = 0; k < rule_kinds().size(); ++k) {
        Rule r = fresh_rule(v, k);
        if (!std::holds_alternative<R>(r.body))
            continue;
        if (!output.empty())
            r.output = output;
        v.unit.rules.push_back(r);
    }
    sort_by_priority(v.unit.rules);
    for (Rule& r : v.unit.rules)
        if (std::holds_alternative<R>(r.body) && (output.empty() || r.output == output))
            return std::get<R>(r.body);
    throw std::logic_error("no such kind");
}

inline std::string& add_output(Variant& v, const char* key, Drives drives)
{
    Output o{key, key};
    o.drives = drives;
    if (drives == Drives::element)
        v.loop.answers.backup = Backup::element;
    v.unit.outputs.push_back(o);
    return v.unit.outputs.back().key;
}

inline CoupledResult run(const Job& job, const Variant& v, std::size_t day) { return run_coupled(*coupled_setup(job, v, job.days[day])); }

// A drain-back loop with a backup element and most kinds of rule.
inline Variant busy(const Job& job, bool walks)
{
    Variant v = job.variants[0];
    add_output(v, "H1", Drives::element);
    add_output(v, "A1", Drives::other);
    add<DrainTime>(v);
    add<Fill>(v);
    add<LowVoltage>(v);
    add<SpeedByDifference>(v).range.floor = 0.6;
    add<Heating>(v);
    add<Disinfection>(v).last_days = 6.9;
    add<HeatOnce>(v).press_h = 14.5;
    add<Look>(v).every_s = 1200;
    add<Timer>(v, "A1");
    add<Thermostat>(v, "A1").windows[0] = {22, 5};
    add<Exercise>(v, "A1").every_days = 0.1;
    add<Follow>(v, "A1").delay_s = 20;
    rule_of<RunTimes>(v) = {30, 60, 45};
    rule_of<Differential>(v).conditioning.confirm_s = 20;
    if (walks) {
        rule_of<Differential>(v).conditioning.average_s = 40;
        add<DryRun>(v).change = TempDiff::kelvin(0.5);
    }
    return v;
}

} // namespace
