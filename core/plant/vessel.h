// Pressure of a closed loop: the fluid's expansion into the vessel's gas, steam
// in a stagnating collector, and what the relief valve lets out for good. Steam is an
// equilibrium: pressure and boiling point settle together. While there is some, the
// pressure where it stands is the fluid's saturation there, and the gauge adds the height
// between; without any, or once all that is hot enough is steam, the vessel decides.
#pragma once

#include "network.h"

#include <limits>

namespace vernal {

struct VesselFigures {
    double highest_pa = -std::numeric_limits<double>::infinity(); // above the air's
    double lowest_pa = std::numeric_limits<double>::infinity();
    double lost_kg = 0; // through the relief valve
    double steam_s = 0; // with steam in the collector
};

// Fluid masses and gas of a loop at a fill temperature.
class Pressure {
public:
    // altitude_m decides the air's pressure and with it the boiling point.
    Pressure(const Network& network, const Loop& loop, double altitude_m);
    bool present() const { return present_; }

    // The loop at these temperatures, `seconds` after the last call. While the array
    // is cool the gauge is read only every few minutes: nothing happens quickly then.
    void pass(const std::vector<double>& t, double seconds);
    void settle(const std::vector<double>& t, double seconds); // reads it now
    double pa() const { return pa_; }                          // above the air's, at the vessel
    double boils_at_c() const { return boils_at_c(pa_); }      // in the collector, now
    // Which arrays hold steam: from the first that stands in one until all in it has condensed.
    const std::array<bool, 2>& steamed() const { return steamed_; }
    // As on the day it was filled, cold.
    void refill();
    // Of the cold pressure as filled this share has gone with its fluid, 0…1; 0: it is made good again.
    void lose(double share);
    // Where the gauge stands once all is cold again, Pa.
    double cold_pa() const;
    const VesselFigures& figures() const { return figures_; }

private:
    double top_pa(double pa) const;
    double boils_at_c(double pa) const;
    // Mass that stands as fluid in the loop, kg, with steam where it is hotter than this.
    double fluid_kg(const std::vector<double>& t, double boils_c) const;
    double gas_pa(double water_m3) const; // of the vessel with so much fluid in it
    double density(double t_c) const;
    const Network& network_;
    const Loop& loop_;
    bool present_;
    double raised_k_ = 0; // by glycol, over water's boiling point
    double air_pa_, content_m3_ = 0, mass_kg_ = 0, missing_kg_ = 0, filled_kg_ = 0, pa_ = 0;
    std::vector<std::size_t> nodes_;
    double waited_s_ = 0;
    std::array<bool, 2> steamed_{};
    std::vector<double> density_; // per degree
    VesselFigures figures_;
};

inline constexpr double hot_loop_c = 120.0; // of a loop that is about to steam; estimate

// Field sums of the same: fluid that a loop holds, m³, of what runs through its collector.
double ring_content_m3(const Loop& loop);
// Expansion from cold to hot, m³ per m³ of fluid.
double expansion(double glycol_fraction, double cold_c, double hot_c);
// Volume of a vessel, m³, that takes the expansion and the collector's content as
// steam between cold fill and nine tenths of the relief pressure, and keeps a
// reserve of half a percent of the loop, at least 3 L: Boyle's law (EN 12977-1
// annex and VDI 6002 reckon alike; from memory).
double vessel_for(const Loop& loop, double hot_c);

} // namespace vernal
