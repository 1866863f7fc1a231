#include "acting.h"

#include <algorithm>

namespace vernal {

Acting acting(const CoupledSetup& setup, const Program& program, std::uint32_t running, const Decisions& decisions)
{
    const auto& drives = setup.drives;
    Acting out;
    out.running = running;
    for (std::size_t o = 0; o < program.outputs; ++o) {
        const bool on = (running >> o & 1U) != 0;
        if (drives[o] != Drives::loop)
            out.running &= ~(1U << o); // no pump or valve of the arrangement
        if (drives[o] == Drives::check_valve)
            out.shut = !on && (running & setup.opens_with[o]) == 0;
        if (drives[o] == Drives::drain_valve)
            out.emptied = !on;
        if (drives[o] != Drives::loop || o >= out.pumps.size() || !on)
            continue;
        out.pumps[o].share = decisions[o].speed_pm / static_cast<double>(full_speed);
        for (const Speed& s : program.speeds)
            out.pumps[o].bursts = out.pumps[o].bursts || (s.output == o && s.bursts);
    }
    return out;
}

double element_w(const Loop& loop, double time_of_day_s)
{
    const Element& e = loop.element;
    if (e.mode == ElementMode::off || !arrangement_of(loop).has(Part::element))
        return 0;
    const double h = time_of_day_s / 3600.0;
    const auto open = [h](const HeatingWindow& w) { return w.start_h <= w.end_h ? h >= w.start_h && h < w.end_h : h >= w.start_h || h < w.end_h; };
    return e.mode == ElementMode::always || std::any_of(e.windows.begin(), e.windows.end(), open) ? e.power_w : 0.0;
}

} // namespace vernal
