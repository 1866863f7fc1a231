// Adds up the figures of a run.
#pragma once

#include "frost_watch.h"
#include "missed_sun.h"
#include "stop_counter.h"

namespace vernal {

class FigureCounter : public Listener {
public:
    // Of a simulation whose time begins here.
    explicit FigureCounter(const Simulation& s);
    void heat(const Simulation& s, const HeatFlows& q) override;
    void passed(const Simulation& s, double h, const DrawNow& draw) override;
    void decided(const Simulation& s, bool switched) override;
    Figures finished(const Simulation& s) const;
    double to_store_j() const { return figures_.heat.to_store; } // so far

private:
    void count_short(const Simulation& s, double h, const DrawNow& draw);
    Figures figures_;
    FrostWatch frost_;
    std::vector<RunCounter> counters_;
    StopCounter stops_;
    MissedSun missed_;
    std::vector<Latch> limits_; // of other readings than the store's
    double stored_at_start_;
};

} // namespace vernal
