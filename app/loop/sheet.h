// Where the parts and pipes of a loop lie on its drawing: a sheet of 700 × 480
// points, wider where much stands between array and store or before the taps. Each part lays itself
// out, in its file in parts/.
#pragma once

#include "core/plant/loop.h"

#include <QLineF>
#include <QPolygonF>
#include <QRectF>

#include <map>
#include <vector>

namespace vernal {

inline constexpr double least_sheet_w = 700, sheet_h = 480;

// A drawn pipe: the stretch whose temperatures it shows, and where that begins
// and ends on the line; a stub takes the nearest end's temperature.
struct SheetPipe {
    Segment shows;
    enum class Show { along,
        first,
        last } how = Show::along;
    QPolygonF line;
    Segment with = shows; // dark while fluid runs through this one
};

struct Sheet {
    double width = least_sheet_w;
    double left = 0; // where the loop begins; before it lies what leads to the taps
    std::map<Part, QRectF> place;
    std::vector<SheetPipe> pipes;
    std::map<ProbePlace, QPointF> probes;
    // Corners of an array: inlet side bottom, outlet side top and so on, clockwise from top left.
    std::map<Part, QPolygonF> array;
    enum class Side { left,
        right,
        above };
    std::map<Part, Side> pump_words;          // where its output and flow are written
    QLineF cable;                             // from the breaker to the pump; null: another part draws it
    bool lies_level(const QPointF& at) const; // a pipe that runs through here
};

Sheet sheet_of(const Arrangement& arrangement);

} // namespace vernal
