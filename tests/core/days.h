// Seeded days for the tests of runs.
#pragma once

#include "core/job/job.h"
#include "core/setup/job_setup.h"

#include <cmath>
#include <numbers>

namespace vernal::testing_days {

// The instrumented build looks for other faults and is many times as slow: a part must do.
#ifdef __SANITIZE_ADDRESS__
inline constexpr bool instrumented = true;
#else
inline constexpr bool instrumented = false;
#endif

// One of twenty days over the seasons and the kinds of cloud, with a setup of its own.
inline CoupledSetup day_of(const Job& job, int i)
{
    Day d = job.days.front();
    d.sky.month = 1 + (i * 7) % 12;
    d.sky.day = 3 + i;
    d.sky.clouds = static_cast<Clouds>(i % 4);
    d.sky.seed = static_cast<std::uint32_t>(100 + i);
    d.sky.air_min_c = -4 + (i * 5) % 17;
    d.sky.air_max_c = d.sky.air_min_c + 10;
    CoupledSetup s = *coupled_setup(job, job.variants.front(), d);
    s.spin_up_days = 1; // however often: both that are compared begin alike
    return s;
}

inline CoupledSetup day_of(const char* preset, int i) { return day_of(new_job(preset), i); }

inline std::vector<CoupledSetup> twenty(const char* arrangement)
{
    std::vector<CoupledSetup> out;
    for (int i = 0; i < 20; i += instrumented ? 5 : 1)
        out.push_back(day_of(arrangement, i));
    return out;
}

// A year of seeded weather, one day after the other, the kinds of cloud in turn.
inline CoupledSetup year(const Job& job)
{
    std::vector<std::shared_ptr<const DayForcing>> days;
    CoupledSetup s;
    for (int d = 0; d < 365; ++d) {
        Day spec = job.days.front();
        spec.sky.month = 1 + d * 12 / 365;
        spec.sky.day = 1 + (d - spec.sky.month * 365 / 12 + 31) % 28;
        spec.sky.seed = static_cast<std::uint32_t>(d);
        spec.sky.clouds = static_cast<Clouds>(d * 7 % 4);
        const double mean = 10 - 9 * std::cos(2 * std::numbers::pi * (d - 15) / 365);
        spec.sky.air_min_c = mean - 6;
        spec.sky.air_max_c = mean + 5;
        s = *coupled_setup(job, job.variants.front(), spec);
        days.push_back(s.days.front());
    }
    s.days = std::move(days);
    return s;
}

} // namespace vernal::testing_days
