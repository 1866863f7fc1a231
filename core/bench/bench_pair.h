// The pair of probes that the bench works at, as it is written.
#pragma once

#include "core/job/job.h"

#include <optional>

namespace vernal {

// What the words of a procedure mean on this unit.
struct BenchPair {
    std::size_t source = 0, store = 0, output = 0;
    double on_k = 0, off_k = 0;
    std::optional<double> limit_c; // acts at this reading of `limit_probe`
    std::size_t limit_probe = 0;
    std::optional<double> cut_out_c; // of the source
    double min_run_s = 0, min_rest_s = 0;
    double open_k = 0; // what probes, leads and stage leave open of a difference, ±K
};
// Of the first difference rule, as the variant is written. None: there is none.
std::optional<BenchPair> bench_pair(const Variant& v);

} // namespace vernal
