// Where the parts and pipes of an arrangement lie on its drawing: a sheet of
// 700 × 480 points that the program lays out from the arrangement's parts.
#pragma once

#include "core/plant/loop.h"

#include <QPolygonF>
#include <QRectF>

#include <map>
#include <optional>
#include <vector>

namespace vernal {

inline constexpr double sheet_w = 700, sheet_h = 480;

// A drawn pipe: the stretch whose temperatures it shows, and where that begins
// and ends on the line; a stub takes the nearest end's temperature.
struct SheetPipe {
    Segment shows;
    enum class Show { along,
        first,
        last } how = Show::along;
    QPolygonF line;
    std::size_t route = 0;
};

struct Sheet {
    std::map<Part, QRectF> place;
    std::vector<SheetPipe> pipes;
    std::map<ProbePlace, QPointF> probes;
    // Corners of an array: inlet side bottom, outlet side top and so on, clockwise from top left.
    std::map<Part, QPolygonF> array;
};

Sheet sheet_of(const Arrangement& arrangement);

} // namespace vernal
