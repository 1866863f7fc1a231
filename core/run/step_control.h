// How long a step may be.
#pragma once

#include "weather_at.h"

#include <cstdint>
#include <vector>

namespace vernal {

struct CoupledSetup;

inline constexpr double resting_share = 0.07; // of the error tolerance, while all rests

// Lengths in samples. Free steps take divisors of a minute, so that weather points
// are met and the solver's factors can be used again.
class StepControl {
public:
    explicit StepControl(const CoupledSetup& setup);

    // Edges of this day: draws, windows, presses, mains.
    void begin_day(const DayForcing& day);

    // Longest step from t, in samples of sample_s; until_s: something changes there.
    std::int64_t allowed(double t, double until_s) const;
    bool fixed() const { return step_s_ > 0; }
    // A sample longer than this is walked in pieces, s.
    double longest_piece_s() const { return fixed() ? step_s_ : 1.0; }

    // While all rests, readings creep towards their thresholds: a little error is a
    // long time then, and few steps are needed anyway.
    double error_tolerance_k(bool resting) const;
    // Length to try after one of n samples that had too large an error.
    std::int64_t shorter(std::int64_t n, double error_k, bool resting) const;
    void accepted(std::int64_t n, double error_k, bool resting) { wish_ = static_cast<double>(n) * growth(error_k, resting); }
    void begin_anew(double samples) { wish_ = samples; }

private:
    // As a factor of this step, the step that would have had the tolerated error,
    // which goes with the third power of the step.
    double growth(double error_k, bool resting) const;
    static std::int64_t usual_length(std::int64_t n);

    double step_s_, sample_s_, tolerance_k_, resting_tolerance_k_ = 0;
    double wish_ = 1.0; // samples
    std::vector<double> fixed_edges_, edges_, straight_until_;
};

} // namespace vernal
