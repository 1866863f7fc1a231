#include "map_geometry.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr double grab_px = 14;

double distance_to_segment(const QPointF& p, const QPointF& a, const QPointF& b)
{
    const QPointF d = b - a, q = p - a;
    const double len2 = QPointF::dotProduct(d, d);
    const double t = len2 > 0 ? std::clamp(QPointF::dotProduct(q, d) / len2, 0.0, 1.0) : 0.0;
    const QPointF r = q - t * d;
    return std::hypot(r.x(), r.y());
}

} // namespace

QPointF MapGeometry::at(double store_c, double source_c) const
{
    return {area.left() + (store_c - lowest_store_c) / (highest_store_c - lowest_store_c) * area.width(), y_at(plain ? source_c : source_c - store_c)};
}

double MapGeometry::source_at(const QPointF& p) const
{
    const double y = low_y() + (area.bottom() - p.y()) / area.height() * (high_y() - low_y());
    return plain ? y : y + store_at(p.x());
}

std::pair<QPointF, QPointF> MapGeometry::ends(const MapLine& line) const
{
    const double v = line.value;
    if (line.kind == MapLine::Kind::level)
        return {at(lowest_store_c, lowest_store_c + v), at(highest_store_c, highest_store_c + v)};
    if (line.kind == MapLine::Kind::slanted)
        return {at(lowest_store_c, v), at(highest_store_c, v)};
    const double x = at(v, v).x();
    return {QPointF(x, area.bottom()), QPointF(x, area.top())};
}

double MapGeometry::value_at(MapLine::Kind kind, const QPointF& p) const
{
    const double store = store_at(p.x()), source = source_at(p);
    const double v = kind == MapLine::Kind::level ? source - store : kind == MapLine::Kind::upright ? store
                                                                                                    : source;
    return std::round(v * 10) / 10;
}

std::optional<QPointF> MapGeometry::handle(const MapLine& line) const
{
    if (line.kind == MapLine::Kind::banner)
        return {};
    const auto [from, to] = ends(line);
    if (line.kind == MapLine::Kind::upright)
        return area.contains(from - QPointF(0, 1)) ? std::optional(QPointF(from.x(), area.top() + area.height() * 0.25)) : std::nullopt;
    for (double f : {0.72, 0.9, 0.5, 0.3, 0.98, 0.05})
        if (const QPointF p = from + f * (to - from); area.contains(p))
            return p;
    return {};
}

std::optional<double> MapGeometry::exit_above(const MapLine& line) const
{
    if (line.kind == MapLine::Kind::banner || line.kind == MapLine::Kind::upright)
        return {};
    const auto [from, to] = ends(line);
    if (from.y() == to.y())
        return from.y() < area.top() ? std::optional(area.right()) : std::nullopt;
    const double share = (area.top() - from.y()) / (to.y() - from.y());
    if (share < 0 || share > 1)
        return from.y() < area.top() ? std::optional(area.right()) : std::nullopt;
    return from.x() + share * (to.x() - from.x());
}

const MapLine* MapGeometry::near(const QPointF& p, const std::vector<MapLine>& lines) const
{
    const MapLine* best = nullptr;
    double nearest = grab_px;
    for (const MapLine& line : lines) {
        if (line.kind == MapLine::Kind::banner)
            continue;
        const auto [from, to] = ends(line);
        if (const double d = distance_to_segment(p, from, to); d < nearest) {
            nearest = d;
            best = &line;
        }
    }
    return best;
}

} // namespace vernal
