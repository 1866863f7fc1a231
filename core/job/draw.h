// Hot water that somebody draws.
#pragma once

namespace vernal {

struct Draw {
    double start_h = 7.0;
    double duration_s = 600.0;
    double flow_m3_s = 1e-4; // at the tap, tempered
    bool operator==(const Draw&) const = default;
    double begins_s() const { return start_h * 3600.0; }
    double ends_s() const { return begins_s() + duration_s; }
};

} // namespace vernal
