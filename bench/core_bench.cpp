// Core benchmarks: a day at one-second sampling, a year, one step of the engine.
#include "core/job/job.h"

#include <benchmark/benchmark.h>

#include <cmath>
#include <numbers>

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

// A year of seeded weather, one day after the other.
void year(benchmark::State& state)
{
    const Job job = new_job("glycol-coil");
    CoupledSetup s;
    std::vector<std::shared_ptr<const DayForcing>> days;
    for (int d = 0; d < 365; ++d) {
        Day spec = job.days[0];
        spec.sky.month = 1 + d * 12 / 365;
        spec.sky.day = 1 + (d - spec.sky.month * 365 / 12 + 31) % 28;
        spec.sky.seed = static_cast<std::uint32_t>(d);
        spec.sky.clouds = static_cast<Clouds>(d * 7 % 4);
        const double mean = 10 - 9 * std::cos(2 * std::numbers::pi * (d - 15) / 365);
        spec.sky.air_min_c = mean - 6;
        spec.sky.air_max_c = mean + 5;
        s = *coupled_setup(job, job.variants[0], spec);
        days.push_back(s.days[0]);
    }
    s.days = days;
    CoupledOptions o;
    o.keep_records = false;
    for (auto _ : state)
        benchmark::DoNotOptimize(run_coupled(s, o));
}
BENCHMARK(year)->Unit(benchmark::kMillisecond);

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
