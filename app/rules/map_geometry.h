// Where temperatures lie on the operating map.
#pragma once

#include "core/wording/map_lines.h"

#include <QRectF>

#include <utility>

namespace vernal {

// Store across; up the source, or what it is above the store.
struct MapGeometry {
    static constexpr double lowest_store_c = 0, highest_store_c = 100;
    QRectF area;
    bool plain = false; // the source itself is up

    double low_y() const { return plain ? -20 : -12; }
    double high_y() const { return plain ? 140 : 40; }
    double y_at(double value) const { return area.bottom() - (value - low_y()) / (high_y() - low_y()) * area.height(); }
    QPointF at(double store_c, double source_c) const;
    double store_at(double x) const { return lowest_store_c + (x - area.left()) / area.width() * (highest_store_c - lowest_store_c); }
    double source_at(const QPointF& p) const;
    std::pair<QPointF, QPointF> ends(const MapLine& line) const; // not of a banner
    // What a line that runs through this point has for its value.
    double value_at(MapLine::Kind kind, const QPointF& p) const;
    // Where a line is grabbed; nothing: none of it is on the map.
    std::optional<QPointF> handle(const MapLine& line) const;
    // Where a slanted line leaves the map by its upper edge, x; nothing: it does not.
    std::optional<double> exit_above(const MapLine& line) const;
    // The line within reach of this point; nullptr: none.
    const MapLine* near(const QPointF& p, const std::vector<MapLine>& lines) const;
};

} // namespace vernal
