// A loop whose unit reads a flow, a pressure and the sun as well.
#pragma once

#include "core/setup/job_setup.h"

namespace vernal::testing_instruments {

constexpr double litre_a_minute = 1e-3 / 60;

inline Probe instrument(const char* key, ProbePlace place)
{
    Probe p;
    p.key = key;
    p.name = place_names[static_cast<std::size_t>(place)];
    p.place = place;
    return p;
}

// A closed loop with all three, its unit running by the usual rules.
inline Job with_instruments()
{
    Job job = new_job("glycol-coil");
    Variant& v = job.variants[0];
    v.probes.push_back(instrument("F1", ProbePlace::flow_meter));
    v.probes.push_back(instrument("G1", ProbePlace::pressure_sensor));
    v.probes.push_back(instrument("E1", ProbePlace::sun_sensor));
    v.unit.outputs.push_back({"A1", "Alarm", Mode::automatic, 0, Drives::other});
    v.unit.rules.push_back({"P1", true, FlowGuard{"F1", litre_a_minute, 30, 600, 2}});
    v.unit.rules.push_back({"A1", true, PressureAlarm{"G1", 0.5e5, 0, 0.2e5, 60}});
    sort_by_priority(v.unit.rules);
    return job;
}

struct Row {
    double time_s;
    Inputs inputs;
    Decisions decisions;
    double plane_w_m2, pressure_pa;
};
// Of a day, a sample a second.
inline std::vector<Row> rows_of(const Job& job, CoupledResult* result = nullptr)
{
    std::vector<Row> out;
    CoupledOptions o;
    o.each_sample = [&](const SampleRow& r) { out.push_back({r.time_s, r.inputs, r.decisions, r.plane_w_m2, r.pressure_pa}); };
    CoupledResult r = run_coupled(*coupled_setup(job, job.variants[0], job.days[0]), o);
    if (result)
        *result = std::move(r);
    return out;
}

} // namespace vernal::testing_instruments
