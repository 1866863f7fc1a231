// Why outputs stop: what held one on, what ended that, and how the sun stood.
#pragma once

#include "figures.h"
#include "listener.h"

namespace vernal {

class StopCounter {
public:
    explicit StopCounter(const Simulation& s);
    void decided(const Simulation& s);
    const std::vector<Stops>& stops() const { return stops_; }

private:
    void stopped(const Simulation& s, std::size_t output);
    Stops::Sun sun_at(const Simulation& s, std::int16_t rule, std::size_t output, double run_s, double& rise_k, double& sun_w_m2) const;
    struct Output {
        Decision held;
        double since_s = NAN; // NaN: it ran before anything counted
        bool on = false;
    };
    std::vector<Output> outputs_;
    std::vector<Stops> stops_;
};

} // namespace vernal
