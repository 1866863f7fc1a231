// Seeded days for the tests of runs.
#pragma once

#include "core/job/job.h"

namespace vernal::testing_days {

// Twenty days over the seasons and the kinds of cloud, each with a setup of its own.
inline std::vector<CoupledSetup> twenty(const char* arrangement)
{
    std::vector<CoupledSetup> out;
    const Job job = new_job(arrangement);
    for (int i = 0; i < 20; ++i) {
        Day d = job.days.front();
        d.sky.month = 1 + (i * 7) % 12;
        d.sky.day = 3 + i;
        d.sky.clouds = static_cast<Clouds>(i % 4);
        d.sky.seed = static_cast<std::uint32_t>(100 + i);
        d.sky.air_min_c = -4 + (i * 5) % 17;
        d.sky.air_max_c = d.sky.air_min_c + 10;
        out.push_back(*coupled_setup(job, job.variants.front(), d));
    }
    return out;
}

} // namespace vernal::testing_days
