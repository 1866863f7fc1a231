// Core benchmarks: a day at one-second sampling, a year, one step of the engine.
#include "core/setup/job_setup.h"
#include "tests/core/days.h"

#include <benchmark/benchmark.h>

#include <array>

using namespace vernal;

namespace {

void day(benchmark::State& state)
{
    const Job job = new_job("glycol-coil");
    const CoupledSetup s = *coupled_setup(job, job.variants[0], job.days[static_cast<std::size_t>(state.range(0))]);
    for (auto _ : state)
        benchmark::DoNotOptimize(run_coupled(s));
    state.SetLabel(job.days[static_cast<std::size_t>(state.range(0))].name);
}
BENCHMARK(day)->DenseRange(0, 2)->Unit(benchmark::kMillisecond);

// Arrangements by number: glycol with coil first, the dearest last.
void year(benchmark::State& state)
{
    const char* key = std::array{"glycol-coil", "direct", "glycol-hx", "two-stores", "two-arrays"}[static_cast<std::size_t>(state.range(0))];
    const CoupledSetup s = testing_days::year(new_job(key));
    state.SetLabel(key);
    CoupledOptions o;
    o.keep_records = false;
    for (auto _ : state)
        benchmark::DoNotOptimize(run_coupled(s, o));
}
BENCHMARK(year)->DenseRange(0, 4)->Unit(benchmark::kMillisecond);

// A typical unit of twelve rules: a drain-back loop with backup heating, a valve
// and all that protects them. Beside it the four rules of a plain loop.
RuleSet twelve()
{
    RuleSet s;
    s.outputs = {Output{"P1", "Loop pump"}, Output{"H1", "Element"}, Output{"V1", "Valve"}};
    const auto kelvin = [](double k) { return TempDiff::kelvin(k); };
    s.rules = {Rule{"P1", true, DrainTime{180}}, Rule{"P1", true, LowVoltage{}}, Rule{"P1", true, CutOut{"S1"}}, Rule{"V1", true, Divert{"S1"}}, Rule{"P1", true, Divert{"S1"}},
        Rule{"P1", true, StoreLimit{"S3"}}, Rule{"P1", true, Fill{120, 1.0, "S1"}}, Rule{"P1", true, RunTimes{60, 120}}, Rule{"P1", true, Differential{"S1", "S2", kelvin(8), kelvin(4), {5, 0}}},
        Rule{"P1", true, SpeedByDifference{"S1", "S2"}}, Rule{"H1", true, Heating{"S3", {HeatWindow{4, 8}, {}, {}}, "P1"}}, Rule{"H1", true, Disinfection{"S2"}}};
    return s;
}

void engine_step(benchmark::State& state)
{
    const Variant v = new_job("glycol-coil").variants[0];
    const RuleSet set = state.range(0) == 12 ? twelve() : v.unit;
    const Program p = compile(set, probe_keys(v)).program;
    EngineState s = power_up(p);
    Inputs in;
    in.readings[1].mk = 20000;
    in.readings[supply_channel].mk = 12500;
    for (auto _ : state) {
        in.readings[0].mk = (in.readings[0].mk + 7) % 40000;
        in.clock_ms = (in.clock_ms + 1000) % day_ms;
        benchmark::DoNotOptimize(step(p, in, s));
    }
}
BENCHMARK(engine_step)->Arg(4)->Arg(12);

} // namespace
