// What a loop should show now: from the hour, the sky and the store's temperature, with bands.
// Quasi-steady sums, not a run: nothing is known of how the day went so far.
#pragma once

#include "bench_pair.h"

namespace vernal {

struct Band {
    double low = 0, mid = 0, high = 0;
    bool holds(double x) const { return x >= low && x <= high; }
};

struct NowGiven {
    int year = 2026, month = 6, day = 21;
    double hour = 12; // of the clock at the job's place
    Clouds clouds = Clouds::clear;
    Haze haze = Haze::usual;
    double air_c = 20;
    double store_c = 40; // at the store's probe
};

enum class NowState : std::uint8_t { runs,
    rests,
    either }; // what is not known decides

struct Expected {
    NowState state = NowState::either;
    std::string because;                 // why it rests, or may
    Band sun_w_m2;                       // on the first array
    Band flow_m3_s, rise_k;              // while it runs, and has for a quarter of an hour
    Band heat_w, power_w;                // likewise; power: of the pump
    std::optional<Band> volt, current_a; // of a pump on a panel
    Band array_c;                        // at its outlet: running, or at rest where it rests
    std::optional<Band> gauge_pa;        // of a closed loop, as it stands now
    std::optional<Band> next_h;          // of the clock, today: when it next stops where it runs, else starts
};

// Of the job's first array and pair. None: the loop has no pump, or no difference starts it.
std::optional<Expected> expect_now(const Job& job, const Variant& v, const NowGiven& given);

} // namespace vernal
