#include "audit_log.h"

#include "core/run/coupled.h"
#include "core/setup/fault_setup.h"
#include "core/setup/job_setup.h"
#include "core/setup/loop_answers.h"

#include <gtest/gtest.h>

#include <cmath>
#include <cstdio>

namespace vernal {
namespace {

TraceColumn column_of(const Probe& p)
{
    TraceColumn c{place_key(p.place), Quantity::temperature, {}};
    switch (reads_at(p.place)) {
    case Reads::irradiance: c.quantity = Quantity::irradiance; break;
    case Reads::flow:
        c.quantity = Quantity::number;
        c.unit = "L/min";
        break;
    case Reads::pressure:
        c.quantity = Quantity::number;
        c.unit = "bar";
        break;
    case Reads::temperature: break;
    }
    return c;
}

} // namespace

Trace logged(const Job& job, const Variant& v, const Day& day, const Logger& logger)
{
    auto setup = coupled_setup(job, v, day);
    EXPECT_TRUE(setup) << (setup ? "" : setup.error().text());
    if (!setup)
        return {};
    std::mt19937 random(logger.seed);
    std::normal_distribution<double> noise(0, logger.noise_k);
    Trace t;
    char start[32];
    std::snprintf(start, sizeof start, "%04d-%02d-%02dT00:00:00", day.sky.year, day.sky.month, day.sky.day);
    t.start = start;
    const std::size_t probes = v.probes.size(), outputs = v.unit.outputs.size();
    for (const Probe& p : v.probes)
        t.columns.push_back(column_of(p));
    for (const Output& o : v.unit.outputs)
        t.columns.push_back({o.key, Quantity::number, {}});
    t.columns.push_back({"air", Quantity::temperature, {}});
    t.columns.push_back({"irradiance_plane", Quantity::irradiance, {}});
    if (arrangement_of(v.loop).has(Part::vessel))
        t.columns.push_back({"pressure", Quantity::number, {}, "bar"});
    const bool gauge = t.columns.size() > probes + outputs + 2;
    if (logger.speeds)
        for (const Output& o : v.unit.outputs)
            t.columns.push_back({o.key + "_speed", Quantity::number, {}, "%"});
    double next = 0;
    CoupledOptions options;
    options.keep_records = false;
    options.each_sample = [&, plan = setup->faults](const SampleRow& row) {
        if (row.time_s + 1e-6 < next)
            return;
        next = (std::floor(row.time_s / logger.every_s + 1e-9) + 1) * logger.every_s;
        t.time_s.push_back(row.time_s);
        for (std::size_t p = 0; p < probes; ++p)
            t.columns[p].values.push_back(row.inputs.readings[p].valid ? std::round((row.inputs.readings[p].mk / 1000.0 + noise(random)) / logger.step_k) * logger.step_k : NAN);
        std::uint32_t on = 0;
        for (std::size_t o = 0; o < outputs; ++o)
            on |= row.decisions[o].on ? 1U << o : 0U;
        if (logger.by_relay)
            on = plan.relays_at(row.time_s, on);
        for (std::size_t o = 0; o < outputs; ++o)
            t.columns[probes + o].values.push_back(on >> o & 1U);
        t.columns[probes + outputs].values.push_back(row.air_c);
        t.columns[probes + outputs + 1].values.push_back(row.plane_w_m2);
        if (gauge)
            t.columns[probes + outputs + 2].values.push_back(row.pressure_pa * 1e-5);
        for (std::size_t o = 0; logger.speeds && o < outputs; ++o)
            t.columns[t.columns.size() - outputs + o].values.push_back(row.decisions[o].on ? std::round(row.decisions[o].speed_pm * 100.0 / full_speed) : 0.0);
    };
    run_coupled(*setup, options);
    return t;
}

const std::vector<LoopAnswers>& audited_loops()
{
    static const std::vector<LoopAnswers> all = [] {
        std::vector<LoopAnswers> out;
        for (const Arrangement& a : presets())
            out.push_back(a.answers);
        for (const auto& [preset, given] : std::vector<std::pair<const char*, GivenAnswers>>{
                 {"pool", {{"transfer", "exchanger"}, {"exchanger_pumps", "two"}, {"power", "battery"}}},
                 {"drainback", {{"transfer", "exchanger"}, {"store", "two-tanks"}}},
                 {"dump", {{"store", "two-tanks"}, {"power", "panel"}}},
                 {"drainback", {{"store", "slab"}, {"excess", "house"}}},
                 {"glycol-coil", {{"backup", "heater-after"}}},
                 {"drainback", {{"backup", "heater-after"}, {"circulation", "taps"}}},
                 {"glycol-hx", {{"excess", "circulation"}, {"fields", "2"}}}})
            out.push_back(*complete(given, preset));
        return out;
    }();
    return all;
}

TruthCase truth_case(const std::string& preset, unsigned seed, int days) { return truth_case(preset_answers(preset), seed, days); }

TruthCase truth_case(const LoopAnswers& answers, unsigned seed, int days)
{
    TruthCase out{new_job(answers), {}};
    out.day = out.job.days.front();
    out.day.sky.clouds = static_cast<Clouds>(seed % 4);
    out.day.sky.seed = seed * 31 + 7;
    out.day.sky.month = 3 + static_cast<int>(seed % 7);
    out.day.length_days = days;
    return out;
}

} // namespace vernal
