// Hand valves on the drawing, and what flows in a state of service.
#pragma once

#include "core/plant/valve_board.h"
#include "scene.h"

namespace vernal {

struct SheetValve {
    HandValve valve;
    QPointF at;
    bool upright = false; // its pipe runs up and down
    QLineF stub;          // what it sits on beside the loop's own pipes; null: on one of them
    QRectF area() const { return {at.x() - 15, at.y() - 15, 30, 30}; }
};
// All that are fitted, in the order of the board, none over another, over a part or a probe.
std::vector<SheetValve> valves_on(const Sheet& sheet, const Loop& loop);

// Pipes and parts as they stand in a state, without temperatures, and the numbered valves.
void paint_board(const PartScene& scene, ServiceState state);

} // namespace vernal
