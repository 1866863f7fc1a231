// What stands between an array and the sun: the horizon's line, and near objects by the hour.
#pragma once

#include "day.h"

namespace vernal {

// A point of the line: azimuth from south, west positive, −180…180°; height above level, 0…90°.
// Between points the line is straight; round the back it closes.
struct HorizonPoint {
    double azimuth_deg = 0.0;
    double height_deg = 0.0;
    bool operator==(const HorizonPoint&) const = default;
};

// A chimney, a tree, a mast: what it leaves of the beam while its shade lies on the array, by the
// clock of the day.
struct Shade {
    double from_h = 15.0, to_h = 17.0;
    double passes = 0.0; // of the beam, 0…1
    bool operator==(const Shade&) const = default;
};

struct Skyline {
    std::vector<HorizonPoint> horizon; // in any order; none: level
    std::vector<Shade> shades;
    bool operator==(const Skyline&) const = default;
    bool open() const { return horizon.empty() && shades.empty(); }
};

// Height of the line, degrees.
double horizon_at(const std::vector<HorizonPoint>& line, double azimuth_deg);

// Of the sun's disc (half a degree wide) what stands above the line, 0…1.
double disc_above(const SunPosition& sun, const std::vector<HorizonPoint>& line);

// Of an evenly bright sky what a level surface sees above the line: 1 − mean of sin² of its height.
double sky_seen(const std::vector<HorizonPoint>& line);

// The day as the array has it. The beam goes behind the line and the shades; the diffuse light and what
// is cold of the sky are taken by the share of the sky that is seen, near objects being small in it.
SkyDay seen_from(const SkyDay& day, const Skyline& skyline);

} // namespace vernal
