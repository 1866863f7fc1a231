// What a job must keep to that the range of no single field can say. Readers refuse a
// file that does not, and no edit may lead there.
#pragma once

#include "job.h"

#include <optional>

namespace vernal {

inline constexpr std::size_t most_variants = 200, most_days = 2000, most_horizon_points = 360, most_shades = 48, most_faults = 100, most_bench_records = 2000;
// Of the logbook; of a visit: entries of a kind.
inline constexpr std::size_t most_visits = 1000, most_of_a_visit = 1000;

struct JobProblem {
    std::string at; // as in the file: "variants[0].probes[2].key"
    std::string what, remedy;
};

// Variants, days, and in each variant probes and outputs have names, or keys, of
// their own; a unit holds no more than it has room for; files kept with the job have
// plain names. None: it does.
std::optional<JobProblem> job_problem(const Job& job);

// Could be a file's name in one folder: no slash, no "..", no control character, at most 200 bytes.
bool is_plain_name(const std::string& name);

// As a trace of this file can be called: its name, or with a number before it. What cannot
// stand in a file's name is left out.
std::string free_trace_name(const Job& job, const std::string& file);

// The base, or with a number behind it, as none of the items is named.
template <class Items>
std::string free_name(const Items& items, const std::string& base)
{
    for (int n = 1;; ++n) {
        std::string name = n == 1 ? base : base + " " + std::to_string(n);
        bool taken = false;
        for (const auto& x : items)
            taken = taken || x.name == name;
        if (!taken)
            return name;
    }
}

} // namespace vernal
