// What the bench works at, as it is written: the pair of probes, freeze, low voltage, the knob.
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
    bool alone = true; // no other pair switches its output
    double open_k = 0; // what probes, leads and stage leave open of a difference, ±K
};
// Of the first difference rule, as the variant is written. None: there is none.
std::optional<BenchPair> bench_pair(const Variant& v);

// The first freeze recirculation in use.
struct BenchFreeze {
    std::size_t probe = 0, output = 0;
    double limit_c = 0, release_c = 0;
};
std::optional<BenchFreeze> bench_freeze(const Variant& v);

// The first low-voltage cut-out in use, of the unit's rules.
struct BenchLow {
    std::size_t output = 0;
    double cut_v = 0, reconnect_v = 0, delay_s = 0, reconnect_s = 0;
};
std::optional<BenchLow> bench_low(const Variant& v);

// The difference rule in use that the unit's one knob sets. Null: there is none.
LinkedDifference* knob_rule(Variant& v);

} // namespace vernal
