// Core benchmarks: a day at one-second sampling, a year, one step of the engine.
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

void engine_step(benchmark::State& state)
{
    const Variant v = new_job("glycol-coil").variants[0];
    const Program p = compile(v.unit, probe_keys(v)).program;
    EngineState s = power_up(p);
    Inputs in;
    in.readings[1].mk = 20000;
    for (auto _ : state) {
        in.readings[0].mk = (in.readings[0].mk + 7) % 40000;
        benchmark::DoNotOptimize(step(p, in, s));
    }
}
BENCHMARK(engine_step);

} // namespace
