// Settings of a real unit as a log shows them, each with its interval and what it rests on.
#pragma once

#include "log_view.h"
#include "threshold.h"

namespace vernal {

// An instant at which an output switched, between two rows of the log.
struct Switching {
    std::size_t row = 0; // the first with the new state
    bool on = false;
    double difference_k = 0, store_c = 0, source_c = 0; // at the last row before
};

struct FoundSettings {
    std::size_t output = 0;
    std::size_t source = 0, store = 0; // probes of the pair
    std::optional<Estimate> on_k, off_k;
    std::optional<Estimate> limit_c; // of the store's probe that it obeys
    std::size_t limit_probe = 0;
    std::optional<Estimate> cut_out_c;             // of the source
    std::optional<Estimate> min_run_s, min_rest_s; // minimum run and rest times
    std::optional<Estimate> on_moves, off_moves;   // K of difference per K of the store; of one that is fixed it holds 0
    enum class Pair : std::uint8_t { fixed,
        moves, // with the temperature, as one knob or a bridge does
        not_told };
    Pair pair = Pair::not_told;
    bool no_latch = false; // on and off are one point
    struct Speeds {
        Estimate least_share;          // of full speed
        std::optional<Estimate> per_k; // share of full speed per K of difference, between least and full
        std::vector<double> steps;     // shares, where it runs at a few speeds only
    };
    std::optional<Speeds> speeds;
    std::vector<Switching> switchings;
};

// Of every output that some difference rule of the variant drives, and that the log has, the
// pair of probes being the rule's; of the loop's pump without such a rule the first two places.
std::vector<FoundSettings> found_settings(const LogView& log, const Variant& v);

} // namespace vernal
