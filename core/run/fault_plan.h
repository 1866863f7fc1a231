// What is wrong for a while in a run, and when that changes. Seconds since the run's beginning.
#pragma once

#include "core/plant/hydraulic_state.h"
#include "readings.h"

#include <memory>
#include <vector>

namespace vernal {

struct Stretch {
    double from_s = 0, to_s = 0;
    bool holds(double t) const { return t >= from_s && t < to_s; }
};

// Added to what a probe's tip has, before the chain to its reading.
struct TipFault {
    enum class Kind : std::uint8_t { drifts, // by_k at the stretch's end, evenly from 0
        spikes,                              // by_k for ten seconds, once in five minutes
        reads_air,                           // a share of the outdoor air
        reads_room };                        // a share of where the tank stands
    Stretch when;
    std::size_t probe = 0; // whose tip
    Kind kind = Kind::drifts;
    double by_k = 0, share = 0, room_c = 20;
    // What the tip seems to have at an instant in the stretch; rises with tip_c.
    double seen(double t, double tip_c, double air_c) const;
    double next_change_s(double t) const; // after t; of spikes their edges
};

// An output of which something else comes than the unit decides.
struct RelayFault {
    enum class Kind : std::uint8_t { on,
        off,
        chatters }; // half on, half off, while the unit asks for it
    Stretch when;
    std::size_t output = 0;
    Kind kind = Kind::on;
    double every_s = 10;                          // chatters
    bool comes_out(double t, bool decided) const; // at an instant in the stretch
};

struct FaultPlan {
    struct SensorStretch { // what the unit's inputs are like in place of the setup's
        Stretch when;
        Sensors sensors;
    };
    struct Water {
        Stretch when;
        WaterFaults what;
        double pressure_share = 0; // of the cold pressure, gone from its beginning to its end
    };
    struct Supply {
        Stretch when;
        double most_v = 0;
    };
    struct Clock {
        Stretch when;
        double ahead_s = 0;
    };
    std::vector<SensorStretch> sensors; // that do not overlap
    std::vector<TipFault> tips;
    std::vector<RelayFault> relays;
    std::vector<Water> water;
    std::vector<Supply> supply;
    std::vector<Clock> clock;

    bool empty() const { return sensors.empty() && tips.empty() && relays.empty() && water.empty() && supply.empty() && clock.empty(); }
    double next_change_s(double t) const; // the first instant after t at which one begins, ends or turns over; infinity
    const Sensors* sensors_at(double t) const;
    WaterFaults water_at(double t) const;
    double pressure_lost_at(double t) const; // share
    double seen(std::size_t probe, double t, double tip_c, double air_c) const;
    std::uint32_t relays_at(double t, std::uint32_t decided) const;
    double supply_v(double t, double volt) const;
    double clock_ahead_s(double t) const;
};

} // namespace vernal
