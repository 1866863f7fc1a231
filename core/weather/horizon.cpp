#include "horizon.h"

#include "core/units/constants.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace vernal {
namespace {

constexpr double disc_deg = 0.53;

double turned(double azimuth_deg) { return std::remainder(azimuth_deg, 360.0); } // −180…180

std::vector<HorizonPoint> in_order(std::vector<HorizonPoint> line)
{
    for (HorizonPoint& p : line)
        p.azimuth_deg = turned(p.azimuth_deg);
    std::stable_sort(line.begin(), line.end(), [](const HorizonPoint& a, const HorizonPoint& b) { return a.azimuth_deg < b.azimuth_deg; });
    return line;
}

// line: in order.
double height(const std::vector<HorizonPoint>& line, double azimuth_deg)
{
    if (line.empty())
        return 0;
    const double at = turned(azimuth_deg);
    const auto next = std::upper_bound(line.begin(), line.end(), at, [](double a, const HorizonPoint& p) { return a < p.azimuth_deg; });
    const HorizonPoint &a = next == line.begin() ? line.back() : *(next - 1), &b = next == line.end() ? line.front() : *next;
    const auto on = [](double d) { return d < 0 ? d + 360 : d; };
    const double between = on(b.azimuth_deg - a.azimuth_deg);
    return between <= 0 ? a.height_deg : std::lerp(a.height_deg, b.height_deg, on(at - a.azimuth_deg) / between);
}

// Area of a disc above a straight line that passes its centre at this distance below (in radii).
double disc_share(double below)
{
    const double d = std::clamp(below, -1.0, 1.0);
    return 1 - (std::acos(d) - d * std::sqrt(1 - d * d)) / std::numbers::pi;
}

double above(const SunPosition& sun, const std::vector<HorizonPoint>& line)
{
    return disc_share((90 - sun.zenith_deg - height(line, sun.azimuth_deg)) / (disc_deg / 2));
}

} // namespace

double horizon_at(const std::vector<HorizonPoint>& line, double azimuth_deg) { return height(in_order(line), azimuth_deg); }

double disc_above(const SunPosition& sun, const std::vector<HorizonPoint>& line) { return above(sun, in_order(line)); }

double sky_seen(const std::vector<HorizonPoint>& line)
{
    const auto ordered = in_order(line);
    constexpr int parts = 720;
    double hidden = 0;
    for (int i = 0; i < parts; ++i) {
        const double s = std::sin(height(ordered, -180.0 + 360.0 * (i + 0.5) / parts) * degree_rad);
        hidden += s * s / parts;
    }
    return 1 - hidden;
}

SkyDay seen_from(const SkyDay& day, const Skyline& skyline)
{
    if (skyline.open())
        return day;
    const auto line = in_order(skyline.horizon);
    const double seen = sky_seen(line);
    SkyDay out = day;
    for (std::size_t m = 0; m < out.sun.size(); ++m) {
        double beam = line.empty() ? 1.0 : above(out.sun[m], line);
        const double hour = static_cast<double>(m) / 60.0;
        for (const Shade& s : skyline.shades)
            if (hour >= s.from_h && hour < s.to_h)
                beam *= s.passes;
        out.beam_normal_w_m2[m] *= beam;
        out.diffuse_horizontal_w_m2[m] *= seen;
        out.sky_c[m] = std::lerp(out.air_c[m], out.sky_c[m], seen);
    }
    return out;
}

} // namespace vernal
