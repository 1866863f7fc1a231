// How the difference of two probes went beside the output that it switches.
#pragma once

#include "log_view.h"
#include "threshold.h"

#include <functional>

namespace vernal {

// Rows are those of the log; a switching's row is the first with the new state.
class PairCourse {
public:
    PairCourse(const LogView& log, std::size_t output, std::size_t source, std::size_t store);

    double difference(std::size_t row) const { return log_.reading(source_, row) - log_.reading(store_, row); } // K
    double sigma_k() const { return sigma_k_; }                                                                 // of it
    double rounding_k() const;

    // What `value` did from the row before a switching on; up: in the direction of the setting.
    Crossing crossing(std::size_t row, bool up, double sigma, double rounding_k, const std::function<double(std::size_t)>& value) const;

    // The difference went towards this switching, beyond what noise makes of it: a limit stops a
    // run in whatever the difference does. True where the state was too short to say.
    bool on_its_way(std::size_t row, bool on) const;

    // Earlier in the same state the difference stood well farther, and nothing switched: then it
    // was not the difference that switched now. Before `from_s` a minimum time may have held it.
    bool had_been_past(std::size_t row, bool on, double from_s) const;

    // In the rest after a stop the difference went well above the start and nothing started:
    // what held it had made the stop. Until `until_s` a minimum time may have held it.
    bool held_after(std::size_t row, double on_k, double until_s) const;

    // Before a start it stood above the setting for two rows already: something held it.
    bool held_above(std::size_t row, double on_k) const;

private:
    double slope(std::size_t last, const std::function<double(std::size_t)>& value) const;
    double two_rows(std::size_t row) const { return (difference(row) + difference(row - 1)) / 2; } // against noise
    const LogView& log_;
    std::size_t output_, source_, store_;
    double sigma_k_;
};

} // namespace vernal
