// Paints the operating map: what the engine does at each pair of temperatures, the
// rules' lines with the width of their probes' errors, the path of the day.
#pragma once

#include "app/shell/session.h"
#include "map_geometry.h"
#include "map_third.h"

class QPainter;

namespace vernal {

// What is shown, as it stands at one repaint.
struct MapView {
    const Variant& variant;
    std::size_t output;
    MapGeometry geometry;
    MapAxes axes;
    std::vector<MapLine> lines;
    std::optional<MapThird> third;
    double third_share = 0;
};

QColor map_colour(const MapLine& line);

class MapPainter {
public:
    MapPainter(QPainter& p, const MapView& view, const Session& session) : p_(p), v_(view), session_(session) {}
    void paint();

private:
    void regions();
    void axes();
    void across();
    void up();
    void width(const MapLine& line);
    void path();
    void rise();
    void switches(const Outcome& o);
    void line(const MapLine& line);
    void found(); // by the audit of a log: where the unit itself switches
    void legend();
    QString probe_name(std::size_t probe) const;

    QPainter& p_;
    const MapView& v_;
    const Session& session_;
    double rise_at_ = 0; // W/m² of the rise's line; 0: there is none
};

} // namespace vernal
