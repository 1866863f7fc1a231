// How a knot on an output's thread looks, and the thread's colour: in the ledger and at the bench.
#pragma once

#include "core/wording/threads.h"

#include <QColor>
#include <QPointF>

class QPainter;

namespace vernal {

inline constexpr double thin_thread_px = 2, thick_thread_px = 4;

// on: what the output does.
void paint_knot(QPainter& p, const QPointF& at, Knot knot, bool on);
// Of an output as it stands: moss runs, rust is held off by a protection, else grey.
QColor thread_colour(const Decision& d);

} // namespace vernal
