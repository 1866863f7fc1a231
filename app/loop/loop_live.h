// What the drawing shows at the cursor; shared by the files that paint it.
#pragma once

#include "sheet.h"

#include "app/shell/session.h"

#include <QColor>

namespace vernal {

struct LoopLive {
    bool known = false;
    unsigned drained = 0; // bit per array: it stands empty
    std::uint32_t running = 0;
    std::array<std::vector<double>, segments> along; // °C in the order of the flow
    std::vector<double> tank, tank_2;                // from the bottom
    std::vector<double> tank_layers;                 // shares of its height
    std::array<bool, segments> flows{};              // through a stretch
    std::array<double, driver_count> flow_m3_s{};    // that each moves, or that moves by itself
    double store = NAN, plane = 0, air = 0, power_volt = 0, charge = NAN, pressure_pa = NAN, element_w = 0, heater_w = 0, reverse_m3_s = 0, wet_share = 1;
    Trouble trouble = Trouble::none;
    const std::vector<double>& of(Segment s) const { return along[static_cast<std::size_t>(s)]; }
    bool flow_in(Segment s) const { return flows[static_cast<std::size_t>(s)]; }
    double flow_of(Driver pump) const { return flow_m3_s[static_cast<std::size_t>(pump)]; }
    bool runs(std::size_t output) const { return (running >> output & 1U) != 0; }
};

// Of a coupled outcome at one of its records; network: built from its setup.
LoopLive live_at(const Outcome& outcome, std::size_t record, const Network& network, const Arrangement& arrangement);

QColor temperature_colour(double c); // cool slate to warm copper, muted

} // namespace vernal
